// How far a plan's lattices are from direct evaluation on the pixels of a real frame, and whether that is near enough.
import { differenceMeasure, type DifferenceMeasure } from '../colour'
import { sampleSignal, type Frame } from '../image'
import type { Plan } from './compile'
import { evaluateDirect, mattesAt, type Positions } from './direct'
import { execute, rowsNeeded } from './execute'
import { chunkPixels, runChunk } from './kernel'
import { positionsIn } from './rasters'

/** Differences between two lists of display signals. */
export interface DifferenceReport {
  readonly measure: DifferenceMeasure['name']
  readonly mean: number
  readonly percentile999: number
  readonly worst: number
  readonly pixels: number
}

/** The accuracy the preview is held to, over a real frame. */
export const accuracyBound = { mean: 0.05, worst: 0.5 } as const
export const withinBound = ({ mean, worst }: DifferenceReport): boolean =>
  mean <= accuracyBound.mean && worst <= accuracyBound.worst

/** Compares RGB triples of display signal, pixel by pixel, in the measure of their display. */
export function signalError(first: Float64Array, second: Float64Array, displayId: string): DifferenceReport {
  const { name, place, difference } = differenceMeasure(displayId)
  const differences = new Float64Array(first.length / 3)
  for (let p = 0, i = 0; p < differences.length; p++, i += 3)
    differences[p] = difference(
      place(first[i], first[i + 1], first[i + 2]),
      place(second[i], second[i + 1], second[i + 2]),
    )
  differences.sort()
  const mean = differences.reduce((a, b) => a + b, 0) / Math.max(1, differences.length)
  const at = (share: number): number =>
    differences[Math.min(differences.length - 1, Math.floor(share * differences.length))] ?? 0
  return { measure: name, mean, percentile999: at(0.999), worst: at(1), pixels: differences.length }
}

/** A plan's error on about `samples` pixels spread evenly over a frame. */
export function planError(plan: Plan, frame: Frame, samples = 3000): DifferenceReport {
  const stride = Math.max(1, Math.floor((frame.width * frame.height) / samples)) | 1
  // Both sides are given the same mattes, so rough ones do; what looks at neighbours is compared with the whole
  // picture.
  const positions = positionsIn(plan.chain, frame, stride, 0, undefined, rowsNeeded(plan, frame.height) > 0)
  const direct = sampleSignal(frame, stride)
  evaluateDirect(plan.chain, direct, positions)
  return signalError(direct, compiledSamples(plan, frame, stride, positions), plan.chain.displayId)
}

/** Every `stride`-th pixel through the plan's passes, as display signal. */
function compiledSamples(plan: Plan, frame: Frame, stride: number, positions: Positions): Float64Array {
  if (rowsNeeded(plan, frame.height) > 0) return sampleSignal(execute(plan, frame), stride)
  const codes = new Uint16Array((positions.shares.length / 2) * 3)
  for (let p = 0, o = 0; o < codes.length; p += stride * 3, o += 3) codes.set(frame.data.subarray(p, p + 3), o)
  const mattes = plan.passes.map(({ region }) =>
    region ? Float32Array.from(mattesAt(region, plan.chain.regions, positions), (m) => m * region.strength) : null,
  )
  for (let first = 0; first < codes.length / 3; first += chunkPixels) {
    const chunk = codes.subarray(first * 3, (first + chunkPixels) * 3)
    runChunk(
      plan,
      chunk,
      chunk,
      mattes.map((matte) => matte && matte.subarray(first, first + chunkPixels)),
    )
  }
  return Float64Array.from(codes, (code) => code / 65535)
}
