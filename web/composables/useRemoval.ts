// Removing one thing of a list, and bringing it back: what was removed last stands in a line until the view is left.
import { shallowRef, type ShallowRef } from 'vue'
import { post, request } from '../api/client'

export interface Removal {
  /** What was removed last; null where nothing was, or it was brought back. */
  readonly last: ShallowRef<{ readonly name: string } | null>
  readonly remove: (path: string, name: string) => Promise<void>
  readonly bringBack: () => Promise<void>
}

/** `reload` reads the list again. Both functions throw what the server answered instead. */
export function useRemoval(reload: () => Promise<unknown>): Removal {
  const last = shallowRef<{ readonly name: string; readonly path: string } | null>(null)
  return {
    last,
    remove: async (path, name) => {
      await request(path, { method: 'DELETE' })
      last.value = { name, path }
      await reload()
    },
    bringBack: async () => {
      if (!last.value) return
      await post(`${last.value.path}/restore`, {})
      last.value = null
      await reload()
    },
  }
}
