// The clip trace: a few measures of every frame of a clip, and the moments that want looking at.
import type { LumaWeights } from '../colour'

/** One frame's measures; shares are 0..1 of the display signal or of the pixels. */
export interface FrameTrace {
  /** Luma that 0.1, 50 and 99.9 % of the pixels lie below. */
  readonly low: number
  readonly middle: number
  readonly high: number
  /** Means of red, green and blue. */
  readonly balance: readonly [number, number, number]
  /** Pixels with a channel at the top, and with all channels at the bottom. */
  readonly clipped: number
  readonly crushed: number
}

const bins = 1024

/**
 * Traces display signal given as 16-bit RGB triples. `topCode` is the code of the brightest the display shows. Throws
 * RangeError when there is none.
 */
export function traceFrame(codes: Uint16Array, weights: LumaWeights, topCode = 65535): FrameTrace {
  const pixels = codes.length / 3
  if (pixels < 1) throw new RangeError('A frame without pixels cannot be traced.')
  const histogram = new Uint32Array(bins)
  let red = 0
  let green = 0
  let blue = 0
  let clipped = 0
  let crushed = 0
  for (let i = 0; i < codes.length; i += 3) {
    const r = codes[i]
    const g = codes[i + 1]
    const b = codes[i + 2]
    red += r
    green += g
    blue += b
    if (r >= topCode || g >= topCode || b >= topCode) clipped++
    if (r === 0 && g === 0 && b === 0) crushed++
    histogram[((weights.red * r + weights.green * g + weights.blue * b) * bins) >>> 16]++
  }
  const at = (share: number): number => {
    let left = share * pixels
    for (let bin = 0; bin < bins; bin++) {
      const here = histogram[bin]
      if (here >= left && here > 0) return (bin + left / here) / bins
      left -= here
    }
    return 1
  }
  const mean = (sum: number): number => sum / pixels / 65535
  return {
    low: at(0.001),
    middle: at(0.5),
    high: at(0.999),
    balance: [mean(red), mean(green), mean(blue)],
    clipped: clipped / pixels,
    crushed: crushed / pixels,
  }
}

export type MomentKind = 'clips most' | 'crushed most' | 'exposure moves' | 'darkest' | 'brightest'
export interface Moment {
  readonly frame: number
  readonly kinds: readonly MomentKind[]
}

/** A tenth of a percent of the pixels is worth looking at. */
const worthLooking = 0.001
/** Middle luma that has moved this far within a second has moved visibly. */
const visibleMove = 0.03

/**
 * The moments of a clip that want looking at, in order: where it clips and crushes most, is darkest and brightest, and
 * where exposure moves fastest. Frames not traced yet are undefined. `first` is the number of the first frame.
 */
export function worstMoments(
  traces: readonly (FrameTrace | undefined)[],
  framesPerSecond: number,
  first = 0,
): readonly Moment[] {
  const found = new Map<number, MomentKind[]>()
  const note = (index: number, kind: MomentKind): void => {
    found.set(index, [...(found.get(index) ?? []), kind])
  }
  const most = (value: (t: FrameTrace) => number, least: number, kind: MomentKind): void => {
    let at = -1
    let best = least
    traces.forEach((t, i) => {
      if (!t || value(t) <= best) return
      best = value(t)
      at = i
    })
    if (at >= 0) note(at, kind)
  }
  most((t) => t.clipped, worthLooking, 'clips most')
  most((t) => t.crushed, worthLooking, 'crushed most')
  const middles = traces.flatMap((t) => (t ? [t.middle] : []))
  if (middles.length > 1 && Math.max(...middles) - Math.min(...middles) > visibleMove) {
    most((t) => t.middle, -1, 'brightest')
    most((t) => 1 - t.middle, -1, 'darkest')
    const span = Math.max(1, Math.round(framesPerSecond / 2))
    let fastest = 0
    let from = -1
    let to = -1
    for (let i = 0; i < traces.length; i++) {
      const a = traces[Math.max(0, i - span)]
      const b = traces[Math.min(traces.length - 1, i + span)]
      const move = a && b ? Math.abs(b.middle - a.middle) : 0
      if (move > fastest + 1e-6) {
        fastest = move
        from = i
      }
      if (move >= fastest - 1e-6) to = i
    }
    // The middle of the frames between which it moves most.
    if (fastest > visibleMove) note(Math.round((from + to) / 2), 'exposure moves')
  }
  return [...found].sort(([a], [b]) => a - b).map(([index, kinds]) => ({ frame: first + index, kinds }))
}

/** An order of `count` frames in which ever finer gaps are filled, so that a long clip shows its whole course early. */
export function coarseToFine(count: number): readonly number[] {
  const order: number[] = []
  let step = 1
  while (step * 8 < count) step *= 2
  for (let i = 0; i < count; i += step) order.push(i)
  for (; step > 1; step /= 2) for (let i = step / 2; i < count; i += step) order.push(i)
  return order
}
