// Cleaning a key's matte: each part has a size as a share of the frame's height, so that it means the same at every
// resolution.
import { blur, blurReach, guided, guidedReach, stretched, dilate, dilateReach, type Plane } from '../image'
import type { KeyPlanes } from './key'

export interface Cleaning {
  /** The picture is smoothed by this before the key reads it: noise is taken away where it arises. */
  readonly calm: number
  /** Islands narrower than twice this go. */
  readonly specks: number
  /** Holes narrower than twice this are filled. */
  readonly holes: number
  /** The matte becomes wider, or narrower below zero. */
  readonly grow: number
  /** The edge is drawn to the picture's own edges within this distance. */
  readonly follow: number
  readonly blur: number
  /** What lies at or below `low` becomes 0, at or above `high` 1. */
  readonly low: number
  readonly high: number
  /** The mean with so many frames before and after: what chatters settles. Not while a hand moves or the clip plays. */
  readonly steady: number
}

export const noCleaning: Cleaning = {
  calm: 0,
  specks: 0,
  holes: 0,
  grow: 0,
  follow: 0,
  blur: 0,
  low: 0,
  high: 1,
  steady: 0,
}
/** One press: what serves most keys of noisy footage. */
export const usualCleaning: Cleaning = {
  calm: 0.004,
  specks: 0.006,
  holes: 0.01,
  grow: 0,
  follow: 0.012,
  blur: 0.001,
  low: 0.1,
  high: 0.9,
  steady: 1,
}

export const cleaningBounds = {
  calm: { min: 0, max: 0.02 },
  specks: { min: 0, max: 0.03 },
  holes: { min: 0, max: 0.03 },
  grow: { min: -0.05, max: 0.05 },
  follow: { min: 0, max: 0.05 },
  blur: { min: 0, max: 0.1 },
  low: { min: 0, max: 1 },
  high: { min: 0, max: 1 },
  steady: { min: 0, max: 3 },
} as const
export type CleaningPart = keyof Cleaning
export const cleaningParts = Object.keys(noCleaning) as readonly CleaningPart[]

/** A variance of lightness under which the edge-aware part sees no edge. */
const flatVariance = 4e-4

/** Rows above and below that a cleaned row depends on. */
export function cleaningReach(
  { calm, specks, holes, grow, follow, blur: soft }: Cleaning,
  frameHeight: number,
): number {
  const rows =
    blurReach(calm * frameHeight) +
    2 * dilateReach(specks * frameHeight) +
    2 * dilateReach(holes * frameHeight) +
    dilateReach(grow * frameHeight) +
    guidedReach(follow * frameHeight) +
    blurReach(soft * frameHeight)
  return rows === 0 ? 0 : rows + 1
}

/** The picture as the key is to read it. */
export function calmed(planes: KeyPlanes, { calm }: Pick<Cleaning, 'calm'>, frameHeight: number): KeyPlanes {
  if (calm <= 0) return planes
  const known = calmKnown.get(planes)
  if (known?.by === calm * frameHeight) return known.planes
  const made = smoothed(planes, calm, frameHeight)
  calmKnown.set(planes, { by: calm * frameHeight, planes: made })
  return made
}

// While a range of the key is dragged, the picture it reads stays.
const calmKnown = new WeakMap<KeyPlanes, { readonly by: number; readonly planes: KeyPlanes }>()

function smoothed(planes: KeyPlanes, calm: number, frameHeight: number): KeyPlanes {
  const { width, height } = planes
  const of = (values: Float32Array): Float32Array => blur({ width, height, values }, calm * frameHeight).values
  return { width, height, l: of(planes.l), a: of(planes.a), b: of(planes.b) }
}

/** Cleans a matte in the order of Cleaning's parts; `guide` is the picture's lightness. */
export function cleaned(
  matte: Plane,
  guide: Plane,
  { specks, holes, grow, follow, blur: soft, low, high }: Cleaning,
  frameHeight: number,
): Plane {
  let plane = matte
  if (holes > 0) plane = dilate(dilate(plane, holes * frameHeight), -holes * frameHeight)
  if (specks > 0) plane = dilate(dilate(plane, -specks * frameHeight), specks * frameHeight)
  if (grow !== 0) plane = dilate(plane, grow * frameHeight)
  if (follow > 0) plane = guided(plane, guide, follow * frameHeight, flatVariance)
  if (soft > 0) plane = blur(plane, soft * frameHeight)
  return stretched(plane, low, high)
}
