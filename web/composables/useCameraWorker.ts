// Asks the Cameras worker; an answer that is no longer wanted is dropped.
import { onScopeDispose } from 'vue'
import type { CameraAnswer, CameraRequest } from '../workers/camera-messages'

type Unnumbered<T> = T extends unknown ? Omit<T, 'id'> : never
export type CameraQuestion = Unnumbered<CameraRequest>

export interface CameraWorker {
  /** Resolves with the answer of the same kind. Rejects with a sentence. */
  readonly ask: <K extends CameraRequest['ask']>(
    question: CameraQuestion & { ask: K },
  ) => Promise<Extract<CameraAnswer, { ask: K }>>
}

export function useCameraWorker(): CameraWorker {
  const worker = new Worker(new URL('../workers/camera-worker.ts', import.meta.url), { type: 'module' })
  const waiting = new Map<number, { done: (a: CameraAnswer) => void; fail: (e: Error) => void }>()
  let nextId = 1
  worker.onmessage = ({ data }: MessageEvent<CameraAnswer>) => {
    const asked = waiting.get(data.id)
    waiting.delete(data.id)
    if (data.ask === 'fault') asked?.fail(new Error(data.message))
    else asked?.done(data)
  }
  worker.onerror = (event) => {
    event.preventDefault()
    for (const { fail } of waiting.values()) fail(new Error('The measuring thread stopped. Reload the page.'))
    waiting.clear()
  }
  onScopeDispose(() => worker.terminate())
  return {
    ask: (question) =>
      new Promise((done, fail) => {
        const id = nextId++
        waiting.set(id, { done: done as (a: CameraAnswer) => void, fail })
        worker.postMessage({ ...question, id })
      }),
  }
}
