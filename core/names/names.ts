// Names that people give: one line, whole characters, and not longer than there is room for.

/** One line of text: no control characters, and no halves of characters (Unicode 15, clause 3.8, D75). */
export const oneLine = /^[^\p{Cc}\p{Cs}]*$/u

const characters = new Intl.Segmenter('en', { granularity: 'grapheme' })

/**
 * The beginning of a text: at most so many code points, and never a part of a character as it is seen (Unicode
 * Standard Annex 29).
 */
export function cutTo(text: string, most: number): string {
  if (text.length <= most) return text
  let cut = ''
  let points = 0
  for (const { segment } of characters.segment(text)) {
    points += Array.from(segment).length
    if (points > most) break
    cut += segment
  }
  return cut
}

/** A name for a file of any common system: separators and what one of them reserves are replaced. */
export const fileNameOf = (name: string): string => name.replace(/[\p{Cc}\p{Cs}/\\:*?"<>|]/gu, '_').trim() || 'unnamed'
