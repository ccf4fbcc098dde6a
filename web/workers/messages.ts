// What the Bench and its worker say to each other.
import type { TakenLook } from '@core/aims'
import type { Rate } from '@core/footage'
import type { DifferenceReport, GradeDocument, LatticeSize, Side, StationId } from '@core/grade'
import type { CodeRange } from '@core/image'
import type {
  Distribution,
  InstrumentId,
  InstrumentSettings,
  Meridian,
  OverlaySettings,
  Part,
  PlaceColour,
  Probe,
  TraceImage,
} from '@core/instruments'
import type { Area, SubjectCard } from '@core/readings'
import type { KeySample, KeySpread, KeyTap, MatteFacts, MatteViewId } from '@core/regions'
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

interface Look {
  readonly medium: Medium
  readonly grade: GradeDocument
  /** Show the code values as they are, without Read and Show. */
  readonly asShot: boolean
  readonly viewing: Viewing
}

/** One picture: while a hand moves, the proxy will do; at rest the exact frame is measured. */
export interface RenderRequest extends Look {
  readonly ask: 'render'
  readonly id: number
  readonly frameIndex: number
  readonly size: LatticeSize
}
/** Pixels that are not on screen any more, so that the worker need not take new memory for every picture. */
interface Returned {
  readonly back?: ArrayBuffer | undefined
}
export interface PlayRequest extends Look {
  readonly ask: 'play'
  readonly id: number
  readonly plan: PlayPlan
}
export type BenchRequest =
  | (RenderRequest & Returned)
  | PlayRequest
  /** The grade or the way of looking changed while playing. */
  | ({ readonly ask: 'regrade' } & Omit<Look, 'medium'>)
  /** The last played picture is on screen. */
  | ({ readonly ask: 'shown' } & Returned)
  | { readonly ask: 'pause' }
  /** What a place of the last picture is; x and y in shares of the frame. */
  | { readonly ask: 'probe'; readonly id: number; readonly x: number; readonly y: number }
  /**
   * Which pixels of the last picture make a place of an instrument; x and y in shares of its plot, from the lower left.
   */
  | {
      readonly ask: 'light'
      readonly id: number
      readonly instrument: InstrumentId
      readonly x: number
      readonly y: number
    }
  /** What an area is as skin, once a cast of the light is taken away. */
  | {
      readonly ask: 'skin'
      readonly id: number
      readonly area: Area
      readonly cast: { readonly mired: number; readonly duv: number } | null
    }
  /** Which pixels a station lost for good. */
  | { readonly ask: 'losses'; readonly id: number; readonly station: StationId }
  /**
   * What stands before a station on a side, for the curves there: how the picture is spread, and where its footage will
   * band.
   */
  | {
      readonly ask: 'spread'
      readonly id: number
      readonly station: StationId
      readonly side: Side
      readonly bits: number
    }
  /** The steps that bring the last picture near another; null areas hold no skin. */
  | { readonly ask: 'lookFrom'; readonly id: number; readonly reference: TraceImage; readonly skin: Area | null }
  /** What the other way between a LUT's entries would change. */
  | { readonly ask: 'between'; readonly id: number; readonly stepId: string }
  /** What a place is before a station. */
  | {
      readonly ask: 'colour'
      readonly id: number
      readonly station: StationId
      readonly side: Side
      readonly x: number
      readonly y: number
    }
  /** Colours of a part of the picture as a key reads them. */
  | {
      readonly ask: 'keySample'
      readonly id: number
      readonly tap: KeyTap
      readonly mode: KeySample['mode']
      readonly area: Area
    }
  /** How the picture is spread over what keys are made of. */
  | { readonly ask: 'keySpread'; readonly id: number; readonly tap: KeyTap }
  /** What a region's matte is worth; and how far it moved since the grade was `then`. */
  | { readonly ask: 'matteFacts'; readonly id: number; readonly regionId: string; readonly then: GradeDocument | null }
  /** Where a region of another shot would sit in the last picture, and how its light differs there. */
  | {
      readonly ask: 'placeRegion'
      readonly id: number
      readonly regionId: string
      readonly from: { readonly medium: Medium; readonly frameIndex: number; readonly grade: GradeDocument }
    }
  /** The present trace is held as the reference; or that of a frame of another shot; or none. */
  | {
      readonly ask: 'reference'
      readonly id: number
      readonly of: 'this' | (Look & { readonly frameIndex: number }) | null
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
  readonly feet: readonly [number, number, number]
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
  readonly id: number
  readonly ok: true
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
export type RenderResult = Omit<Rendered, 'id' | 'ok' | 'measured' | 'picture'> & Measured
export interface RenderFailure {
  readonly id: number
  readonly ok: false
  readonly message: string
}
/** One picture while playing. The instruments are measured of every few pictures only. */
export interface PlayedFrame {
  readonly id: number
  readonly played: true
  readonly frameIndex: number
  readonly picture: TraceImage
  readonly measured: Measured | null
  readonly counts: PlayCounts
}
export interface PlayEnd {
  readonly id: number
  readonly ended: true
  readonly frameIndex: number
  readonly counts: PlayCounts
  readonly fault: string
}
export interface Probed {
  readonly id: number
  readonly probe: Probe | null
}
/** Marks to lay over the picture: pale where a pixel is meant. Null when the question was overtaken. */
export interface Lit {
  readonly id: number
  readonly lit: TraceImage | null
  readonly share: number
}
export interface SkinSampled {
  readonly id: number
  /** Null where nothing there has a colour of skin. */ readonly skin: SubjectCard | null
}
export interface Referenced {
  readonly id: number
  readonly referenced: boolean
  readonly fault: string
}
export interface Spread {
  readonly id: number
  readonly distribution: Distribution | null
  readonly steep: readonly { readonly from: number; readonly to: number }[]
}
export interface Picked {
  readonly id: number
  readonly colour: PlaceColour | null
}
export interface Between {
  readonly id: number
  readonly difference: DifferenceReport | null
}
export interface KeySampled {
  readonly id: number
  readonly sample: KeySample | null
}
export interface KeySpreadFound {
  readonly id: number
  readonly keySpread: KeySpread | null
}
/** Null when there is no such region, or no picture to measure. */
export interface MatteJudged {
  readonly id: number
  readonly matte: (MatteFacts & { readonly moved: number | null }) | null
}
/**
 * How to move, and size, the region's shapes; by what it was found; and stops that make its subject as light as there.
 */
export interface RegionFound {
  readonly by: { readonly x: number; readonly y: number; readonly size: number } | null
  readonly how: 'key' | 'look'
  readonly sure: number
  readonly stops: number | null
}
export interface RegionPlaced {
  readonly id: number
  readonly found: RegionFound | null
  readonly fault: string
}
export interface LookTaken {
  readonly id: number
  readonly look: TakenLook | null
}
export type BenchAnswer =
  | Rendered
  | RenderFailure
  | PlayedFrame
  | PlayEnd
  | Probed
  | Lit
  | SkinSampled
  | Referenced
  | Spread
  | Picked
  | Between
  | LookTaken
  | KeySampled
  | KeySpreadFound
  | MatteJudged
  | RegionPlaced

/** While playing or scrubbing, the instruments follow every so many pictures. */
export const measuredEvery = 4

export interface FrameAddress {
  readonly mediaHash: string
  readonly index: number
  readonly range: CodeRange
  /** As small as a tile of a contact sheet. */ readonly size?: 'sheet'
}
