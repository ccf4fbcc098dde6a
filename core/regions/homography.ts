// Plane motions as 3×3 matrices on places in height units (x times the frame's aspect, y), row by row.
import { identity3, invert, multiply, type Matrix3 } from '../colour'

export type Homography = Matrix3
export const noMotion: Homography = identity3
export { invert as inverseMotion, multiply as motionAfter }

export function moved(m: Homography, x: number, y: number): readonly [number, number] {
  const w = m[6] * x + m[7] * y + m[8]
  return [(m[0] * x + m[1] * y + m[2]) / w, (m[3] * x + m[4] * y + m[5]) / w]
}

/** How much longer lines become near a place: the root of the change of area there. */
export function scaleAt(m: Homography, x: number, y: number): number {
  const w = m[6] * x + m[7] * y + m[8]
  const px = (m[0] * x + m[1] * y + m[2]) / w
  const py = (m[3] * x + m[4] * y + m[5]) / w
  const a = (m[0] - px * m[6]) / w
  const b = (m[1] - px * m[7]) / w
  const c = (m[3] - py * m[6]) / w
  const d = (m[4] - py * m[7]) / w
  return Math.sqrt(Math.abs(a * d - b * c))
}

export const translation = (x: number, y: number): Homography => [1, 0, x, 0, 1, y, 0, 0, 1]
/** (a, b) is scale times (cos, sin) of the turn. */
export const similarity = (a: number, b: number, x: number, y: number): Homography => [a, -b, x, b, a, y, 0, 0, 1]
