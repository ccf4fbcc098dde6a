// JSON of unknown origin: counted as text before anything is built from it.
import { ContractError } from './check'

/** Far more than anything that this program writes, and little enough to be gone through in a moment. */
export const jsonLimits = { depth: 26, objects: 100_000, values: 1_500_000 } as const

/** JSON that holds too much, or is no JSON. */
export class JsonError extends Error {
  constructor(
    message: string,
    readonly status: 400 | 413,
  ) {
    super(message)
    this.name = 'JsonError'
  }
}

const quote = 0x22
const backslash = 0x5c
const comma = 0x2c
const open = { brace: 0x7b, bracket: 0x5b } as const
const close = { brace: 0x7d, bracket: 0x5d } as const

/**
 * Reads JSON (RFC 8259) whose depth, objects and values are within `jsonLimits`. One pass counts them in the text;
 * only then is it parsed. Throws JsonError, and ContractError for text that cannot be kept.
 */
export function readJson(text: string): unknown {
  let depth = 0
  let objects = 0
  let values = 1
  for (let i = 0; i < text.length; i++) {
    switch (text.charCodeAt(i)) {
      case quote:
        i = endOfString(text, i)
        break
      case open.brace:
        objects++
        depth++
        break
      case open.bracket:
        depth++
        values++
        break
      case close.brace:
      case close.bracket:
        depth--
        break
      case comma:
        values++
        break
    }
    if (depth > jsonLimits.depth) throw new JsonError('The data are nested too deeply.', 413)
    if (objects > jsonLimits.objects)
      throw new JsonError(`The data hold more than ${jsonLimits.objects.toLocaleString('en')} objects.`, 413)
    if (values > jsonLimits.values)
      throw new JsonError(`The data hold more than ${jsonLimits.values.toLocaleString('en')} values.`, 413)
  }
  const data = parsed(text)
  // Such characters come escaped, or not at all: UTF-8 does not have them.
  const at = text.includes('\\u') ? unkeepable(data) : null
  if (at !== null) throw new ContractError('The text holds half of a character, or NUL.', at)
  return data
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown
  } catch {
    throw new JsonError('The request is not readable JSON.', 400)
  }
}

/** Where there is text that no database keeps: NUL, or a surrogate without its other half. */
function unkeepable(data: unknown, path = ''): string | null {
  const isBad = (text: string): boolean => text.includes('\0') || !text.isWellFormed()
  if (typeof data === 'string') return isBad(data) ? path : null
  if (typeof data !== 'object' || data === null) return null
  for (const [key, value] of Object.entries(data)) {
    const at = path ? `${path}.${key}` : key
    const found = isBad(key) ? path : unkeepable(value, at)
    if (found !== null) return found
  }
  return null
}

/** The place of the quote that ends a string, or the text's end. */
function endOfString(text: string, start: number): number {
  let i = start + 1
  while (i < text.length && text.charCodeAt(i) !== quote) i += text.charCodeAt(i) === backslash ? 2 : 1
  return i
}
