// What the clip trace's worker is told and answers.
import type { GradeDocument } from '@core/grade'
import type { FrameTrace } from '@core/instruments'
import type { ProxyFacts } from '@contracts/responses'
import type { Medium } from './messages'

export interface TraceRequest {
  readonly ask: 'trace'
  readonly id: number
  readonly medium: Medium & { readonly proxy: ProxyFacts }
  readonly grade: GradeDocument
  readonly first: number
  readonly count: number
}
export type TraceOrder = TraceRequest | { readonly ask: 'wait' } | { readonly ask: 'go on' } | { readonly ask: 'stop' }
/** Some more frames: numbers within the shot, and their measures. */
export interface TraceAnswer {
  readonly id: number
  readonly frames: readonly number[]
  readonly traces: readonly FrameTrace[]
  readonly done: boolean
  readonly fault: string
}
