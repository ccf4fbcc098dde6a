// LUTs: tables of colours in memory, alone or one behind the other with formulas between, and their application to
// pixels.
import { applyFormula, type Formula } from './formula'

interface LutBase {
  readonly title: string
  /** Entries per axis. */
  readonly size: number
  /** RGB triples. A 3D table runs with red fastest. */
  readonly data: Float32Array
  /** What the table expects per channel: inputs are placed between these and held to them. */
  readonly domainMin: readonly [number, number, number]
  readonly domainMax: readonly [number, number, number]
}
export interface Lut1d extends LutBase {
  readonly dimensions: 1
}
export interface Lut3d extends LutBase {
  readonly dimensions: 3
  /** How its file says that it is to be read between its entries; then nothing else counts. */
  readonly interpolation?: Interpolation
}
export type LutTable = Lut1d | Lut3d
export type LutPart = LutTable | Formula
/** Tables and formulas one behind the other: a shaper before a cube, or a file of many parts. */
export interface LutSequence {
  readonly dimensions: 'sequence'
  readonly title: string
  readonly parts: readonly LutPart[]
}
export type Lut = LutTable | LutSequence
export type Interpolation = 'tetrahedral' | 'trilinear'

/**
 * Applies a table to interleaved RGB triples in place. Inputs outside the domain are held to its ends; NaN becomes the
 * lower end.
 */
export function applyLut(lut: Lut, pixels: Float64Array, interpolation: Interpolation): void {
  if (lut.dimensions === 'sequence') {
    for (const part of lut.parts)
      if ('formula' in part) applyFormula(part, pixels)
      else applyLut(part, pixels, interpolation)
  } else if (lut.dimensions === 1) apply1d(lut, pixels)
  else apply3d(lut, pixels, (lut.interpolation ?? interpolation) === 'trilinear' ? trilinear : tetrahedral)
}

/** Entries per axis: of the largest cube, else of the longest curve; 0 where there are only formulas. */
export function lutSize(lut: Lut): number {
  if (lut.dimensions !== 'sequence') return lut.size
  const tables = lut.parts.filter((p): p is LutTable => !('formula' in p))
  const cubes = tables.filter((t) => t.dimensions === 3)
  return Math.max(0, ...(cubes.length > 0 ? cubes : tables).map((t) => t.size))
}

/** What goes in between, channel by channel: the domain of the first table where nothing stands before it, else 0…1. */
export function lutDomain(lut: Lut): {
  readonly min: readonly [number, number, number]
  readonly max: readonly [number, number, number]
} {
  const first = lut.dimensions === 'sequence' ? lut.parts[0] : lut
  return first && !('formula' in first)
    ? { min: first.domainMin, max: first.domainMax }
    : { min: [0, 0, 0], max: [1, 1, 1] }
}

function position(value: number, min: number, max: number, last: number): number {
  const p = ((value - min) / (max - min)) * last
  return p > 0 ? Math.min(p, last) : 0
}

/** One channel (0..2) of a 1D table as a function. */
export function lookUp1d({ size, data, domainMin, domainMax }: Lut1d, channel: 0 | 1 | 2): (value: number) => number {
  const last = size - 1
  const min = domainMin[channel]
  const max = domainMax[channel]
  return (value) => {
    const p = position(value, min, max, last)
    const below = Math.min(Math.floor(p), last - 1)
    const f = p - below
    const a = data[below * 3 + channel]
    const b = data[below * 3 + 3 + channel]
    return a + (b - a) * f
  }
}

function apply1d(lut: Lut1d, pixels: Float64Array): void {
  const channels = ([0, 1, 2] as const).map((c) => lookUp1d(lut, c))
  for (let i = 0; i < pixels.length; i++) pixels[i] = channels[i % 3](pixels[i])
}

type Interpolate = (
  data: Float32Array,
  corner: number,
  green: number,
  blue: number,
  fr: number,
  fg: number,
  fb: number,
  c: number,
) => number

function apply3d({ size, data, domainMin, domainMax }: Lut3d, pixels: Float64Array, interpolate: Interpolate): void {
  const last = size - 1
  const greenStride = size * 3
  const blueStride = size * size * 3
  for (let i = 0; i < pixels.length; i += 3) {
    const pr = position(pixels[i], domainMin[0], domainMax[0], last)
    const pg = position(pixels[i + 1], domainMin[1], domainMax[1], last)
    const pb = position(pixels[i + 2], domainMin[2], domainMax[2], last)
    const r = Math.min(Math.floor(pr), last - 1)
    const g = Math.min(Math.floor(pg), last - 1)
    const b = Math.min(Math.floor(pb), last - 1)
    const corner = b * blueStride + g * greenStride + r * 3
    for (let c = 0; c < 3; c++)
      pixels[i + c] = interpolate(data, corner, greenStride, blueStride, pr - r, pg - g, pb - b, c)
  }
}

/** Six tetrahedra about the grey diagonal of the cell: walk the axes from the largest fraction to the smallest. */
function tetrahedral(
  data: Float32Array,
  corner: number,
  green: number,
  blue: number,
  fr: number,
  fg: number,
  fb: number,
  c: number,
): number {
  const o = corner + c
  let first: number
  let second: number
  let f1: number
  let f2: number
  let f3: number
  if (fr >= fg) {
    if (fg >= fb) {
      first = 3
      second = 3 + green
      f1 = fr
      f2 = fg
      f3 = fb
    } else if (fr >= fb) {
      first = 3
      second = 3 + blue
      f1 = fr
      f2 = fb
      f3 = fg
    } else {
      first = blue
      second = 3 + blue
      f1 = fb
      f2 = fr
      f3 = fg
    }
  } else if (fb >= fg) {
    first = blue
    second = green + blue
    f1 = fb
    f2 = fg
    f3 = fr
  } else if (fb >= fr) {
    first = green
    second = green + blue
    f1 = fg
    f2 = fb
    f3 = fr
  } else {
    first = green
    second = 3 + green
    f1 = fg
    f2 = fr
    f3 = fb
  }
  return (
    data[o] * (1 - f1) + data[o + first] * (f1 - f2) + data[o + second] * (f2 - f3) + data[o + 3 + green + blue] * f3
  )
}

function trilinear(
  data: Float32Array,
  corner: number,
  green: number,
  blue: number,
  fr: number,
  fg: number,
  fb: number,
  c: number,
): number {
  const o = corner + c
  const along = (at: number): number => data[at] * (1 - fr) + data[at + 3] * fr
  const near = along(o) * (1 - fg) + along(o + green) * fg
  const far = along(o + blue) * (1 - fg) + along(o + blue + green) * fg
  return near * (1 - fb) + far * fb
}
