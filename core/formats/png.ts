// PNG files that are not trusted: the header is read first, and what the picture inflates to is counted before it is
// decoded.
import { decode } from 'fast-png'
import { Inflate } from 'pako'
import { FormatError } from './cube'

const signature = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]

export const isPng = (bytes: Uint8Array): boolean => signature.every((b, i) => bytes[i] === b)

/** `samples`: 3 for red, green and blue, 4 with opacity; undefined for grey and palettes. */
export interface PngHeader {
  readonly width: number
  readonly height: number
  readonly depth: number
  readonly samples: 3 | 4 | undefined
  readonly interlaced: boolean
}

const samplesOf: Readonly<Record<number, 3 | 4>> = { 2: 3, 6: 4 }

/** Throws FormatError for anything that does not begin as a PNG does. */
export function pngHeader(bytes: Uint8Array): PngHeader {
  if (!isPng(bytes)) throw new FormatError('This is not a PNG.', 0)
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  if (bytes.length < 33 || view.getUint32(12) !== 0x49484452) throw new FormatError('The PNG has no header.', 0)
  return {
    width: view.getUint32(16),
    height: view.getUint32(20),
    depth: bytes[24],
    samples: samplesOf[bytes[25]],
    interlaced: bytes[28] !== 0,
  }
}

/** IHDR, PLTE, IDAT and IEND (W3C PNG, third edition, clause 11.2): all that a picture needs. */
const critical = new Set([0x49484452, 0x504c5445, 0x49444154, 0x49454e44])

/**
 * The file without its ancillary chunks: profiles and texts inflate without bound, and nothing here reads them. Throws
 * FormatError where it ends inside a chunk.
 */
export function withoutAncillary(bytes: Uint8Array): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const kept: [number, number][] = [[0, signature.length]]
  for (let at = signature.length; at + 12 <= bytes.length;) {
    const end = at + 12 + view.getUint32(at)
    const type = view.getUint32(at + 4)
    if (end > bytes.length) throw new FormatError('The PNG ends inside one of its parts.', 0)
    if (critical.has(type)) kept.push([at, end])
    if (type === 0x49454e44) break
    at = end
  }
  const out = new Uint8Array(kept.reduce((sum, [from, to]) => sum + to - from, 0))
  let at = 0
  for (const [from, to] of kept) {
    out.set(bytes.subarray(from, to), at)
    at += to - from
  }
  return out
}

/**
 * Decodes a picture of 8 or 16 bits whose header was found to be acceptable. Only its critical chunks are looked at;
 * what it inflates to is counted chunk by chunk first. Throws FormatError.
 */
export function decodePng(file: Uint8Array, header: PngHeader): ReturnType<typeof decode> {
  const { width, height, depth, samples, interlaced } = header
  if (samples === undefined || (depth !== 8 && depth !== 16))
    throw new FormatError('The picture must be of red, green and blue at 8 or 16 bits.', 0)
  if (interlaced) throw new FormatError('An interlaced picture is not read here.', 0)
  const bytes = withoutAncillary(file)
  checkInflation(bytes, height * (1 + (width * samples * depth) / 8))
  let picture: ReturnType<typeof decode>
  try {
    picture = decode(bytes, { checkCrc: true })
  } catch (error) {
    throw new FormatError(`The picture cannot be read: ${error instanceof Error ? error.message : String(error)}`, 0)
  }
  if (picture.palette !== undefined || picture.data.length !== width * height * samples)
    throw new FormatError('The picture is not what its header says.', 0)
  return picture
}

function checkInflation(bytes: Uint8Array, expected: number): void {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const unzip = new Inflate()
  let inflated = 0
  unzip.onData = (chunk) => {
    inflated += (chunk as Uint8Array).length
    if (inflated > expected)
      throw new FormatError(`The picture inflates to more than the ${expected} bytes that its size asks for.`, 0)
  }
  try {
    for (let at = 8; at + 12 <= bytes.length;) {
      const length = view.getUint32(at)
      const type = view.getUint32(at + 4)
      if (at + 12 + length > bytes.length) throw new FormatError('The PNG ends inside one of its parts.', 0)
      const last = type === 0x49454e44
      // Small chunks: a bomb is noticed after the first of them.
      if (type === 0x49444154)
        for (let from = 0; from < length; from += 4096)
          unzip.push(bytes.subarray(at + 8 + from, at + 8 + Math.min(length, from + 4096)))
      at += 12 + length
      if (last) break
    }
  } catch (error) {
    throw error instanceof FormatError
      ? error
      : new FormatError(`The picture's data are damaged: ${error instanceof Error ? error.message : String(error)}`, 0)
  }
  if (unzip.err) throw new FormatError(`The picture's data are damaged: ${unzip.msg || `code ${unzip.err}`}`, 0)
  if (inflated < expected)
    throw new FormatError(`The picture holds ${inflated} bytes, its size asks for ${expected}.`, 0)
}
