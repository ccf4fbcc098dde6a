// The whole clip's extremes of what the trace measures on every frame, and which frame is worst for a target.
import type { FrameTrace } from '@core/instruments'
import type { ReadingId, Target } from '@core/readings'

export interface Extreme {
  readonly value: number
  readonly frame: number
}
export interface ClipRange {
  readonly low: Extreme
  readonly high: Extreme
}

const traced: Partial<Record<ReadingId, (t: FrameTrace) => number>> = {
  black: (t) => t.low,
  middle: (t) => t.middle,
  white: (t) => t.high,
  clipped: (t) => t.clipped,
  crushed: (t) => t.crushed,
}

/**
 * The lowest and highest value over the traced frames; null for readings that the trace does not hold. `first` is the
 * first frame's number.
 */
export function clipRange(id: ReadingId, traces: readonly (FrameTrace | undefined)[], first: number): ClipRange | null {
  const of = traced[id]
  if (!of) return null
  let low: Extreme | null = null
  let high: Extreme | null = null
  traces.forEach((t, i) => {
    if (!t) return
    const value = of(t)
    if (!low || value < low.value) low = { value, frame: first + i }
    if (!high || value > high.value) high = { value, frame: first + i }
  })
  return low && high ? { low, high } : null
}

/** The frames of the clip's darkest middle and brightest end, as far as it is traced. */
export function extremeFrames(traces: readonly (FrameTrace | undefined)[], first: number): readonly number[] {
  const ends = [clipRange('middle', traces, first)?.low, clipRange('white', traces, first)?.high]
  return [...new Set(ends.flatMap((end) => (end ? [end.frame] : [])))]
}

/** The end that is further from the target; null when both lie within it. */
export function worstOf({ low, high }: ClipRange, target: Target | null | undefined): Extreme | null {
  if (!target) return null
  const under = target.low - target.tolerance - low.value
  const over = high.value - target.high - target.tolerance
  if (under <= 0 && over <= 0) return null
  return under > over ? low : high
}
