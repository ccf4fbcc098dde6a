// A smooth curve through points that never overshoots between them.
import type { CurvePoint } from './document'

/**
 * Piecewise cubic Hermite interpolation with the slopes of Fritsch and Butland (1984): C1, and monotone wherever the
 * points are. Beyond the ends it goes on straight with the end slope. Points must have strictly rising x, at least two.
 */
export function monotoneCurve(points: readonly CurvePoint[]): (x: number) => number {
  const n = points.length
  if (n < 2) throw new RangeError('A curve needs at least two points.')
  const xs = points.map((p) => p.x)
  const ys = points.map((p) => p.y)
  const widths = xs.slice(1).map((x, i) => x - xs[i])
  const chords = widths.map((w, i) => (ys[i + 1] - ys[i]) / w)
  const slopes = ys.map((_, i) => {
    if (i === 0) return chords[0]
    if (i === n - 1) return chords[n - 2]
    return innerSlope(chords[i - 1], chords[i], widths[i - 1], widths[i])
  })
  return (x) => {
    if (x <= xs[0]) return ys[0] + slopes[0] * (x - xs[0])
    if (x >= xs[n - 1]) return ys[n - 1] + slopes[n - 1] * (x - xs[n - 1])
    let low = 0
    let high = n - 1
    while (high - low > 1) {
      const middle = (low + high) >> 1
      if (xs[middle] <= x) low = middle
      else high = middle
    }
    const h = widths[low]
    const t = (x - xs[low]) / h
    const t2 = t * t
    const t3 = t2 * t
    return (
      (2 * t3 - 3 * t2 + 1) * ys[low] +
      (t3 - 2 * t2 + t) * h * slopes[low] +
      (3 * t2 - 2 * t3) * ys[high] +
      (t3 - t2) * h * slopes[high]
    )
  }
}

/** The weighted harmonic mean of two chords, or 0 where they differ in sign. */
function innerSlope(before: number, after: number, widthBefore: number, widthAfter: number): number {
  if (before * after <= 0) return 0
  const w1 = 2 * widthAfter + widthBefore
  const w2 = widthAfter + 2 * widthBefore
  return (w1 + w2) / (w1 / before + w2 / after)
}
