// Keeping a tone steady or a surface neutral along the clip: asked of its worker, kept as one edit, and told.
import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import type { GradeDocument } from '@core/grade'
import { withSteadied, type SteadyKind } from '@core/steady'
import type { Area } from '@core/readings'
import { connect, Overtaken, type Calls } from '../workers/calls'
import type { SteadyAnswer, SteadyFunctions } from '../workers/steady-worker'
import { useGrade } from './grade'
import { useTracking } from './tracking'
import { useView } from './view'

export const useSteadying = defineStore('steadying', () => {
  const grade = useGrade()
  const tracking = useTracking()
  const view = useView()
  const running = ref<SteadyKind | null>(null)
  const share = ref(0)
  /** What the last question came to, until the shot is left. */
  const outcome = shallowRef<{ readonly kind: SteadyKind; readonly answer: SteadyAnswer } | null>(null)
  const fault = ref('')
  let calls: Calls<SteadyFunctions> | null = null
  let asking = new AbortController()
  /** The grade that the outcome speaks of. */
  let told: GradeDocument | null = null

  /** @param words what the record calls it */
  async function keep(kind: SteadyKind, area: Area, words: string): Promise<void> {
    const { clip } = tracking
    const { shotId, document } = grade
    const proxy = clip?.medium.proxy
    if (!clip || !proxy || !document || shotId === null || running.value) return
    calls ??= connect<SteadyFunctions>(
      () => new Worker(new URL('../workers/steady-worker.ts', import.meta.url), { type: 'module' }),
      'The worker that follows a surface',
    )
    running.value = kind
    share.value = 0
    outcome.value = null
    fault.value = ''
    asking = new AbortController()
    const { signal } = asking
    try {
      const answer = await calls.ask(
        'steady',
        {
          medium: { ...clip.medium, proxy },
          grade: document,
          kind,
          frame: view.frame,
          area,
          first: clip.first,
          last: clip.last,
        },
        { signal, onEvent: (done) => (share.value = done) },
      )
      if (!answer) return
      const { solved } = answer
      if (typeof solved !== 'string') grade.editShot(shotId, words, (g) => withSteadied(g, solved))
      if (grade.shotId !== shotId) return
      outcome.value = { kind, answer }
      told = grade.document
    } catch (error) {
      if (!(error instanceof Overtaken)) fault.value = error instanceof Error ? error.message : String(error)
    } finally {
      if (asking.signal === signal) running.value = null
    }
  }
  function cancel(): void {
    running.value = null
    asking.abort()
  }
  function dismiss(): void {
    outcome.value = null
    fault.value = ''
  }
  watch(
    () => grade.document,
    (now) => {
      if (now !== told) outcome.value = null
    },
  )
  // A shot that is left is not followed any further.
  watch(
    () => grade.shotId,
    () => {
      cancel()
      dismiss()
    },
    { flush: 'sync' },
  )
  return { running, share, outcome, fault, keep, cancel, dismiss }
})
