// A smooth curve that goes round: what is at the end of its period goes on at the beginning.
import type { CurvePoint } from './document'
import { monotoneCurve } from './monotone-curve'

/**
 * monotoneCurve through points repeated on both sides, so that value and slope agree where the period ends. Points must
 * have strictly rising x within one period, at least one. Defined for every x.
 */
export function periodicCurve(points: readonly CurvePoint[], period: number): (x: number) => number {
  const first = points[0]
  if (!first) throw new RangeError('A curve needs at least one point.')
  const copies = [-2, -1, 0, 1, 2].flatMap((turn) => points.map(({ x, y }) => ({ x: x + turn * period, y })))
  const curve = monotoneCurve(copies)
  return (x) => curve(x - Math.floor((x - first.x) / period) * period)
}
