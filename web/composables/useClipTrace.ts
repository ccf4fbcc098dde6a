// The clip trace of the open shot: asked for anew when the grade rests, put aside while a hand is at work.
import { computed, onScopeDispose, ref, shallowRef, watch, type ComputedRef, type Ref, type ShallowRef } from 'vue'
import type { GradeDocument } from '@core/grade'
import { worstMoments, type FrameTrace, type Moment } from '@core/instruments'
import type { ProxyFacts } from '@contracts/responses'
import { sameWhileEqual } from './sameWhileEqual'
import type { Medium } from '../workers/messages'
import { connect, Overtaken } from '../workers/calls'
import type { Traced, TraceFunctions } from '../workers/trace-worker'

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
  const calls = connect<TraceFunctions>(
    () => new Worker(new URL('../workers/trace-worker.ts', import.meta.url), { type: 'module' }),
    'The clip trace',
  )
  const traces = shallowRef<readonly (FrameTrace | undefined)[]>([])
  const share = ref(0)
  const fault = ref('')
  let timer: ReturnType<typeof setTimeout> | undefined
  let running = new AbortController()

  async function trace({ medium, ...asked }: TraceSubject, proxy: ProxyFacts, signal: AbortSignal): Promise<void> {
    let found = 0
    const empty = Array<undefined>(asked.count).fill(undefined)
    share.value = 0
    fault.value = ''
    traces.value = empty
    if (busy()) calls.tell('pause', undefined)
    const onEvent = (more: Traced): void => {
      const next = [...traces.value]
      more.frames.forEach((frame, i) => {
        next[frame] = more.traces[i]
      })
      found += more.frames.length
      traces.value = next
      share.value = next.length === 0 ? 1 : found / next.length
    }
    try {
      await calls.ask('trace', { ...asked, medium: { ...medium, proxy } }, { signal, onEvent })
    } catch (error) {
      if (!(error instanceof Overtaken)) fault.value = error instanceof Error ? error.message : String(error)
    }
  }
  function overtake(): AbortSignal {
    clearTimeout(timer)
    running.abort()
    running = new AbortController()
    // What is paused must hear that it is not wanted any more.
    calls.tell('resume', undefined)
    return running.signal
  }

  watch(
    subject,
    (now) => {
      const signal = overtake()
      const proxy = now?.medium.proxy
      if (!now || !proxy) {
        traces.value = []
        return
      }
      if (traces.value.length !== now.count) traces.value = Array<undefined>(now.count).fill(undefined)
      timer = setTimeout(() => void trace(now, proxy, signal), restMs)
    },
    { immediate: true },
  )
  watch(busy, (is) => calls.tell(is ? 'pause' : 'resume', undefined))
  onScopeDispose(() => {
    overtake()
    calls.close()
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
