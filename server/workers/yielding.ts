// Threads that compute yield to the one that answers requests, which never has much to do at once.
import { readlinkSync } from 'node:fs'
import { setPriority } from 'node:os'
import { workerData } from 'node:worker_threads'

/** As nice(1) counts: of two that want to run, one at 5 gets a quarter of the time, one at 15 a thirtieth. */
export const niceness = { waitedFor: 2, seen: 5, byItself: 15 } as const

/** Puts the calling thread behind the server's. Threads have priorities of their own on Linux (sched(7)). */
export function yieldToServer(): void {
  const { niceness: own = niceness.byItself } = (workerData as { readonly niceness?: number } | null) ?? {}
  try {
    setPriority(Number(readlinkSync('/proc/thread-self').split('/').at(-1)), own)
  } catch {
    // No proc(5), or the system does not allow it: then all are equal.
  }
}
