// How the shots of the reel stand against their house standards: measured on the server, one shot after another, judged
// here.
import { computed, onScopeDispose, shallowRef, watch, type ComputedRef } from 'vue'
import { judge, outside, readingKey, waivedKeys, type HouseStandard, type Reading } from '@core/readings'
import type { ShotFindings, ShotSummary } from '@contracts/responses'
import { request } from '../../api/client'

/** The readings that lie outside and are not waived, furthest first. */
export type Standing = readonly Reading[]

export function useStandings(
  shots: () => readonly ShotSummary[],
  standardOf: (id: string) => HouseStandard,
): ComputedRef<ReadonlyMap<string, Standing>> {
  /** By shot; counts as long as its head and lead frame are those that were measured. */
  const measured = shallowRef<ReadonlyMap<string, ShotFindings>>(new Map())
  const failed = new Set<string>()
  const keyOf = (s: Pick<ShotSummary, 'id' | 'headId' | 'leadFrame'>): string => `${s.id} ${s.headId} ${s.leadFrame}`
  const isNew = (s: ShotSummary): boolean => {
    const known = measured.value.get(s.id)
    return known?.headId !== s.headId || known.leadFrame !== s.leadFrame
  }
  let running = false
  let ended = false
  async function measure(): Promise<void> {
    if (running) return
    running = true
    for (let next = wanted(); next && !ended; next = wanted()) {
      try {
        const found = await request<ShotFindings>(`/shots/${encodeURIComponent(next.id)}/findings`)
        measured.value = new Map([...measured.value, [next.id, found]])
        // What changed meanwhile comes with the reel's next reading; asking again and again would not help.
        if (isNew(next)) failed.add(keyOf(next))
      } catch {
        failed.add(keyOf(next))
      }
    }
    running = false
  }
  const wanted = (): ShotSummary | undefined => shots().find((s) => isNew(s) && !failed.has(keyOf(s)))
  watch(shots, () => void measure(), { immediate: true })
  onScopeDispose(() => {
    ended = true
  })
  return computed(
    () =>
      new Map(
        shots().flatMap((s) => {
          const found = measured.value.get(s.id)
          return found && !isNew(s) ? [[s.id, standingOf(found, standardOf(s.standardId))] as const] : []
        }),
      ),
  )
}

/** Judged once per measurement and standard: a long reel is not judged anew at every shot that comes in. */
const judged = new WeakMap<ShotFindings, { readonly standard: HouseStandard; readonly standing: Standing }>()
function standingOf(found: ShotFindings, standard: HouseStandard): Standing {
  const known = judged.get(found)
  if (known?.standard === standard) return known.standing
  const waived = waivedKeys(found.waivers)
  const standing = outside(judge(found.findings, standard)).filter((r) => !waived.has(readingKey(r)))
  judged.set(found, { standard, standing })
  return standing
}
