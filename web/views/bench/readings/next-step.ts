// What to do next in a shot, from what is known of it: one thing at a time.
import { printValue, readingKey, readingKind, unitForm, type Reading } from '@core/readings'

export type NextStep =
  | { readonly kind: 'read' }
  | { readonly kind: 'reading'; readonly key: string; readonly words: string }
  | { readonly kind: 'done' }

/**
 * How the file is read comes first, as all else rests on it; then what lies furthest outside its target; else the next
 * shot. Null while nothing is measured yet.
 * @param off readings outside their targets that nobody ignores
 * @param asks nobody has said yet what the file was written in
 */
export function nextStep(off: readonly Reading[], asks: boolean, measured: boolean): NextStep | null {
  if (asks) return { kind: 'read' }
  if (!measured) return null
  const [first] = [...off].sort((a, b) => b.weight - a.weight)
  return first ? { kind: 'reading', key: readingKey(first), words: wordsOf(first) } : { kind: 'done' }
}

/** "Black: 1.2 %, low". */
function wordsOf(reading: Reading): string {
  const { unit } = readingKind(reading.id)
  const number = `${printValue(reading.value, unit)} ${unitForm(unit).after}`.trim()
  const verdict = reading.verdict === 'low' || reading.verdict === 'high' ? `, ${reading.verdict}` : ''
  return `${reading.name}: ${number}${verdict}`
}
