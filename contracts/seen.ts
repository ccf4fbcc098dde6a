// Changing what one has seen, and nothing else: requests say what they saw as an entity tag (RFC 9110, clause 13.1),
// which both sides make of the value itself.
import { hash } from 'ohash'

/** An entity tag of a value as JSON carries it; the order of keys is nothing. */
export const tagOf = (value: unknown): string => `"${hash(JSON.parse(JSON.stringify(value)) as unknown)}"`

/** The header of a request that changes what was `seen`; null where nothing was there. */
export const seenHeader = (seen: unknown): Readonly<Record<string, string>> =>
  seen === null ? { 'if-none-match': '*' } : { 'if-match': tagOf(seen) }
