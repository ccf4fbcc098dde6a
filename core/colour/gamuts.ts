// Gamuts as declarations: primaries and white as CIE 1931 x, y; matrices are derived from them, never pasted.
import cameraLogs from './camera-logs.json'
import { bradford } from './adaptation'
import { diagonal, invert, multiply, transform, type Matrix3, type Vector3 } from './matrix'

export interface Chromaticity {
  readonly x: number
  readonly y: number
}

export interface Gamut {
  readonly id: string
  readonly name: string
  readonly source: string
  readonly red: Chromaticity
  readonly green: Chromaticity
  readonly blue: Chromaticity
  readonly white: Chromaticity
}

const d65: Chromaticity = { x: 0.3127, y: 0.329 }
/** The white of AP0 and AP1 (SMPTE ST 2065-1, clause 4.1.1), near D60. */
export const acesWhite: Chromaticity = { x: 0.32168, y: 0.33767 }

type Pair = readonly [number, number]
function gamut(
  id: string,
  name: string,
  source: string,
  primaries: readonly [Pair, Pair, Pair],
  white: Chromaticity,
): Gamut {
  const [red, green, blue] = primaries.map(([x, y]) => ({ x, y })) as [Chromaticity, Chromaticity, Chromaticity]
  return { id, name, source, red, green, blue, white }
}

const cameraGamuts: readonly Gamut[] = Object.entries(cameraLogs.gamuts).map(([id, { primaries, white }]) => {
  const [red, green, blue] = primaries as unknown as [Pair, Pair, Pair]
  const [x, y] = white as [number, number]
  return gamut(id, `Wide ${id.slice(1)}`, 'camera-logs.json', [red, green, blue], { x, y })
})

export const gamuts: readonly Gamut[] = [
  gamut(
    'bt709',
    'BT.709',
    'ITU-R BT.709-6, item 1.3',
    [
      [0.64, 0.33],
      [0.3, 0.6],
      [0.15, 0.06],
    ],
    d65,
  ),
  gamut(
    'bt2020',
    'BT.2020',
    'ITU-R BT.2020-2, table 3',
    [
      [0.708, 0.292],
      [0.17, 0.797],
      [0.131, 0.046],
    ],
    d65,
  ),
  gamut(
    'p3-d65',
    'P3, D65 white',
    'SMPTE EG 432-1',
    [
      [0.68, 0.32],
      [0.265, 0.69],
      [0.15, 0.06],
    ],
    d65,
  ),
  gamut(
    'p3-dci',
    'P3, cinema white',
    'SMPTE RP 431-2, clause 7',
    [
      [0.68, 0.32],
      [0.265, 0.69],
      [0.15, 0.06],
    ],
    { x: 0.314, y: 0.351 },
  ),
  gamut(
    'ap0',
    'AP0',
    'SMPTE ST 2065-1, table 1',
    [
      [0.7347, 0.2653],
      [0, 1],
      [0.0001, -0.077],
    ],
    acesWhite,
  ),
  gamut(
    'ap1',
    'AP1',
    'AMPAS S-2014-004, clause 4.2',
    [
      [0.713, 0.293],
      [0.165, 0.83],
      [0.128, 0.044],
    ],
    acesWhite,
  ),
  ...cameraGamuts,
]

const byId = new Map(gamuts.map((g) => [g.id, g]))

export function isGamutId(id: unknown): id is string {
  return typeof id === 'string' && byId.has(id)
}

/** Throws RangeError for an unknown id. */
export function gamutById(id: string): Gamut {
  const found = byId.get(id)
  if (!found) throw new RangeError(`There is no gamut "${id}".`)
  return found
}

/** XYZ with Y = 1 of a chromaticity. */
export function xyzOf({ x, y }: Chromaticity): Vector3 {
  return [x / y, 1, (1 - x - y) / y]
}

/** Linear RGB → CIE XYZ of the gamut's own white (SMPTE RP 177, clause 3.3). */
export function rgbToXyz(g: Gamut): Matrix3 {
  const [xr, yr, zr] = xyzOf(g.red)
  const [xg, yg, zg] = xyzOf(g.green)
  const [xb, yb, zb] = xyzOf(g.blue)
  const columns: Matrix3 = [xr, xg, xb, yr, yg, yb, zr, zg, zb]
  return multiply(columns, diagonal(transform(invert(columns), xyzOf(g.white))))
}

/** Linear RGB of one gamut → linear RGB of another, Bradford-adapted from white to white. */
export function gamutToGamut(from: Gamut, to: Gamut): Matrix3 {
  const adapted = multiply(bradford(xyzOf(from.white), xyzOf(to.white)), rgbToXyz(from))
  return multiply(invert(rgbToXyz(to)), adapted)
}

/** The share of each linear channel in luminance: the Y row of RGB → XYZ. */
export function luminanceWeights(g: Gamut): Vector3 {
  const m = rgbToXyz(g)
  return [m[3], m[4], m[5]]
}
