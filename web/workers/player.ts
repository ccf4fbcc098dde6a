// Plays a range of a clip against the clock. A few pictures are made before they are due, so that one which takes
// longer is made up for by those which do not; frames that come too late are dropped and counted.

export interface PlayPlan {
  readonly from: number
  readonly first: number
  readonly last: number
  /** Frames forward per shown frame; negative plays backward. */
  readonly speed: number
  readonly loop: boolean
  readonly framesPerSecond: number
}

export interface PlayTools<P> {
  /** Begins to fetch and decode. */
  readonly ask: (index: number) => void
  /** Forgets what is no longer wanted. */
  readonly forget: (wanted: (index: number) => boolean) => void
  /** Makes the picture of a frame, the nth; null where it is not wanted any more. */
  readonly make: (index: number, nth: number) => Promise<P | null>
  /** Sends a picture to the screen; resolves when another may follow. */
  readonly present: (picture: P, index: number, counts: PlayCounts) => Promise<void>
  /** What pictures are made through: when it is another, those that wait for their time are made again. */
  readonly look?: () => unknown
  readonly now: () => number
  readonly sleep: (ms: number) => Promise<void>
}

export interface PlayCounts {
  readonly shown: number
  readonly dropped: number
}

/** Frames asked for ahead of the one that is made. */
const ahead = 5
/** Pictures that may wait for their time: a hand that grades meanwhile sees them first, so that there are few. */
export const fewAhead = 2

/** The clock does not wait for more than this: the others are made while it runs. */
const mostAtStart = 4
/** So many first pictures may hold it up: a beginning may be slow, what comes after is late. */
const mostHolding = 10

/** The frame that is due at a tick; null when the range has ended. */
export function frameAt({ from, first, last, speed, loop }: PlayPlan, tick: number): number | null {
  const position = from + Math.trunc(tick * speed)
  const count = last - first + 1
  if (position >= first && position <= last) return position
  return loop ? first + ((((position - first) % count) + count) % count) : null
}

/**
 * Plays until the end of the range or until `stopped` says so. Resolves with the frame to stand at: the last one shown,
 * or the range's end.
 */
export async function play<P>(
  plan: PlayPlan,
  tools: PlayTools<P>,
  stopped: () => boolean,
  readyAhead = fewAhead,
): Promise<{ readonly last: number; readonly counts: PlayCounts }> {
  const tickMs = 1000 / plan.framesPerSecond
  let shown = 0
  let dropped = 0
  let made = 0
  let lastMade: number | null = null
  let onScreen = plan.from
  let tick = 0
  // The clock starts when the first pictures can be there, and waits for those that take longer.
  let start = tools.now() + Math.min(readyAhead, mostAtStart) * tickMs
  const timeOf = (of: number): number => start + of * tickMs
  /** Pictures on their way, each behind the one before it. */
  let coming: Promise<void>[] = []
  let look = tools.look?.()
  async function bring(picture: P, index: number, at: number, before: Promise<void> | undefined): Promise<void> {
    const through = look
    await before
    const early = at - tools.now()
    if (early > 0) await tools.sleep(early)
    if (stopped() || through !== look) return
    onScreen = index
    await tools.present(picture, index, { shown: ++shown, dropped })
  }

  let ended = false
  while (!stopped() && !ended) {
    const due = Math.floor((tools.now() - start) / tickMs)
    if (tools.look?.() !== look) {
      look = tools.look?.()
      coming = []
      lastMade = null
      tick = Math.min(tick, Math.max(0, due + 1))
    }
    // The range may end while the last frame is on its way: what comes between is dropped as well.
    for (; tick < due; tick++) if (frameAt(plan, tick) !== null) dropped++
    const wanted = new Set(Array.from({ length: ahead + 1 }, (_, k) => frameAt(plan, tick + k)))
    tools.forget((index) => wanted.has(index))
    for (const index of wanted) if (index !== null) tools.ask(index)
    const index = frameAt(plan, tick)
    if (index === null) ended = true
    else if (tick > due + readyAhead) await tools.sleep(Math.max(1, timeOf(tick - readyAhead) - tools.now()))
    else {
      const mine = tick++
      // A slow speed shows one frame for several ticks.
      if (index === lastMade) continue
      lastMade = index
      const picture = await tools.make(index, ++made)
      if (picture === null) continue
      if (made <= Math.min(readyAhead, mostHolding)) start = Math.max(start, tools.now() - mine * tickMs)
      const next = bring(picture, index, timeOf(mine), coming.at(-1))
      // Whoever waits for it hears of a failure.
      next.catch(() => undefined)
      coming.push(next)
      if (coming.length > readyAhead) await coming.shift()
    }
  }
  await Promise.all(coming)
  // Whatever was dropped, what has ended stands at its end.
  const end = plan.speed < 0 ? plan.first : plan.last
  return { last: ended && !stopped() ? end : onScreen, counts: { shown, dropped } }
}
