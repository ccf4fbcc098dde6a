// The planes of a decoded picture, as a decoder hands them over: Y'CbCr, RGB or grey, whole numbers or floating point.

/** How code values are to be understood: full range, or legal (video) range with head- and footroom. */
export type CodeRange = 'full' | 'legal'

export interface PlaneLayout {
  readonly width: number
  readonly height: number
  readonly model: 'ycbcr' | 'rgb' | 'grey'
  /** Code values per sample are 0 … 2^bitDepth − 1; 32 means floating point, scene-linear. */
  readonly bitDepth: number
  /** log2 of the chroma subsampling across and down: 4:4:4 is 0, 0; 4:2:2 is 1, 0; 4:2:0 is 1, 1. */
  readonly chromaShiftX: 0 | 1
  readonly chromaShiftY: 0 | 1
}

export type Samples = Uint8Array | Uint16Array | Float32Array

/** Y, Cb, Cr; or G, B, R; or the same grey three times. */
export interface Planes {
  readonly y: Samples
  readonly cb: Samples
  readonly cr: Samples
}

export const chromaWidth = (l: PlaneLayout): number => Math.ceil(l.width / (1 << l.chromaShiftX))
export const chromaHeight = (l: PlaneLayout): number => Math.ceil(l.height / (1 << l.chromaShiftY))

const sampleBytes = ({ bitDepth }: PlaneLayout): 1 | 2 | 4 => {
  if (bitDepth > 16) return 4
  if (bitDepth > 8) return 2
  return 1
}
const sampleCount = (l: PlaneLayout): number =>
  l.width * l.height + (l.model === 'grey' ? 0 : 2 * chromaWidth(l) * chromaHeight(l))

/** The bytes of one tightly packed frame. */
export const planeBytes = (layout: PlaneLayout): number => sampleCount(layout) * sampleBytes(layout)

/**
 * Splits the bytes of one tightly packed planar frame (8 bit: bytes; above: 16-bit little-endian; floats: 32 bits).
 * Throws RangeError when they are too few.
 */
export function splitPlanes(bytes: Uint8Array, layout: PlaneLayout): Planes {
  const luma = layout.width * layout.height
  const total = sampleCount(layout)
  const size = sampleBytes(layout)
  if (bytes.length < total * size)
    throw new RangeError(`A frame of ${total * size} bytes was expected, ${bytes.length} came.`)
  const samples = aligned(bytes, total, size)
  if (layout.model === 'grey') return { y: samples, cb: samples, cr: samples }
  const chroma = (total - luma) / 2
  return {
    y: samples.subarray(0, luma),
    cb: samples.subarray(luma, luma + chroma),
    cr: samples.subarray(luma + chroma, total),
  }
}

function aligned(bytes: Uint8Array, count: number, size: 1 | 2 | 4): Samples {
  if (size === 1) return bytes
  const whole = bytes.byteOffset % size === 0 ? bytes : bytes.slice(0, count * size)
  return size === 2
    ? new Uint16Array(whole.buffer as ArrayBuffer, whole.byteOffset, count)
    : new Float32Array(whole.buffer as ArrayBuffer, whole.byteOffset, count)
}
