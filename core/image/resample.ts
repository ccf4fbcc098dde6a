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
  const across = shrinkAxis(frame.data, frame.height, frame.width, width, 3, frame.width * 3)
  const both = shrinkAxis(across, width, frame.height, height, width * 3, 3)
  const data = new Uint16Array(both.length)
  for (let i = 0; i < data.length; i++) data[i] = Math.round(both[i])
  return { ...frame, width, height, data }
}

/** Area-averages `lines` lines of `from` RGB samples to `to`; strides are in values. Output keeps the axis order. */
function shrinkAxis(
  source: Uint16Array | Float32Array,
  lines: number,
  from: number,
  to: number,
  sampleStride: number,
  lineStride: number,
): Float32Array {
  const alongRows = sampleStride === 3
  const out = new Float32Array(lines * to * 3)
  const outSample = alongRows ? 3 : lines * 3
  const outLine = alongRows ? to * 3 : 3
  const ratio = from / to
  for (let t = 0; t < to; t++) {
    const start = t * ratio
    const end = Math.min(from, start + ratio)
    for (let s = Math.floor(start); s < end; s++) {
      const weight = (Math.min(s + 1, end) - Math.max(s, start)) / ratio
      for (let l = 0; l < lines; l++) {
        const i = l * lineStride + s * sampleStride
        const o = l * outLine + t * outSample
        out[o] += source[i] * weight
        out[o + 1] += source[i + 1] * weight
        out[o + 2] += source[i + 2] * weight
      }
    }
  }
  return out
}
