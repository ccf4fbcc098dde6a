// Inspection: what a LUT does, measured: greys, bends, clipping, hues, skins, and colours that people remember.
import { clamp01 } from '../numbers'
import {
  deltaE2000,
  displayById,
  displayToLab,
  encodingById,
  gamutById,
  gamutToGamut,
  lumaWeights,
  middleGrey,
  oklabOf,
  toOklab,
  transform,
  type Vector3,
} from '../colour'
import { applyLut, lutDomain, lutSize, type Interpolation, type Lut } from '../luts'
import { expectationOf, type Expectation } from './expects'
import { referenceColours, type ReferenceColour } from './reference-colours'

/** A stretch of what goes in, 0…1. */
export interface Stretch {
  readonly from: number
  readonly to: number
}
type Rgb = readonly [number, number, number]

export interface SeenColour {
  readonly id: string
  readonly name: string
  readonly kind: ReferenceColour['kind']
  /** Display signal without and with the LUT, 0…1. */
  readonly before: Rgb
  readonly after: Rgb
  /** Positive is anticlockwise on the hue wheel of Oklab, from red toward yellow. */
  readonly hueDegrees: number
  /** Of the display signal, in %. */
  readonly lumaPercent: number
  /** After over before; 1 leaves it. */
  readonly chromaGain: number
}

export interface Inspection {
  readonly size: number
  readonly parts: number
  readonly domain: { readonly low: number; readonly high: number }
  /** The least and the largest value it gives. */
  readonly range: { readonly low: number; readonly high: number }
  readonly greys: {
    readonly inputs: readonly number[]
    readonly red: readonly number[]
    readonly green: readonly number[]
    readonly blue: readonly number[]
  }
  /** Where a brighter grey comes out darker; empty when it never does. */
  readonly folds: readonly Stretch[]
  /** What middle grey comes in and goes out as, and how steep the LUT is there: signal out over signal in. */
  readonly middleGrey: { readonly in: number; readonly out: number; readonly slope: number }
  /** How far greys come out coloured: the largest CIEDE2000 to the same luma without colour, and where. */
  readonly drift: { readonly deltaE: number; readonly at: number }
  /** Share of its entries that sit at black or at white in some channel. */
  readonly clippedShare: number
  /** The sharpest bend along the greys: second difference over 1/32 of the way, in % of the signal. */
  readonly bend: { readonly percent: number; readonly at: number }
  /** Tones where a step of 8-bit footage becomes more than two and a half. */
  readonly banding: readonly Stretch[]
  readonly hues: readonly { readonly degrees: number; readonly turnDegrees: number; readonly chromaGain: number }[]
  readonly colours: readonly SeenColour[]
  readonly expects: Expectation
}

const display = displayById('bt709-2.4')
const toLab = displayToLab(display.id)
const space = oklabOf(gamutById('bt709'))
const luma = lumaWeights('bt709')
const lumaOf = (r: number, g: number, b: number): number => luma.red * r + luma.green * g + luma.blue * b
const greySteps = 128

/** Looks at a LUT. It is given what it expects: a display picture for a look, camera codes for a conversion. */
export function inspectLut(
  lut: Lut,
  expects: Expectation = expectationOf(lut),
  interpolation: Interpolation = 'tetrahedral',
): Inspection {
  const {
    min: [low],
    max: [high],
  } = lutDomain(lut)
  const inputs = Array.from({ length: greySteps + 1 }, (_, i) => low + ((high - low) * i) / greySteps)
  const out = Float64Array.from(inputs.flatMap((v) => [v, v, v]))
  applyLut(lut, out, interpolation)
  const channel = (c: number): number[] => inputs.map((_, i) => out[i * 3 + c])
  const [red, green, blue] = [channel(0), channel(1), channel(2)]
  const lumas = inputs.map((_, i) => lumaOf(red[i], green[i], blue[i]))
  return {
    size: lutSize(lut),
    parts: lut.dimensions === 'sequence' ? lut.parts.length : 1,
    domain: { low, high },
    ...entries(lut),
    greys: { inputs, red, green, blue },
    folds: stretches(inputs, (i) => [red, green, blue].some((c) => c[i + 1] < c[i] - 1e-4)),
    middleGrey: atGrey(lut, expects, interpolation),
    drift: driftOf(inputs, red, green, blue),
    bend: bendOf(inputs, lumas),
    banding: stretches(inputs, (i) => (lumas[i + 1] - lumas[i]) / ((high - low) / greySteps) > 2.5),
    hues: huesOf(lut, expects, interpolation),
    colours: coloursOf(lut, expects, interpolation),
    expects,
  }
}

/** Neighbouring steps for which something holds, as stretches. */
function stretches(inputs: readonly number[], holds: (step: number) => boolean): readonly Stretch[] {
  const out: { from: number; to: number }[] = []
  for (let i = 0; i < inputs.length - 1; i++) {
    if (!holds(i)) continue
    const last = out.at(-1)
    if (last && last.to === inputs[i]) last.to = inputs[i + 1]
    else out.push({ from: inputs[i], to: inputs[i + 1] })
  }
  return out
}

function entries(lut: Lut): Pick<Inspection, 'range' | 'clippedShare'> {
  const tables = lut.dimensions === 'sequence' ? lut.parts.filter((p) => !('formula' in p)) : [lut]
  const last = tables.at(-1)
  // Formulas alone have no entries: what they make of a coarse cube stands for them.
  const values: ArrayLike<number> = last && !('formula' in last) ? last.data : cubeThrough(lut)
  let low = Infinity
  let high = -Infinity
  let clipped = 0
  for (let i = 0; i < values.length; i += 3) {
    const r = values[i]
    const g = values[i + 1]
    const b = values[i + 2]
    const least = Math.min(r, g, b)
    const most = Math.max(r, g, b)
    low = Math.min(low, least)
    high = Math.max(high, most)
    if (least <= 1e-6 || most >= 1 - 1e-6) clipped++
  }
  return { range: { low, high }, clippedShare: (clipped * 3) / values.length }
}
function cubeThrough(lut: Lut): Float64Array {
  const n = 9
  const out = Float64Array.from({ length: n ** 3 * 3 }, (_, i) => {
    const c = i % 3
    const p = (i - c) / 3
    return (Math.floor(p / n ** c) % n) / (n - 1)
  })
  applyLut(lut, out, 'tetrahedral')
  return out
}

function driftOf(
  inputs: readonly number[],
  red: readonly number[],
  green: readonly number[],
  blue: readonly number[],
): Inspection['drift'] {
  let deltaE = 0
  let at = inputs[0] ?? 0
  inputs.forEach((input, i) => {
    const r = clamp01(red[i])
    const g = clamp01(green[i])
    const b = clamp01(blue[i])
    const y = lumaOf(r, g, b)
    const found = deltaE2000(toLab(r, g, b), toLab(y, y, y))
    if (found > deltaE) {
      deltaE = found
      at = input
    }
  })
  return { deltaE, at }
}

function bendOf(inputs: readonly number[], lumas: readonly number[]): Inspection['bend'] {
  const reach = greySteps / 32
  let percent = 0
  let at = inputs[0] ?? 0
  for (let i = reach; i + reach < lumas.length; i++) {
    const bend = Math.abs(lumas[i - reach] - 2 * lumas[i] + lumas[i + reach]) * 100
    if (bend > percent) {
      percent = bend
      at = inputs[i]
    }
  }
  return { percent, at }
}

/** Linear BT.709 light → what the LUT is given, and what would stand there without it. */
function feeding({ sources: [source] }: Expectation): {
  readonly feed: (linear: Vector3) => Rgb
  readonly plain: (linear: Vector3) => Rgb
} {
  const plain = (linear: Vector3): Rgb => linear.map((v) => display.eotf.encode(clamp01(v))) as unknown as Rgb
  if (!source) return { feed: plain, plain }
  const { encode } = encodingById(source.encodingId).curve
  const matrix = gamutToGamut(gamutById('bt709'), gamutById(source.gamutId))
  return { feed: (linear) => transform(matrix, linear).map(encode) as unknown as Rgb, plain }
}

function atGrey(lut: Lut, expects: Expectation, interpolation: Interpolation): Inspection['middleGrey'] {
  const [code] = feeding(expects).feed([middleGrey, middleGrey, middleGrey])
  const step = 0.01
  const pixels = Float64Array.of(
    code - step,
    code - step,
    code - step,
    code,
    code,
    code,
    code + step,
    code + step,
    code + step,
  )
  applyLut(lut, pixels, interpolation)
  const at = (i: number): number => lumaOf(pixels[i * 3], pixels[i * 3 + 1], pixels[i * 3 + 2])
  return { in: code, out: at(1), slope: (at(2) - at(0)) / (2 * step) }
}

function through(lut: Lut, rgb: Rgb, interpolation: Interpolation): Rgb {
  const pixels = Float64Array.from(rgb)
  applyLut(lut, pixels, interpolation)
  return [clamp01(pixels[0]), clamp01(pixels[1]), clamp01(pixels[2])]
}

/** Hue in degrees and chroma of a display signal, in Oklab. */
function hueAndChroma([r, g, b]: Rgb): { readonly degrees: number; readonly chroma: number } {
  const { decode } = display.eotf
  const [, a, c] = toOklab(space, decode(r), decode(g), decode(b))
  return { degrees: (Math.atan2(c, a) * 180) / Math.PI, chroma: Math.hypot(a, c) }
}
const turned = (from: number, to: number): number => ((to - from + 540) % 360) - 180

/** The shift of a colour from one display signal to another. Where either has hardly a hue, none is stated. */
export function shiftOf(before: Rgb, after: Rgb): Pick<SeenColour, 'hueDegrees' | 'lumaPercent' | 'chromaGain'> {
  const a = hueAndChroma(before)
  const b = hueAndChroma(after)
  return {
    hueDegrees: a.chroma < 0.003 || b.chroma < 0.003 ? 0 : turned(a.degrees, b.degrees),
    lumaPercent: (lumaOf(...after) - lumaOf(...before)) * 100,
    chromaGain: a.chroma < 1e-6 ? 1 : b.chroma / a.chroma,
  }
}

function coloursOf(lut: Lut, expects: Expectation, interpolation: Interpolation): readonly SeenColour[] {
  const { feed, plain } = feeding(expects)
  return referenceColours.map(({ id, name, kind, linear }) => {
    const before = plain(linear)
    const after = through(lut, feed(linear), interpolation)
    return { id, name, kind, before, after, ...shiftOf(before, after) }
  })
}

/** Once round the wheel, at a tone and a purity that every display can show. */
function huesOf(lut: Lut, expects: Expectation, interpolation: Interpolation): Inspection['hues'] {
  const { feed, plain } = feeding(expects)
  return Array.from({ length: 24 }, (_, i) => {
    const degrees = i * 15
    const linear = wheelColour(degrees)
    const { hueDegrees, chromaGain } = shiftOf(plain(linear), through(lut, feed(linear), interpolation))
    return { degrees, turnDegrees: hueDegrees, chromaGain }
  })
}
function wheelColour(degrees: number): Vector3 {
  const angle = (degrees * Math.PI) / 180
  const lightness = 0.6
  const chroma = 0.09
  const { fromLab: n, fromCone } = space
  const a = chroma * Math.cos(angle)
  const b = chroma * Math.sin(angle)
  return transform(
    fromCone,
    [0, 3, 6].map((r) => (n[r] * lightness + n[r + 1] * a + n[r + 2] * b) ** 3) as unknown as Vector3,
  )
}

/** The facts of a picture's way through a LUT or recipe that a contact sheet is sorted by. */
export interface LookFacts {
  /** Spread of luma between the 10th and the 90th percentile, in % of the signal. */
  readonly contrastPercent: number
  /** Mean red over blue, in stops of light: positive is warm. */
  readonly warmthStops: number
  /** Mean chroma in Oklab × 100. */
  readonly saturation: number
}
/** Facts of a picture in 16-bit display signal, RGB triples. */
export function lookFacts(signal: Uint16Array): LookFacts {
  const count = signal.length / 3
  const lumas = new Float64Array(count)
  const { decode } = display.eotf
  const light = decodeTable(decode)
  let red = 0
  let blue = 0
  let chroma = 0
  for (let p = 0; p < count; p++) {
    const r = signal[p * 3]
    const g = signal[p * 3 + 1]
    const b = signal[p * 3 + 2]
    const lr = light[r >> 4]
    const lg = light[g >> 4]
    const lb = light[b >> 4]
    lumas[p] = lumaOf(r, g, b) / 65535
    red += lr
    blue += lb
    const [, x, y] = toOklab(space, lr, lg, lb)
    chroma += Math.hypot(x, y)
  }
  lumas.sort()
  const at = (share: number): number => lumas[Math.min(count - 1, Math.floor(share * count))] ?? 0
  return {
    contrastPercent: (at(0.9) - at(0.1)) * 100,
    warmthStops: Math.log2((red + 1e-6) / (blue + 1e-6)),
    saturation: (chroma / Math.max(1, count)) * 100,
  }
}
let lightTable: Float64Array | undefined
function decodeTable(decode: (v: number) => number): Float64Array {
  lightTable ??= Float64Array.from({ length: 4096 }, (_, i) => decode(i / 4095))
  return lightTable
}
