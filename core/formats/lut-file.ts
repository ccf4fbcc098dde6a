// A LUT file of any kind that is read: told by its content, never by its name.
import type { Lut } from '../luts'
import { parseClf } from './clf'
import { parseCsvCurve } from './csv-curve'
import { FormatError, parseCube } from './cube'
import { parseHald } from './hald'
import { isPng } from './png'

export type LutFormat = 'cube' | 'clf' | 'hald' | 'csv'
export const lutFileBytes = 96 * 1024 * 1024

/**
 * Reads a file's bytes; `decode` turns them into text where they are text. Throws FormatError with the line, where
 * there are lines, and the reason.
 */
export function parseLutFile(
  bytes: Uint8Array,
  decode: (bytes: Uint8Array) => string,
): { readonly format: LutFormat; readonly lut: Lut } {
  if (bytes.length > lutFileBytes) throw new FormatError(`The file is larger than ${lutFileBytes / 1048576} MB.`, 0)
  if (isPng(bytes)) return { format: 'hald', lut: parseHald(bytes) }
  const text = decode(bytes)
  const start = text
    .slice(0, 4096)
    .replace(/^\ufeff/, '')
    .trimStart()
  if (start.startsWith('<')) return { format: 'clf', lut: parseClf(text) }
  // A table of rows and commas, with or without a heading; a .cube never has separators.
  const [row = ''] = start.split(/\r?\n/).filter((l) => l.trim() !== '' && !l.startsWith('#'))
  if (/[,;\t]/.test(row) && !/^(TITLE|LUT_|DOMAIN_)/.test(row)) return { format: 'csv', lut: parseCsvCurve(text) }
  return { format: 'cube', lut: parseCube(text) }
}
