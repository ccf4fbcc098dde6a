// A stratified sample of a frame as scene light: every tone is in it, the ends most densely; and the places that aims
// look at.
import { applyLink, buildChain, rastersOf, type GradeDocument, type LutFinder, type Positions } from '../grade'
import type { Frame } from '../image'
import { pixelsOf, type Area } from '../readings'
import type { Aim, Want } from './aim'

/** Pixels that stand for a share of the frame each. */
export interface Strata {
  /** Scene light after Read, RGB triples. */
  readonly light: Float64Array
  readonly positions: Positions
  /** Share of the frame (0..1) that each stands for; in all 1. */
  readonly weights: Float64Array
}

export interface AimSample {
  readonly frame: Frame
  readonly coarse: Strata
  /** The same, far denser: what a solution is checked on. */
  readonly fine: Strata
  /** Per aim: pixels of its place with their positions; empty where it needs none. */
  readonly places: ReadonlyMap<string, { readonly light: Float64Array; readonly positions: Positions }>
  /**
   * Per aim: mean scene light of its areas, each brought to the same luminance first where only colour is asked for.
   */
  readonly means: ReadonlyMap<string, Float64Array>
}

/** How many pixels stand for which part of the ranks: the ends are where levels are asked for. */
const strata = [
  { from: 0, to: 0.004, few: 100, many: 1200 },
  { from: 0.004, to: 0.03, few: 50, many: 300 },
  { from: 0.03, to: 0.97, few: 240, many: 3600 },
  { from: 0.97, to: 0.996, few: 50, many: 300 },
  { from: 0.996, to: 1, few: 100, many: 600 },
] as const
const placePixels = 160

// Ranking a frame takes longer than solving; it is the same for every solve on it.
const ranked = new WeakMap<Uint16Array, Uint32Array>()

/** Pixel numbers in order of brightness of the codes (a counting sort by a rough luma). */
function ranksOf({ data }: Frame): Uint32Array {
  const known = ranked.get(data)
  if (known) return known
  const pixels = data.length / 3
  const starts = new Uint32Array(65537)
  const keys = new Uint16Array(pixels)
  const order = new Uint32Array(pixels)
  for (let p = 0, i = 0; p < pixels; p++, i += 3)
    starts[(keys[p] = (data[i] * 4 + data[i + 1] * 11 + data[i + 2]) >> 4) + 1]++
  for (let k = 0; k < 65536; k++) starts[k + 1] += starts[k]
  for (let p = 0; p < pixels; p++) order[starts[keys[p]]++] = p
  ranked.set(data, order)
  return order
}

/** Scene light after Read of some pixels, with their positions. */
function lightOf(
  frame: Frame,
  grade: GradeDocument,
  lut: LutFinder,
  pixels: ArrayLike<number>,
): { light: Float64Array; positions: Positions } {
  const { width, height, data, low, high } = frame
  const scale = (high - low) / 65535
  const light = new Float64Array(pixels.length * 3)
  const shares = new Float64Array(pixels.length * 2)
  const chain = buildChain(grade, lut)
  for (let n = 0; n < pixels.length; n++) {
    const p = pixels[n]
    for (let c = 0; c < 3; c++) light[n * 3 + c] = chain.decode(low + data[p * 3 + c] * scale)
    shares[n * 2] = ((p % width) + 0.5) / width
    shares[n * 2 + 1] = (Math.floor(p / width) + 0.5) / height
  }
  for (const link of chain.links) if (link.station === 'read') applyLink(link, light)
  // Mattes are those of the grade as it stands: while controls are sought they stay. What looks at neighbours is left
  // out.
  const rasters = rastersOf(chain, frame, false)
  const positions = { shares, frameWidth: width, frameHeight: height }
  return { light, positions: rasters ? { ...positions, rasters: { ...rasters, means: new Map() } } : positions }
}

/** Prepares a frame for aims. The aims' wanted values may change afterwards, their places not. */
export function prepareSample(frame: Frame, grade: GradeDocument, lut: LutFinder, aims: readonly Aim[]): AimSample {
  const places = new Map<string, { light: Float64Array; positions: Positions }>()
  const means = new Map<string, Float64Array>()
  for (const { id, want } of aims) {
    const areas = areasOf(want)
    if (want.kind === 'light' || want.kind === 'neutral')
      means.set(
        id,
        meanLight(
          areas.map((a) => lightOf(frame, grade, lut, pixelsIn(frame, a, 4000)).light),
          want.kind === 'neutral',
        ),
      )
    else if (areas.length > 0)
      places.set(
        id,
        lightOf(
          frame,
          grade,
          lut,
          areas.flatMap((a) => pixelsIn(frame, a, Math.ceil(placePixels / areas.length))),
        ),
      )
  }
  return { frame, ...spreadOf(frame, grade, lut), places, means }
}

// Reading thousands of pixels takes longer than solving; it is the same for every solve on a frame that is read alike.
const samples = new WeakMap<Uint16Array, { readonly key: string; readonly coarse: Strata; readonly fine: Strata }>()

function spreadOf(
  frame: Frame,
  grade: GradeDocument,
  lut: LutFinder,
): { readonly coarse: Strata; readonly fine: Strata } {
  const key = JSON.stringify([grade.read, grade.regions])
  const known = samples.get(frame.data)
  if (known?.key === key) return known
  const made = { key, coarse: strataOf(frame, grade, lut, 'few'), fine: strataOf(frame, grade, lut, 'many') }
  samples.set(frame.data, made)
  return made
}

function strataOf(frame: Frame, grade: GradeDocument, lut: LutFinder, density: 'few' | 'many'): Strata {
  const order = ranksOf(frame)
  const chosen: number[] = []
  const weights: number[] = []
  for (const { from, to, [density]: count } of strata) {
    const first = Math.floor(from * order.length)
    const last = Math.floor(to * order.length)
    const n = Math.min(count, last - first)
    for (let k = 0; k < n; k++) {
      chosen.push(order[first + Math.floor(((k + 0.5) * (last - first)) / n)])
      weights.push((last - first) / n / order.length)
    }
  }
  return { ...lightOf(frame, grade, lut, chosen), weights: Float64Array.from(weights) }
}

const areasOf = (want: Want): readonly Area[] => {
  if ('areas' in want) return want.areas
  if (want.kind === 'skin') return [want.area]
  return []
}

/** At most so many pixels of an area, evenly over it. */
function pixelsIn(frame: Frame, area: Area, most: number): number[] {
  const { x0, x1, y0, y1 } = pixelsOf(area, frame)
  const stride = Math.max(1, Math.ceil(Math.sqrt(((x1 - x0) * (y1 - y0)) / most)))
  const out: number[] = []
  for (let y = y0 + Math.floor(Math.min(stride, y1 - y0) / 2); y < y1; y += stride)
    for (let x = x0 + Math.floor(Math.min(stride, x1 - x0) / 2); x < x1; x += stride) out.push(y * frame.width + x)
  return out.length > 0 ? out : [y0 * frame.width + x0]
}

/** Mean light over areas; for colour alone each area counts the same, however bright it is. */
function meanLight(areas: readonly Float64Array[], colourOnly: boolean): Float64Array {
  const mean = new Float64Array(3)
  for (const light of areas) {
    const own = new Float64Array(3)
    for (let i = 0; i < light.length; i++) own[i % 3] += light[i]
    const by = colourOnly ? 1 / Math.max(1e-9, own[0] + own[1] + own[2]) : 3 / light.length
    for (let c = 0; c < 3; c++) mean[c] += (own[c] * by) / areas.length
  }
  return mean
}
