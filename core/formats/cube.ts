// The .cube table format: read as the field writes it, with line numbers in every complaint; written so that strict
// readers take it.
import { cutTo } from '../names'
import type { Lut, Lut1d, Lut3d, LutTable } from '../luts'

/** What is quoted of a file may be as long as the file. */
const longestMessage = 300

/** Something is wrong with a file's text. `line` counts from 1; 0 means the file as a whole. */
export class FormatError extends Error {
  constructor(
    message: string,
    readonly line: number,
  ) {
    super(cutTo(line > 0 ? `Line ${line}: ${message}` : message, longestMessage))
    this.name = 'FormatError'
  }
}

export const cubeLimits = {
  min3d: 2,
  max3d: 129,
  min1d: 2,
  max1d: 65536,
  maxBytes: 96 * 1024 * 1024,
  maxLineLength: 1024,
} as const

type Triple = [number, number, number]
interface Header {
  title: string
  /** What DOMAIN_MIN and DOMAIN_MAX say: of the first table of the file. */
  domainMin: Triple
  domainMax: Triple
  /** Entries of the 1D table, and per axis of the 3D one. */
  curve: number | null
  cube: number | null
  /** What LUT_1D_INPUT_RANGE and LUT_3D_INPUT_RANGE say of one table. */
  ranges: Partial<Record<1 | 3, readonly [number, number]>>
}
/** Is told what of a file was left out of account, in a sentence. */
export type Note = (sentence: string) => void

/**
 * Reads a 1D or 3D .cube, or a 3D one behind a 1D shaper (both sizes given, the shaper's rows first). Keywords may be
 * in lower case, titles without quotation marks or with some inside; a keyword that is not known is noted and left out.
 * Nothing is allocated for a table before its size has been found to be within the limits and the text long enough to
 * hold it. Throws FormatError with the line and the reason.
 */
export function parseCube(text: string, note: Note = () => undefined): Lut {
  if (text.length > cubeLimits.maxBytes)
    throw new FormatError(`The file is larger than ${cubeLimits.maxBytes / 1048576} MB.`, 0)
  if (text.includes('\0')) throw new FormatError('This is not a text file.', 0)
  const header: Header = { title: '', domainMin: [0, 0, 0], domainMax: [1, 1, 1], curve: null, cube: null, ranges: {} }
  const lines = new LineReader(text)
  let tables: readonly LutTable[] | null = null
  let at = 0
  let filled = 0
  for (;;) {
    const open = tables?.[at]
    if (open && lines.plainRow(open.data, filled)) {
      filled += 3
      if (filled === open.data.length) {
        at++
        filled = 0
      }
      continue
    }
    const line = lines.next()
    if (line === null) break
    const trimmed = line.trim()
    if (trimmed === '') continue
    if (trimmed.startsWith('#')) {
      // Where a keyword would be refused, this program writes the title as a comment.
      header.title ||= /^#\s*TITLE\s+"(.*)"$/.exec(trimmed)?.[1] ?? ''
      continue
    }
    if (isNumeric(trimmed)) {
      tables ??= allocate(header, text.length, lines.number)
      const table = tables[at]
      if (!table)
        throw new FormatError(`There are more rows than the ${rowsOf(tables)} that the size asks for.`, lines.number)
      readRow(trimmed, table.data, filled, lines.number)
      filled += 3
      if (filled === table.data.length) {
        at++
        filled = 0
      }
    } else {
      if (tables)
        throw new FormatError(
          `"${shorten(trimmed)}" stands among the table's rows; keywords belong before them.`,
          lines.number,
        )
      readKeyword(trimmed, header, lines.number, note)
    }
  }
  if (!header.curve && !header.cube)
    throw new FormatError('The size is missing: a line LUT_1D_SIZE or LUT_3D_SIZE is needed.', 0)
  const [first, second] = tables ?? []
  if (!tables || !first || at < tables.length)
    throw new FormatError(
      `The table has ${rowsOf((tables ?? []).slice(0, at)) + filled / 3} rows, its size asks for ` +
        `${tables ? rowsOf(tables) : (header.curve ?? 0) + (header.cube ?? 0) ** 3}.`,
      lines.number,
    )
  return second ? { dimensions: 'sequence', title: header.title, parts: [first, second] } : first
}

const rowsOf = (tables: readonly LutTable[]): number => tables.reduce((sum, t) => sum + t.data.length / 3, 0)

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
    if (end - this.at > cubeLimits.maxLineLength)
      throw new FormatError(`The line is longer than ${cubeLimits.maxLineLength} characters.`, this.number)
    const line = this.text.slice(this.at, end)
    this.at = end + 1
    return line
  }

  /**
   * Reads a line of three plain decimal numbers straight into a table, as large ones have millions; false, and nothing
   * read, for all that is less usual: that is read, or refused, word by word.
   */
  plainRow(into: Float32Array, index: number): boolean {
    const { text } = this
    let at = this.at
    for (let c = 0; c < 3; c++) {
      let code = text.charCodeAt(at)
      while (code === space || code === tab) code = text.charCodeAt(++at)
      const negative = code === minus
      if (negative) code = text.charCodeAt(++at)
      let whole = 0
      let digits = 0
      let decimals = 0
      let pointed = false
      for (; ; code = text.charCodeAt(++at)) {
        if (code >= zero && code <= zero + 9) {
          whole = whole * 10 + code - zero
          digits++
          if (pointed) decimals++
        } else if (code === point && !pointed) pointed = true
        else break
      }
      if (
        digits === 0 ||
        digits > mostDigits ||
        whole > 1e6 * powers[decimals] ||
        (c < 2 && code !== space && code !== tab)
      )
        return false
      // Both are whole and below 2^53: what they are divided to is rounded once, as Number() rounds it.
      const value = whole / powers[decimals]
      into[index + c] = negative ? -value : value
    }
    for (
      let code = text.charCodeAt(at);
      code === space || code === tab || code === carriageReturn;
      code = text.charCodeAt(++at)
    );
    if ((at < text.length && text.charCodeAt(at) !== lineFeed) || at - this.at > cubeLimits.maxLineLength) return false
    this.number++
    this.at = at + 1
    return true
  }
}

const tab = 9
const lineFeed = 10
const carriageReturn = 13
const space = 32
const minus = 45
const point = 46
const zero = 48
const mostDigits = 15
const powers = Array.from({ length: mostDigits + 1 }, (_, n) => Number(`1e${n}`))

const shorten = (s: string): string => (s.length > 40 ? `${s.slice(0, 40)}…` : s)

// A row begins with a digit, sign or point; "nan" and "inf" count as rows so that they are refused as numbers.
const isNumeric = (s: string): boolean => /^([-+.\d]|nan|inf)/i.test(s)
const decimal = /^[-+]?(\d+(?:\.\d*)?|\.\d+)([eE][-+]?\d+)?$/

function readNumber(word: string | undefined, line: number): number {
  if (word === undefined || !decimal.test(word))
    throw new FormatError(`"${shorten(word ?? '')}" is not a number.`, line)
  const value = Number(word)
  if (!Number.isFinite(value) || Math.abs(value) > 1e6)
    throw new FormatError(`${shorten(word)} is beyond the range of a LUT (±1 000 000).`, line)
  return value
}

function readTriple(words: readonly string[], line: number, what: string): Triple {
  if (words.length !== 3)
    throw new FormatError(
      `${what} needs three numbers, ${words.length} ${words.length === 1 ? 'is' : 'are'} given.`,
      line,
    )
  return [readNumber(words[0], line), readNumber(words[1], line), readNumber(words[2], line)]
}

function readRow(trimmed: string, data: Float32Array, at: number, line: number): void {
  const [r, g, b] = readTriple(trimmed.split(/\s+/), line, 'A row')
  data[at] = r
  data[at + 1] = g
  data[at + 2] = b
}

function readKeyword(trimmed: string, header: Header, line: number, note: Note): void {
  const [first = '', ...words] = trimmed.split(/\s+/)
  const keyword = first.toUpperCase()
  switch (keyword) {
    case 'TITLE':
      header.title = trimmed
        .slice(first.length)
        .trim()
        .replace(/^"(.*)"$/, '$1')
        .slice(0, 200)
      return
    case 'LUT_3D_SIZE':
      return readSize(words, header, 3, line)
    case 'LUT_1D_SIZE':
      return readSize(words, header, 1, line)
    case 'DOMAIN_MIN':
      header.domainMin = readTriple(words, line, keyword)
      return checkDomain(header, line)
    case 'DOMAIN_MAX':
      header.domainMax = readTriple(words, line, keyword)
      return
    case 'LUT_1D_INPUT_RANGE':
    case 'LUT_3D_INPUT_RANGE': {
      if (words.length !== 2) throw new FormatError(`${keyword} needs two numbers.`, line)
      const low = readNumber(words[0], line)
      const high = readNumber(words[1], line)
      if (low >= high) throw new FormatError(`${keyword} must begin below its end.`, line)
      header.ranges[keyword === 'LUT_1D_INPUT_RANGE' ? 1 : 3] = [low, high]
      return
    }
    default:
      if (!/^[A-Z_][\w-]*:?$/.test(keyword))
        throw new FormatError(`"${shorten(first)}" is no keyword and no row of numbers.`, line)
      note(`Line ${line}: "${shorten(trimmed)}" is not known in this format; it is left out of account.`)
  }
}

function checkDomain({ domainMin, domainMax }: Header, line: number): void {
  if (domainMin.some((low, c) => low >= domainMax[c]))
    throw new FormatError('DOMAIN_MIN must lie below DOMAIN_MAX in every channel.', line)
}

function readSize(words: readonly string[], header: Header, dimensions: 1 | 3, line: number): void {
  if (dimensions === 3 ? header.cube : header.curve)
    throw new FormatError(`The ${dimensions}D size is given twice.`, line)
  const word = words[0]
  if (words.length !== 1 || word === undefined || !/^\d{1,9}$/.test(word))
    throw new FormatError('The size must be one whole number.', line)
  const size = Number(word)
  const min = dimensions === 3 ? cubeLimits.min3d : cubeLimits.min1d
  const max = dimensions === 3 ? cubeLimits.max3d : cubeLimits.max1d
  if (size < min || size > max)
    throw new FormatError(
      `A size of ${size} is refused; ${dimensions}D tables may have ${min} to ${max} entries per axis.`,
      line,
    )
  header[dimensions === 3 ? 'cube' : 'curve'] = size
}

function allocate(header: Header, textLength: number, line: number): readonly LutTable[] {
  const { title, curve, cube, ranges } = header
  if (!curve && !cube)
    throw new FormatError(
      'Rows begin before the size is given: a line LUT_1D_SIZE or LUT_3D_SIZE is needed first.',
      line,
    )
  checkDomain(header, line)
  const rows = (curve ?? 0) + (cube ?? 0) ** 3
  // The shortest possible row is "0 0 0" and a line end.
  if (rows * 6 - 1 > textLength)
    throw new FormatError(`The size asks for ${rows} rows, more than a file of this length can hold.`, line)
  // DOMAIN_MIN and DOMAIN_MAX are about what goes into the file: its first table. What a shaper returns lies in 0…1.
  const domainOf = (dimensions: 1 | 3): { domainMin: Triple; domainMax: Triple } => {
    const range = ranges[dimensions]
    if (range) return { domainMin: [range[0], range[0], range[0]], domainMax: [range[1], range[1], range[1]] }
    return dimensions === 1 || !curve
      ? { domainMin: header.domainMin, domainMax: header.domainMax }
      : { domainMin: [0, 0, 0], domainMax: [1, 1, 1] }
  }
  return [
    ...(curve
      ? [{ dimensions: 1, title, size: curve, data: new Float32Array(curve * 3), ...domainOf(1) } satisfies Lut1d]
      : []),
    ...(cube
      ? [{ dimensions: 3, title, size: cube, data: new Float32Array(cube ** 3 * 3), ...domainOf(3) } satisfies Lut3d]
      : []),
  ]
}

/**
 * Writes a table, or a cube behind a shaper; `notes` become comment lines behind the title. Values are printed with six
 * decimals.
 */
export function printCube(lut: LutTable | readonly [Lut1d, Lut3d], notes: readonly string[] = []): string {
  const tables = 'dimensions' in lut ? [lut] : lut
  const [first] = tables
  const out: string[] = []
  const title = `TITLE "${(first?.title ?? '').replace(/["\r\n]/g, "'")}"`
  // Strict readers know no title before a shaper, and none that is not the first keyword.
  out.push(tables.length > 1 ? `# ${title}` : title)
  for (const n of notes) out.push(`# ${n.replace(/[\r\n]+/g, ' ')}`)
  for (const { dimensions, size, domainMin, domainMax } of tables) {
    out.push(`LUT_${dimensions}D_SIZE ${size}`)
    // With a shaper each table says what it is given; a table alone says it in the usual words, channel by channel.
    if (tables.length > 1) out.push(`LUT_${dimensions}D_INPUT_RANGE ${domainMin[0]} ${domainMax[0]}`)
    else out.push(`DOMAIN_MIN ${domainMin.join(' ')}`, `DOMAIN_MAX ${domainMax.join(' ')}`)
  }
  for (const { data } of tables)
    for (let i = 0; i < data.length; i += 3)
      out.push(`${data[i].toFixed(6)} ${data[i + 1].toFixed(6)} ${data[i + 2].toFixed(6)}`)
  return `${out.join('\n')}\n`
}
