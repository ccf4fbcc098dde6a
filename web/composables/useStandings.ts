// How the shots of the reel stand against their house standards: measured on the server, judged here.
import { computed, type ComputedRef } from 'vue'
import { judge, outside, readingKey, waivedKeys, type HouseStandard, type Reading } from '@core/readings'
import type { ShotFindings, ShotSummary } from '@contracts/responses'
import { useFindings } from './useFindings'

/** The readings that lie outside and are not waived, furthest first. */
export type Standing = readonly Reading[]

export function useStandings(
  shots: () => readonly ShotSummary[],
  standardOf: (id: string) => HouseStandard,
): ComputedRef<ReadonlyMap<string, Standing>> {
  const findings = useFindings(shots)
  return computed(
    () =>
      new Map(
        shots().flatMap((s) => {
          const found = findings.value.get(s.id)
          return found ? [[s.id, standingOf(found, standardOf(s.standardId))] as const] : []
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
