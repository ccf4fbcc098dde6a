// LUTs as other people make them: tone curves that this program does not have, from every encoding that ships, with and
// without a look on top. Half of the curves teach, half judge, and nothing is tuned on those that judge.
import {
  displayById,
  encodingById,
  encodings,
  gamutById,
  gamutToGamut,
  transform,
  type Vector3,
} from '../../core/colour'
import type { Lut3d } from '../../core/luts'

type Tone = (light: number) => number
const clamp01 = (v: number): number => Math.min(1, Math.max(0, v))
const power =
  (gamma: number): Tone =>
  (v) =>
    clamp01(v) ** (1 / gamma)

/** Scene light to display signal. Middle grey lands between 35 and 48 %. */
export interface ForeignTone {
  readonly name: string
  readonly side: 'teaching' | 'judging'
  readonly tone: Tone
  /** Applied to channels in the display's gamut, in the camera's own, or to the largest channel with the hue kept. */
  readonly where: 'display' | 'camera' | 'largest'
}

const filmic: Tone = (x) => {
  const v = Math.max(0, x - 0.002) * 0.85
  return (v * (6.2 * v + 0.5)) / (v * (6.2 * v + 1.7) + 0.06)
}
const rational =
  (white: number): Tone =>
  (x) => {
    const v = Math.max(0, x) * 1.1
    return power(2.4)((v * (1 + v / white ** 2)) / (1 + v))
  }
const logistic =
  (steepness: number): Tone =>
  (x) =>
    x <= 0 ? 0 : 1 / (1 + (0.32 / (x * 1.4)) ** steepness) ** 0.75
const knee =
  (from: number, soft: number): Tone =>
  (x) =>
    power(2.2)(x < from ? x : from + (1 - from) * (1 - Math.exp(-(x - from) / (1 - from) / soft)))
const print: Tone = (x) => {
  const density = Math.log10(Math.max(x, 1e-5) / 0.18)
  return clamp01(0.41 * 10 ** (0.62 * Math.tanh(density * 0.95)) - 0.06)
}
const sCurve: Tone = (x) => {
  const v = power(2.4)(x * 0.9)
  return clamp01(v + 0.12 * Math.sin((v - 0.1) * Math.PI * 2) * v * (1 - v) * 2)
}
const hard: Tone = (x) => power(2.4)(x)
const tanh: Tone = (x) => power(2.2)(Math.tanh(Math.max(0, x) * 1.05))
/** Straight in stops between a black and a white, with both ends rounded off. */
const ramp: Tone = (x) => {
  const v = clamp01((Math.log2(Math.max(x, 1e-6) / 0.18) + 5.5) / 10.5)
  return v * v * (3 - 2 * v) * 0.85 + v * 0.15
}
const arctangent: Tone = (x) => power(2.4)((Math.atan(Math.max(0, x) * 1.8) / Math.PI) * 2)

export const foreignTones: readonly ForeignTone[] = [
  { name: 'hard clip', side: 'teaching', tone: hard, where: 'display' },
  { name: 'rational to 4', side: 'teaching', tone: rational(4), where: 'display' },
  { name: 'logistic 1.3', side: 'teaching', tone: logistic(1.3), where: 'camera' },
  { name: 'knee', side: 'teaching', tone: knee(0.6, 1.4), where: 'largest' },
  { name: 'filmic', side: 'judging', tone: filmic, where: 'display' },
  { name: 'rational to 8, before the matrix', side: 'judging', tone: rational(8), where: 'camera' },
  { name: 'logistic 1.1', side: 'judging', tone: logistic(1.1), where: 'display' },
  { name: 'soft knee', side: 'judging', tone: knee(0.4, 2.2), where: 'display' },
  { name: 'print', side: 'judging', tone: print, where: 'display' },
  { name: 'print, hue kept', side: 'judging', tone: print, where: 'largest' },
  { name: 's-curve over a clip', side: 'judging', tone: sCurve, where: 'display' },
  { name: 'hyperbolic tangent', side: 'judging', tone: tanh, where: 'display' },
  { name: 'ramp in stops', side: 'judging', tone: ramp, where: 'display' },
  { name: 'arctangent, before the matrix', side: 'judging', tone: arctangent, where: 'camera' },
]

type Rgb = readonly [number, number, number]
interface ForeignLook {
  readonly name: string
  readonly look: (rgb: Rgb) => Rgb
}
const lumaOf = ([r, g, b]: Rgb): number => 0.2126 * r + 0.7152 * g + 0.0722 * b
const saturated =
  (amount: number) =>
  (rgb: Rgb): Rgb =>
    rgb.map((v) => clamp01(lumaOf(rgb) + amount * (v - lumaOf(rgb)))) as unknown as Rgb
const plain: ForeignLook = { name: 'plain', look: (rgb) => rgb }
const looks: readonly ForeignLook[] = [
  plain,
  { name: 'less saturated', look: saturated(0.8) },
  {
    name: 'warm lights, cool darks',
    look: ([r, g, b]) => [clamp01(r + 0.03 * r * r), g, clamp01(b + 0.03 * (1 - b) ** 3 - 0.03 * b * b)],
  },
  { name: 'lifted', look: (rgb) => saturated(1.1)(rgb.map((v) => 0.03 + 0.96 * v) as unknown as Rgb) },
]

export interface ForeignLut {
  readonly name: string
  readonly kind: 'look' | 'conversion'
  readonly encodingId: string | null
  readonly make: () => Lut3d
}

function cube(size: number, of: (rgb: Rgb) => Rgb): Lut3d {
  const data = new Float32Array(size ** 3 * 3)
  for (let b = 0, i = 0; b < size; b++)
    for (let g = 0; g < size; g++)
      for (let r = 0; r < size; r++, i += 3) data.set(of([r / (size - 1), g / (size - 1), b / (size - 1)]), i)
  return { dimensions: 3, title: '', size, domainMin: [0, 0, 0], domainMax: [1, 1, 1], data }
}

function conversion(
  encodingId: string,
  gamutId: string,
  { tone, where }: ForeignTone,
  look: ForeignLook,
): (rgb: Rgb) => Rgb {
  const { decode } = encodingById(encodingId).curve
  const toDisplay = gamutToGamut(gamutById(gamutId), gamutById('bt709'))
  const { eotf } = displayById('bt709-2.4')
  return (code) => {
    const light = code.map(decode) as unknown as Vector3
    if (where === 'camera') {
      const toned = light.map((v) => eotf.decode(clamp01(tone(v)))) as unknown as Vector3
      return look.look(transform(toDisplay, toned).map((v) => eotf.encode(clamp01(v))) as unknown as Rgb)
    }
    const shown = transform(toDisplay, light)
    if (where === 'display') return look.look(shown.map((v) => clamp01(tone(v))) as unknown as Rgb)
    const most = Math.max(...shown, 1e-6)
    const toned = eotf.decode(clamp01(tone(most)))
    return look.look(shown.map((v) => eotf.encode(clamp01((v / most) * toned))) as unknown as Rgb)
  }
}

/** Strong looks for display pictures: what a careless eye takes for a conversion. */
const strongLooks: readonly ForeignLook[] = [
  {
    name: 'strong s-curve',
    look: (rgb) => rgb.map((v) => clamp01(1 / (1 + Math.exp(-9 * (v - 0.45))))) as unknown as Rgb,
  },
  { name: 'crushed', look: (rgb) => rgb.map((v) => clamp01((v - 0.12) * 1.35)) as unknown as Rgb },
  { name: 'bright', look: (rgb) => rgb.map((v) => clamp01(v ** 0.6)) as unknown as Rgb },
  {
    name: 'strong and less saturated',
    look: (rgb) =>
      saturated(0.5)(rgb.map((v) => clamp01(v + 0.3 * Math.sin((v - 0.5) * 6.283) * 0.5)) as unknown as Rgb),
  },
  { name: 'faded', look: (rgb) => saturated(0.7)(rgb.map((v) => 0.12 + 0.72 * v) as unknown as Rgb) },
  {
    name: 'orange and teal',
    look: ([r, g, b]) => [clamp01(r + 0.08 * (r - 0.3)), g, clamp01(b + 0.1 * (0.5 - r) * (1 - b))],
  },
  { name: 'hard contrast', look: (rgb) => rgb.map((v) => clamp01((v - 0.4) * 1.9 + 0.4)) as unknown as Rgb },
  { name: 'night', look: ([r, g, b]) => [r ** 1.6 * 0.8, g ** 1.5 * 0.85, b ** 1.3] },
]

/** All of one side, in a fixed order. */
export function foreignLuts(side: ForeignTone['side']): readonly ForeignLut[] {
  const made: ForeignLut[] = []
  const sizes = [33, 17, 25, 32]
  let n = side === 'teaching' ? 0 : 1
  const sources = encodings.filter((e) => /^log-|^hlg$|^flat-gamma$|^film-density$/.test(e.id))
  const tones = foreignTones.filter((t) => t.side === side)
  for (const e of sources)
    for (const [i, tone] of tones.entries()) {
      if (i % 3 === n % 3 && side === 'judging' && e.id !== 'hlg') {
        n++
        continue
      }
      const look = looks[n % looks.length]!
      const gamutId = e.gamutIds[n % e.gamutIds.length]!
      const size = sizes[n % sizes.length]!
      made.push({
        name: `${e.id} in ${gamutId}, ${tone.name}, ${look.name}, ${size}`,
        kind: 'conversion',
        encodingId: e.id,
        make: () => cube(size, conversion(e.id, gamutId, tone, look)),
      })
      n++
    }
  strongLooks.forEach((look, i) => {
    if ((i % 2 === 0) === (side === 'teaching'))
      made.push({ name: `Look: ${look.name}`, kind: 'look', encodingId: null, make: () => cube(33, look.look) })
  })
  return made
}
