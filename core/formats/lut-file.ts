// A LUT file of any kind that is read: told by its content, never by its name.
import type { Lut } from '../luts'
import { parseClf } from './clf'
import { parseCsvCurve } from './csv-curve'
import { FormatError, parseCube, type Note } from './cube'
import { parseHald } from './hald'
import { isPng } from './png'

export interface LutText {
  readonly text: string
  /** Its first characters, without a byte order mark and blanks before them. */
  readonly start: string
  /** The first line that is neither empty nor a comment. */
  readonly firstRow: string
}
interface LutFileKind {
  /** Kept with the file for ever: a kind is never renamed. */
  readonly id: string
  /** Of the file when it is handed out again. */
  readonly extension: string
  /** Other endings that such files have. */
  readonly alsoNamed?: readonly string[]
  /** Throws FormatError with the line and the reason; null where the file is of another kind. */
  readonly parse: ((text: LutText, note: Note) => Lut | null) | { readonly bytes: (bytes: Uint8Array) => Lut | null }
}
/** The kinds that are read, in the order in which a file is tried; the last takes what no other did. */
const lutFileKinds: readonly LutFileKind[] = [
  { id: 'hald', extension: 'png', parse: { bytes: (bytes) => (isPng(bytes) ? parseHald(bytes) : null) } },
  {
    id: 'clf',
    extension: 'clf',
    alsoNamed: ['xml'],
    parse: ({ text, start }) => (start.startsWith('<') ? parseClf(text) : null),
  },
  { id: 'csv', extension: 'csv', parse: ({ text, firstRow }) => (isTable(firstRow) ? parseCsvCurve(text) : null) },
  { id: 'cube', extension: 'cube', parse: ({ text }, note) => parseCube(text, note) },
]
export const lutFileBytes = 96 * 1024 * 1024
const mostNotes = 20

/** A table of rows and separators, with or without a heading; a .cube never has any. */
const isTable = (row: string): boolean => /[,;\t]/.test(row) && !/^(TITLE|LUT_|DOMAIN_)/.test(row)

/**
 * Reads a file's bytes; `decode` turns them into text where they are text. `notes` are sentences about what was left
 * out of account. Throws FormatError with the line, where there are lines, and the reason.
 */
export function parseLutFile(
  bytes: Uint8Array,
  decode: (bytes: Uint8Array) => string,
): { readonly format: string; readonly lut: Lut; readonly notes: readonly string[] } {
  if (bytes.length > lutFileBytes) throw new FormatError(`The file is larger than ${lutFileBytes / 1048576} MB.`, 0)
  let read: LutText | null = null
  const notes: string[] = []
  const note: Note = (sentence) => {
    if (notes.length < mostNotes) notes.push(sentence)
  }
  for (const { id, parse } of lutFileKinds) {
    const lut = typeof parse === 'function' ? parse((read ??= textOf(decode(bytes))), note) : parse.bytes(bytes)
    if (lut) return { format: id, lut, notes }
  }
  throw new FormatError('This is no LUT file of a kind that is read.', 0)
}

function textOf(text: string): LutText {
  const start = text
    .slice(0, 4096)
    .replace(/^\ufeff/, '')
    .trimStart()
  const [firstRow = ''] = start.split(/\r?\n/).filter((l) => l.trim() !== '' && !l.startsWith('#'))
  return { text, start, firstRow }
}

/** The endings that LUT files have, without the dot: for choosing files, never for telling what is in them. */
export const lutExtensions: readonly string[] = [
  ...new Set(lutFileKinds.flatMap((k) => [k.extension, ...(k.alsoNamed ?? [])])),
]

/** The ending of a file of a kind, without the dot. */
export const lutExtension = (format: string): string => lutFileKinds.find((k) => k.id === format)?.extension ?? 'txt'

/** A file's name without the ending that LUT files have. */
export function lutNameOf(fileName: string): string {
  return fileName.replace(new RegExp(`\\.(${[...lutExtensions, 'txt'].join('|')})$`, 'i'), '')
}
