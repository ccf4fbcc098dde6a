// What a handle of a shape does to it, by pointer and by key: geometry without a component. Places are in the shape's
// own plane, in units of the frame's height; shapes keep x as a share of the width, so `aspect` stands between.
import { clamp } from '@core/numbers'
import {
  changedShape,
  isTurned,
  moveOutlinePoint,
  outlineOf,
  shapeBounds,
  type Shape,
  type TurnedShape,
} from '@core/regions'
import type { ArrowStep } from '../../../composables/arrowStep'

export type Place = readonly [number, number]
export type Grip =
  | 'move'
  | 'right'
  | 'left'
  | 'bottom'
  | 'top'
  | 'turn'
  | 'size'
  | 'inner'
  | 'outer'
  | 'from'
  | 'to'
  | { readonly point: number; readonly part: 'at' | 'in' | 'out' }
/** The two widths of a shape's soft edge, in frame heights. */
export interface Softness {
  readonly inner: number
  readonly outer: number
}
export type GripEdit = { readonly shape: Shape } | { readonly softness: Partial<Softness> }

const bounded = (value: number, { min, max }: { readonly min: number; readonly max: number }): number =>
  clamp(value, min, max)
const rounded = (value: number): number => Math.round(value * 1e5) / 1e5
const coreShare = { min: 0, max: 0.99 }

/** The shape with every number rounded and within `shapeBounds`, as it is stored. */
export function boundedShape(shape: Shape): Shape {
  const { place, radius } = shapeBounds
  const p = (value: number): number => bounded(rounded(value), place)
  if (isTurned(shape))
    return {
      ...shape,
      centreX: p(shape.centreX),
      centreY: p(shape.centreY),
      radiusX: bounded(rounded(shape.radiusX), radius),
      radiusY: bounded(rounded(shape.radiusY), radius),
      rotationDegrees: rounded(bounded(shape.rotationDegrees, shapeBounds.rotationDegrees)),
    }
  if (shape.kind === 'linear')
    return { ...shape, fromX: p(shape.fromX), fromY: p(shape.fromY), toX: p(shape.toX), toY: p(shape.toY) }
  if (shape.kind === 'polygon') return { ...shape, points: shape.points.map(({ x, y }) => ({ x: p(x), y: p(y) })) }
  return {
    ...shape,
    points: shape.points.map((q) => ({
      x: p(q.x),
      y: p(q.y),
      inX: p(q.inX),
      inY: p(q.inY),
      outX: p(q.outX),
      outY: p(q.outY),
    })),
  }
}

/** The smallest upright box around a shape's outline, in frame heights. */
export function boxOf(shape: Shape, aspect: number): { left: number; top: number; right: number; bottom: number } {
  const places = outlineOf(shape, aspect)
  const us = places.map(([u]) => u)
  const vs = places.map(([, v]) => v)
  return { left: Math.min(...us), top: Math.min(...vs), right: Math.max(...us), bottom: Math.max(...vs) }
}

const edited = (shape: Shape): GripEdit => ({ shape: boundedShape(shape) })

/** What a grip does that goes from one place to another; null when it does nothing to this shape. */
export function dragged(grip: Grip, was: Shape, from: Place, to: Place, aspect: number): GripEdit | null {
  const dx = (to[0] - from[0]) / aspect
  const dy = to[1] - from[1]
  if (grip === 'move') return edited(changedShape(was, aspect, { x: dx, y: dy }))
  if (typeof grip === 'object') return edited(moveOutlinePoint(was, grip.point, grip.part, dx, dy))
  if (was.kind === 'linear')
    return edited(
      grip === 'from'
        ? { ...was, fromX: was.fromX + dx, fromY: was.fromY + dy }
        : { ...was, toX: was.toX + dx, toY: was.toY + dy },
    )
  const [cu, cv] = centreOf(was, aspect)
  const angle = (p: Place): number => (Math.atan2(p[1] - cv, p[0] - cu) * 180) / Math.PI
  if (grip === 'turn')
    return edited(changedShape(was, aspect, { degrees: ((angle(to) - angle(from) + 540) % 360) - 180 }))
  if (grip === 'size') {
    const distance = (p: Place): number => Math.hypot(p[0] - cu, p[1] - cv)
    return edited(changedShape(was, aspect, { size: Math.max(0.05, distance(to) / Math.max(1e-6, distance(from))) }))
  }
  if (!isTurned(was)) return null
  const a = (was.rotationDegrees * Math.PI) / 180
  const x = (to[0] - cu) * Math.cos(a) + (to[1] - cv) * Math.sin(a)
  const y = (to[1] - cv) * Math.cos(a) - (to[0] - cu) * Math.sin(a)
  if (grip === 'outer' || grip === 'inner') return softened(was, grip, x, y)
  return edited(
    grip === 'left' || grip === 'right' ? { ...was, radiusX: Math.abs(x) } : { ...was, radiusY: Math.abs(y) },
  )
}

function centreOf(shape: Shape, aspect: number): Place {
  if (isTurned(shape)) return [shape.centreX * aspect, shape.centreY]
  const { left, right, top, bottom } = boxOf(shape, aspect)
  return [(left + right) / 2, (top + bottom) / 2]
}

/** The soft edge's end goes through a place of the shape's own axes. */
function softened(was: TurnedShape, grip: 'inner' | 'outer', x: number, y: number): GripEdit {
  const share = Math.hypot(x / was.radiusX, y / was.radiusY)
  if (was.kind === 'radial') return edited({ ...was, core: bounded(rounded(share), coreShare) })
  const outward =
    was.kind === 'rectangle'
      ? Math.max(Math.abs(x) - was.radiusX, Math.abs(y) - was.radiusY)
      : (share - 1) * Math.min(was.radiusX, was.radiusY)
  return {
    softness: { [grip]: bounded(rounded(grip === 'outer' ? outward : -outward), shapeBounds.softness) },
  }
}

/** What an arrow key does to a grip; `factor` makes the step of 0.5 % of the height, 1° or 1 % larger or smaller. */
export function nudged(
  grip: Grip,
  shape: Shape,
  softness: Softness,
  { dx, dy }: ArrowStep,
  factor: number,
  aspect: number,
): GripEdit | null {
  const step = 0.005 * factor
  const outward = dx - dy
  if (grip === 'turn') return edited(changedShape(shape, aspect, { degrees: (dx + dy) * factor }))
  if (grip === 'size') return edited(changedShape(shape, aspect, { size: 1 + outward * 0.01 * factor }))
  if (grip === 'inner' || grip === 'outer') {
    if (shape.kind === 'radial')
      return edited({ ...shape, core: bounded(shape.core + outward * 0.01 * factor, coreShare) })
    const change = (grip === 'outer' ? outward : -outward) * step
    return { softness: { [grip]: bounded(rounded(softness[grip] + change), shapeBounds.softness) } }
  }
  if (isTurned(shape) && (grip === 'left' || grip === 'right'))
    return edited({ ...shape, radiusX: shape.radiusX + outward * step })
  if (isTurned(shape) && (grip === 'top' || grip === 'bottom'))
    return edited({ ...shape, radiusY: shape.radiusY + outward * step })
  return dragged(grip, shape, [0, 0], [dx * step, dy * step], aspect)
}

/** The index of the point after which a closed outline's nearest side begins; places as shares of the frame. */
export function nearestSide(
  points: readonly { readonly x: number; readonly y: number }[],
  x: number,
  y: number,
): number {
  const distances = points.map((p, i) => {
    const q = points[(i + 1) % points.length] ?? p
    const dx = q.x - p.x
    const dy = q.y - p.y
    const t = clamp(((x - p.x) * dx + (y - p.y) * dy) / Math.max(1e-9, dx * dx + dy * dy), 0, 1)
    return Math.hypot(x - p.x - t * dx, y - p.y - t * dy)
  })
  return distances.indexOf(Math.min(...distances))
}
