// What the Bench and its worker say to each other.
import type { Rate } from '@core/footage'
import type { DifferenceReport, GradeDocument, LatticeSize, StationId } from '@core/grade'
import type { CodeRange } from '@core/image'
import type {
  Distribution,
  InstrumentId,
  InstrumentSettings,
  Meridian,
  OverlaySettings,
  Part,
  TraceImage,
} from '@core/instruments'
import type { MatteFacts, MatteViewId } from '@core/regions'
import type { ProxyFacts } from '@contracts/responses'
import type { PlayCounts, PlayPlan } from './player'

/** The footage of a shot, as far as a worker must know it. */
export interface Medium {
  readonly hash: string
  readonly rate: Rate
  readonly proxy: ProxyFacts | null
  /** The shot's first and last frame in it. */ readonly span: { readonly first: number; readonly last: number }
}

/** How the instruments and the picture are looked at. It changes nothing of the picture that is graded or measured. */
export interface Viewing {
  readonly instruments: InstrumentSettings
  /** Only what can be seen is counted and painted. */
  readonly visible: readonly InstrumentId[]
  /** The station after which the instruments look; "finish" is the picture. */
  readonly tap: StationId
  readonly part: Part | null
  /** What the Meridian follows beside the whole picture: the part, else a subject. */
  readonly follow: Part | null
  readonly overlay: OverlaySettings | null
  /** A region's matte that is looked at instead of the picture. */
  readonly matte: { readonly regionId: string; readonly view: MatteViewId } | null
  /** A held trace lies under the present one. */
  readonly reference: boolean
}

export interface Look {
  /** Show the code values as they are, without Read and Show. */
  readonly asShot: boolean
  readonly viewing: Viewing
}
/** What is looked at, and how. */
export interface Viewed extends Look {
  readonly medium: Medium
  readonly grade: GradeDocument
}
/** Told while playing: another way of looking, or another grade of the only clip. */
export type ChangedLook = Look & { readonly grade?: GradeDocument }

/** Grades of a reel that are made ready before it plays; about a megabyte each. */
export const mostReady = 48

/** One picture: while a hand moves, the proxy will do; at rest the exact frame is measured. */
export interface RenderRequest extends Viewed, Returned {
  readonly frameIndex: number
  readonly size: LatticeSize
}
/** Pixels that are not on screen any more, so that the worker need not take new memory for every picture. */
export interface Returned {
  readonly back?: ArrayBuffer | undefined
}
/** A piece of what is played: `count` frames of a medium from `first` on, which stand at `at` and on in the plan. */
export interface PlayedClip {
  readonly medium: Medium
  readonly grade: GradeDocument
  readonly first: number
  readonly count: number
  readonly at: number
}
/** Clips in the order in which they stand; the plan counts through all of them. */
export interface PlayRequest extends Look {
  readonly clips: readonly PlayedClip[]
  readonly plan: PlayPlan
}
/** A frame of any shot, as it is graded there. */
export interface GradedFrame {
  readonly medium: Medium
  readonly frameIndex: number
  readonly grade: GradeDocument
}

/** Measured on every pixel of the picture; shares are 0..1 of the signal. */
export interface PictureFacts {
  readonly black: number
  readonly low: number
  readonly middle: number
  readonly high: number
  readonly white: number
  readonly clippedShare: number
  readonly crushedShare: number
  readonly means: readonly [number, number, number]
  /** The level that a hundredth of each channel lies below. */
  readonly channelPercentile1: readonly [number, number, number]
  /** Mean distance from neutral on the vectorscope; 0.5 is the largest Cb or Cr. */
  readonly chroma: number
  /** Angle of the mean colour from +Cb, anticlockwise; meaningless near neutral. */
  readonly hueDegrees: number
}

/** What the instruments show of a picture, and the facts of it and of the part they are limited to. */
export interface Measured {
  readonly traces: Readonly<Partial<Record<InstrumentId, TraceImage>>>
  readonly facts: PictureFacts
  readonly partFacts: PictureFacts | null
}

/** A finished picture. While scrubbing, only every few are measured: what was measured last stays. */
export interface Rendered {
  readonly size: LatticeSize
  readonly frameIndex: number
  /** The picture came from the exact frame, or from the proxy. */
  readonly source: 'exact' | 'proxy'
  readonly picture: TraceImage
  readonly measured: Measured | null
  readonly meridian: Meridian | null
  /** Of the part that the instruments are limited to. */
  readonly partMeridian: Meridian | null
  /**
   * Measured when the hand rests: how far the compiled picture was from direct evaluation, and whether it was replaced
   * by it.
   */
  readonly accuracy: (DifferenceReport & { readonly evaluated: 'compiled' | 'direct' }) | null
}
/** What the Bench shows: the newest picture with the newest measurements. */
export type RenderResult = Omit<Rendered, 'measured' | 'picture'> & Measured
/** One picture while playing. The instruments are measured of every few pictures only. */
export interface PlayedFrame {
  /** Its place in the plan. */
  readonly frameIndex: number
  readonly picture: TraceImage
  readonly measured: Measured | null
  readonly counts: PlayCounts
}
export interface PlayEnd {
  /** The place in the plan to stand at. */
  readonly frameIndex: number
  readonly counts: PlayCounts
}
/** Marks to lay over the picture: pale where a pixel is meant. Null when the question was overtaken. */
export interface Lit {
  readonly lit: TraceImage | null
  readonly share: number
}
/** What stands before a station, for the curves there. */
export interface ToneDistribution {
  readonly distribution: Distribution | null
  /** Where the footage will band. */
  readonly steep: readonly { readonly from: number; readonly to: number }[]
}
/** What a region's matte is worth; null when there is no such region, or no picture to measure. */
export type MatteWorth = (MatteFacts & { readonly moved: number | null }) | null
/**
 * How to move, and size, the region's shapes; by what it was found; and stops that make its subject as light as there.
 */
export interface RegionFound {
  readonly by: { readonly x: number; readonly y: number; readonly size: number } | null
  readonly how: 'key' | 'look'
  readonly sure: number
  readonly stops: number | null
}

/** While playing or scrubbing, the instruments follow every so many pictures. */
export const measuredEvery = 4

export interface FrameAddress {
  readonly mediaHash: string
  readonly index: number
  readonly range: CodeRange
  /** As small as a tile of a contact sheet. */ readonly size?: 'sheet'
}
