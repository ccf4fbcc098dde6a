// Aims over a whole clip: its brightest and its darkest frame stay inside the house standard, and so do all between.
import type { FrameTrace } from '../instruments'
import type { HouseStandard } from '../readings'
import type { Aim } from './aim'

/**
 * Bounds on the frames where the clip reaches furthest up and down. A frame that is inside already costs nothing and is
 * still watched.
 * @param traces by frame of the shot, as far as they are traced
 * @param first number of the first of them in the medium
 * @param now what the frames reach without what is being solved: no frame need come nearer to the middle than that. A
 * fire or a lamp that stands at the top is not brought down.
 */
export function wholeClipAims(
  traces: readonly (FrameTrace | undefined)[],
  first: number,
  { targets }: HouseStandard,
  now: readonly (FrameTrace | undefined)[] = [],
): readonly Aim[] {
  const brightest = extreme(traces, (a, b) => a.high - b.high || a.clipped - b.clipped)
  const darkest = extreme(traces, (a, b) => b.low - a.low || a.crushed - b.crushed)
  const bound = (
    id: string,
    name: string,
    at: number,
    share: number,
    value: number,
    kind: 'most' | 'least',
  ): readonly Aim[] =>
    at < 0
      ? []
      : [
          {
            id,
            name: `${name}, frame ${at}`,
            rank: 2,
            frame: first + at,
            want: { kind: 'level', share, value, bound: kind },
          },
        ]
  return [
    // Just under the top: what reaches it is clipped.
    ...bound(
      'clip-white',
      'White',
      brightest,
      0.999,
      Math.max(Math.min(targets.white?.high ?? 0.99, 0.99), now[brightest]?.high ?? 0),
      'most',
    ),
    ...bound(
      'clip-black',
      'Black',
      darkest,
      0.001,
      Math.min(targets.black?.low ?? 0.005, now[darkest]?.low ?? 1),
      'least',
    ),
  ]
}

/** The first frame that no other is further out than; −1 where nothing is traced. */
function extreme(
  traces: readonly (FrameTrace | undefined)[],
  further: (a: FrameTrace, b: FrameTrace) => number,
): number {
  let best: FrameTrace | undefined
  let at = -1
  traces.forEach((trace, i) => {
    if (!trace || (best && further(trace, best) <= 0)) return
    best = trace
    at = i
  })
  return at
}
