// The elements of a common LUT format file: what is read from them, and how numbers are checked.
import { cubeLimits, FormatError } from './cube'

export const clfLimits = { maxBytes: 64 * 1024 * 1024, parts: 64 } as const
type Node = Readonly<Record<string, unknown>>
export type Triple = readonly [number, number, number]
const isNode = (v: unknown): v is Node => typeof v === 'object' && v !== null && !Array.isArray(v)

export interface Element {
  readonly name: string
  readonly attributes: Readonly<Record<string, string>>
  readonly children: readonly Element[]
  readonly text: string
}

/** Refuses parameters for a channel that there is none of. */
export function requireChannels(e: Element, given: readonly Element[], line: number): void {
  for (const { attributes } of given) {
    const { channel } = attributes
    if (channel !== undefined && !['R', 'G', 'B'].includes(channel))
      throw new FormatError(`${e.name}: there is no channel "${channel.slice(0, 20)}"; R, G and B are.`, line)
  }
}

/** The attributes of the parameters for a channel, or of those for all channels. */
export function attributesFor(given: readonly Element[], channel: string): Element['attributes'] {
  const own = given.find((g) => g.attributes['channel'] === channel)
  const shared = given.find((g) => g.attributes['channel'] === undefined)
  return (own ?? shared)?.attributes ?? {}
}

export function elementOf(node: unknown): Element | null {
  if (!isNode(node)) return null
  const name = Object.keys(node).find((k) => k !== ':@')
  if (name === undefined || name === '#text') return null
  const inside = Array.isArray(node[name]) ? (node[name] as readonly unknown[]) : []
  const attributes = isNode(node[':@']) ? (node[':@'] as Record<string, string>) : {}
  const text = inside.map((c) => (isNode(c) && typeof c['#text'] === 'string' ? c['#text'] : '')).join(' ')
  return { name, attributes, children: inside.flatMap((c) => elementOf(c) ?? []), text }
}

export const child = (e: Element, name: string): Element | undefined => e.children.find((c) => c.name === name)
const decimal = /^[-+]?(\d+(?:\.\d*)?|\.\d+)([eE][-+]?\d+)?$/

export function numberOf(word: string, line: number, what: string): number {
  const value = Number(word)
  if (!decimal.test(word) || !Number.isFinite(value) || Math.abs(value) > 1e9)
    throw new FormatError(`${what}: "${word.slice(0, 40)}" is not a number that can be used.`, line)
  return value
}

/** The numbers of an Array element, after its dimensions. */
export function arrayOf(
  e: Element,
  dimensions: number,
  line: number,
): { readonly dim: readonly number[]; readonly values: Float64Array } {
  const array = child(e, 'Array')
  if (!array) throw new FormatError(`${e.name} has no Array.`, line)
  const stated = (array.attributes['dim'] ?? '').trim().split(/\s+/).map(Number)
  const dim = dimensions === 2 && stated.length === 3 && stated[2] === 3 ? stated.slice(0, 2) : stated
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

export function valueIn(e: Element, name: string, line: number): number | null {
  const found = child(e, name)
  return found ? numberOf(found.text.trim(), line, `${e.name}: ${name}`) : null
}
