// Colour curves: hue, saturation and lightness changed by hue; saturation changed by lightness and by itself. In Oklab
// of linear light.
import { fromOklab, middleGrey, oklabOf, toOklab } from '../../colour'
import type { CurvePoint } from '../document'
import { monotoneCurve } from '../monotone-curve'
import { pixelsOperation, type Curve, type PixelOperation } from '../operation'
import { periodicCurve } from '../periodic-curve'
import { smoothStep } from '../smooth-step'
import { defineStepKind, isNeutralCurve, type CurveParameter } from '../step-kind'

const hue = { min: 0, max: 360, unit: '°' } as const
const gain = { min: 0, max: 3, unit: '×' } as const
/** Two points that change nothing, on one side of the wheel and the other. */
const round = (neutral: number): readonly CurvePoint[] => [
  { x: 30, y: neutral },
  { x: 210, y: neutral },
]

/**
 * The five curves. Hue is that of Oklab: red 29°, yellow 110°, green 142°, cyan 195°, blue 264°, magenta 328°. Purity
 * is chroma over lightness.
 */
export const colourCurves = {
  hueByHue: {
    type: 'curve',
    label: 'Hue by hue',
    tip: 'Turns each hue by so many degrees.',
    default: round(0),
    x: hue,
    y: { min: -60, max: 60, unit: '°' },
    neutral: 0,
    periodic: true,
    maxPoints: 32,
  },
  saturationByHue: {
    type: 'curve',
    label: 'Saturation by hue',
    tip: 'Makes each hue stronger or weaker.',
    default: round(1),
    x: hue,
    y: gain,
    neutral: 1,
    periodic: true,
    maxPoints: 32,
  },
  lightnessByHue: {
    type: 'curve',
    label: 'Lightness by hue',
    tip: 'Makes each hue lighter or darker, in stops.',
    default: round(0),
    x: hue,
    y: { min: -2, max: 2, unit: 'stops' },
    neutral: 0,
    periodic: true,
    maxPoints: 32,
  },
  saturationByLightness: {
    type: 'curve',
    label: 'Saturation by lightness',
    tip: 'Makes colours of some tones stronger or weaker; tones in stops from middle grey.',
    default: [
      { x: -6, y: 1 },
      { x: 4, y: 1 },
    ],
    x: { min: -9, max: 8, unit: 'stops' },
    y: gain,
    neutral: 1,
    maxPoints: 32,
  },
  saturationBySaturation: {
    type: 'curve',
    label: 'Saturation by saturation',
    tip: 'Makes quiet or strong colours stronger or weaker.',
    default: [
      { x: 0, y: 1 },
      { x: 0.6, y: 1 },
    ],
    x: { min: 0, max: 1, unit: 'purity' },
    y: gain,
    neutral: 1,
    maxPoints: 32,
  },
} as const satisfies Record<string, CurveParameter>
export type ColourCurveId = keyof typeof colourCurves
export const colourCurveIds = Object.keys(colourCurves) as readonly ColourCurveId[]

type ColourCurveSettings = { readonly [K in ColourCurveId]: readonly CurvePoint[] } & {
  readonly cleanEnds: string
  readonly quietNoise: number
}

/**
 * How far a colour has a hue that may be acted on: none for neutral and for nearly black pixels, whose hue is noise.
 * Purity is chroma over lightness.
 */
export const hueShare = (purity: number, stops: number): number =>
  smoothStep(0.004, 0.03, purity) * smoothStep(-9, -7, stops)
/** The deepest and the brightest tones lose their colour: all of it 7 stops under grey and 3.5 over it. */
const cleanShare = (stops: number): number => smoothStep(-7, -5, stops) * smoothStep(3.5, 2, stops)
/** Blue and violet of the shadows: where sensors put their colour noise. */
function noiseShare(hueDegrees: number, stops: number): number {
  const away = Math.abs(((hueDegrees - 285 + 540) % 360) - 180)
  return smoothStep(75, 25, away) * smoothStep(-2, -5, stops)
}

/** A curve looked up instead of worked out: fine enough that its steps cannot be seen. Held beyond the ends. */
function sampled(curve: Curve, low: number, high: number, count: number): Curve {
  const table = Float64Array.from({ length: count + 1 }, (_, i) => curve(low + ((high - low) * i) / count))
  const scale = count / (high - low)
  return (v) => {
    const p = Math.min(count, Math.max(0, (v - low) * scale))
    const at = Math.min(count - 1, Math.floor(p))
    return table[at] + (table[at + 1] - table[at]) * (p - at)
  }
}

/** A curve as a function of its x; null where it changes nothing. */
export function colourCurve(id: ColourCurveId, points: readonly CurvePoint[]): Curve | null {
  const declared: CurveParameter = colourCurves[id]
  if (isNeutralCurve(declared, points)) return null
  const {
    x: { min, max },
    y,
  } = declared
  const bent = declared.periodic ? periodicCurve(points, max - min) : monotoneCurve(points)
  return sampled((v) => Math.min(y.max, Math.max(y.min, bent(v))), min, max, 3600)
}

const turn = 180 / Math.PI

export const colourCurvesStep = defineStepKind<ColourCurveSettings>({
  id: 'colour-curves',
  name: 'Colour curves',
  tip: 'Changes some colours and leaves the others: by hue, by lightness, by saturation.',
  station: 'hue',
  domain: 'linear',
  pixelByPixel: true,
  order: 20,
  page: 'colours',
  firstSide: 'working',
  stands: 'always',
  many: false,
  inRegions: 'always',
  parameters: {
    ...colourCurves,
    cleanEnds: {
      type: 'choice',
      label: 'Clean ends',
      tip: 'The deepest and the brightest tones lose their colour, so that black and white stay clean.',
      default: 'off',
      options: [
        { id: 'off', name: 'as they are' },
        { id: 'on', name: 'kept clean' },
      ],
    },
    quietNoise: {
      type: 'number',
      label: 'Quiet noise',
      tip: 'Takes blue and violet out of the shadows, where sensors put their colour noise.',
      unit: '%',
      min: 0,
      max: 1,
      default: 0,
      step: 0.01,
      decimals: 0,
      shownFactor: 100,
    },
  },
  isNeutral: (params) =>
    params.quietNoise === 0 &&
    params.cleanEnds !== 'on' &&
    colourCurveIds.every((id) => isNeutralCurve(colourCurves[id], params[id])),
  prepare: (params, { gamut }) => {
    const space = oklabOf(gamut)
    const [byHue, satByHue, lightByHue, satByLight, satBySat] = colourCurveIds.map((id) => colourCurve(id, params[id]))
    const { quietNoise } = params
    const clean = params.cleanEnds === 'on'
    const anyByHue = byHue !== null || satByHue !== null || lightByHue !== null
    const apply: PixelOperation = (pixels) => {
      for (let i = 0; i < pixels.length; i += 3) {
        const [lightness, a, b] = toOklab(space, pixels[i], pixels[i + 1], pixels[i + 2])
        // A colour without light has no hue, and no tone to go by.
        if (!(lightness > leastLightness)) continue
        const purity = Math.hypot(a, b) / lightness
        if (purity < 1e-9) continue
        const stops = 3 * Math.log2(lightness) - greyStops
        const degrees = (Math.atan2(b, a) * turn + 360) % 360
        const share = anyByHue ? hueShare(purity, stops) : 0
        let chroma = 1
        let angle = 0
        let scale = 1
        if (share > 0) {
          if (byHue) angle = (share * byHue(degrees)) / turn
          if (satByHue) chroma = 1 + share * (satByHue(degrees) - 1)
          if (lightByHue) scale = 2 ** ((share * lightByHue(degrees)) / 3)
        }
        if (satByLight) chroma *= satByLight(stops)
        if (satBySat) chroma *= satBySat(purity)
        if (clean) chroma *= cleanShare(stops)
        if (quietNoise > 0) chroma *= 1 - quietNoise * noiseShare(degrees, stops)
        if (chroma === 1 && angle === 0 && scale === 1) continue
        const cos = Math.cos(angle) * chroma * scale
        const sin = Math.sin(angle) * chroma * scale
        const [red, green, blue] = fromOklab(space, lightness * scale, a * cos - b * sin, a * sin + b * cos)
        pixels[i] = red
        pixels[i + 1] = green
        pixels[i + 2] = blue
      }
    }
    return (at) => pixelsOperation(apply, at)
  },
})
// 40 stops under grey.
const leastLightness = Math.cbrt(middleGrey * 2 ** -40)
const greyStops = Math.log2(middleGrey)
