// The Bench's worker, started before anybody opens the Bench: that takes longer than its first picture.

const start = (): Worker => new Worker(new URL('./bench-worker.ts', import.meta.url), { type: 'module' })

let prepared: Worker | null = null

export function prepareBenchWorker(): void {
  if (prepared) return
  const started = start()
  // One that cannot be loaded is not handed out; the next says so.
  started.onerror = (event) => {
    event.preventDefault()
    if (prepared === started) prepared = null
  }
  prepared = started
}

/** The prepared worker, once; else a new one. */
export function benchWorker(): Worker {
  const worker = prepared ?? start()
  prepared = null
  return worker
}
