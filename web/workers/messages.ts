// What the Bench and its worker say to each other.
import type { CodeRange, DifferenceReport, GradeDocument, LatticeSize, Meridian, Rate, TraceImage } from '@core/index'
import type { ProxyFacts } from '@contracts/responses'
import type { PlayCounts, PlayPlan } from './player'

/** The footage of a shot, as far as a worker must know it. */
export interface Medium { readonly hash: string; readonly rate: Rate; readonly proxy: ProxyFacts | null }

interface Look {
  readonly medium: Medium
  readonly grade: GradeDocument
  /** Show the code values as they are, without Read and Show. */
  readonly asShot: boolean
}

/** One picture: while a hand moves, the proxy will do; at rest the exact frame is measured. */
export interface RenderRequest extends Look { readonly ask: 'render'; readonly id: number; readonly frameIndex: number; readonly size: LatticeSize }
export interface PlayRequest extends Look { readonly ask: 'play'; readonly id: number; readonly plan: PlayPlan }
export type BenchRequest =
  | RenderRequest
  | PlayRequest
  /** The grade or the way of looking changed while playing. */
  | ({ readonly ask: 'regrade' } & Omit<Look, 'medium'>)
  /** The last played picture is on screen. */
  | { readonly ask: 'shown' }
  | { readonly ask: 'pause' }

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
  /** Mean distance from neutral on the vectorscope; 0.5 is the largest Cb or Cr. */
  readonly chroma: number
  /** Angle of the mean colour from +Cb, anticlockwise; meaningless near neutral. */
  readonly hueDegrees: number
}

/** What the instruments show of a picture. */
export interface Measured { readonly waveform: TraceImage; readonly parade: TraceImage; readonly vector: TraceImage; readonly facts: PictureFacts }

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
  /** Measured when the hand rests: how far the compiled picture was from direct evaluation, and whether it was replaced by it. */
  readonly accuracy: (DifferenceReport & { readonly evaluated: 'compiled' | 'direct' }) | null
}
/** What the Bench shows: the newest picture with the newest measurements. */
export type RenderResult = Omit<Rendered, 'id' | 'ok' | 'measured'> & Measured
export interface RenderFailure { readonly id: number; readonly ok: false; readonly message: string }
/** One picture while playing. The instruments are measured of every few pictures only. */
export interface PlayedFrame { readonly id: number; readonly played: true; readonly frameIndex: number; readonly picture: TraceImage; readonly measured: Measured | null; readonly counts: PlayCounts }
export interface PlayEnd { readonly id: number; readonly ended: true; readonly frameIndex: number; readonly counts: PlayCounts; readonly fault: string }
export type BenchAnswer = Rendered | RenderFailure | PlayedFrame | PlayEnd

/** While playing or scrubbing, the instruments follow every so many pictures. */
export const measuredEvery = 4

export interface FrameAddress { readonly mediaHash: string; readonly index: number; readonly range: CodeRange }
