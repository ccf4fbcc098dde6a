// Following a point from one picture to another: the small window about it is brought over its match, coarse to fine
// (Lucas and Kanade, 1981; Bouguet: Pyramidal Implementation of the Lucas Kanade Feature Tracker, 2000). Windows are
// compared after their means and contrasts are made equal, so that a change of exposure does not lead away.
import { clamp } from '../../numbers'
import { moved, type Homography } from '../homography'
import type { Point } from './features'
import type { Level, Pyramid } from './pyramid'

const radius = 7
const side = 2 * radius + 1
const count = side * side
const template = new Float32Array(count)
const gradX = new Float32Array(count)
const gradY = new Float32Array(count)
const sampled = new Float32Array(count)

/** Straight between pixels; held at the edges. */
function sample({ width, height, values }: Level, x: number, y: number): number {
  const cx = clamp(x, 0, width - 1.001)
  const cy = clamp(y, 0, height - 1.001)
  const x0 = cx | 0
  const y0 = cy | 0
  const fx = cx - x0
  const fy = cy - y0
  const i = y0 * width + x0
  const a = values[i]
  const b = values[i + 1]
  const c = values[i + width]
  const d = values[i + width + 1]
  return a + (b - a) * fx + (c - a + (a - b - c + d) * fx) * fy
}

/** A window cut along whole steps: faster than place by place. */
function cutStraight(level: Level, x: number, y: number, into: Float32Array): void {
  const { width, height, values } = level
  const left = Math.floor(x) - radius
  const top = Math.floor(y) - radius
  if (left < 0 || top < 0 || left + side + 1 > width || top + side + 1 > height) {
    for (let v = 0, n = 0; v < side; v++)
      for (let u = 0; u < side; u++, n++) into[n] = sample(level, x + u - radius, y + v - radius)
    return
  }
  const fx = x - Math.floor(x)
  const fy = y - Math.floor(y)
  const wa = (1 - fx) * (1 - fy)
  const wb = fx * (1 - fy)
  const wc = (1 - fx) * fy
  const wd = fx * fy
  for (let v = 0, n = 0; v < side; v++)
    for (let u = 0, i = (top + v) * width + left; u < side; u++, n++, i++)
      into[n] = wa * values[i] + wb * values[i + 1] + wc * values[i + width] + wd * values[i + width + 1]
}

/** The mean is taken out; returns the deviation. */
function centred(window: Float32Array): number {
  let sum = 0
  let squares = 0
  for (let n = 0; n < count; n++) sum += window[n]
  const mean = sum / count
  for (let n = 0; n < count; n++) {
    const v = window[n] - mean
    window[n] = v
    squares += v * v
  }
  return Math.sqrt(squares / count)
}

export interface Match {
  readonly x: number
  readonly y: number
  /** How alike the windows are, −1..1. */ readonly alike: number
}

/** The template's slope at entry `n`, `place` entries of `stride` from the window's first; one-sided at its ends. */
function slopeAt(place: number, n: number, stride: number): number {
  if (place === 0) return template[n + stride] - template[n]
  if (place === side - 1) return template[n] - template[n - stride]
  return (template[n + stride] - template[n - stride]) / 2
}

/** Fills the gradients of the template in hand. */
function gradients(): { xx: number; xy: number; yy: number } {
  let xx = 0
  let xy = 0
  let yy = 0
  for (let v = 0, n = 0; v < side; v++)
    for (let u = 0; u < side; u++, n++) {
      const gx = slopeAt(u, n, 1)
      const gy = slopeAt(v, n, side)
      gradX[n] = gx
      gradY[n] = gy
      xx += gx * gx
      xy += gx * gy
      yy += gy * gy
    }
  return { xx, xy, yy }
}

/**
 * Brings the template in hand over its match near (x, y) of a level; null where it has too little structure or runs
 * away.
 */
function settle(
  level: Level,
  x: number,
  y: number,
  deviation: number,
  iterations: number,
  reach: number,
): Match | null {
  const { xx, xy, yy } = gradients()
  const determinant = xx * yy - xy * xy
  if (deviation < 1e-6 || determinant < 1e-9 * (xx + yy) ** 2 + 1e-20) return null
  let u = x
  let v = y
  let alike = -1
  for (let k = 0; k < iterations; k++) {
    cutStraight(level, u, v, sampled)
    const own = centred(sampled)
    if (own < 1e-9) return null
    const gain = deviation / own
    let ex = 0
    let ey = 0
    let product = 0
    for (let n = 0; n < count; n++) {
      const d = template[n] - sampled[n] * gain
      ex += d * gradX[n]
      ey += d * gradY[n]
      product += template[n] * sampled[n]
    }
    alike = product / (count * deviation * own)
    const dx = (yy * ex - xy * ey) / determinant
    const dy = (xx * ey - xy * ex) / determinant
    u += dx
    v += dy
    if (!(Math.abs(u - x) < reach && Math.abs(v - y) < reach)) return null
    if (dx * dx + dy * dy < 4e-4) break
  }
  return { x: u, y: v, alike }
}

/**
 * Where a point of one picture went in another, from a guess on, down to a level of the pyramids: 0 is the finest. Null
 * where it is lost.
 */
export function follow(from: Pyramid, to: Pyramid, point: Point, guess: Point, finest: number): Match | null {
  let x = guess.x
  let y = guess.y
  let match: Match | null = null
  for (let n = Math.min(from.levels.length, to.levels.length) - 1; n >= finest; n--) {
    const scale = 2 ** -n
    const a = from.levels[n]
    const b = to.levels[n]
    cutStraight(a, point.x * scale, point.y * scale, template)
    match = settle(b, x * scale, y * scale, centred(template), n === finest ? 6 : 4, n === finest ? 4 : 10)
    // A coarse level without structure says nothing; the last must.
    if (match) {
      x = match.x / scale
      y = match.y / scale
    } else if (n === finest) return null
  }
  return match && { ...match, x, y }
}

/**
 * A point of a picture in another one that is known to have moved by `motion` (pixels to pixels): the window is moved
 * along first, then brought over its match.
 */
export function refine(from: Level, to: Level, point: Point, motion: Homography, back: Homography): Match | null {
  const [x, y] = moved(motion, point.x, point.y)
  for (let v = -radius, n = 0; v <= radius; v++)
    for (let u = -radius; u <= radius; u++, n++) {
      const [px, py] = moved(back, x + u, y + v)
      template[n] = sample(from, px, py)
    }
  return settle(to, x, y, centred(template), 8, 4)
}
