// Keys: a matte from the picture's own colours, by ranges of hue, chroma and lightness with soft ends.
import { fromWorkingLog, oklabOf, workingGamut } from '../colour'
import { onSteps } from '../image'

/**
 * Full from low to high, fading to nothing over `softLow` below and `softHigh` above. Lightness is that of Oklab;
 * chroma is Oklab's over lightness, so that light and shade on one thing have the same.
 */
export interface SoftRange {
  readonly low: number
  readonly high: number
  readonly softLow: number
  readonly softHigh: number
}
/** Full within `half` degrees of the centre, fading over `soft` more on either side. */
export interface HueRange {
  readonly centre: number
  readonly half: number
  readonly soft: number
}
/** One group of colours; what is null does not matter. */
export interface KeyRanges {
  readonly hue: HueRange | null
  readonly chroma: SoftRange | null
  readonly lightness: SoftRange | null
}

/** A picked part of the picture: some of its colours, L a b in Oklab of the light at the key's tap. */
export interface KeySample {
  readonly mode: 'add' | 'remove'
  readonly colours: readonly (readonly [number, number, number])[]
}

/**
 * The station after which a key reads the picture; none of them is part of the look, so that a key holds when that
 * changes.
 */
export type KeyTap = 'read' | 'level' | 'shape' | 'hue'
export const keyTaps: readonly KeyTap[] = ['read', 'level', 'shape', 'hue']

export interface Key {
  readonly tap: KeyTap
  /** A pixel belongs as much as it belongs to the group that takes it best. */
  readonly groups: readonly KeyRanges[]
  readonly samples: readonly KeySample[]
}

export const keyBounds = {
  lightness: { min: -0.2, max: 3 },
  chroma: { min: 0, max: 1 },
  hue: { min: -360, max: 720 },
  half: { min: 0, max: 180 },
  soft: { min: 0, max: 1 },
  softDegrees: { min: 0, max: 180 },
  groups: 8,
  samples: 40,
  colours: 24,
} as const

export const freshKey: Key = { tap: 'hue', groups: [], samples: [] }

/** Hues of nearly grey pixels are noise: they count from the first chroma on, and wholly from the second. */
const hueless = { none: 0.012, whole: 0.045 } as const

const smooth = (t: number): number => {
  if (t <= 0) return 0
  if (t >= 1) return 1
  return t * t * (3 - 2 * t)
}
const inRange = ({ low, high, softLow, softHigh }: SoftRange, v: number): number => {
  if (v < low) return softLow > 0 ? smooth((v - low + softLow) / softLow) : 0
  if (v > high) return softHigh > 0 ? smooth((high + softHigh - v) / softHigh) : 0
  return 1
}
const inHue = ({ centre, half, soft }: HueRange, degrees: number): number => {
  const away = Math.abs(((((degrees - centre) % 360) + 540) % 360) - 180)
  if (away <= half) return 1
  if (soft > 0) return smooth((half + soft - away) / soft)
  return 0
}

/** Below this lightness a colour is noise: chroma is not measured against less. */
const leastLightness = 0.08
export const chromaOf = (l: number, a: number, b: number): number =>
  Math.sqrt(a * a + b * b) / (l > leastLightness ? l : leastLightness)
export const hueOf = (a: number, b: number): number => {
  const d = (Math.atan2(b, a) * 180) / Math.PI
  return d < 0 ? d + 360 : d
}

/** How far a colour (Oklab) belongs to a group, 0..1. */
export function belongs({ hue, chroma, lightness }: KeyRanges, l: number, a: number, b: number): number {
  let share = lightness ? inRange(lightness, l) : 1
  if (share === 0 || (!hue && !chroma)) return share
  const c = chromaOf(l, a, b)
  if (chroma) share *= inRange(chroma, c)
  if (hue && share > 0) share *= smooth((c - hueless.none) / (hueless.whole - hueless.none)) * inHue(hue, hueOf(a, b))
  return share
}

/** How far a colour belongs to a key, 0..1 in steps of 1/65536. A key without groups holds nothing. */
export function keyValue({ groups }: Pick<Key, 'groups'>, l: number, a: number, b: number): number {
  let most = 0
  for (const group of groups) most = Math.max(most, belongs(group, l, a, b))
  return onSteps(most)
}

/** A picture as a key reads it: L, a, b of Oklab, a value per pixel. */
export interface KeyPlanes {
  readonly width: number
  readonly height: number
  readonly l: Float32Array
  readonly a: Float32Array
  readonly b: Float32Array
}

const space = oklabOf(workingGamut)
let lightOfCode: Float32Array | null = null

/** Oklab of working-log codes (0..65535 for 0..1), RGB triples. */
export function keyPlanes(codes: Uint16Array, width: number): KeyPlanes {
  const light = (lightOfCode ??= Float32Array.from({ length: 65536 }, (_, code) => fromWorkingLog(code / 65535)))
  const count = codes.length / 3
  const l = new Float32Array(count)
  const a = new Float32Array(count)
  const b = new Float32Array(count)
  const [m0, m1, m2, m3, m4, m5, m6, m7, m8] = space.toCone
  const [n0, n1, n2, n3, n4, n5, n6, n7, n8] = space.toLab
  for (let p = 0, i = 0; p < count; p++, i += 3) {
    const red = light[codes[i]]
    const green = light[codes[i + 1]]
    const blue = light[codes[i + 2]]
    const x = Math.cbrt(m0 * red + m1 * green + m2 * blue)
    const y = Math.cbrt(m3 * red + m4 * green + m5 * blue)
    const z = Math.cbrt(m6 * red + m7 * green + m8 * blue)
    l[p] = n0 * x + n1 * y + n2 * z
    a[p] = n3 * x + n4 * y + n5 * z
    b[p] = n6 * x + n7 * y + n8 * z
  }
  return { width, height: count / width, l, a, b }
}

/** How a picture's colours are spread over what keys are made of: counts in equal steps, the largest 1. */
export interface KeyDistribution {
  readonly hues: Float32Array
  readonly chromas: Float32Array
  readonly lightnesses: Float32Array
}
export const keyDistributionEnds = { chroma: 0.4, lightness: 1.2 } as const

export function keyDistribution({ l, a, b }: KeyPlanes): KeyDistribution {
  const hues = new Float32Array(72)
  const chromas = new Float32Array(60)
  const lightnesses = new Float32Array(60)
  const stride = Math.max(1, Math.floor(l.length / 40_000)) | 1
  for (let p = 0; p < l.length; p += stride) {
    const c = chromaOf(l[p], a[p], b[p])
    hues[Math.min(71, Math.floor(hueOf(a[p], b[p]) / 5))] += c > hueless.none ? c : 0
    chromas[Math.min(59, Math.floor((c / keyDistributionEnds.chroma) * 60))] += 1
    lightnesses[Math.min(59, Math.max(0, Math.floor((l[p] / keyDistributionEnds.lightness) * 60)))] += 1
  }
  const tall = (counts: Float32Array): Float32Array => {
    const most = Math.max(...counts) || 1
    return counts.map((n) => n / most)
  }
  return { hues: tall(hues), chromas: tall(chromas), lightnesses: tall(lightnesses) }
}

/** The key's own matte, before it is cleaned. */
export function keyMatte(key: Key, { l, a, b }: KeyPlanes): Float32Array {
  const matte = new Float32Array(l.length)
  for (const group of key.groups) addGroup(matte, group, l, a, b)
  return matte
}

/** As keyValue, group by group, with what most pixels fail at asked first. */
function addGroup(matte: Float32Array, group: KeyRanges, l: Float32Array, a: Float32Array, b: Float32Array): void {
  const { chroma, lightness } = group
  const darkest = lightness ? lightness.low - lightness.softLow : -Infinity
  const lightest = lightness ? lightness.high + lightness.softHigh : Infinity
  const least = chroma ? Math.max(0, chroma.low - chroma.softLow) ** 2 : 0
  const most = chroma ? (chroma.high + chroma.softHigh) ** 2 : Infinity
  for (let p = 0; p < matte.length; p++) {
    const own = l[p]
    if (own < darkest || own > lightest) continue
    const x = a[p]
    const y = b[p]
    const divisor = own > leastLightness ? own * own : leastLightness * leastLightness
    const square = x * x + y * y
    if (square < least * divisor || square > most * divisor) continue
    const share = belongs(group, own, x, y)
    if (share > matte[p]) matte[p] = Math.round(share * 65536) / 65536
  }
}
