// Threads and programs that compute yield to the thread that answers requests, which never has much to do at once.
import { readlinkSync } from 'node:fs'
import { setPriority } from 'node:os'

/** As nice(1) counts: of two that want to run, one at 5 gets a quarter of the time. */
const behind = 5

function yieldAs(id: number): void {
  try {
    setPriority(id, behind)
  } catch {
    // It has ended, or the system does not allow it: then all are equal.
  }
}

/** Puts the calling thread behind the server's. Threads have priorities of their own on Linux (sched(7)). */
export function yieldToServer(): void {
  try {
    yieldAs(Number(readlinkSync('/proc/thread-self').split('/').at(-1)))
  } catch {
    // No proc(5): all are equal.
  }
}
