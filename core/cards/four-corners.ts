// A flat, four-sided thing seen from anywhere: places on it and places in the picture (a homography of four points,
// Hartley and Zisserman, Multiple View Geometry, 2nd edition, example 2.12).

export interface Point {
  readonly x: number
  readonly y: number
}
/** Upper left, upper right, lower right, lower left, as the thing stands; in shares of the picture or in pixels. */
export type Corners = readonly [Point, Point, Point, Point]

/** From places of 0..1 across and down the thing to the picture. Throws RangeError for corners that fold over. */
export function placesOn(corners: Corners): (across: number, down: number) => Point {
  if (!isConvex(corners)) throw new RangeError('The corners cross: set them in order around the chart.')
  const [a, b, c, d] = corners
  const dx1 = b.x - c.x
  const dy1 = b.y - c.y
  const dx2 = d.x - c.x
  const dy2 = d.y - c.y
  const sx = a.x - b.x + c.x - d.x
  const sy = a.y - b.y + c.y - d.y
  const det = dx1 * dy2 - dx2 * dy1
  const g = (sx * dy2 - dx2 * sy) / det
  const h = (dx1 * sy - sx * dy1) / det
  return (u, v) => {
    const w = g * u + h * v + 1
    return {
      x: ((b.x - a.x + g * b.x) * u + (d.x - a.x + h * d.x) * v + a.x) / w,
      y: ((b.y - a.y + g * b.y) * u + (d.y - a.y + h * d.y) * v + a.y) / w,
    }
  }
}

/** Whether going around the corners always turns the same way. */
function isConvex(corners: Corners): boolean {
  const turns = corners.map((p, i) => {
    const q = corners[(i + 1) % 4] ?? p
    const r = corners[(i + 2) % 4] ?? p
    return (q.x - p.x) * (r.y - q.y) - (q.y - p.y) * (r.x - q.x)
  })
  return turns.every((t) => t > 1e-9) || turns.every((t) => t < -1e-9)
}
