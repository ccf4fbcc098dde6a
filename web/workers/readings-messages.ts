// What the readings' worker is asked, and what it answers.
import type { GradeDocument } from '@core/grade'
import type { TraceImage } from '@core/instruments'
import type { Finding, Pointed, ReadingId } from '@core/readings'

export interface PictureAsked {
  readonly mediaHash: string
  readonly frameIndex: number
  readonly sourceBits: number
  readonly grade: GradeDocument
}
/** Null asks for nothing: what is under way stops. With `marks`, the pixels behind that reading are wanted instead. */
export interface ReadingsRequest extends PictureAsked {
  readonly id: number
  readonly pointed: Pointed
  readonly marks?: ReadingId
}
/** `done` comes with the last part; a request that was overtaken is never finished. */
export interface ReadingsAnswer {
  readonly id: number
  readonly findings: readonly Finding[]
  readonly done: boolean
  readonly fault: string
}
export interface MarkedAnswer {
  readonly id: number
  readonly lit: TraceImage | null
  readonly share: number
}
