// Oklab: a space in which hue stays when lightness and chroma change (Ottosson, "A perceptual color space for image
// processing", 2020).
import { bradford } from './adaptation'
import { gamutById, rgbToXyz, xyzOf, type Gamut } from './gamuts'
import { invert, multiply, type Matrix3 } from './matrix'

// XYZ with D65 white → cone response, and the cube roots of that → L, a, b. Constants as published.
const coneOfXyz: Matrix3 = [
  0.8189330101, 0.3618667424, -0.1288597137, 0.0329845436, 0.9293118715, 0.0361456387, 0.0482003018, 0.2643662691,
  0.633851707,
]
const labOfRoots: Matrix3 = [
  0.2104542553, 0.793617785, -0.0040720468, 1.9779984951, -2.428592205, 0.4505937099, 0.0259040371, 0.7827717662,
  -0.808675766,
]

export interface OklabSpace {
  /** Linear RGB of the gamut → cube roots of cone response → L, a, b. */
  readonly toCone: Matrix3
  readonly fromCone: Matrix3
  readonly toLab: Matrix3
  readonly fromLab: Matrix3
}

/**
 * Scales each row so that white gives exactly one: a neutral then is neutral to the last bits, whatever the published
 * digits.
 */
function rowsToOne(m: Matrix3): Matrix3 {
  return [0, 3, 6].flatMap((r) => {
    const sum = m[r] + m[r + 1] + m[r + 2]
    return [m[r] / sum, m[r + 1] / sum, m[r + 2] / sum]
  }) as unknown as Matrix3
}
/** The same for a and b: their rows add up to nothing, so that equal roots are without hue. */
function huelessRows(m: Matrix3): Matrix3 {
  return [m[0], m[1], 1 - m[0] - m[1], m[3], m[4], -m[3] - m[4], m[6], m[7], -m[6] - m[7]]
}

const spaces = new Map<string, OklabSpace>()

/** Oklab of linear light in a gamut, whose white is adapted to D65 first; light is relative, 1 = L 1. */
export function oklabOf(gamut: Gamut): OklabSpace {
  const known = spaces.get(gamut.id)
  if (known) return known
  const d65 = gamutById('bt709').white
  const toCone = rowsToOne(multiply(coneOfXyz, multiply(bradford(xyzOf(gamut.white), xyzOf(d65)), rgbToXyz(gamut))))
  const toLab = huelessRows(labOfRoots)
  const space = { toCone, fromCone: invert(toCone), toLab, fromLab: invert(toLab) }
  spaces.set(gamut.id, space)
  return space
}

/**
 * L, a, b of one colour. Components below zero are mirrored, not held: every finite colour has its place and comes back
 * from it.
 */
export function toOklab(
  { toCone: m, toLab: n }: OklabSpace,
  r: number,
  g: number,
  b: number,
): [number, number, number] {
  const l = Math.cbrt(m[0] * r + m[1] * g + m[2] * b)
  const c = Math.cbrt(m[3] * r + m[4] * g + m[5] * b)
  const s = Math.cbrt(m[6] * r + m[7] * g + m[8] * b)
  return [n[0] * l + n[1] * c + n[2] * s, n[3] * l + n[4] * c + n[5] * s, n[6] * l + n[7] * c + n[8] * s]
}

/** The reverse of toOklab. */
export function fromOklab(space: OklabSpace, lightness: number, a: number, b: number): [number, number, number] {
  const rgb: [number, number, number] = [0, 0, 0]
  fromOklabInto(space, lightness, a, b, rgb)
  return rgb
}

/** The same into the first three of `rgb`, for loops over pixels. */
export function fromOklabInto(
  { fromCone: m, fromLab: n }: OklabSpace,
  lightness: number,
  a: number,
  b: number,
  rgb: { [channel: number]: number },
): void {
  const long = n[0] * lightness + n[1] * a + n[2] * b
  const middle = n[3] * lightness + n[4] * a + n[5] * b
  const short = n[6] * lightness + n[7] * a + n[8] * b
  // A power of three is called for as any other power is; products are not.
  const l = long * long * long
  const c = middle * middle * middle
  const s = short * short * short
  rgb[0] = m[0] * l + m[1] * c + m[2] * s
  rgb[1] = m[3] * l + m[4] * c + m[5] * s
  rgb[2] = m[6] * l + m[7] * c + m[8] * s
}
