// Choosing shots: one in hand, and any number of chosen ones, by mouse and keyboard as in any list.
import { clamp } from '@core/numbers'
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'

export interface Selection {
  readonly chosen: Ref<ReadonlySet<string>>
  /** The shot in hand, within the list as shown. */
  readonly cursor: Ref<string | null>
  readonly ids: ComputedRef<readonly string[]>
  readonly press: (id: string, how: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => void
  readonly step: (count: number, extend: boolean) => void
  readonly toggle: () => void
  readonly all: () => void
  readonly none: () => void
}

export function useSelection(list: () => readonly string[]): Selection {
  const chosen = ref<ReadonlySet<string>>(new Set())
  const cursor = ref<string | null>(null)
  let anchor: string | null = null
  // What is no longer shown is no longer chosen.
  watch(list, (now) => {
    const here = new Set(now)
    const kept = [...chosen.value].filter((id) => here.has(id))
    if (kept.length !== chosen.value.size) chosen.value = new Set(kept)
    if (cursor.value !== null && !here.has(cursor.value)) cursor.value = null
  })

  function between(a: string, b: string): readonly string[] {
    const now = list()
    const [from, to] = [now.indexOf(a), now.indexOf(b)].sort((x, y) => x - y) as [number, number]
    return from < 0 ? [b] : now.slice(from, to + 1)
  }
  function press(
    id: string,
    { shiftKey, ctrlKey, metaKey }: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean },
  ): void {
    cursor.value = id
    if (shiftKey && anchor !== null) {
      chosen.value = new Set(between(anchor, id))
    } else if (ctrlKey || metaKey) {
      const next = new Set(chosen.value)
      if (!next.delete(id)) next.add(id)
      chosen.value = next
      anchor = id
    } else {
      chosen.value = new Set([id])
      anchor = id
    }
  }
  function step(count: number, extend: boolean): void {
    const now = list()
    if (now.length === 0) return
    const outside = count > 0 ? -1 : now.length
    const at = cursor.value === null ? outside : now.indexOf(cursor.value)
    const id = now[clamp(at + count, 0, now.length - 1)]
    if (id === undefined) return
    press(id, { shiftKey: extend, ctrlKey: false, metaKey: false })
  }
  return {
    chosen,
    cursor,
    ids: computed(() => list().filter((id) => chosen.value.has(id))),
    press,
    step,
    toggle: () => {
      if (cursor.value !== null) press(cursor.value, { shiftKey: false, ctrlKey: true, metaKey: false })
    },
    all: () => {
      chosen.value = new Set(list())
    },
    none: () => {
      chosen.value = new Set()
    },
  }
}
