// Tone curve: one monotone smooth curve for all three channels, in the encoded domain.
import type { CurvePoint } from '../document'
import { monotoneCurve } from '../monotone-curve'
import { curveOperation } from '../operation'
import { defineStepKind } from '../step-kind'

// Zero light and eight stops over grey in working log: the ends of the straight curve one begins with.
const start: readonly CurvePoint[] = [{ x: 0.0729, y: 0.0729 }, { x: 0.8702, y: 0.8702 }]

export const toneCurve = defineStepKind<{ points: readonly CurvePoint[] }>({
  id: 'tone-curve',
  name: 'Tone curve',
  tip: 'Moves tones by points on a smooth line; it never folds back between them.',
  station: 'shape',
  domain: 'encoded',
  pixelByPixel: true,
  regional: false,
  parameters: {
    points: { type: 'curve', label: 'Tone curve', tip: 'Tone in across, tone out upward.', default: start, min: -0.3, max: 1.3, maxPoints: 32 },
  },
  isNeutral: ({ points }) => points.every(({ x, y }) => x === y),
  prepare: ({ points }) => curveOperation(monotoneCurve(points)),
})
