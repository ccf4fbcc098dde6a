// What the readings' worker is asked, and what it answers.
import type { Finding, GradeDocument, Pointed } from '@core/index'

/** Null asks for nothing: what is under way stops. */
export interface ReadingsRequest {
  readonly id: number
  readonly mediaHash: string
  readonly frameIndex: number
  readonly sourceBits: number
  readonly grade: GradeDocument
  readonly pointed: Pointed
}
/** `done` comes with the last part; a request that was overtaken is never finished. */
export interface ReadingsAnswer { readonly id: number; readonly findings: readonly Finding[]; readonly done: boolean; readonly fault: string }
