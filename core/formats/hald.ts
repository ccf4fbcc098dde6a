// Hald pictures: a 3D table laid out as a square PNG of colours, red fastest; a picture of side n³ holds a table of n² entries per axis.
import { decode, encode } from 'fast-png'
import { Inflate } from 'pako'
import type { Lut3d } from '../luts'
import { cubeLimits, FormatError } from './cube'

export const haldLimits = { maxBytes: 96 * 1024 * 1024, levels: [2, 3, 4, 5, 6, 7, 8, 9, 10, 11] } as const
const signature = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]

export const isPng = (bytes: Uint8Array): boolean => signature.every((b, i) => bytes[i] === b)

/** Reads a Hald picture of 8 or 16 bits. Its size is checked before anything is inflated, and what it inflates to before it is kept. Throws FormatError. */
export function parseHald(bytes: Uint8Array, title = ''): Lut3d {
  if (bytes.length > haldLimits.maxBytes) throw new FormatError(`The file is larger than ${haldLimits.maxBytes / 1048576} MB.`, 0)
  if (!isPng(bytes)) throw new FormatError('This is not a PNG.', 0)
  const level = checkPicture(bytes)
  let picture: ReturnType<typeof decode>
  try {
    picture = decode(bytes, { checkCrc: true })
  } catch (error) {
    throw new FormatError(`The picture cannot be read: ${error instanceof Error ? error.message : String(error)}`, 0)
  }
  const { data, channels, depth } = picture, size = level * level, scale = 2 ** depth - 1
  if (picture.palette !== undefined || channels < 3) throw new FormatError('A Hald picture must hold red, green and blue.', 0)
  if (data.length !== level ** 6 * channels) throw new FormatError('The picture ends too soon.', 0)
  const table = new Float32Array(size ** 3 * 3)
  for (let p = 0; p < size ** 3; p++) for (let c = 0; c < 3; c++) table[p * 3 + c] = data[p * channels + c]! / scale
  return { dimensions: 3, title, size, data: table, domainMin: [0, 0, 0], domainMax: [1, 1, 1] }
}

const samplesOf: Readonly<Record<number, number>> = { 2: 3, 6: 4 }

/** Looks at the header and counts what the picture inflates to, piece by piece. Returns the level. */
function checkPicture(bytes: Uint8Array): number {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  if (bytes.length < 33 || view.getUint32(12) !== 0x49484452) throw new FormatError('The PNG has no header.', 0)
  const width = view.getUint32(16), height = view.getUint32(20), depth = bytes[24]!, samples = samplesOf[bytes[25]!]
  const level = haldLimits.levels.find((n) => n ** 3 === width)
  if (level === undefined || width !== height) throw new FormatError(`A picture of ${width} × ${height} is no Hald picture: the side must be 8, 27, 64, 125 … up to ${(haldLimits.levels.at(-1) ?? 0) ** 3}, and both sides equal.`, 0)
  if (level * level > cubeLimits.max3d) throw new FormatError(`A table of ${level * level} per axis is refused; ${cubeLimits.max3d} is the most.`, 0)
  if (samples === undefined || (depth !== 8 && depth !== 16)) throw new FormatError('A Hald picture must be of red, green and blue at 8 or 16 bits.', 0)
  if (bytes[28] !== 0) throw new FormatError('An interlaced picture is not read here.', 0)
  const expected = height * (1 + (width * samples * depth) / 8)
  let inflated = 0
  const unzip = new Inflate()
  unzip.onData = (piece) => {
    inflated += (piece as Uint8Array).length
    if (inflated > expected) throw new FormatError(`The picture inflates to more than the ${expected} bytes that its size asks for.`, 0)
  }
  try {
    for (let at = 8; at + 12 <= bytes.length;) {
      const length = view.getUint32(at), type = view.getUint32(at + 4)
      if (at + 12 + length > bytes.length) throw new FormatError('The PNG ends inside one of its parts.', 0)
      const last = type === 0x49454e44
      // Small pieces: a bomb is noticed after the first of them.
      if (type === 0x49444154) for (let from = 0; from < length; from += 4096) unzip.push(bytes.subarray(at + 8 + from, at + 8 + Math.min(length, from + 4096)))
      at += 12 + length
      if (last) break
    }
  } catch (error) {
    throw error instanceof FormatError ? error : new FormatError(`The picture's data are damaged: ${error instanceof Error ? error.message : String(error)}`, 0)
  }
  if (unzip.err) throw new FormatError(`The picture's data are damaged: ${unzip.msg || `code ${unzip.err}`}`, 0)
  if (inflated < expected) throw new FormatError(`The picture holds ${inflated} bytes, its size asks for ${expected}.`, 0)
  return level
}

/** Writes a table as a Hald picture of 16 bits. Its entries per axis must be a square (16, 25, 36, 64 …); values are held to 0…1. Throws RangeError for other sizes. */
export function printHald({ size, data }: Lut3d): Uint8Array {
  const level = Math.round(Math.sqrt(size))
  if (level * level !== size) throw new RangeError(`A Hald picture needs a square number of entries per axis, not ${size}.`)
  return encode({ width: level ** 3, height: level ** 3, channels: 3, depth: 16, data: Uint16Array.from(data, (v) => Math.round(Math.min(1, Math.max(0, v)) * 65535)) })
}
