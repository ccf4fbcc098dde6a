// The common LUT format (SMPTE ST 2136-1): the parts Matrix, Range, Log, Exponent, ASC_CDL, LUT1D and LUT3D, read and
// written.
import { XMLParser, XMLValidator } from 'fast-xml-parser'
import type { ExponentStyle, CdlStyle, Formula, LogParameters, LogStyle, Lut, LutPart, LutTable } from '../luts'
import { cubeLimits, FormatError } from './cube'

export const clfLimits = { maxBytes: 64 * 1024 * 1024, parts: 64 } as const

type Node = Readonly<Record<string, unknown>>
type Triple = readonly [number, number, number]
const isNode = (v: unknown): v is Node => typeof v === 'object' && v !== null && !Array.isArray(v)

/**
 * Order matters in a process list: nodes come as a list of { name: children, ':@': attributes }. Entities are not
 * expanded, and no document type is taken.
 */
const parser = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  processEntities: false,
  parseTagValue: false,
  parseAttributeValue: false,
  removeNSPrefix: true,
  ignoreDeclaration: true,
  ignorePiTags: true,
})

interface Element {
  readonly name: string
  readonly attributes: Readonly<Record<string, string>>
  readonly children: readonly Element[]
  readonly text: string
}

/** The attributes of the parameters for a channel, or of those for all channels. */
function attributesFor(given: readonly Element[], channel: string): Element['attributes'] {
  const own = given.find((g) => g.attributes['channel'] === channel)
  const shared = given.find((g) => g.attributes['channel'] === undefined)
  return (own ?? shared)?.attributes ?? {}
}

function elementOf(node: unknown): Element | null {
  if (!isNode(node)) return null
  const name = Object.keys(node).find((k) => k !== ':@')
  if (name === undefined || name === '#text') return null
  const inside = Array.isArray(node[name]) ? (node[name] as readonly unknown[]) : []
  const attributes = isNode(node[':@']) ? (node[':@'] as Record<string, string>) : {}
  const text = inside.map((c) => (isNode(c) && typeof c['#text'] === 'string' ? c['#text'] : '')).join(' ')
  return { name, attributes, children: inside.flatMap((c) => elementOf(c) ?? []), text }
}

/** Full code of a bit depth: what 1 is written as. */
const fullCode: Readonly<Record<string, number>> = {
  '8i': 255,
  '10i': 1023,
  '12i': 4095,
  '16i': 65535,
  '16f': 1,
  '32f': 1,
}

/** Where each element of the process list begins, so that a fault can be found. */
function linesOf(text: string, names: readonly string[]): readonly number[] {
  const starts: number[] = []
  const tag = new RegExp(`<(?:[A-Za-z_][\\w.-]*:)?(?:${names.join('|')})[\\s>/]`, 'g')
  let line = 1
  let at = 0
  for (let found = tag.exec(text); found; found = tag.exec(text)) {
    for (; at < found.index; at++) if (text.charCodeAt(at) === 10) line++
    starts.push(line)
  }
  return starts
}

/**
 * Reads a process list. Throws FormatError with the line of the part and the reason; parts that are not of the subset
 * are refused by name.
 */
export function parseClf(text: string): Lut {
  if (text.length > clfLimits.maxBytes)
    throw new FormatError(`The file is larger than ${clfLimits.maxBytes / 1048576} MB.`, 0)
  const forbidden = /<!(DOCTYPE|ENTITY)/i.exec(text)
  if (forbidden)
    throw new FormatError(
      'The file declares a document type or entities. A process list needs none: it is not read.',
      text.slice(0, forbidden.index).split('\n').length,
    )
  const sound = XMLValidator.validate(text)
  if (sound !== true) throw new FormatError(`The file is not sound XML: ${sound.err.msg}`, sound.err.line)
  let nodes: unknown
  try {
    nodes = parser.parse(text)
  } catch (error) {
    throw new FormatError(`The file is not sound XML: ${error instanceof Error ? error.message : String(error)}`, 0)
  }
  const list = (Array.isArray(nodes) ? nodes : []).map(elementOf).find((e) => e?.name === 'ProcessList')
  if (!list) throw new FormatError('The file holds no ProcessList.', 0)
  const described = new Set(['Description', 'InputDescriptor', 'OutputDescriptor', 'Info'])
  const steps = list.children.filter((e) => !described.has(e.name))
  const lines = linesOf(text, partNames)
  if (steps.length === 0) throw new FormatError('The process list is empty.', 0)
  if (steps.length > clfLimits.parts)
    throw new FormatError(
      `The process list has ${steps.length} parts; ${clfLimits.parts} are the most that are read.`,
      0,
    )
  let known = 0
  const parts = steps.flatMap((e) => {
    const line = partNames.includes(e.name) ? (lines[known++] ?? 0) : 0
    return partOf(e, line)
  })
  const title = list.attributes['name'] ?? list.children.find((e) => e.name === 'Description')?.text ?? ''
  const [only] = parts
  return parts.length === 1 && only && !('formula' in only)
    ? { ...only, title: title.trim().slice(0, 200) }
    : { dimensions: 'sequence', title: title.trim().slice(0, 200), parts }
}

const partNames: readonly string[] = ['Matrix', 'Range', 'Log', 'Exponent', 'ASC_CDL', 'LUT1D', 'LUT3D']

function partOf(e: Element, line: number): readonly LutPart[] {
  if (!partNames.includes(e.name))
    throw new FormatError(
      `"${e.name.slice(0, 40)}" is not a part that is read here (${partNames.join(', ')} are).`,
      line,
    )
  if (e.attributes['bypass'] === 'true') return []
  const depth = (name: string): number => {
    const word = e.attributes[name]
    const code = word === undefined ? undefined : fullCode[word]
    if (code === undefined)
      throw new FormatError(
        `${e.name}: ${name} must be one of ${Object.keys(fullCode).join(', ')}, not "${(word ?? '').slice(0, 20)}".`,
        line,
      )
    return code
  }
  const into = depth('inBitDepth')
  const out = depth('outBitDepth')
  switch (e.name) {
    case 'LUT1D':
      return [curveTableOf(e, out, line)]
    case 'LUT3D':
      return [cubeOf(e, out, line)]
    case 'Matrix':
      return [matrixOf(e, into, out, line)]
    case 'Range':
      return [rangeOf(e, into, out, line)]
    case 'Log':
      return [logOf(e, line)]
    case 'Exponent':
      return [exponentOf(e, line)]
    default:
      return [cdlOf(e, line)]
  }
}

const child = (e: Element, name: string): Element | undefined => e.children.find((c) => c.name === name)
const decimal = /^[-+]?(\d+\.?\d*|\.\d+)([eE][-+]?\d+)?$/
function numberOf(word: string, line: number, what: string): number {
  const value = Number(word)
  if (!decimal.test(word) || !Number.isFinite(value) || Math.abs(value) > 1e9)
    throw new FormatError(`${what}: "${word.slice(0, 40)}" is not a number that can be used.`, line)
  return value
}

/** The numbers of an Array element, after its dimensions. */
function arrayOf(
  e: Element,
  dimensions: number,
  line: number,
): { readonly dim: readonly number[]; readonly values: Float64Array } {
  const array = child(e, 'Array')
  if (!array) throw new FormatError(`${e.name} has no Array.`, line)
  const dim = (array.attributes['dim'] ?? '').trim().split(/\s+/).map(Number)
  if (dim.length !== dimensions || !dim.every((d) => Number.isInteger(d) && d >= 1 && d <= cubeLimits.max1d))
    throw new FormatError(
      `${e.name}: the dimensions "${(array.attributes['dim'] ?? '').slice(0, 40)}" are not those of ` +
        `${dimensions} whole numbers that can be read.`,
      line,
    )
  const wanted = dim.reduce((product, d) => product * d, 1)
  // The shortest possible number is one digit and a space: nothing is made room for that the text cannot hold.
  if (wanted * 2 - 1 > array.text.length)
    throw new FormatError(`${e.name}: the dimensions ask for ${wanted} numbers, more than the array can hold.`, line)
  const words = array.text.trim().split(/\s+/)
  if (words.length !== wanted)
    throw new FormatError(`${e.name}: the array holds ${words.length} numbers, its dimensions ask for ${wanted}.`, line)
  return { dim, values: Float64Array.from(words, (w) => numberOf(w, line, e.name)) }
}

const unit = { title: '', domainMin: [0, 0, 0], domainMax: [1, 1, 1] } as const

function curveTableOf(e: Element, out: number, line: number): LutTable {
  for (const flag of ['halfDomain', 'rawHalfs'])
    if (e.attributes[flag] === 'true') throw new FormatError(`LUT1D: ${flag} is not read here.`, line)
  if (child(e, 'IndexMap')) throw new FormatError('LUT1D: an IndexMap is not read here.', line)
  const {
    dim: [length = 0, channels = 0],
    values,
  } = arrayOf(e, 2, line)
  if (length < 2 || (channels !== 1 && channels !== 3))
    throw new FormatError(
      `LUT1D: ${length} rows of ${channels} are refused; 2 to ${cubeLimits.max1d} rows of 1 or 3 are read.`,
      line,
    )
  return {
    ...unit,
    dimensions: 1,
    size: length,
    data: Float32Array.from({ length: length * 3 }, (_, i) => values[channels === 1 ? Math.floor(i / 3) : i] / out),
  }
}

/** The file runs with blue fastest, our tables with red fastest. */
function cubeOf(e: Element, out: number, line: number): LutTable {
  if (child(e, 'IndexMap')) throw new FormatError('LUT3D: an IndexMap is not read here.', line)
  const dims = (child(e, 'Array')?.attributes['dim'] ?? '').trim().split(/\s+/).map(Number)
  const [size = 0] = dims
  if (
    dims.length !== 4 ||
    dims[3] !== 3 ||
    dims[1] !== size ||
    dims[2] !== size ||
    !(size >= cubeLimits.min3d && size <= cubeLimits.max3d)
  )
    throw new FormatError(
      `LUT3D: the dimensions "${dims.join(' ').slice(0, 40)}" are refused; N N N 3 with N from ` +
        `${cubeLimits.min3d} to ${cubeLimits.max3d} is read.`,
      line,
    )
  const { values } = arrayOf(e, 4, line)
  const data = new Float32Array(values.length)
  for (let r = 0, from = 0; r < size; r++)
    for (let g = 0; g < size; g++)
      for (let b = 0; b < size; b++, from += 3)
        for (let c = 0; c < 3; c++) data[((b * size + g) * size + r) * 3 + c] = values[from + c] / out
  return { ...unit, dimensions: 3, size, data }
}

function matrixOf(e: Element, into: number, out: number, line: number): Formula {
  const dims = (child(e, 'Array')?.attributes['dim'] ?? '').trim().split(/\s+/).map(Number)
  const columns = dims[1] ?? 0
  if (dims[0] !== 3 || (columns !== 3 && columns !== 4)) throw new FormatError('Matrix: 3 × 3 or 3 × 4 is read.', line)
  // Some writers add a third dimension.
  const { values } = arrayOf(e, dims.length === 3 ? 3 : 2, line)
  const row = (r: number): readonly number[] => [...values.subarray(r * columns, r * columns + columns)]
  const rows = [row(0), row(1), row(2)]
  return {
    formula: 'matrix',
    matrix: rows.flatMap((r) => r.slice(0, 3).map((v) => (v * into) / out)),
    offset: rows.map((r) => (r[3] ?? 0) / out) as unknown as Triple,
  }
}

function valueIn(e: Element, name: string, line: number): number | null {
  const found = child(e, name)
  return found ? numberOf(found.text.trim(), line, `${e.name}: ${name}`) : null
}

function rangeOf(e: Element, into: number, out: number, line: number): Formula {
  const [minIn, maxIn, minOut, maxOut] = ['minInValue', 'maxInValue', 'minOutValue', 'maxOutValue'].map((n) =>
    valueIn(e, n, line),
  ) as [number | null, number | null, number | null, number | null]
  if ((minIn === null) !== (minOut === null) || (maxIn === null) !== (maxOut === null))
    throw new FormatError('Range: a value in needs its value out.', line)
  const clamp = (e.attributes['style'] ?? 'Clamp') !== 'noClamp'
  if (minIn !== null && maxIn !== null && minOut !== null && maxOut !== null) {
    if (maxIn <= minIn) throw new FormatError('Range: minInValue must lie below maxInValue.', line)
    const scale = (maxOut - minOut) / out / ((maxIn - minIn) / into)
    return {
      formula: 'range',
      scale,
      offset: minOut / out - (scale * minIn) / into,
      low: clamp ? minOut / out : null,
      high: clamp ? maxOut / out : null,
    }
  }
  // One end alone holds values and moves none.
  return {
    formula: 'range',
    scale: 1,
    offset: 0,
    low: clamp && minOut !== null ? minOut / out : null,
    high: clamp && maxOut !== null ? maxOut / out : null,
  }
}

const logStyles: readonly LogStyle[] = [
  'log10',
  'antiLog10',
  'log2',
  'antiLog2',
  'linToLog',
  'logToLin',
  'cameraLinToLog',
  'cameraLogToLin',
]
function logOf(e: Element, line: number): Formula {
  const style = logStyles.find((s) => s === e.attributes['style'])
  if (!style)
    throw new FormatError(
      `Log: the style "${(e.attributes['style'] ?? '').slice(0, 30)}" is not one that is read.`,
      line,
    )
  const given = e.children.filter((c) => c.name === 'LogParams')
  const channel = (name: string): LogParameters => {
    const attributes = attributesFor(given, name)
    const number = (key: string, initial: number): number =>
      attributes[key] === undefined ? initial : numberOf(attributes[key], line, `Log: ${key}`)
    const base = number('base', 2)
    const logSideSlope = number('logSideSlope', 1)
    const linSideSlope = number('linSideSlope', 1)
    if (!(base > 0) || base === 1 || logSideSlope === 0 || linSideSlope === 0)
      throw new FormatError('Log: the base must be above zero and not 1, and the slopes not zero.', line)
    if (style.startsWith('camera') && attributes['linSideBreak'] === undefined)
      throw new FormatError('Log: a camera style needs linSideBreak.', line)
    const parameters = {
      base,
      logSideSlope,
      logSideOffset: number('logSideOffset', 0),
      linSideSlope,
      linSideOffset: number('linSideOffset', 0),
    }
    const more = {
      ...(attributes['linSideBreak'] === undefined ? {} : { linSideBreak: number('linSideBreak', 0) }),
      ...(attributes['linearSlope'] === undefined ? {} : { linearSlope: number('linearSlope', 1) }),
    }
    if ('linearSlope' in more && more.linearSlope === 0)
      throw new FormatError('Log: linearSlope must not be zero.', line)
    if (more.linSideBreak !== undefined && linSideSlope * more.linSideBreak + parameters.linSideOffset <= 0)
      throw new FormatError('Log: linSideBreak lies where the logarithm has no value.', line)
    return { ...parameters, ...more }
  }
  return { formula: 'log', style, channels: [channel('R'), channel('G'), channel('B')] }
}

const exponentStyles: readonly ExponentStyle[] = [
  'basicFwd',
  'basicRev',
  'basicMirrorFwd',
  'basicMirrorRev',
  'basicPassThruFwd',
  'basicPassThruRev',
  'monCurveFwd',
  'monCurveRev',
  'monCurveMirrorFwd',
  'monCurveMirrorRev',
]
function exponentOf(e: Element, line: number): Formula {
  const style = exponentStyles.find((s) => s === e.attributes['style'])
  if (!style)
    throw new FormatError(
      `Exponent: the style "${(e.attributes['style'] ?? '').slice(0, 30)}" is not one that is read.`,
      line,
    )
  const given = e.children.filter((c) => c.name === 'ExponentParams')
  if (given.length === 0) throw new FormatError('Exponent has no ExponentParams.', line)
  const read = (key: string, initial: number): Triple =>
    ['R', 'G', 'B'].map((name) => {
      const attributes = attributesFor(given, name)
      return attributes[key] === undefined ? initial : numberOf(attributes[key], line, `Exponent: ${key}`)
    }) as unknown as Triple
  const exponent = read('exponent', 1)
  const offset = read('offset', 0)
  if (!exponent.every((v) => v >= 0.01 && v <= 100) || !offset.every((v) => v >= 0 && v <= 0.9))
    throw new FormatError('Exponent: an exponent from 0.01 to 100 and an offset from 0 to 0.9 are read.', line)
  return { formula: 'exponent', style, exponent, offset }
}

const cdlStyles: readonly CdlStyle[] = ['Fwd', 'Rev', 'FwdNoClamp', 'RevNoClamp']
function cdlOf(e: Element, line: number): Formula {
  const style = cdlStyles.find((s) => s === (e.attributes['style'] ?? 'Fwd'))
  if (!style)
    throw new FormatError(
      `ASC_CDL: the style "${(e.attributes['style'] ?? '').slice(0, 30)}" is not one that is read.`,
      line,
    )
  const sop = child(e, 'SOPNode')
  const sat = child(e, 'SatNode')
  const triple = (name: string, initial: number): Triple => {
    const found = sop && child(sop, name)
    if (!found) return [initial, initial, initial]
    const words = found.text.trim().split(/\s+/)
    if (words.length !== 3) throw new FormatError(`ASC_CDL: ${name} must be three numbers.`, line)
    return words.map((w) => numberOf(w, line, `ASC_CDL: ${name}`)) as unknown as Triple
  }
  const slope = triple('Slope', 1)
  const power = triple('Power', 1)
  const word = sat && child(sat, 'Saturation')?.text.trim()
  const saturation = word === undefined ? 1 : numberOf(word, line, 'ASC_CDL: Saturation')
  const reverse = style.startsWith('Rev')
  if (
    !slope.every((v) => v >= 0) ||
    !power.every((v) => v > 0) ||
    saturation < 0 ||
    (reverse && (slope.some((v) => v === 0) || saturation === 0))
  )
    throw new FormatError(
      'ASC_CDL: slopes and saturation must not be below zero, powers above it, and what is reversed must not be zero.',
      line,
    )
  return { formula: 'cdl', style, slope, offset: triple('Offset', 0), power, saturation }
}

const escaped = (text: string): string =>
  text.replace(/[&<>"\p{Cc}]/gu, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c] ?? ' ')
const digits = (v: number): string => String(Number(v.toPrecision(9)))

/** Writes tables as a process list; `notes` become descriptions. */
export function printClf(id: string, tables: readonly LutTable[], notes: readonly string[]): string {
  const rows = (values: Iterable<number>): string => {
    const all = [...values].map(digits)
    const out: string[] = []
    for (let i = 0; i < all.length; i += 3) out.push(all.slice(i, i + 3).join(' '))
    return out.join('\n')
  }
  const part = (t: LutTable, i: number): string => {
    if (t.domainMin.some((v) => v !== 0) || t.domainMax.some((v) => v !== 1))
      throw new RangeError('A table of another domain than 0…1 cannot be written as one part.')
    if (t.dimensions === 1)
      return (
        `<LUT1D id="part-${i + 1}" inBitDepth="32f" outBitDepth="32f">\n    <Array dim="${t.size} ` +
        `3">\n${rows(t.data)}\n    </Array>\n  </LUT1D>`
      )
    const { size, data } = t
    const blueFastest = function* (): Generator<number> {
      for (let r = 0; r < size; r++)
        for (let g = 0; g < size; g++)
          for (let b = 0; b < size; b++) for (let c = 0; c < 3; c++) yield data[((b * size + g) * size + r) * 3 + c]
    }
    return (
      `<LUT3D id="part-${i + 1}" interpolation="tetrahedral" inBitDepth="32f" outBitDepth="32f">\n    ` +
      `<Array dim="${size} ${size} ${size} 3">\n${rows(blueFastest())}\n    </Array>\n  </LUT3D>`
    )
  }
  const name = escaped(tables[0]?.title ?? '')
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<ProcessList id="${escaped(id)}" name="${name}" compCLFversion="3.0">`,
    ...notes.map((n) => `  <Description>${escaped(n)}</Description>`),
    ...tables.map(part),
    '</ProcessList>',
    '',
  ].join('\n')
}
