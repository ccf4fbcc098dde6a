// The clip trace of the open shot: asked for anew when the grade rests, put aside while a hand is at work.
import { computed, onScopeDispose, ref, shallowRef, watch, type ComputedRef, type Ref, type ShallowRef } from 'vue'
import type { GradeDocument } from '@core/grade'
import { worstMoments, type FrameTrace, type Moment } from '@core/instruments'
import type { ProxyFacts } from '@contracts/responses'
import { sameWhileEqual } from './sameWhileEqual'
import type { Medium } from '../workers/messages'
import type { TraceAnswer, TraceOrder } from '../workers/trace-messages'

export interface TraceSubject {
  readonly medium: Medium
  readonly grade: GradeDocument
  readonly first: number
  readonly count: number
}

export interface ClipTrace {
  /** By frame of the shot; undefined where it is not traced yet. */
  readonly traces: ShallowRef<readonly (FrameTrace | undefined)[]>
  readonly moments: ComputedRef<readonly Moment[]>
  /** Share of the frames traced, 0..1. */
  readonly share: Ref<number>
  readonly fault: Ref<string>
}

// Not at every pause of the hand: tracing takes both cores for a while.
const restMs = 1200

export function useClipTrace(subject: () => TraceSubject | null, busy: () => boolean): ClipTrace {
  const worker = new Worker(new URL('../workers/trace-worker.ts', import.meta.url), { type: 'module' })
  const tell = (order: TraceOrder): void => worker.postMessage(order)
  const traces = shallowRef<readonly (FrameTrace | undefined)[]>([])
  const share = ref(0)
  const fault = ref('')
  let id = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  let found = 0

  worker.onmessage = ({ data }: MessageEvent<TraceAnswer>) => {
    if (data.id !== id) return
    fault.value = data.fault
    const next = [...traces.value]
    data.frames.forEach((frame, i) => {
      next[frame] = data.traces[i]
    })
    found += data.frames.length
    traces.value = next
    share.value = next.length === 0 ? 1 : found / next.length
  }
  worker.onerror = (event) => {
    event.preventDefault()
    fault.value = 'The clip trace stopped.'
  }

  watch(
    subject,
    (now) => {
      clearTimeout(timer)
      tell({ ask: 'stop' })
      id++
      if (!now?.medium.proxy) return void (traces.value = [])
      if (traces.value.length !== now.count) traces.value = Array<undefined>(now.count).fill(undefined)
      timer = setTimeout(() => {
        found = 0
        share.value = 0
        fault.value = ''
        traces.value = Array<undefined>(now.count).fill(undefined)
        tell({
          ask: 'trace',
          id,
          medium: now.medium as Medium & { proxy: ProxyFacts },
          grade: now.grade,
          first: now.first,
          count: now.count,
        })
        if (busy()) tell({ ask: 'wait' })
      }, restMs)
    },
    { immediate: true },
  )
  watch(busy, (is) => tell({ ask: is ? 'wait' : 'go on' }))
  onScopeDispose(() => {
    clearTimeout(timer)
    worker.terminate()
  })

  // Of the footage, not of the grade: what is on the line stays while a hand moves.
  const timing = sameWhileEqual(() => {
    const now = subject()
    return now && { perSecond: now.medium.rate.numerator / now.medium.rate.denominator, first: now.first }
  })
  const moments = computed(() =>
    timing.value ? worstMoments(traces.value, timing.value.perSecond, timing.value.first) : [],
  )
  return { traces, moments, share, fault }
}
