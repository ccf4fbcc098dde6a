// Shapes between two keyframes: sizes and places in even steps, turned on request.
import { centreOf, isTurned, type Shape } from './shape'

const mix = (a: number, b: number, t: number): number => a + (b - a) * t

/** Sizes change by equal factors in equal times. */
const mixSize = (a: number, b: number, t: number): number => a * (b / a) ** t

/**
 * A shape between two of the same kind. Its middle goes straight, or along the arc of its turn; turns are interpolated
 * as turns and sizes as sizes; what is left of the form of points goes straight. Shapes that do not fit each other: the
 * first.
 */
export function between(a: Shape, b: Shape, t: number, roll: boolean, aspect: number): Shape {
  if (isTurned(a) && isTurned(b) && a.kind === b.kind) {
    const degrees = b.rotationDegrees - a.rotationDegrees
    const size = Math.sqrt((b.radiusX * b.radiusY) / (a.radiusX * a.radiusY))
    const [u, v] = middleBetween(
      [a.centreX * aspect, a.centreY],
      [b.centreX * aspect, b.centreY],
      degrees,
      size,
      t,
      roll,
    )
    const turned = {
      ...a,
      centreX: u / aspect,
      centreY: v,
      radiusX: mixSize(a.radiusX, b.radiusX, t),
      radiusY: mixSize(a.radiusY, b.radiusY, t),
      rotationDegrees: a.rotationDegrees + degrees * t,
    }
    if (turned.kind === 'rectangle' && b.kind === 'rectangle')
      return { ...turned, corner: mix(turned.corner, b.corner, t) }
    return turned.kind === 'radial' && b.kind === 'radial' ? { ...turned, core: mix(turned.core, b.core, t) } : turned
  }
  const from = placesOf(a, aspect)
  const to = placesOf(b, aspect)
  if (a.kind !== b.kind || from.length !== to.length) return a
  return withPlaces(
    a,
    placesBetween(from, to, [centreOf(a).x * aspect, centreOf(a).y], [centreOf(b).x * aspect, centreOf(b).y], t, roll),
    aspect,
  )
}

type Pair = readonly [number, number]
export const turnBy = ([x, y]: Pair, degrees: number, size: number): Pair => {
  const r = (degrees * Math.PI) / 180
  const c = Math.cos(r) * size
  const s = Math.sin(r) * size
  return [x * c - y * s, x * s + y * c]
}

function middleBetween(a: Pair, b: Pair, degrees: number, size: number, t: number, roll: boolean): Pair {
  const straight: Pair = [mix(a[0], b[0], t), mix(a[1], b[1], t)]
  if (!roll) return straight
  // The one place that the whole motion leaves where it is: f = b − S(a − f).
  const r = (degrees * Math.PI) / 180
  const c = Math.cos(r) * size
  const s = Math.sin(r) * size
  const determinant = (1 - c) ** 2 + s * s
  if (determinant < 1e-9) return straight
  const [sx, sy] = turnBy(a, degrees, size)
  const dx = b[0] - sx
  const dy = b[1] - sy
  const f: Pair = [((1 - c) * dx - s * dy) / determinant, (s * dx + (1 - c) * dy) / determinant]
  const [x, y] = turnBy([a[0] - f[0], a[1] - f[1]], degrees * t, size ** t)
  return [f[0] + x, f[1] + y]
}

function placesBetween(
  from: readonly Pair[],
  to: readonly Pair[],
  a: Pair,
  b: Pair,
  t: number,
  roll: boolean,
): readonly Pair[] {
  const p = from.map(([x, y]): Pair => [x - a[0], y - a[1]])
  const q = to.map(([x, y]): Pair => [x - b[0], y - b[1]])
  let dot = 0
  let cross = 0
  let long = 0
  p.forEach(([x, y], i) => {
    const [u, v] = q[i]
    dot += x * u + y * v
    cross += x * v - y * u
    long += x * x + y * y
  })
  const degrees = (Math.atan2(cross, dot) * 180) / Math.PI
  const size = Math.min(100, Math.max(0.01, Math.hypot(dot, cross) / Math.max(1e-12, long)))
  const [mx, my] = middleBetween(a, b, degrees, size, t, roll)
  return p.map((place, i) => {
    const [tx, ty] = turnBy(place, degrees, size)
    const [x, y] = turnBy(place, degrees * t, size ** t)
    const [rx, ry] = turnBy([q[i][0] - tx, q[i][1] - ty], degrees * (t - 1), size ** (t - 1))
    return [mx + x + rx * t, my + y + ry * t]
  })
}

/** The places that make a shape of points, in height units. */
export function placesOf(shape: Shape, aspect: number): readonly Pair[] {
  switch (shape.kind) {
    case 'linear':
      return [
        [shape.fromX * aspect, shape.fromY],
        [shape.toX * aspect, shape.toY],
      ]
    case 'polygon':
      return shape.points.map((p): Pair => [p.x * aspect, p.y])
    case 'path':
      return shape.points.flatMap((p): Pair[] => [
        [p.x * aspect, p.y],
        [p.inX * aspect, p.inY],
        [p.outX * aspect, p.outY],
      ])
    default:
      return []
  }
}

export function withPlaces(shape: Shape, places: readonly Pair[], aspect: number): Shape {
  const x = (i: number): number => places[i][0] / aspect
  const y = (i: number): number => places[i][1]
  switch (shape.kind) {
    case 'linear':
      return { ...shape, fromX: x(0), fromY: y(0), toX: x(1), toY: y(1) }
    case 'polygon':
      return { ...shape, points: shape.points.map((_, i) => ({ x: x(i), y: y(i) })) }
    case 'path':
      return {
        ...shape,
        points: shape.points.map((_, i) => ({
          x: x(i * 3),
          y: y(i * 3),
          inX: x(i * 3 + 1),
          inY: y(i * 3 + 1),
          outX: x(i * 3 + 2),
          outY: y(i * 3 + 2),
        })),
      }
    default:
      return shape
  }
}
