// Aims over a whole clip: its brightest and its darkest frame stay inside the house standard, and so do all between.
import type { FrameTrace } from '../instruments'
import type { HouseStandard } from '../readings'
import type { Aim } from './aim'

/**
 * Bounds on the frames where the clip reaches furthest up and down. A frame that is inside already costs nothing and is
 * still watched.
 * @param traces by frame of the shot, as far as they are traced
 * @param first number of the first of them in the medium
 */
export function wholeClipAims(
  traces: readonly (FrameTrace | undefined)[],
  first: number,
  { targets }: HouseStandard,
): readonly Aim[] {
  let brightest = -1,
    darkest = -1
  traces.forEach((t, i) => {
    if (!t) return
    if (
      brightest < 0 ||
      t.high > traces[brightest]!.high ||
      (t.high === traces[brightest]!.high && t.clipped > traces[brightest]!.clipped)
    )
      brightest = i
    if (
      darkest < 0 ||
      t.low < traces[darkest]!.low ||
      (t.low === traces[darkest]!.low && t.crushed > traces[darkest]!.crushed)
    )
      darkest = i
  })
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
    ...bound('clip-white', 'White', brightest, 0.999, Math.min(targets.white?.high ?? 0.99, 0.99), 'most'),
    ...bound('clip-black', 'Black', darkest, 0.001, targets.black?.low ?? 0.005, 'least'),
  ]
}
