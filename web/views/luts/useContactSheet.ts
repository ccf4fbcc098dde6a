// Runs a contact sheet on two workers: items in the order they are seen; a change of picture or strength makes what is
// still to come stale.
import { onScopeDispose, ref, shallowRef, type Ref, type ShallowRef } from 'vue'
import type { TraceImage } from '@core/instruments'
import type { SheetFacts } from '@core/lut-bench'
import type { SheetAnswer, SheetItem, SheetPicture, SheetPreparation, SheetRequest } from '../../workers/sheet-messages'

export type Seen = { readonly image: TraceImage; readonly facts: SheetFacts } | { readonly fault: string }
export interface ContactSheet {
  /** By the item's number. */
  readonly seen: ShallowRef<ReadonlyMap<number, Seen>>
  readonly done: Ref<number>
  /** Says which picture will be wanted, and the first that it will go through. */
  readonly prepare: (picture: SheetPicture, item: SheetItem | null) => void
  readonly run: (picture: SheetPicture, items: readonly SheetItem[], strength: number) => void
  readonly cancel: () => void
}

/** Asked of one worker at a time, so that a change is not stuck behind a hundred. */
const ahead = 3
const togetherMs = 90

export function useContactSheet(): ContactSheet {
  const seen = shallowRef<ReadonlyMap<number, Seen>>(new Map())
  const done = ref(0)
  let workers: readonly Worker[] = []
  let generation = 0
  let waiting: Omit<SheetRequest, 'generation'>[] = []
  let fresh = new Map<number, Seen>()
  let frame = 0

  function feed(worker: Worker): void {
    const next = waiting.shift()
    if (next) worker.postMessage({ ...next, generation })
  }
  function show(): void {
    // Drawing takes from the time that the next pictures need: some appear together.
    frame ||= window.setTimeout(() => {
      frame = 0
      seen.value = new Map(fresh)
      done.value = fresh.size
    }, togetherMs)
  }
  function start(): Worker {
    const worker = new Worker(new URL('../../workers/sheet-worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<SheetAnswer>) => {
      if (data.generation === generation) {
        fresh.set(data.id, 'fault' in data ? { fault: data.fault } : { image: data.image, facts: data.facts })
        show()
      }
      feed(worker)
    }
    return worker
  }
  function started(): readonly Worker[] {
    if (workers.length === 0)
      workers = Array.from({ length: Math.min(4, Math.max(2, navigator.hardwareConcurrency || 2)) }, start)
    return workers
  }
  const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T
  function prepare(picture: SheetPicture, item: SheetItem | null): void {
    const sent: SheetPreparation = plain({ prepare: picture, item })
    for (const worker of started()) worker.postMessage(sent)
  }
  function run(picture: SheetPicture, items: readonly SheetItem[], strength: number): void {
    generation++
    fresh = new Map()
    done.value = 0
    const sent = plain(picture)
    waiting = items.map((item, id) => ({ id, picture: sent, item: plain(item), strength }))
    for (let n = 0; n < ahead; n++) started().forEach(feed)
  }
  function cancel(): void {
    generation++
    waiting = []
  }
  onScopeDispose(() => {
    clearTimeout(frame)
    for (const worker of workers) worker.terminate()
  })
  return { seen, done, prepare, run, cancel }
}
