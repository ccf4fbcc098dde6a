// Solves the open aims whenever they, the locks, the grade or the frame change: one question at a time, the latest
// wins.
import { onScopeDispose, watch } from 'vue'
import type { GradeDocument } from '@core/grade'
import { useAims } from '../stores/aims'
import type { AimsAnswer, AimsRequest } from '../workers/aims-messages'

/** `subject` is null while there is nothing to solve on. */
export function useAimSolver(
  subject: () => { readonly mediaHash: string; readonly frameIndex: number; readonly grade: GradeDocument } | null,
): void {
  const store = useAims()
  const worker = new Worker(new URL('../workers/aims-worker.ts', import.meta.url), { type: 'module' })
  let id = 0
  let busy = false
  let next: AimsRequest | null = null
  function send(request: AimsRequest): void {
    busy = true
    worker.postMessage(request)
  }
  worker.onmessage = ({ data }: MessageEvent<AimsAnswer>) => {
    busy = false
    if (next) {
      const waiting = next
      next = null
      // A hand that drags sees every answer it can have.
      if (data.solution && store.pending) store.solution = data.solution
      return send(waiting)
    }
    if (data.id !== id) return
    store.solving = false
    store.fault = data.fault
    if (store.pending) store.solution = data.solution
  }
  worker.onerror = (event) => {
    event.preventDefault()
    store.solving = false
    store.fault = 'The solver stopped. Reload the page.'
  }
  watch(
    [subject, () => store.wanted, () => store.locked, () => store.pending] as const,
    ([now, aims, locked, pending]) => {
      id++
      if (!now || !pending || aims.length === 0) {
        next = null
        store.solving = false
        return
      }
      store.solving = true
      const request: AimsRequest = { id, ...now, aims, locked: [...locked] }
      if (busy) next = request
      else send(request)
    },
    { immediate: true },
  )
  onScopeDispose(() => worker.terminate())
}
