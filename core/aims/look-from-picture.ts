// A look from a picture: the smallest set of ordinary steps by which a shot's tones and colours come near those of a
// reference picture.
import { clamp01 } from '../numbers'
import { displayToLab, type Vector3 } from '../colour'
import {
  applyRecipe,
  buildChain,
  defaultParameters,
  evaluateDirect,
  stepKindById,
  type GradeDocument,
  type LutFinder,
  type Positions,
  type RecipeContent,
  type RecipeStep,
} from '../grade'
import { leastSquares, type Variable } from './least-squares'

/** Some pixels of the shot, and which of them are a known person's skin. */
export interface LookShot {
  readonly grade: GradeDocument
  readonly lut: LutFinder
  /** RGB triples of code values. */ readonly codes: Float64Array
  readonly place: Positions
  readonly skin: readonly number[]
}

export interface TakenLook {
  readonly content: RecipeContent
  /**
   * How far the statistics were apart, and are: root mean square over tones, balance by tone and chroma, in L*a*b*
   * units.
   */
  readonly before: number
  readonly after: number
  /** What was moved, and what was not brought over and why, in sentences. */
  readonly taken: readonly string[]
  readonly left: readonly string[]
}

interface Statistics {
  readonly tones: readonly number[]
  readonly bands: readonly (readonly [number, number])[]
  readonly chroma: number
  readonly skin: readonly [number, number] | null
}
const shares = [0.02, 0.1, 0.3, 0.5, 0.7, 0.9, 0.98] as const

/**
 * L* at some percentiles, mean a* and b* of the dark, middle and light third of the pixels, mean chroma; of display
 * signal.
 */
function statisticsOf(signal: Float64Array, skin: readonly number[]): Statistics {
  const lab = displayToLab('bt709-2.4')
  const count = signal.length / 3
  const seen: Vector3[] = Array.from({ length: count }, (_, p) =>
    lab(clamp01(signal[p * 3]), clamp01(signal[p * 3 + 1]), clamp01(signal[p * 3 + 2])),
  )
  const order = [...seen].sort((a, b) => a[0] - b[0])
  const third = Math.max(1, Math.floor(count / 3))
  const mean = (list: readonly Vector3[]): readonly [number, number] => [
    list.reduce((s, v) => s + v[1], 0) / Math.max(1, list.length),
    list.reduce((s, v) => s + v[2], 0) / Math.max(1, list.length),
  ]
  return {
    tones: shares.map((q) => order[Math.min(count - 1, Math.floor(q * count))]?.[0] ?? 0),
    bands: [mean(order.slice(0, third)), mean(order.slice(third, count - third)), mean(order.slice(count - third))],
    chroma: seen.reduce((s, v) => s + Math.hypot(v[1], v[2]), 0) / Math.max(1, count),
    skin: skin.length > 0 ? mean(skin.map((p) => seen[p] ?? ([0, 0, 0] as const))) : null,
  }
}

interface Knob extends Variable {
  readonly name: string
  readonly words: (value: number) => string
}
const signed = (v: number, digits: number): string => `${v < 0 ? '−' : '+'}${Math.abs(v).toFixed(digits)}`
const knob = (
  name: string,
  start: number,
  least: number,
  most: number,
  scale: number,
  words: (v: number) => string,
): Knob => ({ name, start, least, most, scale, words })
const bands = [
  { name: 'Darks', centreStops: -3, reach: 'below' },
  { name: 'Middles', centreStops: 0, reach: 'around' },
  { name: 'Lights', centreStops: 2, reach: 'above' },
] as const
/** Bounds keep it a look: what would need more is left out, and said. */
const mostTint = 0.14
const knobs: readonly Knob[] = [
  knob('Exposure', 0, -1.5, 1.5, 0.5, (v) => `${signed(v, 2)} stops`),
  knob('Contrast', 1, 0.7, 1.4, 0.2, (v) => `× ${v.toFixed(2)}`),
  knob('Temperature', 0, -40, 40, 15, (v) => `${signed(v, 1)} mired`),
  knob('Tint', 0, -12, 12, 5, (v) => `${signed(v, 1)} Duv ×10³`),
  knob('Saturation', 1, 0.4, 1.6, 0.3, (v) => `${(v * 100).toFixed(0)} %`),
  ...bands.flatMap(({ name }) => [
    knob(`${name}, red to cyan`, 0, -mostTint, mostTint, 0.08, (v) => `${signed(v, 2)} stops`),
    knob(`${name}, yellow to blue`, 0, -mostTint, mostTint, 0.08, (v) => `${signed(v, 2)} stops`),
  ]),
]

const step = (kind: string, name: string, params: RecipeStep['params']): RecipeStep => ({
  kind,
  name,
  strength: 1,
  side: 'scene',
  params: { ...defaultParameters(stepKindById(kind)), ...params },
})
/** The knobs' values as ordinary steps, rounded to what hands would set where they are to be kept. */
function stepsOf(v: readonly number[], kept: boolean): readonly RecipeStep[] {
  const rounded = (value: number, digits: number): number => (kept ? Number(value.toFixed(digits)) : value)
  return [
    step('exposure', 'Exposure', { exposureStops: rounded(v[0], 3) }),
    step('white-balance', 'White balance', { temperatureMired: rounded(v[2], 2), tint: rounded(v[3], 2) }),
    step('contrast', 'Contrast', { contrast: rounded(v[1], 3) }),
    step('saturation', 'Saturation', { saturation: rounded(v[4], 3) }),
    ...bands.map(({ name, centreStops, reach }, i) => {
      // Two axes of colour as the hue and amount that a zone takes: red lies at 0°, yellow at 60°, blue at 240°.
      const red = v[5 + i * 2]
      const yellow = v[6 + i * 2]
      const x = red + yellow * 0.5
      const y = yellow * 0.866
      const amount = Math.hypot(x, y)
      return step('zone', name, {
        centreStops,
        reach,
        widthStops: 3,
        tintDegrees: rounded(((Math.atan2(y, x) * 180) / Math.PI + 360) % 360, 1),
        tintAmount: rounded(Math.min(1, amount), 4),
      })
    }),
  ]
}
/** Steps that change nothing, or nothing that is seen, are left out. */
const doesSomething = ({ kind, params }: RecipeStep): boolean =>
  !stepKindById(kind).isNeutral(params) && !(kind === 'zone' && Number(params['tintAmount']) < 0.004)

/**
 * Solves exposure, contrast, balance, saturation and three tonal pushes so that the shot's statistics come near the
 * reference's. Skin is held where it is, against the look. Deterministic.
 * @param reference display signal 0…1 of the picture, RGB triples; a thousand pixels are enough
 */
export function lookFromPicture({ grade, lut, codes, place, skin }: LookShot, reference: Float64Array): TakenLook {
  const wanted = statisticsOf(reference, [])
  const through = (g: GradeDocument): Statistics => {
    const pixels = codes.slice()
    evaluateDirect(buildChain(g, lut), pixels, place)
    return statisticsOf(pixels, skin)
  }
  const now = through(grade)
  const trial = (v: readonly number[]): RecipeContent => ({ steps: stepsOf(v, false), regions: [] })
  const apart = (s: Statistics): number[] => [
    ...s.tones.map((t, i) => t - wanted.tones[i]),
    ...s.bands.flatMap(([a, b], i) => [a - wanted.bands[i][0], b - wanted.bands[i][1]]),
    s.chroma - wanted.chroma,
  ]
  const residuals = (v: readonly number[]): readonly number[] => {
    const s = through(applyRecipe(grade, trial(v)))
    return [...apart(s), ...(s.skin && now.skin ? [(s.skin[0] - now.skin[0]) * 4, (s.skin[1] - now.skin[1]) * 4] : [])]
  }
  const values = leastSquares(knobs, residuals, 30)
  const made: RecipeContent = { steps: stepsOf(values, true).filter(doesSomething), regions: [] }
  const end = through(applyRecipe(grade, made))
  const rms = (s: Statistics): number => {
    const d = apart(s)
    return Math.sqrt(d.reduce((sum, v) => sum + v * v, 0) / d.length)
  }
  const moved = knobs.flatMap((k, i) =>
    Math.abs(values[i] - k.start) > k.scale * 0.04 ? [`${k.name} ${k.words(values[i])}`] : [],
  )
  return { content: made, before: rms(now), after: rms(end), taken: moved, left: leftOut(values, end, wanted, now) }
}

function leftOut(
  values: readonly number[],
  end: Statistics,
  wanted: Statistics,
  before: Statistics,
): readonly string[] {
  const atBounds = knobs.flatMap((k, i) =>
    values[i] <= k.least + 1e-6 || values[i] >= k.most - 1e-6
      ? [`${k.name} stops at ${k.words(values[i])}: more would be another picture, not a look.`]
      : [],
  )
  const tone = shares.flatMap((q, i) => {
    const d = end.tones[i] - wanted.tones[i]
    return Math.abs(d) > 4
      ? [
          `${Math.round(q * 100)} % of the tones lie under L* ${end.tones[i].toFixed(0)}; the picture has ` +
            `${wanted.tones[i].toFixed(0)} there.`,
        ]
      : []
  })
  const chroma =
    Math.abs(end.chroma - wanted.chroma) > 3
      ? [`Chroma is ${end.chroma.toFixed(0)}; the picture has ${wanted.chroma.toFixed(0)}.`]
      : []
  const skin = before.skin ? ['Skin is held where it was.'] : []
  return [
    ...atBounds,
    ...tone.slice(0, 3),
    ...chroma,
    ...skin,
    'Grain, local light and what lies where are not taken over.',
  ]
}
