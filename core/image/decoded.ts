// A decoded picture of any kind → one frame of 16-bit RGB codes.
import { encodingById, type MatrixId } from '../colour'
import { videoHigh, videoLow, type Frame } from './frame'
import {
  chromaHeight,
  chromaWidth,
  splitPlanes,
  type CodeRange,
  type PlaneLayout,
  type Planes,
  type Samples,
} from './planes'
import { rotate, type QuarterTurn } from './rotate'
import { codeLevels, ycbcrRows } from './yuv'

/**
 * Scene-linear floating point is carried as codes of this encoding (AMPAS S-2016-001): 16 bits span far more than a
 * camera's range.
 */
export const carrierOfLinear = 'acescct'

/**
 * Codes of RGB and grey pictures span 0…1 in full range; legal range and carried linear light need room on both sides.
 */
export function spanOf(
  { model, bitDepth }: Pick<PlaneLayout, 'model' | 'bitDepth'>,
  range: CodeRange,
): { readonly low: number; readonly high: number } {
  return model === 'ycbcr' || bitDepth > 16 || range === 'legal'
    ? { low: videoLow, high: videoHigh }
    : { low: 0, high: 1 }
}

/** One whole frame. */
export function planesToFrame(planes: Planes, layout: PlaneLayout, range: CodeRange, matrix: MatrixId): Frame {
  const { width, height } = layout
  const frame: Frame = { width, height, data: new Uint16Array(width * height * 3), ...spanOf(layout, range) }
  planesToRows(planes, layout, range, matrix, frame.data, 0, height)
  return frame
}

/** A decoder's bytes and how they are to be understood. */
export interface DecodedPicture {
  readonly planes: Uint8Array
  readonly layout: PlaneLayout
  readonly range: CodeRange
  readonly matrix: MatrixId
  readonly rotation: QuarterTurn
}

/** The frame as it is to be looked at: turned as the file asks. */
export const frameOfDecoded = ({ planes, layout, range, matrix, rotation }: DecodedPicture): Frame =>
  rotate(planesToFrame(splitPlanes(planes, layout), layout, range, matrix), rotation)

/**
 * The part about the middle of a picture, no larger than asked as it is looked at, before anything is converted. Its
 * corner lies on whole samples of chroma.
 */
export function middleOfDecoded(picture: DecodedPicture, shownWidth: number, shownHeight: number): DecodedPicture {
  const { layout, planes, rotation } = picture
  const [most, tallest] = rotation % 180 === 0 ? [shownWidth, shownHeight] : [shownHeight, shownWidth]
  const width = Math.min(layout.width, most)
  const height = Math.min(layout.height, tallest)
  if (width === layout.width && height === layout.height) return picture
  const left = evenHalf(layout.width - width)
  const top = evenHalf(layout.height - height)
  const part: PlaneLayout = { ...layout, width, height }
  const { y, cb, cr } = splitPlanes(planes, layout)
  const { chromaShiftX: across, chromaShiftY: down } = layout
  const inChroma = { left: left >> across, top: top >> down, width: chromaWidth(part), height: chromaHeight(part) }
  const cut = [
    partOfPlane(y, layout.width, { left, top, width, height }),
    ...(layout.model === 'grey' ? [] : [cb, cr].map((plane) => partOfPlane(plane, chromaWidth(layout), inChroma))),
  ]
  const bytes = new Uint8Array(cut.reduce((sum, plane) => sum + plane.byteLength, 0))
  let at = 0
  for (const plane of cut) {
    bytes.set(new Uint8Array(plane.buffer, plane.byteOffset, plane.byteLength), at)
    at += plane.byteLength
  }
  return { ...picture, planes: bytes, layout: part }
}

/** Half of what is left over, on a whole sample of chroma. */
export const evenHalf = (rest: number): number => (rest >> 2) << 1

function partOfPlane(
  plane: Samples,
  stride: number,
  { left, top, width, height }: { left: number; top: number; width: number; height: number },
): Samples {
  const out = plane.slice(0, width * height)
  for (let y = 0; y < height; y++) {
    const from = (top + y) * stride + left
    out.set(plane.subarray(from, from + width), y * width)
  }
  return out
}

/** Rows `from` up to `to` into the RGB triples of a whole frame. */
export function planesToRows(
  planes: Planes,
  layout: PlaneLayout,
  range: CodeRange,
  matrix: MatrixId,
  data: Uint16Array,
  from: number,
  to: number,
): void {
  if (layout.model === 'ycbcr') return ycbcrRows(planes, layout, range, matrix, data, from, to)
  const toCode = layout.bitDepth > 16 ? linearToCode(layout, range) : wholeToCode(layout, range)
  const sources = layout.model === 'rgb' ? [planes.cr, planes.y, planes.cb] : [planes.y, planes.y, planes.y]
  for (let p = from * layout.width, o = p * 3; p < to * layout.width; p++)
    for (let c = 0; c < 3; c++, o++) data[o] = Math.min(65535, Math.max(0, toCode(sources[c][p])))
}

function wholeToCode(layout: PlaneLayout, range: CodeRange): (sample: number) => number {
  const { low, high } = spanOf(layout, range)
  const { black, lumaSpan } = codeLevels(layout.bitDepth, range)
  const gain = 65535 / (high - low) / lumaSpan
  const offset = (-low * 65535) / (high - low) - black * gain + 0.5
  return (sample) => sample * gain + offset
}

function linearToCode(layout: PlaneLayout, range: CodeRange): (sample: number) => number {
  const { low, high } = spanOf(layout, range)
  const { encode } = encodingById(carrierOfLinear).curve
  const gain = 65535 / (high - low)
  // Not-a-number and infinity come in real files; the first is black, the second as bright as can be carried.
  return (sample) => (Number.isNaN(sample) ? 0 : (encode(Math.min(Math.max(sample, -1), 65504)) - low) * gain + 0.5)
}
