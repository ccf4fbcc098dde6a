// Waiting for what will come, and saying so when it does not.
import { setTimeout as pause } from 'node:timers/promises'

/** Asks again and again until the answer is neither false nor empty; throws with `what` when it never was in time. */
export async function until<T>(
  what: string,
  ask: () => T | Promise<T>,
  { withinMs = 150_000, everyMs = 50 } = {},
): Promise<NonNullable<Exclude<T, false>>> {
  const end = Date.now() + withinMs
  for (;;) {
    const found = await ask()
    if (found !== false && found !== null && found !== undefined) return found as NonNullable<Exclude<T, false>>
    if (Date.now() > end) throw new Error(`Waited ${withinMs / 1000} s in vain: ${what}.`)
    await pause(everyMs)
  }
}
