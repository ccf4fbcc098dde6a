// How a shape follows the picture: a track, keyframes set by hand that bend it, and where it is hidden.
import { moved, noMotion, scaleAt, similarity, translation, type Homography } from './homography'
import type { Region, ShapeSource, ShownShape } from './region'
import { centreOf, isTurned, type Shape } from './shape'

export type TrackKind = 'position' | 'similarity' | 'affine' | 'perspective'
export interface TrackKindFacts {
  readonly id: TrackKind
  readonly name: string
  readonly tip: string
  /** Numbers per frame. */ readonly numbers: number
}
export const trackKinds: readonly TrackKindFacts[] = [
  { id: 'position', name: 'Place', tip: 'The shape moves and keeps its form.', numbers: 2 },
  { id: 'similarity', name: 'Place, size, turn', tip: 'It may also grow, shrink and turn.', numbers: 4 },
  { id: 'affine', name: 'and lean', tip: 'It may also be sheared and stretched.', numbers: 6 },
  { id: 'perspective', name: 'and perspective', tip: 'It may also be seen at an angle, like a wall.', numbers: 8 },
]
export const trackKindById = (id: TrackKind): TrackKindFacts => trackKinds.find((k) => k.id === id) ?? trackKinds[0]

/** Where the picture under a shape went, frame by frame, in height units. */
export interface Track {
  readonly kind: TrackKind
  /** The frame of the medium where the shape was drawn: nothing has moved there yet. */
  readonly reference: number
  readonly first: number
  /** For each frame from the first: as many numbers as the kind has, from the reference frame to that one. */
  readonly values: readonly number[]
  /**
   * Two numbers for each frame: the share of points that agree (0..1), and how far they miss, in thousandths of the
   * frame's height.
   */
  readonly quality: readonly number[]
}

export interface ShapeKeyframe {
  readonly frame: number
  readonly shape: Shape
}
export interface Motion {
  readonly track: Track | null
  /** Shapes in the plane of the track's reference frame, in rising order of frames. */
  readonly keys: readonly ShapeKeyframe[]
  readonly path: 'linear' | 'smooth'
  /** The middle goes along the arc that the turn between two keyframes describes, as when the whole frame rolls. */
  readonly roll: boolean
  /** From each of these frames on it is seen or hidden; before the first the other way round. */
  readonly shown: readonly { readonly frame: number; readonly on: boolean }[]
  /** Frames a change takes. */
  readonly fadeFrames: number
  /** Width / height of the frames it was made on. */
  readonly aspect: number
}

export const noMotionYet = (aspect: number): Motion => ({
  track: null,
  keys: [],
  path: 'smooth',
  roll: false,
  shown: [],
  fadeFrames: 4,
  aspect,
})
export const motionLimits = {
  frames: 5000,
  keys: 200,
  shown: 100,
  fadeFrames: { min: 0, max: 100 },
  value: 1e4,
} as const

export const trackFrames = ({ kind, values }: Track): number => values.length / trackKindById(kind).numbers
export const lastTracked = (track: Track): number => track.first + trackFrames(track) - 1

/** What a track says about a frame: its numbers there, or those of its nearest end. */
export function trackAt(track: Track, frame: number): Homography {
  const { numbers } = trackKindById(track.kind)
  const at = Math.min(Math.max(0, frame - track.first), trackFrames(track) - 1) * numbers
  return motionOf(track.kind, track.values.slice(at, at + numbers))
}

export function motionOf(kind: TrackKind, v: readonly number[]): Homography {
  switch (kind) {
    case 'position':
      return translation(v[0], v[1])
    case 'similarity':
      return similarity(v[0], v[1], v[2], v[3])
    case 'affine':
      return [v[0], v[1], v[2], v[3], v[4], v[5], 0, 0, 1]
    case 'perspective':
      return [v[0], v[1], v[2], v[3], v[4], v[5], v[6], v[7], 1]
  }
}
/** The numbers that a kind keeps of a motion. */
export function numbersOf(kind: TrackKind, m: Homography): readonly number[] {
  const n = m.map((v) => v / m[8])
  switch (kind) {
    case 'position':
      return [n[2], n[5]]
    case 'similarity':
      return [(n[0] + n[4]) / 2, (n[3] - n[1]) / 2, n[2], n[5]]
    case 'affine':
      return n.slice(0, 6)
    case 'perspective':
      return n.slice(0, 8)
  }
}

/** 0..1: how much of a shape is seen at a frame. */
export function presenceAt({ shown, fadeFrames }: Pick<Motion, 'shown' | 'fadeFrames'>, frame: number): number {
  const last = shown.findLastIndex((s) => s.frame <= frame)
  const change = shown[last]
  if (!change) {
    if (shown[0]) return shown[0].on ? 0 : 1
    return 1
  }
  const before = shown[last - 1]
  // Two changes to the same are one.
  if (before?.on === change.on) return change.on ? 1 : 0
  const done = Math.min(1, (frame - change.frame + 1) / (fadeFrames + 1))
  return change.on ? done : 1 - done
}

/** A shape and where its track has taken it at a frame of the medium. */
export function shapeAt(source: ShapeSource, frame: number): ShownShape {
  const { motion, ...still } = source
  if (!motion) return still
  const shape = motion.keys.length > 0 ? keyedShape(motion, frame) : source.shape
  const presence = presenceAt(motion, frame)
  const placed = motion.track ? trackAt(motion.track, frame) : noMotion
  return { ...still, shape, ...(placed === noMotion ? {} : { placed }), ...(presence === 1 ? {} : { presence }) }
}

/** A region as it is at a frame; the same object where nothing in it moves. */
export function regionAt(region: Region, frame: number): Region {
  if (!region.pieces.some(({ source }) => source.kind === 'shape' && source.motion)) return region
  return {
    ...region,
    pieces: region.pieces.map((piece) =>
      piece.source.kind === 'shape' && piece.source.motion ? { ...piece, source: shapeAt(piece.source, frame) } : piece,
    ),
  }
}

function keyedShape({ keys, path, roll, aspect }: Motion, frame: number): Shape {
  const next = keys.findIndex((k) => k.frame >= frame)
  const b = keys[next]
  const a = keys[next - 1]
  if (!b) return keys[keys.length - 1].shape
  if (!a || b.frame === frame) return b.shape
  const t = (frame - a.frame) / (b.frame - a.frame)
  return between(a.shape, b.shape, path === 'smooth' ? t * t * (3 - 2 * t) : t, roll, aspect)
}

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
const turnBy = ([x, y]: Pair, degrees: number, size: number): Pair => {
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
function placesOf(shape: Shape, aspect: number): readonly Pair[] {
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
function withPlaces(shape: Shape, places: readonly Pair[], aspect: number): Shape {
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

/**
 * The shape moved, scaled and turned about its middle: `by` shares of width and height, a factor, degrees clockwise.
 */
export function changedShape(
  shape: Shape,
  aspect: number,
  by: { readonly x?: number; readonly y?: number; readonly size?: number; readonly degrees?: number },
): Shape {
  const { x = 0, y = 0, size = 1, degrees = 0 } = by
  if (isTurned(shape))
    return {
      ...shape,
      centreX: shape.centreX + x,
      centreY: shape.centreY + y,
      radiusX: shape.radiusX * size,
      radiusY: shape.radiusY * size,
      rotationDegrees: shape.rotationDegrees + degrees,
    }
  const { x: cx, y: cy } = centreOf(shape)
  return withPlaces(
    shape,
    placesOf(shape, aspect).map(([u, v]) => {
      const [du, dv] = turnBy([u - cx * aspect, v - cy], degrees, size)
      return [(cx + x) * aspect + du, cy + y + dv]
    }),
    aspect,
  )
}

/**
 * The source after a hand gave the shape another form at a frame. A shape that stays is changed; one that follows a
 * track gets a keyframe there, and one where it was drawn, so that the track is bent and not lost.
 */
export function withShapeAt(source: ShapeSource, shape: Shape, frame: number): ShapeSource {
  const { motion } = source
  if (!motion || (motion.keys.length === 0 && (!motion.track || motion.track.reference === frame)))
    return { ...source, shape }
  const base =
    motion.keys.length === 0 && motion.track ? [{ frame: motion.track.reference, shape: source.shape }] : motion.keys
  return {
    ...source,
    motion: {
      ...motion,
      keys: [...base.filter((k) => k.frame !== frame), { frame, shape }].sort((a, b) => a.frame - b.frame),
    },
  }
}

/** A keyframe here: the shape keeps the form it has at this frame. */
export function withKeyframe(source: ShapeSource, frame: number, aspect: number): ShapeSource {
  const motion = source.motion ?? noMotionYet(aspect)
  const { shape } = shapeAt(source, frame)
  if (motion.keys.some((k) => k.frame === frame)) return source
  return {
    ...source,
    motion: { ...motion, keys: [...motion.keys, { frame, shape }].sort((a, b) => a.frame - b.frame) },
  }
}

/** Takes a keyframe away; with the last one the shape keeps its form. */
export function withoutKeyframe(source: ShapeSource, frame: number): ShapeSource {
  const { motion } = source
  const gone = motion?.keys.find((k) => k.frame === frame)
  if (!motion || !gone) return source
  const keys = motion.keys.filter((k) => k !== gone)
  return stilled(
    keys.length === 0
      ? { ...source, shape: gone.shape, motion: { ...motion, keys } }
      : { ...source, motion: { ...motion, keys } },
  )
}

/** Without a motion that says nothing. */
export function stilled(source: ShapeSource): ShapeSource {
  const { motion, ...still } = source
  return motion && !motion.track && motion.keys.length === 0 && motion.shown.length === 0 ? still : source
}

/** From `frame` on seen or hidden; said again at the same frame it is taken back. */
export function withShown(source: ShapeSource, frame: number, aspect: number): ShapeSource {
  const motion = source.motion ?? noMotionYet(aspect)
  const known = motion.shown.some((s) => s.frame === frame)
  const on = presenceAt({ shown: motion.shown, fadeFrames: 0 }, frame) < 0.5
  const shown = known
    ? motion.shown.filter((s) => s.frame !== frame)
    : [...motion.shown, { frame, on }].sort((a, b) => a.frame - b.frame)
  return stilled({ ...source, motion: { ...motion, shown } })
}

/**
 * The shape as it lies at a frame, as one that stays: turned, sized and moved by its track. What a track does beyond
 * that to a round shape is lost.
 */
export function settledAt(source: ShapeSource, frame: number): ShapeSource {
  const { motion } = source
  if (!motion) return source
  const { shape, placed, inner, outer } = shapeAt(source, frame)
  const still = { kind: 'shape', inner, outer } as const
  if (!placed) return { ...still, shape }
  const { aspect } = motion
  const { x, y } = centreOf(shape)
  const size = scaleAt(placed, x * aspect, y)
  const [u, v] = moved(placed, x * aspect, y)
  if (!isTurned(shape))
    return {
      kind: 'shape',
      inner: inner * size,
      outer: outer * size,
      shape: withPlaces(
        shape,
        placesOf(shape, aspect).map(([px, py]) => moved(placed, px, py)),
        aspect,
      ),
    }
  const [ru, rv] = moved(placed, x * aspect + 1e-4, y)
  return {
    kind: 'shape',
    inner: inner * size,
    outer: outer * size,
    shape: {
      ...shape,
      centreX: u / aspect,
      centreY: v,
      radiusX: shape.radiusX * size,
      radiusY: shape.radiusY * size,
      rotationDegrees: shape.rotationDegrees + (Math.atan2(rv - v, ru - u) * 180) / Math.PI,
    },
  }
}
export const settledRegion = <R extends Pick<Region, 'pieces'>>(region: R, frame: number): R => ({
  ...region,
  pieces: region.pieces.map((p) => (p.source.kind === 'shape' ? { ...p, source: settledAt(p.source, frame) } : p)),
})

/** Where a place of the shape's own plane lies in the picture (shares of the frame), and the way back. */
export function placing(
  shown: ShownShape,
  aspect: number,
): { readonly out: (x: number, y: number) => readonly [number, number] } {
  const m = shown.placed
  return {
    out: (x, y) => {
      if (!m) return [x, y]
      const [u, v] = moved(m, x * aspect, y)
      return [u / aspect, v]
    },
  }
}
