// What the palette offers, and what of it fits the words that were typed.

export interface PaletteEntry {
  readonly id: string
  readonly group: string
  readonly name: string
  readonly key?: string
  readonly run: () => void
}
/** Entries that hold every word that was typed; those whose name begins with it come first. */
export function matching(entries: readonly PaletteEntry[], typed: string): readonly PaletteEntry[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean)
  const rank = ({ name }: PaletteEntry): number => {
    const at = name.toLowerCase().indexOf(words[0] ?? '')
    if (at === 0) return 0
    return at > 0 ? 1 : 2
  }
  const found = entries.filter(({ group, name }) => {
    const all = `${group} ${name}`.toLowerCase()
    return words.every((word) => all.includes(word))
  })
  // Sorting is stable: within a rank they stay in the order in which they are offered.
  return words.length === 0 ? found : [...found].sort((a, b) => rank(a) - rank(b))
}
