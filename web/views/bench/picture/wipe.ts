// The part of a picture that lies to the left of a line.
import type { Wipe } from '../../../stores/view'

/**
 * A CSS polygon of what lies to the left of a line through (position, middle) that is turned clockwise from upright by
 * so many degrees.
 * @param aspect width over height of the picture
 */
export function wipePolygon({ position, degrees }: Wipe, aspect: number): string {
  const turn = (degrees * Math.PI) / 180
  const normal = { x: Math.cos(turn), y: Math.sin(turn) }
  // Corners in units of the height, the line's own point as origin; a point is kept where it lies against the normal.
  const left = -position * aspect
  const right = (1 - position) * aspect
  const corners = [
    { x: left, y: -0.5 },
    { x: right, y: -0.5 },
    { x: right, y: 0.5 },
    { x: left, y: 0.5 },
  ]
  const away = (corner: { readonly x: number; readonly y: number }): number => {
    const distance = corner.x * normal.x + corner.y * normal.y
    return Math.abs(distance) < 1e-12 ? 0 : distance
  }
  const kept: { x: number; y: number }[] = []
  corners.forEach((corner, i) => {
    const next = corners[(i + 1) % 4] ?? corner
    const a = away(corner)
    const b = away(next)
    if (a <= 0) kept.push(corner)
    if ((a < 0 && b > 0) || (a > 0 && b < 0))
      kept.push({
        x: corner.x + ((next.x - corner.x) * a) / (a - b),
        y: corner.y + ((next.y - corner.y) * a) / (a - b),
      })
  })
  const percent = (share: number): string => `${(share * 100).toFixed(2)}%`
  return `polygon(${kept.map(({ x, y }) => `${percent(x / aspect + position)} ${percent(y + 0.5)}`).join(', ')})`
}
