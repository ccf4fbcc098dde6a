// The readings of the frame that is looked at, asked for when the picture rests; and, while nothing else is wanted, of frames spread over the clip.
// They are held against the standard here, so that another standard counts at once.
import { computed, onScopeDispose, ref, shallowRef, watch, type ComputedRef, type Ref } from 'vue'
import { judge, knownCast, nothingPointed, type Cast, type Finding, type HouseStandard, type Reading } from '@core/index'
import type { ReadingsAnswer, ReadingsRequest } from '../workers/readings-messages'

/** A reading where it lies furthest outside, over the frames of the clip that were looked at. */
export interface ClipWorst { readonly reading: Reading; readonly frame: number; /** Frames looked at. */ readonly of: number }

export interface FrameReadings {
  readonly readings: ComputedRef<readonly Reading[]>
  /** By the key of a reading; only those that lie outside somewhere. */
  readonly clip: ComputedRef<ReadonlyMap<string, ClipWorst>>
  /** The cast of the light, as far as it is known. */
  readonly cast: ComputedRef<Pick<Cast, 'mired' | 'duv'> | null>
  /** False while the numbers are of an earlier picture, or not all there yet. */
  readonly fresh: Ref<boolean>
  readonly fault: Ref<string>
}

/** What tells a reading from another, where there are several subjects. */
export const readingKey = (r: Pick<Finding, 'id' | 'of'>): string => (r.of ? `${r.id} ${r.of}` : r.id)

/** A hand that moves on at once finds both cores free. */
const restMs = 350
/** The clip is looked through only when nobody does anything for a while. */
const idleMs = 2500

/** `subject` is null while the picture moves. `clipFrames` are those to look at over the clip. */
export function useReadings(subject: () => Omit<ReadingsRequest, 'id'> | null, standard: () => HouseStandard, clipFrames: () => readonly number[]): FrameReadings {
  const worker = new Worker(new URL('../workers/readings-worker.ts', import.meta.url), { type: 'module' })
  const findings = shallowRef<readonly Finding[]>([]), overClip = shallowRef<ReadonlyMap<number, readonly Finding[]>>(new Map())
  const fresh = ref(false), fault = ref('')
  let id = 0, coming: Finding[] = [], timer: ReturnType<typeof setTimeout> | undefined
  let clipFrame: number | null = null, clipOf: { readonly mediaHash: string; readonly grade: object } | null = null

  function ask(request: Omit<ReadingsRequest, 'id'>): void {
    id++
    coming = []
    worker.postMessage({ ...request, id } satisfies ReadingsRequest)
  }
  /** The next frame of the clip that was not looked at yet. */
  function goOn(): void {
    const now = subject(), next = clipFrames().find((f) => !overClip.value.has(f))
    if (!now || next === undefined) return
    clipFrame = next
    ask({ ...now, frameIndex: next, pointed: nothingPointed })
  }
  worker.onmessage = ({ data }: MessageEvent<ReadingsAnswer>) => {
    if (data.id !== id) return
    coming.push(...data.findings)
    if (!data.done) return
    if (clipFrame !== null) {
      // A frame that cannot be had is passed over.
      overClip.value = new Map([...overClip.value, [clipFrame, coming]])
      goOn()
      return
    }
    fault.value = data.fault
    // All at once, so that rows do not jump while the parts come in.
    findings.value = coming
    fresh.value = data.fault === ''
    timer = setTimeout(goOn, idleMs)
  }
  worker.onerror = (event) => {
    event.preventDefault()
    fault.value = 'The readings stopped. Reload the page.'
  }
  watch(subject, (now) => {
    fresh.value = false
    id++
    clipFrame = null
    clearTimeout(timer)
    // A measurement under way stops at its next part.
    worker.postMessage(null)
    if (!now) return
    if (clipOf?.mediaHash !== now.mediaHash || clipOf.grade !== now.grade) {
      clipOf = now
      overClip.value = new Map()
    }
    timer = setTimeout(() => ask(now), restMs)
  }, { immediate: true })
  onScopeDispose(() => {
    clearTimeout(timer)
    worker.terminate()
  })

  const readings = computed(() => judge(findings.value, standard()))
  const clip = computed(() => {
    const worst = new Map<string, ClipWorst>()
    for (const [frame, found] of overClip.value)
      for (const reading of judge(found, standard())) {
        const key = readingKey(reading)
        if (reading.weight > (worst.get(key)?.reading.weight ?? 0)) worst.set(key, { reading, frame, of: overClip.value.size })
      }
    return worst
  })
  return { readings, clip, cast: computed(() => knownCast(findings.value)), fresh, fault }
}
