// The common LUT format (SMPTE ST 2136-1): the parts Matrix, Range, Log, Exponent, ASC_CDL, LUT1D and LUT3D, read and
// written.
import { XMLParser, XMLValidator } from 'fast-xml-parser'
import type { Lut, LutPart, LutTable } from '../luts'
import { cubeLimits, FormatError } from './cube'
import { clfLimits, type Element, elementOf, child, arrayOf, numberOf } from './clf-nodes'
import { matrixOf, rangeOf, logOf, exponentOf, cdlOf } from './clf-formulas'

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
  const listLine = linesOf(text, ['ProcessList'])[0] ?? 0
  requireProcessList(list, listLine)
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
  let leaves: string | undefined
  const parts = steps.flatMap((e) => {
    const line = partNames.includes(e.name) ? (lines[known++] ?? 0) : 0
    const made = partOf(e, line)
    const { inBitDepth, outBitDepth } = e.attributes
    if (leaves !== undefined && inBitDepth !== leaves)
      throw new FormatError(`${e.name} takes ${inBitDepth ?? ''}, but the part before it gives ${leaves}.`, line)
    leaves = outBitDepth
    return made
  })
  const title = list.attributes['name'] ?? list.children.find((e) => e.name === 'Description')?.text ?? ''
  const [only] = parts
  return parts.length === 1 && only && !('formula' in only)
    ? { ...only, title: title.trim().slice(0, 200) }
    : { dimensions: 'sequence', title: title.trim().slice(0, 200), parts }
}

/** ST 2136-1, clause 6.2: an identifier, and a version that is known. */
function requireProcessList({ attributes }: Element, line: number): void {
  if (!attributes['id']?.trim()) throw new FormatError('ProcessList has no id.', line)
  const version = attributes['compCLFversion']
  if (version !== undefined && !/^(1(\.\d)?|2(\.0)?|3(\.0)?)$/.test(version.trim()))
    throw new FormatError(`Version "${version.slice(0, 20)}" of the format is not read here; up to 3.0 is.`, line)
}

const partNames: readonly string[] = ['Matrix', 'Range', 'Log', 'Exponent', 'ASC_CDL', 'LUT1D', 'LUT3D']

function partOf(e: Element, line: number): readonly LutPart[] {
  if (!partNames.includes(e.name))
    throw new FormatError(
      `"${e.name.slice(0, 40)}" is not a part that is read here (${partNames.join(', ')} are).`,
      line,
    )
  const bypass = (e.attributes['bypass'] ?? 'false').toLowerCase()
  if (bypass !== 'true' && bypass !== 'false')
    throw new FormatError(`${e.name}: bypass is true or false, not "${bypass.slice(0, 20)}".`, line)
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
  if (bypass === 'true') return []
  switch (e.name) {
    case 'LUT1D':
      return [curveTableOf(e, into, out, line)]
    case 'LUT3D':
      return [cubeOf(e, into, out, line)]
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

const unit = { title: '', domainMin: [0, 0, 0], domainMax: [1, 1, 1] } as const

/** Where a table's first and last entry stand, on the scale where 1 is the full code. */
function domainOf(e: Element, into: number, size: number, line: number): Pick<LutTable, 'domainMin' | 'domainMax'> {
  const map = child(e, 'IndexMap')
  if (!map) return { domainMin: unit.domainMin, domainMax: unit.domainMax }
  const ends = map.text
    .trim()
    .split(/\s+/)
    .map((pair) => pair.split('@').map((word) => numberOf(word, line, `${e.name}: IndexMap`)))
  const [low, high] = ends
  if (ends.length !== 2 || low?.[1] !== 0 || high?.[1] !== size - 1 || !((low[0] ?? 0) < (high[0] ?? 0)))
    throw new FormatError(
      `${e.name}: an IndexMap of two ends is read, from entry 0 to entry ${size - 1}; this one is another.`,
      line,
    )
  const [from, to] = [(low[0] ?? 0) / into, (high[0] ?? 0) / into]
  return { domainMin: [from, from, from], domainMax: [to, to, to] }
}

/** A half float's bits as its value (IEEE 754, binary16). */
function halfOf(bits: number): number {
  const sign = bits & 0x8000 ? -1 : 1
  const exponent = (bits >> 10) & 31
  const fraction = bits & 1023
  if (exponent === 0) return sign * fraction * 2 ** -24
  return exponent === 31 ? NaN : sign * (1 + fraction / 1024) * 2 ** (exponent - 15)
}

function curveTableOf(e: Element, into: number, out: number, line: number): LutTable {
  for (const name of ['halfDomain', 'hueAdjust'])
    if (!['false', 'none', undefined].includes(e.attributes[name]?.toLowerCase()))
      throw new FormatError(`LUT1D: ${name} is not read here.`, line)
  const {
    dim: [length = 0, channels = 0],
    values,
  } = arrayOf(e, 2, line)
  if (length < 2 || (channels !== 1 && channels !== 3))
    throw new FormatError(
      `LUT1D: ${length} rows of ${channels} are refused; 2 to ${cubeLimits.max1d} rows of 1 or 3 are read.`,
      line,
    )
  const valueOf = e.attributes['rawHalfs']?.toLowerCase() === 'true' ? halfOf : (v: number): number => v / out
  const data = Float32Array.from({ length: length * 3 }, (_, i) =>
    valueOf(values[channels === 1 ? Math.floor(i / 3) : i]),
  )
  if (!data.every(Number.isFinite)) throw new FormatError('LUT1D: an entry is no finite number.', line)
  return { ...unit, ...domainOf(e, into, length, line), dimensions: 1, size: length, data }
}

/** The file runs with blue fastest, our tables with red fastest. */
function cubeOf(e: Element, into: number, out: number, line: number): LutTable {
  const between = (e.attributes['interpolation'] ?? 'trilinear').toLowerCase()
  if (between !== 'trilinear' && between !== 'tetrahedral')
    throw new FormatError(`LUT3D: the interpolation "${between.slice(0, 20)}" is not one that is read.`, line)
  if (e.attributes['rawHalfs']?.toLowerCase() === 'true')
    throw new FormatError('LUT3D: rawHalfs is not read here.', line)
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
  return { ...unit, ...domainOf(e, into, size, line), dimensions: 3, size, data, interpolation: between }
}
