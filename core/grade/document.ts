// The grade document: plain, versioned data that says everything about one shot's Passage. Never mutated.
import type { CodeRange } from '../image'
import type { Region } from '../regions'

export const currentSchema = 1

export type Side = 'scene' | 'display'

export interface CurvePoint { readonly x: number; readonly y: number }
export type ParameterValue = number | string | null | readonly CurvePoint[]
export type StepParameters = Readonly<Record<string, ParameterValue>>

export interface Step {
  readonly id: string
  /** The id of a step kind. */
  readonly kind: string
  readonly name: string
  readonly enabled: boolean
  /** 0..1 of the step's effect, mixed in the domain the step works in. */
  readonly strength: number
  /** Before Show (scene light) or after it (display signal). */
  readonly side: Side
  /** The region that carries this step; absent for the whole picture. */
  readonly regionId?: string
  readonly params: StepParameters
}

export interface ReadSettings {
  readonly encodingId: string
  readonly gamutId: string
  /** How the file's code values are to be understood. */
  readonly range: CodeRange
}

export interface ShowSettings {
  readonly method: 'straight'
  readonly displayId: string
}

export interface GradeDocument {
  readonly schema: typeof currentSchema
  readonly read: ReadSettings
  readonly steps: readonly Step[]
  readonly regions: readonly Region[]
  readonly show: ShowSettings
}
