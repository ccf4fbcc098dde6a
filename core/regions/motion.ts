// How a shape follows the picture: a track, keyframes set by hand that bend it, and where it is hidden.
import { moved, noMotion, scaleAt, type Homography } from './homography'
import type { Region, ShapeSource, ShownShape } from './region'
import { centreOf, isTurned, type Shape } from './shape'
import { type Track, trackAt } from './tracks'
import { between, turnBy, placesOf, withPlaces } from './shapes-between'

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
  if (!region.components.some(({ source }) => source.kind === 'shape' && source.motion)) return region
  return {
    ...region,
    components: region.components.map((component) =>
      component.source.kind === 'shape' && component.source.motion
        ? { ...component, source: shapeAt(component.source, frame) }
        : component,
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
  const still: ShapeSource = { kind: 'shape', shape, inner, outer }
  return placed ? laidThrough(still, placed, motion.aspect) : still
}

/**
 * A shape that stays, laid through a motion of the picture's plane (x by the width over the height, y).
 *
 * @param aspect width over height of the picture it lies in
 * @param aspectThere the same of the picture it is laid in
 */
export function laidThrough(
  { shape, inner, outer }: ShapeSource,
  motion: Homography,
  aspect: number,
  aspectThere = aspect,
): ShapeSource {
  const { x, y } = centreOf(shape)
  const size = scaleAt(motion, x * aspect, y)
  const [u, v] = moved(motion, x * aspect, y)
  if (!isTurned(shape))
    return {
      kind: 'shape',
      inner: inner * size,
      outer: outer * size,
      shape: withPlaces(
        shape,
        placesOf(shape, aspect).map(([px, py]) => moved(motion, px, py)),
        aspectThere,
      ),
    }
  const [ru, rv] = moved(motion, x * aspect + 1e-4, y)
  return {
    kind: 'shape',
    inner: inner * size,
    outer: outer * size,
    shape: {
      ...shape,
      centreX: u / aspectThere,
      centreY: v,
      radiusX: shape.radiusX * size,
      radiusY: shape.radiusY * size,
      rotationDegrees: shape.rotationDegrees + (Math.atan2(rv - v, ru - u) * 180) / Math.PI,
    },
  }
}
export const settledRegion = <R extends Pick<Region, 'components'>>(region: R, frame: number): R => ({
  ...region,
  components: region.components.map((p) =>
    p.source.kind === 'shape' ? { ...p, source: settledAt(p.source, frame) } : p,
  ),
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
