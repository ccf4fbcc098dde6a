// Runs a contact sheet on two workers: items in the order they are seen; a change of picture or strength makes what is still to come stale.
import { onScopeDispose, ref, shallowRef, type Ref, type ShallowRef } from 'vue'
import type { SheetFacts, TraceImage } from '@core/index'
import type { SheetAnswer, SheetItem, SheetPicture, SheetRequest } from '../../workers/sheet-messages'

export type Seen = { readonly image: TraceImage; readonly facts: SheetFacts } | { readonly fault: string }
export interface ContactSheet {
  /** By the item's number. */
  readonly seen: ShallowRef<ReadonlyMap<number, Seen>>
  readonly done: Ref<number>
  readonly run: (picture: SheetPicture, items: readonly SheetItem[], strength: number) => void
  readonly cancel: () => void
}

/** Asked of one worker at a time, so that a change is not stuck behind a hundred. */
const ahead = 2

export function useContactSheet(): ContactSheet {
  const seen = shallowRef<ReadonlyMap<number, Seen>>(new Map()), done = ref(0)
  const workers = Array.from({ length: Math.min(4, Math.max(2, navigator.hardwareConcurrency || 2)) }, () => new Worker(new URL('../../workers/sheet-worker.ts', import.meta.url), { type: 'module' }))
  let generation = 0, waiting: Omit<SheetRequest, 'generation'>[] = [], fresh = new Map<number, Seen>(), frame = 0

  function feed(worker: Worker): void {
    const next = waiting.shift()
    if (next) worker.postMessage({ ...next, generation })
  }
  function show(): void {
    // Pictures that came since the last paint appear together.
    frame ||= requestAnimationFrame(() => { frame = 0; seen.value = new Map(fresh) })
  }
  for (const worker of workers) {
    worker.onmessage = ({ data }: MessageEvent<SheetAnswer>) => {
      if (data.generation === generation) {
        fresh.set(data.id, 'fault' in data ? { fault: data.fault } : { image: data.image, facts: data.facts })
        done.value = fresh.size
        show()
      }
      feed(worker)
    }
  }
  function run(picture: SheetPicture, items: readonly SheetItem[], strength: number): void {
    generation++
    fresh = new Map()
    done.value = 0
    const plain = JSON.parse(JSON.stringify(picture)) as SheetPicture
    waiting = items.map((item, id) => ({ id, picture: plain, item: JSON.parse(JSON.stringify(item)) as SheetItem, strength }))
    for (let n = 0; n < ahead; n++) workers.forEach(feed)
  }
  function cancel(): void {
    generation++
    waiting = []
  }
  onScopeDispose(() => { cancelAnimationFrame(frame); for (const worker of workers) worker.terminate() })
  return { seen, done, run, cancel }
}
