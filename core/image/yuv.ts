// Y'CbCr planes of a decoded video frame → 16-bit R'G'B'.
import { lumaWeights, type MatrixId } from '../colour'
import { videoHigh, videoLow, type Frame } from './frame'

/** How code values are to be understood: full range, or legal (video) range with head- and footroom. */
export type CodeRange = 'full' | 'legal'

export interface PlaneLayout {
  readonly width: number
  readonly height: number
  /** Code values per sample are 0 … 2^bitDepth − 1. */
  readonly bitDepth: number
  /** log2 of the chroma subsampling across and down: 4:4:4 is 0, 0; 4:2:2 is 1, 0; 4:2:0 is 1, 1. */
  readonly chromaShiftX: 0 | 1
  readonly chromaShiftY: 0 | 1
}

export interface Planes {
  readonly y: Uint16Array | Uint8Array
  readonly cb: Uint16Array | Uint8Array
  readonly cr: Uint16Array | Uint8Array
}

export const chromaWidth = (l: PlaneLayout): number => Math.ceil(l.width / (1 << l.chromaShiftX))
export const chromaHeight = (l: PlaneLayout): number => Math.ceil(l.height / (1 << l.chromaShiftY))

/** Splits the bytes of one tightly packed planar frame (8 bit: bytes; above: 16-bit little-endian). Throws RangeError when they are too few. */
export function splitPlanes(bytes: Uint8Array, layout: PlaneLayout): Planes {
  const lumaCount = layout.width * layout.height, chromaCount = chromaWidth(layout) * chromaHeight(layout)
  const total = lumaCount + 2 * chromaCount, sampleBytes = layout.bitDepth > 8 ? 2 : 1
  if (bytes.length < total * sampleBytes) throw new RangeError(`A frame of ${total * sampleBytes} bytes was expected, ${bytes.length} came.`)
  const samples = sampleBytes === 1 ? bytes : alignedWords(bytes, total)
  return {
    y: samples.subarray(0, lumaCount),
    cb: samples.subarray(lumaCount, lumaCount + chromaCount),
    cr: samples.subarray(lumaCount + chromaCount, total),
  }
}

function alignedWords(bytes: Uint8Array, count: number): Uint16Array {
  if (bytes.byteOffset % 2 === 0) return new Uint16Array(bytes.buffer as ArrayBuffer, bytes.byteOffset, count)
  return new Uint16Array(bytes.slice(0, count * 2).buffer)
}

interface Levels { readonly black: number; readonly lumaSpan: number; readonly middle: number; readonly chromaSpan: number }

/** Code levels (ITU-R BT.709-6 item 4.6, BT.2100-2 table 9). */
function codeLevels(bitDepth: number, range: CodeRange): Levels {
  const unit = 2 ** (bitDepth - 8)
  if (range === 'legal') return { black: 16 * unit, lumaSpan: 219 * unit, middle: 128 * unit, chromaSpan: 224 * unit }
  const top = 2 ** bitDepth - 1
  return { black: 0, lumaSpan: top, middle: 128 * unit, chromaSpan: top }
}

/**
 * One frame as R'G'B', codes spanning −0.25…1.25. Chroma is interpolated linearly: co-sited with luma across, between
 * lines down (the usual siting of 4:2:2 and 4:2:0).
 */
export function planesToFrame(planes: Planes, layout: PlaneLayout, range: CodeRange, matrix: MatrixId): Frame {
  const { width, height } = layout
  const { black, lumaSpan, middle, chromaSpan } = codeLevels(layout.bitDepth, range)
  const w = lumaWeights(matrix)
  const perSignal = 65535 / (videoHigh - videoLow)
  const lumaGain = perSignal / lumaSpan, offset = -videoLow * perSignal - black * lumaGain + 0.5
  const chromaGain = perSignal / chromaSpan
  const redFromCr = w.crDivisor * chromaGain, blueFromCb = w.cbDivisor * chromaGain
  const greenFromCb = (-w.blue * blueFromCb) / w.green, greenFromCr = (-w.red * redFromCr) / w.green
  const data = new Uint16Array(width * height * 3)
  const cbRow = new Float64Array(width), crRow = new Float64Array(width)
  for (let y = 0, o = 0; y < height; y++) {
    chromaRow(planes.cb, layout, y, middle, cbRow)
    chromaRow(planes.cr, layout, y, middle, crRow)
    for (let x = 0; x < width; x++, o += 3) {
      const luma = planes.y[y * width + x]! * lumaGain + offset
      const cb = cbRow[x]!, cr = crRow[x]!
      data[o] = hold(luma + redFromCr * cr)
      data[o + 1] = hold(luma + greenFromCb * cb + greenFromCr * cr)
      data[o + 2] = hold(luma + blueFromCb * cb)
    }
  }
  return { width, height, data, low: videoLow, high: videoHigh }
}

const hold = (v: number): number => (v < 0 ? 0 : v > 65535 ? 65535 : v)

/** One row of a chroma plane at luma resolution, less its middle. */
function chromaRow(plane: Uint16Array | Uint8Array, layout: PlaneLayout, y: number, middle: number, out: Float64Array): void {
  const cw = chromaWidth(layout), ch = chromaHeight(layout)
  // Vertical siting of 4:2:0 lies halfway between two luma lines.
  const at = layout.chromaShiftY ? (y - 0.5) / 2 : y
  const top = Math.min(Math.max(Math.floor(at), 0), ch - 1), bottom = Math.min(top + 1, ch - 1)
  const down = Math.min(Math.max(at - top, 0), 1)
  const rowA = top * cw, rowB = bottom * cw
  const sample = (x: number): number => plane[rowA + x]! * (1 - down) + plane[rowB + x]! * down - middle
  if (!layout.chromaShiftX) {
    for (let x = 0; x < layout.width; x++) out[x] = sample(x)
    return
  }
  for (let c = 0; c < cw; c++) {
    const here = sample(c)
    out[2 * c] = here
    if (2 * c + 1 < layout.width) out[2 * c + 1] = c + 1 < cw ? (here + sample(c + 1)) / 2 : here
  }
}
