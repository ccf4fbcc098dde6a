// The readings of the frame that is looked at: asked for when the picture rests, held against the standard at once when that changes.
import { computed, onScopeDispose, ref, shallowRef, watch, type ComputedRef, type Ref } from 'vue'
import { judge, knownCast, type Cast, type Finding, type HouseStandard, type Reading } from '@core/index'
import type { ReadingsAnswer, ReadingsRequest } from '../workers/readings-messages'

export interface FrameReadings {
  readonly readings: ComputedRef<readonly Reading[]>
  /** False while the numbers are of an earlier picture, or not all there yet. */
  /** The cast of the light, as far as it is known. */
  readonly cast: ComputedRef<Pick<Cast, 'mired' | 'duv'> | null>
  readonly fresh: Ref<boolean>
  readonly fault: Ref<string>
}

/** A hand that moves on at once finds both cores free. */
const restMs = 350

/** `subject` is null while the picture moves. */
export function useReadings(subject: () => Omit<ReadingsRequest, 'id'> | null, standard: () => HouseStandard): FrameReadings {
  const worker = new Worker(new URL('../workers/readings-worker.ts', import.meta.url), { type: 'module' })
  const findings = shallowRef<readonly Finding[]>([]), fresh = ref(false), fault = ref('')
  let id = 0, coming: Finding[] = [], timer: ReturnType<typeof setTimeout> | undefined

  worker.onmessage = ({ data }: MessageEvent<ReadingsAnswer>) => {
    if (data.id !== id) return
    fault.value = data.fault
    coming.push(...data.findings)
    if (!data.done) return
    // All at once, so that rows do not jump while the parts come in.
    findings.value = coming
    fresh.value = data.fault === ''
  }
  worker.onerror = (event) => {
    event.preventDefault()
    fault.value = 'The readings stopped. Reload the page.'
  }
  watch(subject, (now) => {
    fresh.value = false
    id++
    coming = []
    clearTimeout(timer)
    if (now) timer = setTimeout(() => worker.postMessage({ ...now, id } satisfies ReadingsRequest), restMs)
    // A measurement under way stops at its next part.
    else worker.postMessage(null)
  }, { immediate: true })
  onScopeDispose(() => {
    clearTimeout(timer)
    worker.terminate()
  })
  return { readings: computed(() => judge(findings.value, standard())), cast: computed(() => knownCast(findings.value)), fresh, fault }
}
