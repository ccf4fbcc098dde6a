// Plays a range of a clip against the clock: frames that come too late are dropped and counted, never queued.

export interface PlayPlan {
  readonly from: number
  readonly first: number
  readonly last: number
  /** Frames forward per shown frame; negative plays backward. */
  readonly speed: number
  readonly loop: boolean
  readonly framesPerSecond: number
}

export interface PlayTools {
  /** Begins to fetch and decode. */
  readonly ask: (index: number) => void
  /** Forgets what is no longer wanted. */
  readonly forget: (wanted: (index: number) => boolean) => void
  /** Shows a frame; resolves when it is on screen. */
  readonly show: (index: number, counts: PlayCounts) => Promise<void>
  readonly now: () => number
  readonly sleep: (ms: number) => Promise<void>
}

export interface PlayCounts {
  readonly shown: number
  readonly dropped: number
}

/** Frames asked for ahead of the one that is due. */
const ahead = 5

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
export async function play(
  plan: PlayPlan,
  tools: PlayTools,
  stopped: () => boolean,
): Promise<{ readonly last: number; readonly counts: PlayCounts }> {
  const tickMs = 1000 / plan.framesPerSecond
  let shown = 0
  let dropped = 0
  let lastFrame = plan.from
  let lastTick = -1
  const start = tools.now()
  while (!stopped()) {
    const tick = Math.floor((tools.now() - start) / tickMs)
    const wanted = new Set(Array.from({ length: ahead + 1 }, (_, k) => frameAt(plan, tick + k)))
    tools.forget((index) => wanted.has(index))
    for (const index of wanted) if (index !== null) tools.ask(index)
    if (tick === lastTick) {
      await tools.sleep(Math.max(1, start + (tick + 1) * tickMs - tools.now()))
      continue
    }
    const index = frameAt(plan, tick)
    // The range may have ended while the last frame was on its way: what came between was dropped as well.
    for (let missed = lastTick + 1; missed < tick && frameAt(plan, missed) !== null; missed++) dropped++
    if (index === null) {
      // Whatever was dropped, what has ended stands at its end.
      lastFrame = plan.speed < 0 ? plan.first : plan.last
      break
    }
    lastTick = tick
    // A slow speed shows one frame for several ticks.
    if (index === lastFrame && shown > 0) continue
    await tools.show(index, { shown: ++shown, dropped })
    lastFrame = index
  }
  return { last: lastFrame, counts: { shown, dropped } }
}
