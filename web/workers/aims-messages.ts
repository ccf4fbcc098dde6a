// What the aims' worker is asked, and what it answers.
import type { Aim, ControlId, Solution } from '@core/aims'
import type { GradeDocument } from '@core/grade'

export interface AimsRequest {
  readonly id: number
  readonly mediaHash: string
  readonly frameIndex: number
  readonly grade: GradeDocument
  readonly aims: readonly Aim[]
  readonly locked: readonly ControlId[]
}
export interface AimsAnswer {
  readonly id: number
  readonly solution: Solution | null
  readonly fault: string
  /** Time the solver took, in milliseconds. */ readonly ms: number
}
