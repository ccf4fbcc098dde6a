/** What ends with a stop, a question or an exclamation mark and is followed by a new sentence, or by nothing. */
export const sentencesIn = (words: string): number =>
  words
    .trim()
    .split(/[.!?](?=\s+[A-Z“"▲]|\s*$)/)
    .filter((part) => part.trim() !== '').length
