// Which term of the glossary a text speaks of.
import { terms, type Term } from './terms'

/**
 * Words that are also ordinary ones: a key of the keyboard, to stop, to look. They count only as they are written
 * here.
 */
const written: Readonly<Record<string, RegExp>> = {
  key: /\bKey\b/,
  stop: /\bstops\b/,
  look: /\b(shared look|Look)\b/,
  record: /\bRecord\b/,
  reading: /\b(Reading|readings?)\b/,
  cameras: /\bCameras\b/,
  dispatch: /\bDispatch\b/,
}

const patterns: readonly { readonly term: Term; readonly pattern: RegExp }[] = terms.map((term) => ({
  term,
  pattern: written[term.id] ?? new RegExp(`\\b(${term.name.replaceAll(', ', '|')})s?\\b`, 'i'),
}))

/** The term that is named first in the first of the texts that names one; the longer of two at one place. */
export function termIn(...texts: readonly string[]): Term | undefined {
  for (const text of texts) {
    let best: { readonly term: Term; readonly at: number } | undefined
    for (const { term, pattern } of patterns) {
      const at = text.search(pattern)
      if (at < 0) continue
      if (!best || at < best.at || (at === best.at && term.name.length > best.term.name.length)) best = { term, at }
    }
    if (best) return best.term
  }
  return undefined
}
