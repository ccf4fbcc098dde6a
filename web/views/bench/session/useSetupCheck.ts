// After a change of a linked shot: the other shots of its set-up are measured again in the background, and the one that
// stands worst against its standard is named.
import { computed, onScopeDispose, shallowRef, watch, type ComputedRef } from 'vue'
import type { ShotDetail, ShotSummary } from '@contracts/responses'
import type { Reading } from '@core/readings'
import { useStandings } from '../../../composables/useStandings'
import { useGrade } from '../../../stores/grade'
import { useReel } from '../../../stores/reel'
import { useStandards } from '../../../stores/standards'

/** A hand that goes on is not followed. */
const settleMs = 2500

export interface SetupCheck {
  readonly worst: ComputedRef<{ readonly shot: ShotSummary; readonly reading: Reading } | null>
  readonly close: () => void
}

export function useSetupCheck(shot: () => ShotDetail | null): SetupCheck {
  const grade = useGrade()
  const reel = useReel()
  const standards = useStandards()
  const others = shallowRef<readonly ShotSummary[]>([])
  let timer: ReturnType<typeof setTimeout> | undefined
  const close = (): void => {
    clearTimeout(timer)
    others.value = []
  }
  async function look(): Promise<void> {
    const now = shot()
    if (!now?.setup) return
    // What followed the change has a new head: the reel knows it.
    await reel.load(now.projectId).catch(() => undefined)
    const { id } = now.setup
    others.value = (reel.current?.shots ?? []).filter((s) => s.setup?.id === id && s.id !== now.id)
  }
  watch(
    () => [grade.shotId, grade.revision?.headId] as const,
    ([id, head], [idBefore, headBefore]) => {
      if (id === idBefore && head === headBefore) return
      close()
      if (id === idBefore && headBefore !== undefined && shot()?.setup && !grade.alone)
        timer = setTimeout(() => void look(), settleMs)
    },
  )
  const standings = useStandings(() => others.value, standards.byId)
  const worst = computed(() => {
    if (others.value.length === 0 || standings.value.size < others.value.length) return null
    const weightOf = (of: ShotSummary): number =>
      (standings.value.get(of.id) ?? []).reduce((sum, r) => sum + r.weight * r.confidence, 0)
    const [first] = [...others.value].sort((a, b) => weightOf(b) - weightOf(a))
    const reading = first && standings.value.get(first.id)?.[0]
    return reading ? { shot: first, reading } : null
  })
  onScopeDispose(close)
  return { worst, close }
}
