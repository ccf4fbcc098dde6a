// One budget of decoders for all frames that are asked for: so many work at once, so many wait, and what nobody waits
// for any more is given up.
import PQueue from 'p-queue'
import { Problem } from '../problem'

export interface Decoders {
  /**
   * What `decode` gives, shared by all who ask for the same key at the same time. Throws a Problem (503) when too many
   * wait, and the signal's reason when the caller went away. What goes on by itself waits behind all that is asked for.
   */
  readonly share: (key: string, decode: (signal: AbortSignal) => Promise<Buffer>, asked?: Asked) => Promise<Buffer>
}

/** Who wants a frame. */
export interface Asked {
  /** Aborted when whoever asked went away. */
  readonly signal?: AbortSignal
  /** Nobody waits for it: it comes last, and is never told to come back. */
  readonly byItself?: boolean
}

interface Shared {
  readonly result: Promise<Buffer>
  readonly giveUp: AbortController
  callers: number
}

const retryAfterSeconds = 2

export function openDecoders({ atOnce, waiting }: { readonly atOnce: number; readonly waiting: number }): Decoders {
  const queue = new PQueue({ concurrency: atOnce })
  const shared = new Map<string, Shared>()

  function begin(key: string, decode: (signal: AbortSignal) => Promise<Buffer>, byItself: boolean): Shared {
    if (!byItself && queue.size >= waiting)
      throw new Problem(503, 'busy', 'Too many frames are asked for at once.', {
        hint: `It is tried again after ${retryAfterSeconds} seconds.`,
        retryAfterSeconds,
      })
    const giveUp = new AbortController()
    const { signal } = giveUp
    const result = queue
      .add(() => decode(signal), { signal, priority: byItself ? 0 : 1 })
      .finally(() => {
        if (shared.get(key)?.giveUp === giveUp) shared.delete(key)
      })
    result.catch(() => undefined)
    const made: Shared = { result, giveUp, callers: 0 }
    shared.set(key, made)
    return made
  }

  return {
    share: (key, decode, { signal: caller, byItself = false } = {}) => {
      caller?.throwIfAborted()
      const one = shared.get(key) ?? begin(key, decode, byItself)
      one.callers++
      return new Promise<Buffer>((done, fail) => {
        const leave = (): void => {
          one.callers--
          if (one.callers === 0) {
            // Whoever asks for it next begins anew.
            if (shared.get(key) === one) shared.delete(key)
            one.giveUp.abort(caller?.reason)
          }
          fail(caller?.reason as Error)
        }
        caller?.addEventListener('abort', leave, { once: true })
        one.result.then(done, fail).finally(() => caller?.removeEventListener('abort', leave))
      })
    },
  }
}
