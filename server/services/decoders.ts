// One budget of decoders for all frames that are asked for: so many work at once, so many wait, those that wait share
// the next decoder, and what nobody waits for any more is given up.
import PQueue from 'p-queue'
import { Problem } from '../problem'

export interface Decoders<Frame> {
  /**
   * The planes of a frame, shared by all who ask for the same key at the same time. Throws a Problem (503) when too
   * many wait, and the signal's reason when the caller went away. What goes on by itself waits behind all else.
   */
  readonly share: (key: string, frame: Frame, asked?: Asked) => Promise<Buffer>
}

/** Who wants a frame. */
export interface Asked {
  /** Aborted when whoever asked went away. */
  readonly signal?: AbortSignal
  /** Nobody waits for it: it comes last, and is never told to come back. */
  readonly byItself?: boolean
}

export interface DecoderBudget<Frame> {
  readonly atOnce: number
  readonly waiting: number
  /** One decoder for all of these frames: the planes of each, or what is wrong with it. Rejects when it is given up. */
  readonly decode: (
    frames: readonly [Frame, ...Frame[]],
    how: {
      readonly signal: AbortSignal
      readonly byItself: boolean
      /** May be told of a frame before the others are there. */
      readonly onFrame: (n: number, planes: Buffer) => void
    },
  ) => Promise<readonly (Buffer | Error)[]>
  /** Whether a frame may share its decoder with others. */
  readonly sharesDecoder: (frame: Frame) => boolean
}

interface Shared<Frame> {
  readonly frame: Frame
  readonly byItself: boolean
  readonly result: Promise<Buffer>
  readonly settle: (planes: Buffer | Error) => void
  /** Aborted when nobody waits for it any more. */
  readonly giveUp: AbortController
  begun: boolean
  callers: number
}

const retryAfterSeconds = 2
/** A decoder that is given more keeps the first of them waiting for the last. */
const mostTogether = 4

export function openDecoders<Frame>({ atOnce, waiting, decode, sharesDecoder }: DecoderBudget<Frame>): Decoders<Frame> {
  const queue = new PQueue({ concurrency: atOnce })
  /** By key, in the order in which they were asked for. */
  const shared = new Map<string, Shared<Frame>>()
  const waitingNow = (): readonly Shared<Frame>[] => [...shared.values()].filter(({ begun }) => !begun)

  /** The one whose turn it is, with its share of those like it that wait. */
  function takeTogether(first: Shared<Frame>): readonly [Shared<Frame>, ...Shared<Frame>[]] {
    first.begun = true
    if (!sharesDecoder(first.frame)) return [first]
    const others = waitingNow().filter(
      ({ byItself, frame, giveUp }) => byItself === first.byItself && sharesDecoder(frame) && !giveUp.signal.aborted,
    )
    const part = Math.min(mostTogether, Math.ceil((others.length + 1) / atOnce))
    const along = others.slice(0, part - 1)
    for (const one of along) one.begun = true
    return [first, ...along]
  }

  async function run(first: Shared<Frame>): Promise<void> {
    // Another's decoder took it along, or nobody waits for it any more.
    if (first.begun || first.giveUp.signal.aborted) return
    const together = takeTogether(first)
    const signal = allOf(together.map(({ giveUp }) => giveUp.signal))
    const [frame, ...frames] = [first.frame, ...together.slice(1).map((one) => one.frame)] as const
    const onFrame = (n: number, planes: Buffer): void => together[n]?.settle(planes)
    const planes = await decode([frame, ...frames], { signal, byItself: first.byItself, onFrame }).catch(
      (error: unknown) => together.map(() => error as Error),
    )
    for (const [i, one] of together.entries()) one.settle(planes[i] ?? new Error('A decoder left out a frame.'))
  }

  function begin(key: string, frame: Frame, byItself: boolean): Shared<Frame> {
    if (!byItself && waitingNow().filter((one) => !one.byItself).length >= waiting)
      throw new Problem(503, 'busy', 'Too many frames are asked for at once.', {
        hint: `It is tried again after ${retryAfterSeconds} seconds.`,
        retryAfterSeconds,
      })
    const giveUp = new AbortController()
    let settle: Shared<Frame>['settle'] = () => undefined
    const result = new Promise<Buffer>((done, fail) => {
      settle = (planes) => (planes instanceof Error ? fail(planes) : done(planes))
    })
    const made: Shared<Frame> = { frame, byItself, result, settle, giveUp, begun: false, callers: 0 }
    giveUp.signal.addEventListener('abort', () => settle(giveUp.signal.reason as Error), { once: true })
    const leave = (): void => {
      if (shared.get(key) === made) shared.delete(key)
    }
    result.then(leave, leave)
    shared.set(key, made)
    void queue.add(() => run(made), { priority: byItself ? 0 : 1 })
    return made
  }

  return {
    share: (key, frame, { signal: caller, byItself = false } = {}) => {
      caller?.throwIfAborted()
      const one = shared.get(key) ?? begin(key, frame, byItself)
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

/** Aborted once all of them are, with the last one's reason. */
function allOf(signals: readonly AbortSignal[]): AbortSignal {
  const all = new AbortController()
  for (const signal of signals)
    signal.addEventListener('abort', () => {
      if (signals.every(({ aborted }) => aborted)) all.abort(signal.reason)
    })
  return all.signal
}
