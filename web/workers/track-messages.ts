// What the page and the tracking worker say to each other.
import type { Homography, ShownShape, TrackKind } from '@core/regions'
import type { ProxyFacts } from '@contracts/responses'
import type { Medium } from './messages'

export interface TrackRequest {
  readonly ask: 'track'
  readonly id: number
  readonly medium: Medium & { readonly proxy: ProxyFacts }
  /** The frame it begins at, and what has moved there already since the track's reference frame. */
  readonly from: number
  readonly motion: Homography
  /** The shape as it lies at that frame. */
  readonly shape: ShownShape
  readonly kind: TrackKind
  /** Frames to follow it through, in order. */
  readonly frames: readonly number[]
  /** Parts of the picture (shares of it, radius of its height) that no point is taken from. */
  readonly excluded: readonly { readonly x: number; readonly y: number; readonly radius: number }[]
}
export type TrackOrder = TrackRequest | { readonly ask: 'stop' }

/** Frames followed since the last answer: the numbers of the kind, and two of quality for each. */
export interface TrackAnswer {
  readonly id: number
  readonly frames: readonly number[]
  readonly values: readonly (readonly number[])[]
  readonly quality: readonly (readonly [number, number])[]
  readonly done: boolean
  /** Why it ended before the last frame; empty where it did not. */
  readonly why: string
  readonly framesPerSecond: number
}
