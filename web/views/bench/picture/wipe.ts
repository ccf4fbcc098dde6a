// The part of a picture that lies to the left of a line.
import type { Wipe } from '../../../stores/view'

/**
 * A CSS polygon of what lies to the left of a line through (position, middle) that is turned clockwise from upright by
 * so many degrees.
 * @param aspect width over height of the picture
 */
export function wipePolygon({ position, degrees }: Wipe, aspect: number): string {
  const turn = (degrees * Math.PI) / 180,
    normal = { x: Math.cos(turn), y: Math.sin(turn) }
  // Corners in units of the height, the line's own point as origin; a point is kept where it lies against the normal.
  const corners = [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1],
  ].map(([x, y]) => ({ x: (x! - position) * aspect, y: y! - 0.5 }))
  const away = corners.map((c) => c.x * normal.x + c.y * normal.y).map((v) => (Math.abs(v) < 1e-12 ? 0 : v)),
    kept: { x: number; y: number }[] = []
  corners.forEach((corner, i) => {
    const next = corners[(i + 1) % 4]!,
      a = away[i]!,
      b = away[(i + 1) % 4]!
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
