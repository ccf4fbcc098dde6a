// Y'CbCr planes of a decoded video frame → 16-bit R'G'B'.
import { clamp } from '../numbers'
import { lumaWeights, type MatrixId } from '../colour'
import { videoHigh, videoLow } from './frame'
import { ycbcrRowsByKernel, type YuvNumbers } from './kernel/yuv'
import { chromaHeight, chromaWidth, type CodeRange, type PlaneLayout, type Planes, type Samples } from './planes'

export interface Levels {
  readonly black: number
  readonly lumaSpan: number
  readonly middle: number
  readonly chromaSpan: number
}

/** Code levels (ITU-R BT.709-6 item 4.6, BT.2100-2 table 9). */
export function codeLevels(bitDepth: number, range: CodeRange): Levels {
  const unit = 2 ** (bitDepth - 8)
  if (range === 'legal') return { black: 16 * unit, lumaSpan: 219 * unit, middle: 128 * unit, chromaSpan: 224 * unit }
  const top = 2 ** bitDepth - 1
  return { black: 0, lumaSpan: top, middle: 128 * unit, chromaSpan: top }
}

/**
 * Some rows of Y'CbCr as R'G'B' into `data` (the whole frame's RGB triples), codes spanning −0.25…1.25. Chroma is
 * interpolated linearly: co-sited with luma across, between lines down (the usual siting of 4:2:2 and 4:2:0).
 */
export function ycbcrRows(
  planes: Planes,
  layout: PlaneLayout,
  range: CodeRange,
  matrix: MatrixId,
  data: Uint16Array,
  from: number,
  to: number,
): void {
  const numbers = yuvNumbers(layout, range, matrix)
  if (!ycbcrRowsByKernel(planes, layout, numbers, data, from, to)) plainRows(planes, layout, numbers, data, from, to)
}

/** What a sample of each plane adds to the codes of R'G'B', which are then cut to whole ones. */
export function yuvNumbers({ bitDepth }: PlaneLayout, range: CodeRange, matrix: MatrixId): YuvNumbers {
  const { black, lumaSpan, middle, chromaSpan } = codeLevels(bitDepth, range)
  const w = lumaWeights(matrix)
  const perSignal = 65535 / (videoHigh - videoLow)
  const lumaGain = perSignal / lumaSpan
  const offset = -videoLow * perSignal - black * lumaGain + 0.5
  const chromaGain = perSignal / chromaSpan
  const redFromCr = w.crDivisor * chromaGain
  const blueFromCb = w.cbDivisor * chromaGain
  const greenFromCb = (-w.blue * blueFromCb) / w.green
  const greenFromCr = (-w.red * redFromCr) / w.green
  return { lumaGain, offset, middle, redFromCr, greenFromCb, greenFromCr, blueFromCb }
}

/** The plain reference of the kernel. */
export function plainRows(
  planes: Planes,
  layout: PlaneLayout,
  { lumaGain, offset, middle, redFromCr, greenFromCb, greenFromCr, blueFromCb }: YuvNumbers,
  data: Uint16Array,
  from: number,
  to: number,
): void {
  const { width } = layout
  const cbRow = new Float32Array(width + 1)
  const crRow = new Float32Array(width + 1)
  for (let y = from, o = from * width * 3; y < to; y++) {
    chromaRow(planes.cb, layout, y, middle, cbRow)
    chromaRow(planes.cr, layout, y, middle, crRow)
    const row = planes.y.subarray(y * width, (y + 1) * width)
    for (let x = 0; x < width; x++, o += 3) {
      const luma = row[x] * lumaGain + offset
      const cb = cbRow[x]
      const cr = crRow[x]
      const red = luma + redFromCr * cr
      const green = luma + greenFromCb * cb + greenFromCr * cr
      const blue = luma + blueFromCb * cb
      data[o] = clamp(red, 0, 65535)
      data[o + 1] = clamp(green, 0, 65535)
      data[o + 2] = clamp(blue, 0, 65535)
    }
  }
}

/** One row of a chroma plane at luma resolution, less its middle. `out` has room for one more than the width. */
function chromaRow(plane: Samples, layout: PlaneLayout, y: number, middle: number, out: Float32Array): void {
  const cw = chromaWidth(layout)
  const ch = chromaHeight(layout)
  // Vertical siting of 4:2:0 lies halfway between two luma lines.
  const at = layout.chromaShiftY ? (y - 0.5) / 2 : y
  const top = Math.min(Math.max(Math.floor(at), 0), ch - 1)
  const bottom = Math.min(top + 1, ch - 1)
  const down = Math.min(Math.max(at - top, 0), 1)
  const up = 1 - down
  const a = plane.subarray(top * cw, (top + 1) * cw)
  const b = plane.subarray(bottom * cw, (bottom + 1) * cw)
  if (!layout.chromaShiftX) {
    for (let x = 0; x < cw; x++) out[x] = a[x] * up + b[x] * down - middle
    return
  }
  let here = a[0] * up + b[0] * down - middle
  for (let c = 0; c < cw; c++) {
    const next = c + 1 < cw ? a[c + 1] * up + b[c + 1] * down - middle : here
    out[2 * c] = here
    out[2 * c + 1] = (here + next) / 2
    here = next
  }
}
