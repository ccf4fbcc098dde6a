// Shapes: outlines and gradients drawn on the picture, defined independently of resolution.

/** A place in the frame: x as a share of its width, y of its height, both from the upper left. */
export interface Place {
  readonly x: number
  readonly y: number
}

/** Radii and half sides are shares of the frame's height, so that turning a shape does not change its form. */
interface Turned {
  readonly centreX: number
  readonly centreY: number
  readonly radiusX: number
  readonly radiusY: number
  /** Clockwise as seen. */ readonly rotationDegrees: number
}
export interface Ellipse extends Turned {
  readonly kind: 'ellipse'
}
/** `corner` is the radius of the rounded corners as a share of the shorter half side. */
export interface Rectangle extends Turned {
  readonly kind: 'rectangle'
  readonly corner: number
}
/** Full inside `core` (a share of the radius), falling to nothing at the radius. */
export interface RadialGradient extends Turned {
  readonly kind: 'radial'
  readonly core: number
}
/** Full before the first place, falling to nothing at the second. */
export interface LinearGradient {
  readonly kind: 'linear'
  readonly fromX: number
  readonly fromY: number
  readonly toX: number
  readonly toY: number
}
export interface Polygon {
  readonly kind: 'polygon'
  readonly points: readonly Place[]
}
/** A point of a smooth outline; its handles are places as well (cubic Bézier). */
export interface PathPoint extends Place {
  readonly inX: number
  readonly inY: number
  readonly outX: number
  readonly outY: number
}
export interface Path {
  readonly kind: 'path'
  readonly points: readonly PathPoint[]
}

export type TurnedShape = Ellipse | Rectangle | RadialGradient
export type Shape = TurnedShape | LinearGradient | Polygon | Path
export type ShapeKindId = Shape['kind']

export const shapeBounds = {
  place: { min: -2, max: 3 },
  radius: { min: 0.005, max: 4 },
  rotationDegrees: { min: -3600, max: 3600 },
  share: { min: 0, max: 1 },
  softness: { min: 0, max: 1 },
  points: { min: 3, max: 100 },
} as const

export interface ShapeKind {
  readonly id: ShapeKindId
  readonly name: string
  readonly tip: string
  /** Its edge is an outline with softness, not a gradient. */ readonly outlined: boolean
  readonly fresh: Shape
}
const inTheMiddle = { centreX: 0.5, centreY: 0.5, radiusX: 0.3, radiusY: 0.3, rotationDegrees: 0 } as const

/** A path through places whose handles make it round: each lies along the line between its neighbours. */
export function smoothPath(places: readonly Place[], roundness = 1 / 6): Path {
  const n = places.length
  return {
    kind: 'path',
    points: places.map((p, i) => {
      const before = places[(i + n - 1) % n]
      const after = places[(i + 1) % n]
      const dx = (after.x - before.x) * roundness
      const dy = (after.y - before.y) * roundness
      return { x: p.x, y: p.y, inX: p.x - dx, inY: p.y - dy, outX: p.x + dx, outY: p.y + dy }
    }),
  }
}

export const shapeKinds: readonly ShapeKind[] = [
  {
    id: 'ellipse',
    name: 'Ellipse',
    tip: 'A round outline.',
    outlined: true,
    fresh: { kind: 'ellipse', ...inTheMiddle },
  },
  {
    id: 'rectangle',
    name: 'Rectangle',
    tip: 'An outline with four sides and round or sharp corners.',
    outlined: true,
    fresh: { kind: 'rectangle', ...inTheMiddle, corner: 0.2 },
  },
  {
    id: 'polygon',
    name: 'Polygon',
    tip: 'An outline of straight lines; click on the picture to add points.',
    outlined: true,
    fresh: {
      kind: 'polygon',
      points: [
        { x: 0.4, y: 0.25 },
        { x: 0.6, y: 0.25 },
        { x: 0.68, y: 0.7 },
        { x: 0.32, y: 0.7 },
      ],
    },
  },
  {
    id: 'path',
    name: 'Curved outline',
    tip: 'A smooth closed line through points with handles.',
    outlined: true,
    fresh: smoothPath([
      { x: 0.5, y: 0.2 },
      { x: 0.66, y: 0.5 },
      { x: 0.5, y: 0.8 },
      { x: 0.34, y: 0.5 },
    ]),
  },
  {
    id: 'linear',
    name: 'Slope',
    tip: 'Full on one side of the picture, fading to nothing on the other.',
    outlined: false,
    fresh: { kind: 'linear', fromX: 0.5, fromY: 0.15, toX: 0.5, toY: 0.6 },
  },
  {
    id: 'radial',
    name: 'Round slope',
    tip: 'Full in the middle, fading to nothing at the line.',
    outlined: false,
    fresh: { kind: 'radial', ...inTheMiddle, core: 0.2 },
  },
]
export const shapeKindById = (id: ShapeKindId): ShapeKind => shapeKinds.find((k) => k.id === id) ?? shapeKinds[0]

export const isTurned = (shape: Shape): shape is TurnedShape => 'radiusX' in shape

/** Where a shape's middle lies. */
export function centreOf(shape: Shape): Place {
  if (isTurned(shape)) return { x: shape.centreX, y: shape.centreY }
  if (shape.kind === 'linear') return { x: (shape.fromX + shape.toX) / 2, y: (shape.fromY + shape.toY) / 2 }
  const n = shape.points.length
  return { x: shape.points.reduce((sum, p) => sum + p.x, 0) / n, y: shape.points.reduce((sum, p) => sum + p.y, 0) / n }
}

/** The straight components a curved outline is drawn with, between two of its points. */
const segmentsPerCurve = 16

/**
 * The outline in height units (x times the frame's aspect), closed, without repeating its first place. A linear
 * gradient has none.
 */
export function outlineOf(shape: Shape, aspect: number): readonly (readonly [number, number])[] {
  switch (shape.kind) {
    case 'linear':
      return []
    case 'polygon':
      return shape.points.map((p) => [p.x * aspect, p.y] as const)
    case 'path':
      return shape.points.flatMap((p, i) => {
        const q = shape.points[(i + 1) % shape.points.length]
        return Array.from({ length: segmentsPerCurve }, (_, k) => {
          const t = k / segmentsPerCurve
          const u = 1 - t
          const a = u * u * u
          const b = 3 * u * u * t
          const c = 3 * u * t * t
          const d = t * t * t
          return [
            (a * p.x + b * p.outX + c * q.inX + d * q.x) * aspect,
            a * p.y + b * p.outY + c * q.inY + d * q.y,
          ] as const
        })
      })
    case 'rectangle':
      return turnedOutline(shape, aspect, rectangleCorners(shape))
    case 'ellipse':
    case 'radial':
      return turnedOutline(
        shape,
        aspect,
        Array.from(
          { length: 64 },
          (_, i) =>
            [shape.radiusX * Math.cos((i * Math.PI) / 32), shape.radiusY * Math.sin((i * Math.PI) / 32)] as const,
        ),
      )
  }
}

function turnedOutline(
  { centreX, centreY, rotationDegrees }: TurnedShape,
  aspect: number,
  local: readonly (readonly [number, number])[],
): readonly (readonly [number, number])[] {
  const a = (rotationDegrees * Math.PI) / 180
  const cos = Math.cos(a)
  const sin = Math.sin(a)
  return local.map(([x, y]) => [centreX * aspect + x * cos - y * sin, centreY + x * sin + y * cos] as const)
}

function rectangleCorners({ radiusX, radiusY, corner }: Rectangle): readonly (readonly [number, number])[] {
  const r = corner * Math.min(radiusX, radiusY)
  const steps = r > 0 ? 8 : 0
  return [
    [1, -1, -90],
    [1, 1, 0],
    [-1, 1, 90],
    [-1, -1, 180],
  ].flatMap(([sx = 1, sy = 1, from = 0]) =>
    Array.from({ length: steps + 1 }, (_, i) => {
      const a = ((from + (steps ? (i * 90) / steps : 45)) * Math.PI) / 180
      return [
        sx * (radiusX - r) + (steps ? r * Math.cos(a) : 0),
        sy * (radiusY - r) + (steps ? r * Math.sin(a) : 0),
      ] as const
    }),
  )
}
