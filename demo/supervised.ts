// A process that is started again when it dies: what it says to whoever watches it, and the watching.
import { fork, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { setTimeout as delay } from 'node:timers/promises'

export type Said =
  { readonly kind: 'ready'; readonly address: string } | { readonly kind: 'fault'; readonly sentence: string }

/** Says something to whoever started this process. */
export const saySo = (said: Said): void => void process.send?.(said)

/** A sentence for the person at the shell. */
export class StartError extends Error {}

export interface Supervised {
  readonly address: string
  /** Ends the process, and starts it no more. */
  readonly stop: () => Promise<void>
}

export interface Watching {
  readonly say: (sentence: string) => void
  /** It died so often that it is given up. */
  readonly onGivenUp: () => void
}

/** So many deaths within the time are an illness, not an accident. */
const mostDeaths = 5
const deathsWithinMs = 60_000
const beforeAgainMs = 500
/** What does not end by itself is ended. */
const graceMs = 6000

/** Starts a module as a process. Rejects with a StartError when its first start fails. */
export async function supervise(
  file: string,
  env: Readonly<Record<string, string | undefined>>,
  { say, onGivenUp }: Watching,
): Promise<Supervised> {
  let child: ChildProcess
  let stopping = false
  const deaths: number[] = []

  async function start(): Promise<string> {
    child = fork(file, [], { env: { ...process.env, ...env }, stdio: ['ignore', 'inherit', 'inherit', 'ipc'] })
    const mine = child
    const said = await Promise.race([
      once(mine, 'message').then(([message]) => message as Said),
      once(mine, 'exit').then(([code, signal]): Said => ({
        kind: 'fault',
        sentence: `It ended with ${signal ?? code}.`,
      })),
    ])
    if (said.kind === 'fault') throw new StartError(said.sentence)
    mine.once('exit', (code, signal) => void revive(`${signal ?? code}`))
    return said.address
  }

  async function revive(how: string): Promise<void> {
    while (!stopping) {
      const now = Date.now()
      deaths.push(now)
      if (deaths.filter((at) => now - at < deathsWithinMs).length >= mostDeaths) {
        say(`The server ended again and again (${how}); its log says more.`)
        return onGivenUp()
      }
      say(`The server ended (${how}) and is started again.`)
      await delay(beforeAgainMs)
      if (stopping) return
      try {
        await start()
        return
      } catch (error) {
        say(error instanceof Error ? error.message : String(error))
      }
    }
  }

  const address = await start()
  return {
    address,
    stop: async () => {
      stopping = true
      if (child.exitCode !== null || child.signalCode !== null) return
      const gone = once(child, 'exit')
      child.kill('SIGTERM')
      await Promise.race([gone, delay(graceMs, undefined, { ref: false })])
      child.kill('SIGKILL')
    },
  }
}
