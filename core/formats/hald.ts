// Hald pictures: a 3D table laid out as a square PNG of colours, red fastest; a picture of side n³ holds a table of n²
// entries per axis.
import { encode } from 'fast-png'
import type { Lut3d } from '../luts'
import { cubeLimits, FormatError } from './cube'
import { decodePng, pngHeader, type PngHeader } from './png'

export const haldLimits = { maxBytes: 96 * 1024 * 1024, levels: [2, 3, 4, 5, 6, 7, 8, 9, 10, 11] } as const

/**
 * Reads a Hald picture of 8 or 16 bits. Its size is checked before anything is inflated, and what it inflates to before
 * it is kept. Throws FormatError.
 */
export function parseHald(bytes: Uint8Array, title = ''): Lut3d {
  if (bytes.length > haldLimits.maxBytes)
    throw new FormatError(`The file is larger than ${haldLimits.maxBytes / 1048576} MB.`, 0)
  const header = pngHeader(bytes)
  const level = levelOf(header)
  const { data, channels, depth } = decodePng(bytes, header)
  const size = level * level
  const scale = 2 ** depth - 1
  const table = new Float32Array(size ** 3 * 3)
  for (let p = 0; p < size ** 3; p++) for (let c = 0; c < 3; c++) table[p * 3 + c] = data[p * channels + c] / scale
  return { dimensions: 3, title, size, data: table, domainMin: [0, 0, 0], domainMax: [1, 1, 1] }
}

function levelOf({ width, height }: PngHeader): number {
  const level = haldLimits.levels.find((n) => n ** 3 === width)
  if (level === undefined || width !== height)
    throw new FormatError(
      `A picture of ${width} × ${height} is no Hald picture: the side must be 8, 27, 64, 125 … up to ` +
        `${(haldLimits.levels.at(-1) ?? 0) ** 3}, and both sides equal.`,
      0,
    )
  if (level * level > cubeLimits.max3d)
    throw new FormatError(`A table of ${level * level} per axis is refused; ${cubeLimits.max3d} is the most.`, 0)
  return level
}

/**
 * Writes a table as a Hald picture of 16 bits. Its entries per axis must be a square (16, 25, 36, 64 …); values are
 * held to 0…1. Throws RangeError for other sizes.
 */
export function printHald({ size, data }: Lut3d): Uint8Array {
  const level = Math.round(Math.sqrt(size))
  if (level * level !== size)
    throw new RangeError(`A Hald picture needs a square number of entries per axis, not ${size}.`)
  return encode({
    width: level ** 3,
    height: level ** 3,
    channels: 3,
    depth: 16,
    data: Uint16Array.from(data, (v) => Math.round(Math.min(1, Math.max(0, v)) * 65535)),
  })
}
