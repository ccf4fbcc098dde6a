// The .cube table format: strict reading with line numbers in every complaint, and writing.
import type { Lut } from '../luts'

/** Something is wrong with a file's text. `line` counts from 1; 0 means the file as a whole. */
export class FormatError extends Error {
  constructor(message: string, readonly line: number) {
    super(line > 0 ? `Line ${line}: ${message}` : message)
    this.name = 'FormatError'
  }
}

export const cubeLimits = { min3d: 2, max3d: 129, min1d: 2, max1d: 65536, maxBytes: 96 * 1024 * 1024, maxLineLength: 1024 } as const

type Triple = [number, number, number]
interface Header {
  title: string
  dimensions: 1 | 3 | null
  size: number
  domainMin: Triple
  domainMax: Triple
}

/**
 * Reads a 1D or 3D .cube. Nothing is allocated for the table before its size has been found to be within the limits and
 * the text long enough to hold it.
 * Throws FormatError with the line and the reason.
 */
export function parseCube(text: string): Lut {
  if (text.length > cubeLimits.maxBytes) throw new FormatError(`The file is larger than ${cubeLimits.maxBytes / 1048576} MB.`, 0)
  if (text.includes('\0')) throw new FormatError('This is not a text file.', 0)
  const header: Header = { title: '', dimensions: null, size: 0, domainMin: [0, 0, 0], domainMax: [1, 1, 1] }
  const lines = new LineReader(text)
  let data: Float32Array | null = null
  let filled = 0
  for (let line = lines.next(); line !== null; line = lines.next()) {
    const trimmed = line.trim()
    if (trimmed === '' || trimmed.startsWith('#')) continue
    if (isNumeric(trimmed)) {
      data ??= allocate(header, text.length, lines.number)
      if (filled === data.length) throw new FormatError(`There are more rows than the ${data.length / 3} that the size asks for.`, lines.number)
      readRow(trimmed, data, filled, lines.number)
      filled += 3
    } else {
      if (data) throw new FormatError(`"${shorten(trimmed)}" stands among the table's rows; keywords belong before them.`, lines.number)
      readKeyword(trimmed, header, lines.number)
    }
  }
  if (header.dimensions === null) throw new FormatError('The size is missing: a line LUT_1D_SIZE or LUT_3D_SIZE is needed.', 0)
  const rows = header.dimensions === 3 ? header.size ** 3 : header.size
  if (!data || filled < data.length) throw new FormatError(`The table has ${filled / 3} rows, its size asks for ${rows}.`, lines.number)
  const { title, size, domainMin, domainMax, dimensions } = header
  return { title, size, data, domainMin, domainMax, dimensions }
}

/** Walks the text line by line without splitting it all at once; knows LF, CRLF and a byte-order mark. */
class LineReader {
  number = 0
  private at: number
  constructor(private readonly text: string) {
    this.at = text.charCodeAt(0) === 0xfeff ? 1 : 0
  }

  next(): string | null {
    if (this.at >= this.text.length) return null
    this.number++
    const found = this.text.indexOf('\n', this.at)
    const end = found === -1 ? this.text.length : found
    if (end - this.at > cubeLimits.maxLineLength) throw new FormatError(`The line is longer than ${cubeLimits.maxLineLength} characters.`, this.number)
    const line = this.text.slice(this.at, end)
    this.at = end + 1
    return line
  }
}

const shorten = (s: string): string => (s.length > 40 ? `${s.slice(0, 40)}…` : s)

// A row begins with a digit, sign or point; "nan" and "inf" count as rows so that they are refused as numbers.
const isNumeric = (s: string): boolean => /^([-+.\d]|nan|inf)/i.test(s)
const decimal = /^[-+]?(\d+\.?\d*|\.\d+)([eE][-+]?\d+)?$/

function readNumber(word: string | undefined, line: number): number {
  if (word === undefined || !decimal.test(word)) throw new FormatError(`"${shorten(word ?? '')}" is not a number.`, line)
  const value = Number(word)
  if (!Number.isFinite(value) || Math.abs(value) > 1e6) throw new FormatError(`${shorten(word)} is beyond the range of a LUT (±1 000 000).`, line)
  return value
}

function readTriple(words: readonly string[], line: number, what: string): Triple {
  if (words.length !== 3) throw new FormatError(`${what} needs three numbers, ${words.length} ${words.length === 1 ? 'is' : 'are'} given.`, line)
  return [readNumber(words[0], line), readNumber(words[1], line), readNumber(words[2], line)]
}

function readRow(trimmed: string, data: Float32Array, at: number, line: number): void {
  const [r, g, b] = readTriple(trimmed.split(/\s+/), line, 'A row')
  data[at] = r
  data[at + 1] = g
  data[at + 2] = b
}

function readKeyword(trimmed: string, header: Header, line: number): void {
  const [keyword = '', ...words] = trimmed.split(/\s+/)
  switch (keyword) {
    case 'TITLE': {
      const quoted = /^TITLE\s+"([^"]*)"$/.exec(trimmed)
      if (!quoted) throw new FormatError('TITLE needs a text between quotation marks.', line)
      header.title = quoted[1] ?? ''
      return
    }
    case 'LUT_3D_SIZE': return readSize(words, header, 3, line)
    case 'LUT_1D_SIZE': return readSize(words, header, 1, line)
    case 'DOMAIN_MIN':
      header.domainMin = readTriple(words, line, keyword)
      return checkDomain(header, line)
    case 'DOMAIN_MAX':
      header.domainMax = readTriple(words, line, keyword)
      return
    case 'LUT_1D_INPUT_RANGE':
    case 'LUT_3D_INPUT_RANGE': {
      if (words.length !== 2) throw new FormatError(`${keyword} needs two numbers.`, line)
      const low = readNumber(words[0], line), high = readNumber(words[1], line)
      header.domainMin = [low, low, low]
      header.domainMax = [high, high, high]
      return checkDomain(header, line)
    }
    default: throw new FormatError(`"${shorten(keyword)}" is not a keyword of this format.`, line)
  }
}

function checkDomain({ domainMin, domainMax }: Header, line: number): void {
  if (domainMin.some((low, c) => low >= domainMax[c]!)) throw new FormatError('DOMAIN_MIN must lie below DOMAIN_MAX in every channel.', line)
}

function readSize(words: readonly string[], header: Header, dimensions: 1 | 3, line: number): void {
  if (header.dimensions !== null) throw new FormatError('The size is given twice; a table is either 1D or 3D.', line)
  const word = words[0]
  if (words.length !== 1 || word === undefined || !/^\d{1,9}$/.test(word)) throw new FormatError('The size must be one whole number.', line)
  const size = Number(word)
  const min = dimensions === 3 ? cubeLimits.min3d : cubeLimits.min1d, max = dimensions === 3 ? cubeLimits.max3d : cubeLimits.max1d
  if (size < min || size > max) throw new FormatError(`A size of ${size} is refused; ${dimensions}D tables may have ${min} to ${max} entries per axis.`, line)
  header.dimensions = dimensions
  header.size = size
}

function allocate(header: Header, textLength: number, line: number): Float32Array {
  if (header.dimensions === null) throw new FormatError('Rows begin before the size is given: a line LUT_1D_SIZE or LUT_3D_SIZE is needed first.', line)
  checkDomain(header, line)
  const rows = header.dimensions === 3 ? header.size ** 3 : header.size
  // The shortest possible row is "0 0 0" and a line end.
  if (rows * 6 - 1 > textLength) throw new FormatError(`The size asks for ${rows} rows, more than a file of this length can hold.`, line)
  return new Float32Array(rows * 3)
}

/** Writes a table; `notes` become comment lines at the top. Values are printed with six decimals. */
export function printCube(lut: Lut, notes: readonly string[] = []): string {
  const out: string[] = notes.map((n) => `# ${n.replace(/[\r\n]+/g, ' ')}`)
  out.push(`TITLE "${lut.title.replace(/["\r\n]/g, "'")}"`, `LUT_${lut.dimensions}D_SIZE ${lut.size}`)
  out.push(`DOMAIN_MIN ${lut.domainMin.join(' ')}`, `DOMAIN_MAX ${lut.domainMax.join(' ')}`)
  const { data } = lut
  for (let i = 0; i < data.length; i += 3) out.push(`${data[i]!.toFixed(6)} ${data[i + 1]!.toFixed(6)} ${data[i + 2]!.toFixed(6)}`)
  return `${out.join('\n')}\n`
}
