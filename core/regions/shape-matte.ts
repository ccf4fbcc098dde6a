// Long: the distance to each kind of shape, side by side: each is short, and they share their edge.
// A shape's matte: 1 inside, 0 outside, with an inner and an outer soft edge; at one place, or for rows of a frame.
import { clamp } from '../numbers'
import { onSteps } from '../image'
import { inverseMotion, moved, noMotion, scaleAt, type Homography } from './homography'
import { freshRoom, type MatteRoom } from './matte-room'
import { centreOf, isTurned, outlineOf, type Shape, type TurnedShape } from './shape'

/** A shape as it lies in one frame. */
export interface PlacedShape {
  readonly shape: Shape
  /** How far inside and outside the line the edge reaches, as shares of the frame's height. */
  readonly inner: number
  readonly outer: number
  /** Where it was moved to since it was drawn, in height units. */
  readonly placed?: Homography
}

const smooth = (t: number): number => {
  if (t <= 0) return 0
  if (t >= 1) return 1
  return t * t * (3 - 2 * t)
}

interface Edge {
  readonly inner: number
  readonly width: number
}

/** The soft edge in height units; a hard edge is still one pixel wide, so that it is smooth on screen. */
function edgeOf({ inner, outer }: PlacedShape, scale: number, frameHeight: number): Edge {
  const lacking = Math.max(0, 1 / frameHeight - (inner + outer) * scale) / 2
  return { inner: inner * scale + lacking, width: (inner + outer) * scale + 2 * lacking }
}

/** A function from a place (x, y as shares of the frame) to the matte there. `aspect` is width / height. */
export function shapeMatteAt(
  placed: PlacedShape,
  aspect: number,
  frameHeight: number,
): (x: number, y: number) => number {
  const { shape } = placed
  const back = placed.placed ? inverseMotion(placed.placed) : null
  const scale = scaleOf(placed, aspect)
  // Where the shape's own plane is asked, the edge is measured there too.
  const at = valueIn(shape, aspect, edgeOf(placed, 1, frameHeight * scale))
  return (x, y) => {
    if (!back) return onSteps(at(x * aspect, y))
    const [u, v] = moved(back, x * aspect, y)
    return onSteps(at(u, v))
  }
}

const scaleOf = ({ shape, placed }: PlacedShape, aspect: number): number => {
  if (!placed) return 1
  const { x, y } = centreOf(shape)
  return Math.min(1e3, Math.max(1e-3, scaleAt(placed, x * aspect, y) || 1))
}

function valueIn(shape: Shape, aspect: number, edge: Edge): (u: number, v: number) => number {
  if (shape.kind === 'linear') {
    const fu = shape.fromX * aspect
    const du = shape.toX * aspect - fu
    const dv = shape.toY - shape.fromY
    const long = Math.max(1e-9, du * du + dv * dv)
    return (u, v) => 1 - smooth(((u - fu) * du + (v - shape.fromY) * dv) / long)
  }
  if (shape.kind === 'polygon' || shape.kind === 'path') {
    const outline = outlineOf(shape, aspect)
    return (u, v) => edgeValue(outlineDistance(outline, u, v), edge)
  }
  return turnedValue(shape, aspect, edge)
}

/** The matte at a signed distance from the line, inside negative. */
const edgeValue = (distance: number, { inner, width }: Edge): number => 1 - smooth((distance + inner) / width)

function turnedValue(shape: TurnedShape, aspect: number, edge: Edge): (u: number, v: number) => number {
  const { radiusX, radiusY, rotationDegrees, centreY } = shape
  const cu = shape.centreX * aspect
  const angle = (rotationDegrees * Math.PI) / 180
  const cos = Math.cos(angle)
  const sin = Math.sin(angle)
  const least = Math.min(radiusX, radiusY)
  if (shape.kind === 'rectangle') {
    const round = shape.corner * least
    const hx = radiusX - round
    const hy = radiusY - round
    return (u, v) => {
      const du = u - cu
      const dv = v - centreY
      const x = Math.abs(du * cos + dv * sin) - hx
      const y = Math.abs(dv * cos - du * sin) - hy
      return edgeValue(Math.hypot(Math.max(x, 0), Math.max(y, 0)) + Math.min(Math.max(x, y), 0) - round, edge)
    }
  }
  const ax = cos / radiusX
  const ay = sin / radiusX
  const bx = -sin / radiusY
  const by = cos / radiusY
  const distance = (u: number, v: number): number => {
    const du = u - cu
    const dv = v - centreY
    const x = du * ax + dv * ay
    const y = du * bx + dv * by
    return Math.sqrt(x * x + y * y)
  }
  if (shape.kind === 'radial')
    return (u, v) => 1 - smooth((distance(u, v) - shape.core) / Math.max(1e-6, 1 - shape.core))
  return (u, v) => edgeValue((distance(u, v) - 1) * least, edge)
}

/** Signed distance to a closed outline (even-odd), inside negative. */
function outlineDistance(outline: readonly (readonly [number, number])[], u: number, v: number): number {
  let nearest = Infinity
  let inside = false
  for (let i = 0, j = outline.length - 1; i < outline.length; j = i++) {
    const [ax, ay] = outline[j]
    const [bx, by] = outline[i]
    nearest = Math.min(nearest, segmentDistance2(ax, ay, bx, by, u, v))
    if (ay > v !== by > v && u < ((bx - ax) * (v - ay)) / (by - ay) + ax) inside = !inside
  }
  return Math.sqrt(nearest) * (inside ? -1 : 1)
}

function segmentDistance2(ax: number, ay: number, bx: number, by: number, u: number, v: number): number {
  const dx = bx - ax
  const dy = by - ay
  const long = dx * dx + dy * dy
  const t = long > 0 ? Math.min(1, Math.max(0, ((u - ax) * dx + (v - ay) * dy) / long)) : 0
  const ex = u - ax - t * dx
  const ey = v - ay - t * dy
  return ex * ex + ey * ey
}

/** A shape's matte for a frame's rows `fromRow` up to, not including, `toRow`: one value per pixel at pixel centres. */
export function renderShape(
  placed: PlacedShape,
  width: number,
  height: number,
  fromRow = 0,
  toRow = height,
  room: MatteRoom = freshRoom,
): Float32Array {
  const { shape } = placed
  if (shape.kind === 'polygon' || shape.kind === 'path')
    return renderOutline(placed, width, height, fromRow, toRow, room)
  const matte = room.take(width * (toRow - fromRow))
  const aspect = width / height
  const { left, right, top, bottom } = reachOf(placed, width, height, fromRow, toRow)
  if (fillRound(placed, matte, width, height, fromRow, left, right, top, bottom)) return matte
  const at = shapeMatteAt(placed, aspect, height)
  for (let y = top; y < bottom; y++) {
    const v = (y + 0.5) / height
    for (let x = left, i = (y - fromRow) * width + left; x < right; x++, i++) matte[i] = at((x + 0.5) / width, v)
  }
  return matte
}

/**
 * Round shapes whose plane is not seen at an angle: along a row everything changes evenly, and only the soft edge takes
 * a root. False for others.
 */
function fillRound(
  placed: PlacedShape,
  matte: Float32Array,
  width: number,
  height: number,
  fromRow: number,
  left: number,
  right: number,
  top: number,
  bottom: number,
): boolean {
  const { shape } = placed
  const m = placed.placed ? inverseMotion(placed.placed) : noMotion
  if ((shape.kind !== 'ellipse' && shape.kind !== 'radial') || m[6] !== 0 || m[7] !== 0) return false
  const { radiusX, radiusY, rotationDegrees, centreX, centreY } = shape
  const aspect = width / height
  const angle = (rotationDegrees * Math.PI) / 180
  const cos = Math.cos(angle)
  const sin = Math.sin(angle)
  const least = Math.min(radiusX, radiusY)
  const edge = edgeOf(placed, 1, height * scaleOf(placed, aspect))
  const start = shape.kind === 'radial' ? shape.core : 1 - edge.inner / least
  const span = shape.kind === 'radial' ? Math.max(1e-6, 1 - shape.core) : edge.width / least
  const whole = start > 0 ? start * start : -1
  const none = (start + span) ** 2
  // A place's two coordinates on the shape's own axes, in radii, as straight functions of the pixel.
  const ax = (m[0] * cos + m[3] * sin) / radiusX / height
  const ay = (m[1] * cos + m[4] * sin) / radiusX / height
  const a0 = ((m[2] - centreX * aspect) * cos + (m[5] - centreY) * sin) / radiusX
  const bx = (m[3] * cos - m[0] * sin) / radiusY / height
  const by = (m[4] * cos - m[1] * sin) / radiusY / height
  const b0 = ((m[5] - centreY) * cos - (m[2] - centreX * aspect) * sin) / radiusY
  const curved = ax * ax + bx * bx
  const line: RoundEdge = { ax, bx, none, whole, start, span }
  for (let y = top; y < bottom; y++) {
    const row = (y - fromRow) * width
    const p = a0 + ax * (left + 0.5) + ay * (y + 0.5)
    const q = b0 + bx * (left + 0.5) + by * (y + 0.5)
    const slope = p * ax + q * bx
    const foot = p * p + q * q
    // Along a row the square of the distance is a parabola: where it crosses a limit, from the row's left end.
    const reach = slope * slope - curved * (foot - none)
    if (reach <= 0) continue
    const middle = left - slope / curved
    const half = Math.sqrt(reach) / curved
    const kept = slope * slope - curved * (foot - whole)
    const core = kept > 0 ? Math.sqrt(kept) / curved : -1
    // The limits are taken a pixel wider, and those pixels asked one by one.
    const first = Math.max(left, Math.floor(middle - half))
    const last = Math.min(right, Math.ceil(middle + half) + 1)
    const within = Math.max(first, Math.ceil(middle - core) + 1)
    const beyond = Math.min(last, Math.floor(middle + core))
    if (beyond <= within) softRun(matte, row, first, last, p - ax * left, q - bx * left, line)
    else {
      softRun(matte, row, first, within, p - ax * left, q - bx * left, line)
      matte.fill(1, row + within, row + beyond)
      softRun(matte, row, beyond, last, p - ax * left, q - bx * left, line)
    }
  }
  return true
}

/**
 * A round shape's edge along a row: how its own coordinates change from pixel to pixel, and between which radii
 * (squared, and as they are) it goes from one to zero.
 */
interface RoundEdge {
  readonly ax: number
  readonly bx: number
  readonly none: number
  readonly whole: number
  readonly start: number
  readonly span: number
}

/** Pixels `from` up to, not including, `to` of a row; p and q are the coordinates at its first pixel. */
function softRun(
  matte: Float32Array,
  row: number,
  from: number,
  to: number,
  p: number,
  q: number,
  { ax, bx, none, whole, start, span }: RoundEdge,
): void {
  const per = 1 / span
  for (let x = from; x < to; x++) {
    const u = p + ax * x
    const v = q + bx * x
    const d = u * u + v * v
    if (d >= none) continue
    if (d <= whole) matte[row + x] = 1
    else {
      const t = (Math.sqrt(d) - start) * per
      matte[row + x] = (((1 - t * t * (3 - 2 * t)) * 65536 + 0.5) | 0) * (1 / 65536)
    }
  }
}

/** The rows, of some, that a shape can touch; all of them where it is not a round or four-sided one. */
export const rowsReached = (
  placed: PlacedShape,
  width: number,
  height: number,
  fromRow: number,
  toRow: number,
): { readonly top: number; readonly bottom: number } => reachOf(placed, width, height, fromRow, toRow)

/** The pixels that a shape can touch. */
function reachOf(
  placed: PlacedShape,
  width: number,
  height: number,
  fromRow: number,
  toRow: number,
): { left: number; right: number; top: number; bottom: number } {
  const { shape } = placed
  const all = { left: 0, right: width, top: fromRow, bottom: toRow }
  if (!isTurned(shape)) return all
  const aspect = width / height
  const soft = 1 + (placed.outer + 2 / height) / Math.min(shape.radiusX, shape.radiusY)
  const places = outlineOf(
    { ...shape, kind: 'rectangle', corner: 0, radiusX: shape.radiusX * soft, radiusY: shape.radiusY * soft },
    aspect,
  )
  const m = placed.placed
  if (m && places.some(([x, y]) => m[6] * x + m[7] * y + m[8] < 1e-3)) return all
  const corners = m ? places.map(([x, y]) => moved(m, x, y)) : places
  const us = corners.map(([u]) => u * height)
  const vs = corners.map(([, v]) => v * height)
  return {
    left: clamp(Math.floor(Math.min(...us)), 0, width),
    right: clamp(Math.ceil(Math.max(...us)), 0, width),
    top: clamp(Math.floor(Math.min(...vs)), fromRow, toRow),
    bottom: clamp(Math.ceil(Math.max(...vs)), fromRow, toRow),
  }
}

/** Outlines of many components: distances are only worked out near the line, what lies inside is filled row by row. */
function renderOutline(
  placed: PlacedShape,
  width: number,
  height: number,
  fromRow: number,
  toRow: number,
  room: MatteRoom,
): Float32Array {
  const aspect = width / height
  const { placed: motion } = placed
  const outline = outlineOf(placed.shape, aspect).map(([u, v]) => {
    const [x, y] = motion ? moved(motion, u, v) : [u, v]
    return [x * height, y * height] as const
  })
  const near = edgeOf(placed, scaleOf(placed, aspect), height)
  const edge: Edge = { inner: near.inner * height, width: near.width * height }
  const reach = Math.max(edge.inner, edge.width - edge.inner) + 1
  const matte = room.take(width * (toRow - fromRow))
  const distances = room.take(matte.length).fill(Infinity)
  const crossings: number[][] = Array.from({ length: toRow - fromRow }, () => [])
  for (let i = 0, j = outline.length - 1; i < outline.length; j = i++) {
    const [ax, ay] = outline[j]
    const [bx, by] = outline[i]
    const top = Math.max(fromRow, Math.floor(Math.min(ay, by) - reach))
    const bottom = Math.min(toRow, Math.ceil(Math.max(ay, by) + reach))
    const left = Math.max(0, Math.floor(Math.min(ax, bx) - reach))
    const right = Math.min(width, Math.ceil(Math.max(ax, bx) + reach))
    for (let y = top; y < bottom; y++) {
      const v = y + 0.5
      if (ay > v !== by > v) crossings[y - fromRow].push(((bx - ax) * (v - ay)) / (by - ay) + ax)
      for (let x = left, at = (y - fromRow) * width + left; x < right; x++, at++) {
        const d = segmentDistance2(ax, ay, bx, by, x + 0.5, v)
        if (d < distances[at]) distances[at] = d
      }
    }
  }
  crossings.forEach((xs, row) => {
    xs.sort((a, b) => a - b)
    for (let k = 0; k + 1 < xs.length; k += 2) {
      const from = Math.max(0, Math.ceil(xs[k] - 0.5))
      const to = Math.min(width, Math.ceil(xs[k + 1] - 0.5))
      for (let x = from; x < to; x++) matte[row * width + x] = 1
    }
  })
  for (let i = 0; i < matte.length; i++) {
    const d = distances[i]
    if (d !== Infinity) matte[i] = onSteps(edgeValue(matte[i] === 1 ? -Math.sqrt(d) : Math.sqrt(d), edge))
  }
  room.give(distances)
  return matte
}
