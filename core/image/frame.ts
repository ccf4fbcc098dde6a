// Frame buffers: 16-bit interleaved RGB with a stated meaning of the lowest and the highest code.

export interface Frame {
  readonly width: number
  readonly height: number
  /** RGB triples, row by row: width · height · 3 values. */
  readonly data: Uint16Array
  /** The signal that code 0 and code 65535 stand for. */
  readonly low: number
  readonly high: number
  /**
   * Names the content, so that what was worked out from it can be kept; absent where the memory is used again for
   * another picture.
   */
  readonly id?: string
  /** Frames before and after this one, by how many frames away they are, for what is steadied over time. */
  readonly around?: ReadonlyMap<number, Frame>
}

/** Every second pixel of every second row: for a look while a hand moves. */
export function halfOf({ width, height, data, low, high, id }: Frame): Frame {
  const w = Math.max(1, width >> 1)
  const h = Math.max(1, height >> 1)
  const out = new Uint16Array(w * h * 3)
  for (let y = 0, o = 0; y < h; y++)
    for (let x = 0, i = y * 2 * width * 3; x < w; x++, o += 3, i += 6) {
      out[o] = data[i]
      out[o + 1] = data[i + 1]
      out[o + 2] = data[i + 2]
    }
  return { width: w, height: h, data: out, low, high, ...(id === undefined ? {} : { id: `${id} half` }) }
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
    for (let c = 0; c < 3; c++) out[i * 3 + c] = frame.low + frame.data[from + c] * scale
  }
  return out
}

/** The signal of the given pixels (their places counted row by row), three numbers each. */
export function signalAt({ data, low, high }: Frame, pixels: readonly number[]): Float64Array {
  const scale = (high - low) / 65535
  return Float64Array.from({ length: pixels.length * 3 }, (_, i) => {
    const pixel = pixels[Math.floor(i / 3)] ?? 0
    return low + data[pixel * 3 + (i % 3)] * scale
  })
}
