// Escape closes what was opened last: whatever can be closed says while it is open, and how.
import { onScopeDispose, watch } from 'vue'

interface Closable {
  readonly close: () => void
}
/** What is open, the newest last. */
let open: readonly Closable[] = []

/** `isOpen` is watched; Escape calls `close` while nothing that was opened later is open. */
export function useEscape(isOpen: () => boolean, close: () => void): void {
  const mine: Closable = { close }
  const remove = (): void => {
    open = open.filter((o) => o !== mine)
  }
  watch(
    isOpen,
    (is) => {
      remove()
      if (is) open = [...open, mine]
    },
    { immediate: true, flush: 'sync' },
  )
  onScopeDispose(remove)
}

/** Closes what was opened last; false where nothing is open. */
export function closeLast(): boolean {
  const last = open.at(-1)
  last?.close()
  return last !== undefined
}
