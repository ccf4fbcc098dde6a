// A computed value that stays the same object while it says the same, so that what shows it is not drawn again.
import { computed, type ComputedRef } from 'vue'

/** For small plain values: they are compared as JSON. */
export function sameWhileEqual<T>(get: () => T): ComputedRef<T> {
  let words = ''
  return computed<T>((before) => {
    const now = get()
    const said = JSON.stringify(now) ?? ''
    if (before !== undefined && said === words) return before
    words = said
    return now
  })
}
