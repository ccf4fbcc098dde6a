// Keeps the Bench's picture up to date: one request at a time, the latest wins, a finer one when the hand rests.
import { onScopeDispose, ref, shallowRef, type Ref, type ShallowRef } from 'vue'
import { dragSize, restSize } from '@core/index'
import type { RenderAnswer, RenderRequest, RenderResult } from '../workers/messages'

export type Wanted = Pick<RenderRequest, 'mediaHash' | 'frameIndex' | 'grade' | 'asShot'>

export interface BenchRenderer {
  readonly result: ShallowRef<RenderResult | null>
  readonly fault: Ref<string>
  /** The picture on screen is the last one asked for, at its finest. */
  readonly settled: Ref<boolean>
  /** Asks for a picture; an older request that has not started is forgotten. */
  readonly show: (wanted: Wanted) => void
}

const restMs = 140

export function useBenchRenderer(): BenchRenderer {
  const worker = new Worker(new URL('../workers/bench-worker.ts', import.meta.url), { type: 'module' })
  const result = shallowRef<RenderResult | null>(null)
  const fault = ref('')
  const settled = ref(false)
  let nextId = 1
  let inFlight: RenderRequest | null = null
  let waiting: Wanted | null = null
  let latest: Wanted | null = null
  let restTimer: ReturnType<typeof setTimeout> | undefined

  function send(wanted: Wanted, size: typeof dragSize | typeof restSize): void {
    inFlight = { ...wanted, id: nextId++, size }
    worker.postMessage(inFlight)
  }

  worker.onmessage = ({ data }: MessageEvent<RenderAnswer>) => {
    if (data.id !== inFlight?.id) return
    inFlight = null
    if (data.ok) {
      result.value = data
      fault.value = ''
    } else {
      fault.value = data.message
    }
    if (waiting) {
      const wanted = waiting
      waiting = null
      send(wanted, dragSize)
    } else if (data.ok && data.size === dragSize) {
      clearTimeout(restTimer)
      restTimer = setTimeout(() => { if (latest && !inFlight) send(latest, restSize) }, restMs)
    } else if (data.ok) {
      settled.value = true
    }
  }
  worker.onerror = (event) => {
    event.preventDefault()
    inFlight = null
    fault.value = 'The picture worker stopped. Reload the page.'
  }

  function show(wanted: Wanted): void {
    clearTimeout(restTimer)
    latest = wanted
    settled.value = false
    if (inFlight) waiting = wanted
    else send(wanted, dragSize)
  }

  onScopeDispose(() => {
    clearTimeout(restTimer)
    worker.terminate()
  })
  return { result, fault, settled, show }
}
