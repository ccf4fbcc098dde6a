// Proposing a lead frame: the sharpest frame among those whose exposure is near the clip's median.

export interface FrameMeasures {
  readonly luma: ArrayLike<number>
  readonly sharpness: ArrayLike<number>
}

/** A tenth of a stop or so on a camera log: frames this near the median count as typical. */
const nearMedian = 0.012
/** Frames this near the clip's ends are only taken when nothing else is there: hands start and stop cameras. */
const edgeShare = 0.06

/**
 * The number of the frame, within `first` up to `first + count`, that stands best for the shot. Throws RangeError for
 * an empty shot.
 */
export function proposeLead({ luma, sharpness }: FrameMeasures, first: number, count: number): number {
  if (count < 1 || first < 0 || first + count > luma.length) throw new RangeError('The shot holds no measured frames.')
  const sorted = Float64Array.from({ length: count }, (_, i) => luma[first + i]).sort()
  const median = sorted[Math.floor((count - 1) / 2)]
  const edge = Math.floor(count * edgeShare)
  let best = first
  let bestScore = -Infinity
  for (let i = 0; i < count; i++) {
    const away = Math.abs(luma[first + i] - median)
    const atEdge = i < edge || i >= count - edge
    // Sharpness decides among typical frames; each further step from the median costs more than sharpness can give
    // back.
    const score = sharpness[first + i] - Math.max(0, away - nearMedian) * 4 - (atEdge ? 0.02 : 0)
    if (score > bestScore) {
      bestScore = score
      best = first + i
    }
  }
  return best
}
