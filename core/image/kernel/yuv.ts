// The kernel that turns rows of Y'CbCr into R'G'B': WebAssembly with SIMD where it can be had. Without it, the plain
// code does the same.
import { reserve, startKernel, type StartedKernel } from '../../wasm/load'
import { chromaHeight, chromaWidth, type PlaneLayout, type Planes, type Samples } from '../planes'
import { wasm } from './yuv.wasm'

interface YuvCode {
  chroma(
    top: number,
    bottom: number,
    count: number,
    wide: boolean,
    down: number,
    middle: number,
    apart: boolean,
    line: number,
    target: number,
  ): void
  rgb(
    luma: number,
    cb: number,
    cr: number,
    width: number,
    wide: boolean,
    gain: number,
    offset: number,
    redFromCr: number,
    greenFromCb: number,
    greenFromCr: number,
    blueFromCb: number,
    target: number,
  ): void
}
let kernel: StartedKernel<YuvCode> | null | undefined

/** What a code becomes: in codes of the frame per code of the footage. */
export interface YuvNumbers {
  readonly lumaGain: number
  readonly offset: number
  readonly middle: number
  readonly redFromCr: number
  readonly greenFromCb: number
  readonly greenFromCr: number
  readonly blueFromCb: number
}

type Whole = Uint8Array | Uint16Array
const isWhole = (samples: Samples): samples is Whole => !(samples instanceof Float32Array)

/** As ycbcrRows; false without a kernel, and for samples that are no whole numbers: then nothing was done. */
export function ycbcrRowsByKernel(
  { y: luma, cb, cr }: Planes,
  layout: PlaneLayout,
  numbers: YuvNumbers,
  data: Uint16Array,
  from: number,
  to: number,
): boolean {
  if (kernel === undefined) kernel = startKernel<YuvCode>(wasm, 0)
  if (!kernel || !isWhole(luma) || !isWhole(cb) || !isWhole(cr)) return false
  const { width } = layout
  const cw = chromaWidth(layout)
  const ch = chromaHeight(layout)
  const wide = luma instanceof Uint16Array
  const floats = (width + 12) * 4
  const [lumaAt, topAt, bottomAt, lineAt, cbAt, crAt, rgbAt] = [0, 1, 2, 3, 4, 5, 6].map((n) => n * floats) as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ]
  reserve(kernel.memory, rgbAt + (width + 4) * 6)
  const {
    code,
    memory: { buffer },
  } = kernel
  const put = (at: number, samples: Whole): void => {
    ;(wide ? new Uint16Array(buffer, at, samples.length) : new Uint8Array(buffer, at, samples.length)).set(samples)
  }
  const shown = new Uint16Array(buffer, rgbAt, width * 3)
  for (let row = from; row < to; row++) {
    // Vertical siting of 4:2:0 lies halfway between two luma lines.
    const at = layout.chromaShiftY ? (row - 0.5) / 2 : row
    const top = Math.min(Math.max(Math.floor(at), 0), ch - 1)
    const bottom = Math.min(top + 1, ch - 1)
    const down = Math.min(Math.max(at - top, 0), 1)
    for (const [plane, target] of [
      [cb, cbAt],
      [cr, crAt],
    ] as const) {
      put(topAt, plane.subarray(top * cw, (top + 1) * cw))
      put(bottomAt, plane.subarray(bottom * cw, (bottom + 1) * cw))
      code.chroma(topAt, bottomAt, cw, wide, down, numbers.middle, layout.chromaShiftX === 1, lineAt, target)
    }
    put(lumaAt, luma.subarray(row * width, (row + 1) * width))
    code.rgb(
      lumaAt,
      cbAt,
      crAt,
      width,
      wide,
      numbers.lumaGain,
      numbers.offset,
      numbers.redFromCr,
      numbers.greenFromCb,
      numbers.greenFromCr,
      numbers.blueFromCb,
      rgbAt,
    )
    data.set(shown, row * width * 3)
  }
  return true
}
