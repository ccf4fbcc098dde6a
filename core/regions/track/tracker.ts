// Following a shape through a clip, frame by frame: points in it are followed, a plane motion is fitted to those that
// agree, and every point is compared with what it looked like where the shape was drawn, so that errors do not add up
// and what is hidden is known.
import { inverseMotion, motionAfter, moved, noMotion, type Homography } from '../homography'
import { numbersOf, type TrackKind } from '../tracks'
import { corners, type Point } from './features'
import { fitMotion, type Pair } from './fit'
import { follow, refine } from './lucas-kanade'
import { pyramidOf, type Level, type Pyramid } from './pyramid'

export interface TrackSettings {
  readonly kind: TrackKind
  /** One byte per pixel of the reference frame: not zero where points may be taken from. */
  readonly allowed: Uint8Array
}

export interface TrackedFrame {
  /** From the reference frame to this one, in height units. */
  readonly motion: Homography
  /** Share of the points in view that agree, 0..1. */
  readonly agreeing: number
  /** How far those miss, in shares of the frame's height. */
  readonly residual: number
}
/** Why a frame is not claimed: too few points agree, or none are left in view. */
export type TrackLoss = 'few' | 'gone'
export interface Tracker {
  readonly next: (frame: Level) => TrackedFrame | TrackLoss
}

const most = 90
/** A point that looks less like itself than this is hidden or changed. */
const alikeEnough = 0.72
/** Pixels (of a frame 540 high) within which points agree. */
const tolerance = 1.3
/** Fewer agreeing points, or a smaller share of those in view, are not believed. */
const leastPoints = 7
const leastShare = 0.34

/** Prepares following what is allowed of a reference frame. Null where it holds too little to follow. */
export function startTracker(reference: Level, { kind, allowed }: TrackSettings): Tracker | null {
  const unit = reference.height / 540
  const first = pyramidOf(reference)
  const points = corners(first.levels[0], allowed, most, Math.max(5, 9 * unit))
  if (points.length < leastPoints) return null
  let last: Pyramid = first
  let motion: Homography = noMotion
  let step: Homography = noMotion
  return {
    next: (level) => {
      const now = pyramidOf(level)
      const inView = points.filter((p) => {
        const [x, y] = moved(motion, p.x, p.y)
        return inside(x, y, level, 8)
      })
      if (inView.length < leastPoints) return 'gone'
      const guess = stepOf(last, now, motion, inView, step, kind, unit) ?? motionAfter(step, motion)
      const found = against(first, now, inView, guess, kind, unit)
      if (!found) return 'few'
      step = motionAfter(found.motion, inverseMotion(motion))
      motion = found.motion
      last = now
      return {
        motion: inHeights(found.motion, reference.height),
        agreeing: found.agreeing,
        residual: found.residual / reference.height,
      }
    },
  }
}

const inside = (x: number, y: number, { width, height }: Level, margin: number): boolean =>
  x >= margin && y >= margin && x < width - margin && y < height - margin

/**
 * The motion of this frame by what moved since the last: points are followed and back again, and those that come home
 * are fitted.
 */
function stepOf(
  last: Pyramid,
  now: Pyramid,
  motion: Homography,
  points: readonly Point[],
  step: Homography,
  kind: TrackKind,
  unit: number,
): Homography | null {
  // Half the size is fine enough for a guess: what it comes to is found against the first frame.
  const pairs: Pair[] = []
  const finest = Math.min(1, now.levels.length - 1)
  for (const p of points) {
    const [x, y] = moved(motion, p.x, p.y)
    const [gx, gy] = moved(step, x, y)
    const at = { x, y }
    const there = follow(last, now, at, { x: gx, y: gy }, finest)
    if (!there || there.alike < 0.6) continue
    const back = follow(now, last, there, at, finest)
    if (!back || Math.hypot(back.x - x, back.y - y) > 0.7 * unit) continue
    pairs.push({ from: p, to: there })
  }
  return fitMotion(kind, pairs, 2 * tolerance * unit)?.motion ?? null
}

/**
 * The same by what every point looked like at first, from a guess on: twice, as the first fit makes the second's
 * windows truer.
 */
function against(
  first: Pyramid,
  now: Pyramid,
  points: readonly Point[],
  guess: Homography,
  kind: TrackKind,
  unit: number,
): { readonly motion: Homography; readonly agreeing: number; readonly residual: number } | null {
  let motion = guess
  let result: { readonly motion: Homography; readonly agreeing: number; readonly residual: number } | null = null
  for (let pass = 0; pass < 2; pass++) {
    const back = inverseMotion(motion)
    const pairs: Pair[] = []
    let seen = 0
    for (const p of points) {
      const [x, y] = moved(motion, p.x, p.y)
      if (!inside(x, y, now.levels[0], 8)) continue
      seen++
      const match = refine(first.levels[0], now.levels[0], p, motion, back)
      if (match && match.alike >= alikeEnough) pairs.push({ from: p, to: match })
    }
    const fit = fitMotion(kind, pairs, (pass === 0 ? 2 : 1) * tolerance * unit)
    if (!fit || fit.inliers.length < leastPoints || fit.inliers.length < leastShare * seen) return null
    motion = fit.motion
    result = { motion, agreeing: fit.inliers.length / seen, residual: fit.residual }
  }
  return result
}

/** A motion of pixels (centres at whole numbers) as one of height units. */
function inHeights(m: Homography, height: number): Homography {
  const toPixels: Homography = [height, 0, -0.5, 0, height, -0.5, 0, 0, 1]
  const back: Homography = [1 / height, 0, 0.5 / height, 0, 1 / height, 0.5 / height, 0, 0, 1]
  const whole = motionAfter(back, motionAfter(m, toPixels))
  return whole.map((n) => n / whole[8]) as unknown as Homography
}

/** A frame's numbers as a track keeps them: rounded to what no eye sees. */
export const trackNumbers = (kind: TrackKind, motion: Homography): readonly number[] =>
  numbersOf(kind, motion).map((v) => Math.round(v * 1e6) / 1e6)
