// What the readings find on a frame of each of many shots: measured on the server, one shot after another, in their
// order. What was measured stays until the shot's grade or the frame is another.
import { computed, onScopeDispose, shallowRef, watch, type ComputedRef } from 'vue'
import type { ShotFindings, ShotSummary } from '@contracts/responses'
import { request } from '../api/client'

/**
 * By shot; only what is of its present grade and of the frame that is looked at.
 *
 * @param waitedFor the page says little until it is there: it is measured before what goes on by itself
 */
export function useFindings(
  shots: () => readonly ShotSummary[],
  frameOf: (shot: ShotSummary) => number = (shot) => shot.leadFrame,
  waitedFor = false,
): ComputedRef<ReadonlyMap<string, ShotFindings>> {
  const measured = shallowRef<ReadonlyMap<string, ShotFindings>>(new Map())
  const keyOf = (s: ShotSummary): string => `${s.id} ${s.headId} ${frameOf(s)}`
  const failed = new Set<string>()
  const isNew = (s: ShotSummary): boolean => {
    const known = measured.value.get(s.id)
    return known?.headId !== s.headId || known.frame !== frameOf(s)
  }
  const wanted = (): ShotSummary | undefined => shots().find((s) => isNew(s) && !failed.has(keyOf(s)))
  let running = false
  let ended = false
  async function measure(): Promise<void> {
    if (running) return
    running = true
    for (let next = wanted(); next && !ended; next = wanted()) {
      const key = keyOf(next)
      try {
        const found = await request<ShotFindings>(
          `/shots/${encodeURIComponent(next.id)}/findings?frame=${frameOf(next)}&waited=${waitedFor}`,
        )
        measured.value = new Map([...measured.value, [next.id, found]])
        // What changed meanwhile comes with the reel's next reading; asking again and again would not help.
        if (isNew(next)) failed.add(key)
      } catch {
        failed.add(key)
      }
    }
    running = false
  }
  watch(
    () => shots().map(keyOf).join(),
    () => void measure(),
    { immediate: true },
  )
  onScopeDispose(() => {
    ended = true
  })
  return computed(
    () =>
      new Map(
        shots().flatMap((s) => {
          const found = measured.value.get(s.id)
          return found && !isNew(s) ? [[s.id, found] as const] : []
        }),
      ),
  )
}
