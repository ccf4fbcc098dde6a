// The palette: what can be done from here, offered by whatever is on screen.
import { defineStore } from 'pinia'
import { onScopeDispose, ref } from 'vue'
import type { PaletteEntry } from '../commands/matching'

export type PaletteOffer = () => readonly PaletteEntry[] | Promise<readonly PaletteEntry[]>

export const usePalette = defineStore('palette', () => {
  const open = ref(false)
  const offers = new Set<PaletteOffer>()
  /** Offers entries as long as the caller's scope lives. */
  function offer(entries: PaletteOffer): void {
    offers.add(entries)
    onScopeDispose(() => offers.delete(entries))
  }
  /** Everything on offer now; what cannot be had is left out. */
  async function gather(): Promise<readonly PaletteEntry[]> {
    const all = await Promise.all(
      [...offers].map(async (o) =>
        Promise.resolve()
          .then(o)
          .catch(() => []),
      ),
    )
    return all.flat()
  }
  return { open, offer, gather }
})
