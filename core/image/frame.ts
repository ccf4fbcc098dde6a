// Frame buffers: 16-bit interleaved RGB with a stated meaning of the lowest and the highest code.

export interface Frame {
  readonly width: number
  readonly height: number
  /** RGB triples, row by row: width · height · 3 values. */
  readonly data: Uint16Array
  /** The signal that code 0 and code 65535 stand for. */
  readonly low: number
  readonly high: number
  /** Names the content, so that what was worked out from it can be kept; absent where the memory is used again for another picture. */
  readonly id?: string
}

/** Leaves room for the overshoots of legal-range video and of resampled chroma. */
export const videoLow = -0.25
export const videoHigh = 1.25

/** The frame's codes as signal values, every `stride`-th pixel. */
export function sampleSignal(frame: Frame, stride: number): Float64Array {
  const count = Math.ceil((frame.width * frame.height) / stride)
  const out = new Float64Array(count * 3)
  const scale = (frame.high - frame.low) / 65535
  for (let i = 0; i < count; i++) {
    const from = i * stride * 3
    for (let c = 0; c < 3; c++) out[i * 3 + c] = frame.low + frame.data[from + c]! * scale
  }
  return out
}
