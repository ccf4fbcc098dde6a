// What the Bench and its worker say to each other.
import type { CodeRange, DifferenceReport, GradeDocument, LatticeSize, Meridian, TraceImage } from '@core/index'

export interface RenderRequest {
  readonly id: number
  readonly mediaHash: string
  readonly frameIndex: number
  readonly grade: GradeDocument
  readonly size: LatticeSize
  /** Show the code values as they are, without Read and Show. */
  readonly asShot: boolean
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
  /** Mean distance from neutral on the vectorscope; 0.5 is the largest Cb or Cr. */
  readonly chroma: number
  /** Angle of the mean colour from +Cb, anticlockwise; meaningless near neutral. */
  readonly hueDegrees: number
}

export interface RenderResult {
  readonly id: number
  readonly ok: true
  readonly size: LatticeSize
  readonly frameIndex: number
  readonly picture: TraceImage
  readonly waveform: TraceImage
  readonly parade: TraceImage
  readonly vector: TraceImage
  readonly facts: PictureFacts
  readonly meridian: Meridian | null
  /** Measured when the hand rests: how far the compiled picture was from direct evaluation, and whether it was replaced by it. */
  readonly accuracy: (DifferenceReport & { readonly evaluated: 'compiled' | 'direct' }) | null
}
export interface RenderFailure { readonly id: number; readonly ok: false; readonly message: string }
export type RenderAnswer = RenderResult | RenderFailure

export interface FrameAddress { readonly mediaHash: string; readonly index: number; readonly range: CodeRange }
