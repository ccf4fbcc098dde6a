// The common LUT format (SMPTE ST 2136-1): the parts Matrix, Range, Log, Exponent, ASC_CDL, LUT1D and LUT3D, read and
// written.
import { XMLParser, XMLValidator } from 'fast-xml-parser'
import type { Lut, LutPart, LutTable } from '../luts'
import { cubeLimits, FormatError } from './cube'
import { clfLimits, type Element, elementOf, child, arrayOf } from './clf-nodes'
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
