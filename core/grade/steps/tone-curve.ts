// Tone curve: monotone smooth curves in the encoded domain: one for all three channels, and one more for each.
import type { CurvePoint } from '../document'
import { monotoneCurve } from '../monotone-curve'
import { channelCurves, curveOperation, type Curve } from '../operation'
import { defineStepKind, isNeutralCurve, type CurveParameter, type NumberParameter } from '../step-kind'

// Zero light and eight stops over grey in working log: the ends of the straight curve one begins with.
const start: readonly CurvePoint[] = [
  { x: 0.0729, y: 0.0729 },
  { x: 0.8702, y: 0.8702 },
]
const axis = { min: -0.3, max: 1.3, unit: 'log' } as const

const curve = (label: string, tip: string): CurveParameter => ({
  type: 'curve',
  label,
  tip,
  default: start,
  x: axis,
  y: axis,
  maxPoints: 32,
})
const strength = (label: string): NumberParameter => ({
  type: 'number',
  label,
  tip: "How much of this channel's own curve is mixed in.",
  unit: '%',
  min: 0,
  max: 1,
  default: 1,
  step: 0.01,
  decimals: 0,
  shownFactor: 100,
})

type ToneCurves = { readonly [K in 'points' | 'red' | 'green' | 'blue']: readonly CurvePoint[] } & {
  readonly [K in 'redStrength' | 'greenStrength' | 'blueStrength']: number
}

const parameters = {
  points: curve('Tone curve', 'Tone in across, tone out upward, for all three channels.'),
  red: curve('Red curve', 'For red alone, behind the curve of all.'),
  green: curve('Green curve', 'For green alone, behind the curve of all.'),
  blue: curve('Blue curve', 'For blue alone, behind the curve of all.'),
  redStrength: strength('Red strength'),
  greenStrength: strength('Green strength'),
  blueStrength: strength('Blue strength'),
} as const

const straight = (points: readonly CurvePoint[], share: number): boolean =>
  share === 0 || isNeutralCurve(parameters.points, points)
function channelCurve(points: readonly CurvePoint[], share: number): Curve {
  if (straight(points, share)) return (v) => v
  const bent = monotoneCurve(points)
  return (v) => v + (bent(v) - v) * share
}

export const toneCurve = defineStepKind<ToneCurves>({
  id: 'tone-curve',
  name: 'Tone curve',
  tip: 'Moves tones by points on a smooth line; it never folds back between them.',
  station: 'shape',
  domain: 'encoded',
  pixelByPixel: true,
  order: 40,
  page: 'tones',
  firstSide: 'working',
  stands: 'always',
  many: false,
  inRegions: 'always',
  parameters,
  isNeutral: (p) =>
    isNeutralCurve(parameters.points, p.points) &&
    straight(p.red, p.redStrength) &&
    straight(p.green, p.greenStrength) &&
    straight(p.blue, p.blueStrength),
  prepare: ({ points, red, green, blue, redStrength, greenStrength, blueStrength }) => {
    const all = monotoneCurve(points)
    if (straight(red, redStrength) && straight(green, greenStrength) && straight(blue, blueStrength))
      return curveOperation(all)
    const [r, g, b] = [
      channelCurve(red, redStrength),
      channelCurve(green, greenStrength),
      channelCurve(blue, blueStrength),
    ]
    return channelCurves(
      (v) => r(all(v)),
      (v) => g(all(v)),
      (v) => b(all(v)),
    )
  },
})
