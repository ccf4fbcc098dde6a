// Where in a clip a guess looks.
import { clamp } from '../numbers'
import type { Frame } from '../image'

/**
 * A place of a clip: a frame and, where there is one, the frame right after it. A still picture is one sight without a
 * next frame.
 */
export interface Sight {
  readonly frame: Frame
  readonly next?: Frame
}

/** The number of a frame, and whether the one after it is looked at too. */
export interface LookedPlace {
  readonly index: number
  readonly count: 1 | 2
}

const mostPlaces = 3
/**
 * Pixels that are looked at in all, so that memory stays bounded: three places of high definition, one of larger
 * pictures.
 */
const mostPixels = 8e6

export interface MediumToLook {
  readonly frameCount: number
  readonly width: number
  readonly height: number
  /** Frames that stand alone: there the decoder need not begin far before. */
  readonly keyFrames?: readonly number[]
}

/**
 * Up to three places spread over a clip, each at a frame that stands alone where there is one near. `chosen` stands for
 * the one that lies nearest to it.
 */
export function placesToLook(
  { frameCount, width, height, keyFrames = [] }: MediumToLook,
  chosen?: number,
): readonly LookedPlace[] {
  const last = Math.max(0, frameCount - 2)
  const many = Math.min(mostPlaces, last + 1, Math.max(1, Math.floor(mostPixels / (width * height))))
  const alone = keyFrames.filter((k) => k <= last)
  const places = Array.from({ length: many }, (_, n) => {
    const even = Math.round((last * (2 * n + 1)) / (2 * many))
    const near = nearestOf(even, alone)
    return Math.abs(near - even) <= last / many / 3 ? near : even
  })
  if (chosen !== undefined) {
    const wanted = clamp(chosen, 0, Math.max(0, frameCount - 1))
    places[places.indexOf(nearestOf(wanted, places))] = wanted
  }
  return [...new Set(places)].map((index) => ({ index, count: index + 1 < frameCount ? 2 : 1 }))
}

const nearestOf = (wanted: number, choice: readonly number[]): number =>
  choice.reduce((best, k) => (Math.abs(k - wanted) < Math.abs(best - wanted) ? k : best), choice[0] ?? wanted)
