// The step of a kind that the hand controls: of the whole picture, and of no look.
import { computed, type ComputedRef } from 'vue'
import type { Step } from '@core/grade'
import { useBench } from '../session/bench'

export function useOwnStep(kind: string): ComputedRef<Step | null> {
  const bench = useBench()
  return computed(
    () =>
      bench.present.value?.steps.find((s) => s.kind === kind && s.regionId === undefined && s.lookId === undefined) ??
      null,
  )
}
