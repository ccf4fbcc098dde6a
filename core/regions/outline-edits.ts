// Edits of an outline's points: moved, added between two, taken away.
import { shapeBounds, type PathPoint, type Place, type Shape } from './shape'

/**
 * A point moved by shares of the frame, its handles with it; or one of a curve's handles, the other turning with it.
 */
export function moveOutlinePoint(
  shape: Shape,
  index: number,
  part: 'at' | 'in' | 'out',
  dx: number,
  dy: number,
): Shape {
  if (shape.kind === 'polygon')
    return { ...shape, points: shape.points.map((p, i) => (i === index ? { x: p.x + dx, y: p.y + dy } : p)) }
  if (shape.kind !== 'path') return shape
  return { ...shape, points: shape.points.map((p, i) => (i === index ? movedPoint(p, part, dx, dy) : p)) }
}

function movedPoint(p: PathPoint, part: 'at' | 'in' | 'out', dx: number, dy: number): PathPoint {
  if (part === 'at')
    return { x: p.x + dx, y: p.y + dy, inX: p.inX + dx, inY: p.inY + dy, outX: p.outX + dx, outY: p.outY + dy }
  const moved = part === 'in' ? { x: p.inX + dx, y: p.inY + dy } : { x: p.outX + dx, y: p.outY + dy }
  const other = part === 'in' ? { x: p.outX, y: p.outY } : { x: p.inX, y: p.inY }
  // The line stays smooth through the point: the other handle keeps its length and looks the other way.
  const long = Math.hypot(moved.x - p.x, moved.y - p.y)
  const length = Math.hypot(other.x - p.x, other.y - p.y)
  const k = long > 1e-6 ? length / long : 0
  const turned = { x: p.x - (moved.x - p.x) * k, y: p.y - (moved.y - p.y) * k }
  return part === 'in'
    ? { ...p, inX: moved.x, inY: moved.y, outX: turned.x, outY: turned.y }
    : { ...p, outX: moved.x, outY: moved.y, inX: turned.x, inY: turned.y }
}

/** A point more behind the one at `index`: at a place, or halfway along that side. A curve keeps its course. */
export function addOutlinePoint(shape: Shape, index: number, place?: Place): Shape {
  if ((shape.kind !== 'polygon' && shape.kind !== 'path') || shape.points.length >= shapeBounds.points.max) return shape
  const at = (index + 1) % shape.points.length
  if (shape.kind === 'polygon') {
    const p = shape.points[index]
    const q = shape.points[at]
    return {
      ...shape,
      points: [
        ...shape.points.slice(0, index + 1),
        place ?? { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 },
        ...shape.points.slice(index + 1),
      ],
    }
  }
  // Halving a cubic (de Casteljau): its course stays what it was.
  const p = shape.points[index]
  const q = shape.points[at]
  const half = (a: number, b: number): number => (a + b) / 2
  const split = (a: number, b: number, c: number, d: number): readonly [number, number, number, number, number] => {
    const ab = half(a, b)
    const bc = half(b, c)
    const cd = half(c, d)
    const abc = half(ab, bc)
    const bcd = half(bc, cd)
    return [ab, abc, half(abc, bcd), bcd, cd]
  }
  const [x1, x2, x3, x4, x5] = split(p.x, p.outX, q.inX, q.x)
  const [y1, y2, y3, y4, y5] = split(p.y, p.outY, q.inY, q.y)
  const points = shape.points.map((o, i): PathPoint => {
    const from = i === index ? { ...o, outX: x1, outY: y1 } : o
    return i === at ? { ...from, inX: x5, inY: y5 } : from
  })
  return {
    ...shape,
    points: [
      ...points.slice(0, index + 1),
      { x: x3, y: y3, inX: x2, inY: y2, outX: x4, outY: y4 },
      ...points.slice(index + 1),
    ],
  }
}

/** Without a point; three always remain. */
export function removeOutlinePoint(shape: Shape, index: number): Shape {
  if (shape.kind === 'polygon' && shape.points.length > shapeBounds.points.min)
    return { ...shape, points: shape.points.filter((_, i) => i !== index) }
  return shape.kind === 'path' && shape.points.length > shapeBounds.points.min
    ? { ...shape, points: shape.points.filter((_, i) => i !== index) }
    : shape
}
