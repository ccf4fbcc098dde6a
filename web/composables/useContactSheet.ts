// Runs a contact sheet on two workers: items in the order they are seen; a change of picture or strength makes what is
// still to come stale.
import { onScopeDispose, ref, shallowRef, type Ref, type ShallowRef } from 'vue'
import type { TraceImage } from '@core/instruments'
import type { SheetFacts } from '@core/lut-bench'
import { connect, Overtaken, type Calls } from '../workers/calls'
import type { SheetFunctions, SheetItem, SheetPicture, SheetQuestion } from '../workers/sheet-worker'

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
  let workers: readonly Calls<SheetFunctions>[] = []
  let waiting: { readonly id: number; readonly question: SheetQuestion }[] = []
  let fresh = new Map<number, Seen>()
  let frame = 0
  /** What is under way; a change of picture or strength overtakes it. */
  let running = new AbortController()

  async function feed(worker: Calls<SheetFunctions>): Promise<void> {
    const { signal } = running
    for (let next = waiting.shift(); next && !signal.aborted; next = waiting.shift()) {
      const { id, question } = next
      const made = await worker
        .ask('through', question, { signal })
        .catch((error: Error): Seen | null => (error instanceof Overtaken ? null : { fault: error.message }))
      if (signal.aborted || !made) return
      fresh.set(id, made)
      show()
    }
  }
  function show(): void {
    // Drawing takes from the time that the next pictures need: some appear together.
    frame ||= window.setTimeout(() => {
      frame = 0
      seen.value = new Map(fresh)
      done.value = fresh.size
    }, togetherMs)
  }
  const start = (): Calls<SheetFunctions> =>
    connect<SheetFunctions>(
      () => new Worker(new URL('../workers/sheet-worker.ts', import.meta.url), { type: 'module' }),
      'The contact sheet',
    )
  function started(): readonly Calls<SheetFunctions>[] {
    if (workers.length === 0)
      workers = Array.from({ length: Math.min(4, Math.max(2, navigator.hardwareConcurrency || 2)) }, start)
    return workers
  }
  const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T
  function prepare(picture: SheetPicture, item: SheetItem | null): void {
    const sent = plain({ picture, item })
    for (const worker of started()) worker.tell('prepare', sent)
  }
  function run(picture: SheetPicture, items: readonly SheetItem[], strength: number): void {
    cancel()
    fresh = new Map()
    done.value = 0
    const sent = plain(picture)
    waiting = items.map((item, id) => ({ id, question: { picture: sent, item: plain(item), strength } }))
    for (let n = 0; n < ahead; n++) for (const worker of started()) void feed(worker)
  }
  function cancel(): void {
    running.abort()
    running = new AbortController()
    waiting = []
  }
  onScopeDispose(() => {
    clearTimeout(frame)
    cancel()
    for (const worker of workers) worker.close()
  })
  return { seen, done, prepare, run, cancel }
}
