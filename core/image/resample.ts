// Making frames smaller: area averaging on the code values.
import { evenHalf } from './decoded'
import type { Frame } from './frame'

/** The size that fits into maxWidth × maxHeight with the same shape; never larger than the source. */
export function fitWithin(
  width: number,
  height: number,
  maxWidth: number,
  maxHeight: number,
): { width: number; height: number } {
  const scale = Math.min(1, maxWidth / width, maxHeight / height)
  return { width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)) }
}

/** The upper left part of a frame. */
export const crop = (frame: Frame, width: number, height: number): Frame => partOf(frame, 0, 0, width, height)

/** The part of this size about the middle of a frame, cut where a decoded picture is cut too. */
export const middleOf = (frame: Frame, width: number, height: number): Frame =>
  partOf(frame, evenHalf(frame.width - width), evenHalf(frame.height - height), width, height)

function partOf(frame: Frame, left: number, top: number, width: number, height: number): Frame {
  if (width === frame.width && height === frame.height) return frame
  if (width > frame.width || height > frame.height) throw new RangeError('Only parts can be taken of frames.')
  const data = new Uint16Array(width * height * 3)
  for (let y = 0; y < height; y++) {
    const from = ((top + y) * frame.width + left) * 3
    data.set(frame.data.subarray(from, from + width * 3), y * width * 3)
  }
  return { ...frame, width, height, data }
}

/** Each output pixel is the mean of the source area it covers. Returns the frame itself when the size is the same. */
export function shrink(frame: Frame, width: number, height: number): Frame {
  if (width === frame.width && height === frame.height) return frame
  if (width > frame.width || height > frame.height) throw new RangeError('shrink() only makes frames smaller.')
  const data = new Uint16Array(width * height * 3)
  const across = areas(frame.width, width)
  const down = areas(frame.height, height)
  const samples = frame.width * 3
  // Down first: whole rows are added up in the order that they lie in.
  const sum = new Float64Array(samples)
  for (let y = 0; y < height; y++) {
    sum.fill(0)
    for (let k = down.first[y]; k < down.first[y + 1]; k++) {
      const weight = down.weight[k]
      const row = frame.data.subarray(down.sample[k] * samples, (down.sample[k] + 1) * samples)
      for (let i = 0; i < samples; i++) sum[i] += row[i] * weight
    }
    narrowRow(sum, across, data, y * width * 3)
  }
  return { ...frame, width, height, data }
}

export interface Areas {
  /** Where the entries of target `t` begin; they end where those of `t + 1` begin. */
  readonly first: Uint32Array
  readonly sample: Uint32Array
  /** Share of a target that a sample covers. */
  readonly weight: Float64Array
}

/** Which of `from` samples each of `to` targets covers, and by how much. */
export function areas(from: number, to: number): Areas {
  const ratio = from / to
  const first = new Uint32Array(to + 1)
  const sample: number[] = []
  const weight: number[] = []
  for (let t = 0; t < to; t++) {
    const start = t * ratio
    const end = Math.min(from, start + ratio)
    for (let s = Math.floor(start); s < end; s++) {
      sample.push(s)
      weight.push((Math.min(s + 1, end) - Math.max(s, start)) / ratio)
    }
    first[t + 1] = sample.length
  }
  return { first, sample: Uint32Array.from(sample), weight: Float64Array.from(weight) }
}

function narrowRow(row: Float64Array, { first, sample, weight }: Areas, out: Uint16Array, at: number): void {
  for (let t = 0, o = at; t + 1 < first.length; t++, o += 3) {
    let [red, green, blue] = [0, 0, 0]
    for (let k = first[t]; k < first[t + 1]; k++) {
      const i = sample[k] * 3
      red += row[i] * weight[k]
      green += row[i + 1] * weight[k]
      blue += row[i + 2] * weight[k]
    }
    out[o] = Math.round(red)
    out[o + 1] = Math.round(green)
    out[o + 2] = Math.round(blue)
  }
}
