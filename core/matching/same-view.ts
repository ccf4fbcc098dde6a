// Whether two pictures show the same things from nearly the same place, and how one is laid on the other. Told by the
// shapes of light alone, so that neither exposure nor white balance, contrast or camera matters.
import { fitMotion, corners, type Level } from '../regions/track'
import { moved, type Homography } from '../regions/homography'
import { workingLuminance } from '../colour'
import type { LightPicture } from './light'

export interface SameView {
  /** From pixels of the first picture to pixels of the second. */
  readonly motion: Homography
  /** Share of the textured places both hold that look alike: 0..1. */
  readonly agreement: number
}

/** Corners are looked for on pictures of this width. */
const searchedWidth = 320
const sizes = [0.5, 0.6, 0.71, 0.84, 1, 1.19, 1.41, 1.68, 2] as const
const mostCorners = 400
const apart = 5
/** A corner is told by its surroundings: so many samples a side, so many pixels from each other. */
const side = 9
const spacing = 2
/** How alike two surroundings must be (correlation), and how much more alike than the next best. */
const leastAlike = 0.7
const leastLead = 0.03
const tolerance = 2.5
const leastCorners = 7
/** Random choices of pairs are begun anew: few of them may be right. */
const seeds = [1, 2, 3, 4] as const
/** Of the textured places in both, so many must look alike. */
const leastAgreement = 0.5

interface Described {
  readonly x: number
  readonly y: number
  readonly values: Float32Array
}

/** Null where they show different things, or too little of the same. */
export function sameView(first: LightPicture, second: LightPicture): SameView | null {
  const a = resized(logLuminance(first), searchedWidth / first.width)
  const here = describe(a)
  const whole = logLuminance(second)
  const base = searchedWidth / second.width
  let best: { readonly motion: Homography; readonly count: number; readonly scale: number } | null = null
  for (const size of sizes) {
    const scale = base * size
    const b = resized(whole, scale)
    const pairs = pairsOf(here, describe(b))
    for (const seed of seeds) {
      const fit = fitMotion('similarity', pairs, tolerance, seed)
      if (fit && fit.inliers.length > (best?.count ?? leastCorners - 1))
        best = { motion: fit.motion, count: fit.inliers.length, scale }
    }
  }
  if (!best) return null
  const { motion: found, scale } = best
  const fromFirst = searchedWidth / first.width
  // The fit runs between the two searched sizes; it is wanted between the pictures.
  const motion: Homography = [
    (found[0] * fromFirst) / scale,
    (found[1] * fromFirst) / scale,
    found[2] / scale,
    (found[3] * fromFirst) / scale,
    (found[4] * fromFirst) / scale,
    found[5] / scale,
    0,
    0,
    1,
  ]
  const agreement = agreementOf(logLuminance(first), whole, motion)
  return agreement >= leastAgreement ? { motion, agreement } : null
}

/** Stops of light, as shapes are told by. */
export function logLuminance({ width, height, light }: LightPicture): Level {
  const [r, g, b] = workingLuminance
  const values = new Float32Array(width * height)
  for (let p = 0, i = 0; p < values.length; p++, i += 3)
    values[p] = Math.log2(Math.max(r * light[i] + g * light[i + 1] + b * light[i + 2], 0) + 0.002)
  return { width, height, values }
}

/** By area where it becomes smaller, between pixels where it becomes larger. */
function resized(level: Level, scale: number): Level {
  const width = Math.max(24, Math.round(level.width * scale))
  const height = Math.max(24, Math.round(level.height * scale))
  const values = new Float32Array(width * height)
  const stepX = level.width / width
  const stepY = level.height / height
  const samples = Math.max(1, Math.ceil(Math.max(stepX, stepY)))
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let sum = 0
      for (let v = 0; v < samples; v++)
        for (let u = 0; u < samples; u++)
          sum += sampled(level, (x + (u + 0.5) / samples) * stepX - 0.5, (y + (v + 0.5) / samples) * stepY - 0.5)
      values[y * width + x] = sum / (samples * samples)
    }
  return { width, height, values }
}

function sampled({ width, height, values }: Level, x: number, y: number): number {
  const px = Math.min(Math.max(x, 0), width - 1.001)
  const py = Math.min(Math.max(y, 0), height - 1.001)
  const ix = Math.floor(px)
  const iy = Math.floor(py)
  const fx = px - ix
  const fy = py - iy
  const i = iy * width + ix
  return (
    (values[i] * (1 - fx) + values[i + 1] * fx) * (1 - fy) +
    (values[i + width] * (1 - fx) + values[i + width + 1] * fx) * fy
  )
}

function describe(level: Level): readonly Described[] {
  const found = corners(level, new Uint8Array(level.values.length).fill(1), mostCorners, apart)
  return found.flatMap(({ x, y }) => {
    const values = surroundings(level, x, y, spacing)
    return values ? [{ x, y, values }] : []
  })
}

/** Brought to mean 0 and length 1; null where nothing is to be seen. */
function surroundings(level: Level, x: number, y: number, step: number): Float32Array | null {
  const values = new Float32Array(side * side)
  const half = (side - 1) / 2
  let sum = 0
  for (let v = 0; v < side; v++)
    for (let u = 0; u < side; u++)
      sum += values[v * side + u] = sampled(level, x + (u - half) * step, y + (v - half) * step)
  const mean = sum / values.length
  let squares = 0
  for (let i = 0; i < values.length; i++) squares += (values[i] -= mean) ** 2
  const length = Math.sqrt(squares)
  if (length < 0.15) return null
  for (let i = 0; i < values.length; i++) values[i] /= length
  return values
}

const alike = (a: Float32Array, b: Float32Array): number => {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i]
  return sum
}

/** Corners that are each other's best, and clearly so. */
function pairsOf(
  here: readonly Described[],
  there: readonly Described[],
): { from: { x: number; y: number }; to: { x: number; y: number } }[] {
  const bestOfThere = new Map<Described, { readonly of: Described; readonly alike: number }>()
  const chosen = here.map((of) => {
    let best: Described | null = null
    let most = -1
    let next = -1
    for (const other of there) {
      const now = alike(of.values, other.values)
      if (now > (bestOfThere.get(other)?.alike ?? -1)) bestOfThere.set(other, { of, alike: now })
      if (now > most) {
        next = most
        most = now
        best = other
      } else if (now > next) next = now
    }
    return { of, best, most, next }
  })
  return chosen.flatMap(({ of, best, most, next }) =>
    best && most >= leastAlike && most - next >= leastLead && bestOfThere.get(best)?.of === of
      ? [{ from: { x: of.x, y: of.y }, to: { x: best.x, y: best.y } }]
      : [],
  )
}

/** Share of the places with something to see, in both pictures, that look alike when one is laid on the other. */
function agreementOf(first: Level, second: Level, motion: Homography): number {
  const grow = Math.hypot(motion[0], motion[3])
  const step = first.width / 120
  let seen = 0
  let agreeing = 0
  const stride = first.width / 24
  for (let y = stride; y < first.height - stride; y += stride)
    for (let x = stride; x < first.width - stride; x += stride) {
      const [tx, ty] = moved(motion, x, y)
      if (tx < stride || ty < stride || tx > second.width - stride || ty > second.height - stride) continue
      const here = surroundings(first, x, y, step)
      const there = surroundings(second, tx, ty, step * grow)
      if (!here && !there) continue
      seen++
      if (here && there && alike(here, there) > 0.6) agreeing++
    }
  return seen < 12 ? 0 : agreeing / seen
}
