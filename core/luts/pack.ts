// LUTs as bytes, to be kept and sent without being printed and read again: a header of JSON, then the tables' floats.
import type { Formula } from './formula'
import type { Interpolation, Lut, LutPart, LutTable } from './lut'

const magic = 'PMLUT1\n\n'
type Triple = readonly [number, number, number]
interface TableHeader {
  readonly dimensions: 1 | 3
  readonly size: number
  readonly domainMin: Triple
  readonly domainMax: Triple
  readonly interpolation?: Interpolation
}
interface Header {
  readonly title: string
  readonly sequence: boolean
  readonly parts: readonly (TableHeader | Formula)[]
}

/** JSON in ASCII alone, so that characters are bytes. */
const asciiJson = (value: unknown): string =>
  JSON.stringify(value).replace(/[^\x20-\x7e]/g, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`)
const bytesOf = (ascii: string): Uint8Array => Uint8Array.from(ascii, (c) => c.charCodeAt(0))
const textOf = (bytes: Uint8Array): string => bytes.reduce((text, byte) => text + String.fromCharCode(byte), '')

/** The LUT in this program's own bytes, in the byte order of the machines it runs on (little-endian). */
export function packLut(lut: Lut): Uint8Array {
  const parts: readonly LutPart[] = lut.dimensions === 'sequence' ? lut.parts : [lut]
  const tables = parts.filter((p): p is LutTable => !('formula' in p))
  const header: Header = {
    title: lut.title,
    sequence: lut.dimensions === 'sequence',
    parts: parts.map((p) => {
      if ('formula' in p) return p
      const { dimensions, size, domainMin, domainMax } = p
      const own = p.dimensions === 3 && p.interpolation ? { interpolation: p.interpolation } : {}
      return { dimensions, size, domainMin, domainMax, ...own }
    }),
  }
  const json = bytesOf(asciiJson(header))
  const start = 12 + json.length + ((4 - (json.length % 4)) % 4)
  const bytes = new Uint8Array(start + tables.reduce((sum, t) => sum + t.data.byteLength, 0))
  bytes.set(bytesOf(magic))
  new DataView(bytes.buffer).setUint32(8, json.length, true)
  bytes.set(json, 12)
  let at = start
  for (const { data } of tables) {
    bytes.set(new Uint8Array(data.buffer, data.byteOffset, data.byteLength), at)
    at += data.byteLength
  }
  return bytes
}

/** What packLut wrote; null for other bytes, and where a disk has spoiled them. */
export function unpackLut(bytes: Uint8Array): Lut | null {
  if (bytes.length < 12 || textOf(bytes.subarray(0, 8)) !== magic) return null
  const length = new DataView(bytes.buffer, bytes.byteOffset).getUint32(8, true)
  const header = headerOf(textOf(bytes.subarray(12, 12 + length)))
  if (!header) return null
  // A copy that begins at an even place, as floats must; slice() would be none for Node's buffers.
  const floats = new Uint8Array(bytes.subarray(12 + length + ((4 - (length % 4)) % 4)))
  const countOf = (p: Header['parts'][number]): number =>
    'formula' in p ? 0 : (p.dimensions === 3 ? p.size ** 3 : p.size) * 3
  if (header.parts.reduce((sum, p) => sum + countOf(p), 0) * 4 !== floats.length) return null
  let at = 0
  const parts = header.parts.map((p): LutPart => {
    if ('formula' in p) return p
    const count = countOf(p)
    const data = new Float32Array(floats.buffer, at, count)
    at += count * 4
    return { ...p, title: header.title, data }
  })
  const [only] = parts
  return !header.sequence && only && !('formula' in only)
    ? only
    : { dimensions: 'sequence', title: header.title, parts }
}

function headerOf(json: string): Header | null {
  try {
    const header = JSON.parse(json) as Header
    const sound = (p: Header['parts'][number]): boolean =>
      'formula' in p || ((p.dimensions === 1 || p.dimensions === 3) && Number.isInteger(p.size) && p.size >= 2)
    return header.parts.length > 0 && header.parts.every(sound) ? header : null
  } catch {
    return null
  }
}
