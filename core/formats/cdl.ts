// Colour decision lists (ASC CDL v1.2): one correction (.cc), a collection (.ccc) or a list (.cdl), read and written.
import { cutTo } from '../names'
import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser'
import { neutralCdl, type CdlNumbers } from '../grade'
import { FormatError } from './cube'

export interface NamedCdl {
  readonly id: string
  readonly cdl: CdlNumbers
}
export type CdlFileKind = 'cc' | 'ccc' | 'cdl'

const mostBytes = 4 * 1024 * 1024
const mostCorrections = 2000
/** No entities are expanded and no document type is taken: a list needs neither. */
const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  processEntities: false,
  parseTagValue: false,
  parseAttributeValue: false,
  removeNSPrefix: true,
  ignoreDeclaration: true,
})

type Node = Readonly<Record<string, unknown>>
const isNode = (v: unknown): v is Node => typeof v === 'object' && v !== null && !Array.isArray(v)
const listOf = (v: unknown): readonly unknown[] => {
  if (Array.isArray(v)) return v
  if (v === undefined) return []
  return [v]
}
const child = (node: Node, name: string): Node => {
  const c = listOf(node[name])[0]
  return isNode(c) ? c : {}
}
/** An element with attributes only is a node; one with text only is its text. */
const textIn = (v: unknown): string | undefined => {
  const one = listOf(v)[0]
  if (typeof one === 'string') return one
  if (isNode(one) && typeof one['#text'] === 'string') return one['#text']
  return undefined
}

/** The corrections of a file, in order. Throws FormatError with what is wrong and where. */
export function parseCdl(text: string): readonly NamedCdl[] {
  if (text.length > mostBytes)
    throw new FormatError('The file is larger than 4 MB: that is no colour decision list.', 0)
  if (/<!DOCTYPE|<!ENTITY/i.test(text))
    throw new FormatError(
      'The file declares a document type or entities. Colour decision lists need none: it is not read.',
      0,
    )
  const sound = XMLValidator.validate(text)
  if (sound !== true) throw new FormatError(`The file is not sound XML: ${sound.err.msg}`, sound.err.line)
  const root = treeOf(text)
  const found: NamedCdl[] = []
  const visit = (node: unknown, depth: number): void => {
    if (!isNode(node) || depth > 8) return
    for (const [name, value] of Object.entries(node)) {
      if (name === 'ColorCorrection')
        for (const one of listOf(value)) found.push(correctionOf(isNode(one) ? one : {}, found.length))
      else if (!name.startsWith('@')) for (const one of listOf(value)) visit(one, depth + 1)
      if (found.length > mostCorrections)
        throw new FormatError(`The file holds more than ${mostCorrections} corrections.`, 0)
    }
  }
  visit(root, 0)
  if (found.length === 0) throw new FormatError('The file holds no ColorCorrection.', 0)
  return found
}

function treeOf(text: string): unknown {
  try {
    return parser.parse(text)
  } catch (error) {
    throw new FormatError(`The file is not sound XML: ${error instanceof Error ? error.message : String(error)}`, 0)
  }
}

function correctionOf(node: Node, index: number): NamedCdl {
  const id = typeof node['@id'] === 'string' && node['@id'] !== '' ? cutTo(node['@id'], 120) : `${index + 1}`
  // The standard's spelling, and that of some older lists.
  const sop = child(node, 'SOPNode' in node ? 'SOPNode' : 'SopNode')
  const sat = child(node, 'SatNode' in node ? 'SatNode' : 'SATNode')
  const numbers = (
    name: string,
    count: number,
    least: number,
    initial: readonly number[],
    from: Node,
  ): readonly number[] => {
    const words = textIn(from[name])
    if (words === undefined) return initial
    const values = words.trim().split(/\s+/).map(Number)
    if (values.length !== count || !values.every((v) => Number.isFinite(v) && v >= least && Math.abs(v) <= 1000))
      throw new FormatError(
        `Correction "${id}": ${name} must be ` +
          `${count === 1 ? 'a number' : `${count} numbers`}${least === 0 ? ' not below zero' : ''}, not ` +
          `"${cutTo(words, 60)}".`,
        0,
      )
    return values
  }
  const triple = (
    name: 'Slope' | 'Offset' | 'Power',
    initial: readonly [number, number, number],
    least: number,
  ): readonly [number, number, number] =>
    numbers(name, 3, least, initial, sop) as unknown as readonly [number, number, number]
  const power = triple('Power', neutralCdl.power, 0)
  if (power.some((p) => p === 0)) throw new FormatError(`Correction "${id}": Power must be above zero.`, 0)
  return {
    id,
    cdl: {
      slope: triple('Slope', neutralCdl.slope, 0),
      offset: triple('Offset', neutralCdl.offset, -1000),
      power,
      saturation: numbers('Saturation', 1, 0, [1], sat)[0],
    },
  }
}

const builder = new XMLBuilder({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  format: true,
  indentBy: '  ',
  suppressEmptyNode: true,
})
const namespace = 'urn:ASC:CDL:v1.01'

/** The corrections as a file. A .cc holds exactly one; RangeError otherwise. */
export function printCdl(corrections: readonly NamedCdl[], kind: CdlFileKind): string {
  const row = (values: readonly number[]): string => values.map((v) => String(Number(v.toPrecision(10)))).join(' ')
  const nodes = corrections.map(({ id, cdl }) => ({
    '@id': id,
    SOPNode: { Slope: row(cdl.slope), Offset: row(cdl.offset), Power: row(cdl.power) },
    SatNode: { Saturation: row([cdl.saturation]) },
  }))
  if (kind === 'cc' && nodes.length !== 1) throw new RangeError('A .cc file holds exactly one correction.')
  const bodies: Readonly<Record<CdlFileKind, object>> = {
    cc: { ColorCorrection: { '@xmlns': namespace, ...nodes[0] } },
    ccc: { ColorCorrectionCollection: { '@xmlns': namespace, ColorCorrection: nodes } },
    cdl: { ColorDecisionList: { '@xmlns': namespace, ColorDecision: nodes.map((n) => ({ ColorCorrection: n })) } },
  }
  return `<?xml version="1.0" encoding="UTF-8"?>\n${String(builder.build(bodies[kind]))}`
}
