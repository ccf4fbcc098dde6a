// What the readings are taken of: one frame with its grade, as it was shot and as it is shown.
import {
  displayById,
  gamutById,
  gamutToGamut,
  lumaWeights,
  transform,
  workingGamut,
  type Display,
  type LumaWeights,
  type Vector3,
} from '../colour'
import {
  compile,
  executeExactly,
  restSize,
  type Chain,
  type GradeDocument,
  type LutFinder,
  type PlanCache,
} from '../grade'
import type { Frame } from '../image'

export interface MeasuredPicture {
  /** The camera's codes. */
  readonly source: Frame
  /** Bits of a sample in the file, and whether it was read as full or legal range (by the grade). */
  readonly sourceBits: number
  /** The display signal of every pixel, as codes of 0..1; the same size as the source. */
  readonly shown: Frame
  readonly grade: GradeDocument
  readonly chain: Chain
  readonly lut: LutFinder
  readonly display: Display
  readonly luma: LumaWeights
}

/** Throws RangeError when source and shown differ in size or hold no pixels. */
export function measuredPicture(parts: Omit<MeasuredPicture, 'display' | 'luma'>): MeasuredPicture {
  const { source, shown } = parts
  if (source.width !== shown.width || source.height !== shown.height || shown.width < 1 || shown.height < 1)
    throw new RangeError('The picture and its source must have the same size.')
  const display = displayById(parts.chain.displayId)
  return { ...parts, display, luma: lumaWeights(display.lumaMatrix) }
}

/** A frame with its grade, run exactly. `cache` keeps what was compiled from one call to the next. */
export function gradedPicture(
  source: Frame,
  sourceBits: number,
  grade: GradeDocument,
  lut: LutFinder,
  cache?: PlanCache,
): MeasuredPicture {
  const plan = compile(grade, lut, source, restSize, cache)
  return measuredPicture({ source, sourceBits, shown: executeExactly(plan, source), grade, chain: plan.chain, lut })
}

/** An area of the frame: corners as shares of its width and height. */
export interface Area {
  readonly left: number
  readonly top: number
  readonly right: number
  readonly bottom: number
}

/** Whole pixels of an area, at least one; held to the frame. */
export function pixelsOf(
  area: Area,
  { width, height }: Pick<Frame, 'width' | 'height'>,
): { readonly x0: number; readonly x1: number; readonly y0: number; readonly y1: number } {
  const edge = (share: number, size: number): number => Math.min(size, Math.max(0, Math.round(share * size)))
  const x0 = Math.min(edge(area.left, width), width - 1)
  const y0 = Math.min(edge(area.top, height), height - 1)
  return { x0, y0, x1: Math.max(x0 + 1, edge(area.right, width)), y1: Math.max(y0 + 1, edge(area.bottom, height)) }
}

/**
 * A function from display signal to scene-like linear AP1, white to white, for measuring colour of light on any
 * display.
 */
export function workingLightOf(display: Display): (red: number, green: number, blue: number) => Vector3 {
  const matrix = gamutToGamut(gamutById(display.gamutId), workingGamut)
  const { decode } = display.eotf
  const table = Float64Array.from({ length: 4096 }, (_, i) => decode((i + 0.5) / 4096))
  const at = (code: number): number => table[Math.min(4095, Math.max(0, Math.floor(code * 4096)))]
  return (red, green, blue) => transform(matrix, [at(red), at(green), at(blue)])
}
