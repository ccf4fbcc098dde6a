// The grade document: plain, versioned data that says everything about one shot's Passage. Never mutated.
import type { EncodingDefinition } from '../colour'
import type { CodeRange } from '../image'
import type { Region } from '../regions'
import type { GamutMethodId, ShowMethodId, ShowParameters } from './show/parameters'

export const currentSchema = 8

export type Side = 'scene' | 'display'

export interface CurvePoint {
  readonly x: number
  readonly y: number
}
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
  /**
   * The shared look it comes from, or "own" once it was taken out of one; such steps stand in Look, whatever their
   * kind.
   */
  readonly lookId?: string
  readonly params: StepParameters
}

export interface ReadSettings {
  /** formula: an encoding decoded exactly; lut: a supplied table takes the code values first. */
  readonly method: 'formula' | 'lut'
  /** The camera's encoding; with a LUT, the encoding of what the LUT returns. */
  readonly encodingId: string
  readonly gamutId: string
  /** How the file's code values are to be understood. */
  readonly range: CodeRange
  /** The table of the method "lut", by the hash of its content. */
  readonly lutHash: string | null
  /** 0..1 of what that table does to the code values. */
  readonly lutStrength: number
  /** The definition behind an encoding of the user's own. */
  readonly own?: EncodingDefinition
  /** The signal that one in ten thousand channel values of the clip exceeds, by the range that it opened with. */
  readonly brightestSignal?: number
}

/** A table is given what its side of the Passage carries. */
export const lutTakesSide = 'side'

export interface ShowSettings {
  readonly method: ShowMethodId
  readonly displayId: string
  /** The table of the method "lut", by the hash of its content. */
  readonly lutHash: string | null
  /** What that table is given: working log, or what a camera's encoding would have made of the same light. */
  readonly lutTakes: string
  /** 0..1 of that table's signal; the rest is that of the straight conversion. */
  readonly lutStrength: number
  readonly gamutMethod: GamutMethodId
  /** The numbers of all methods, kept when the method changes. */
  readonly params: ShowParameters
  /** What a hand chose for this shot: it does not follow the defaults of its scene and project. */
  readonly own?: readonly InheritedShow[]
}
/** What a shot has of its scene or project unless a hand chose otherwise. */
export const inheritedShow = ['displayId', 'method'] as const
export type InheritedShow = (typeof inheritedShow)[number]

/**
 * A control that changes along the clip: what it is at keyframes of the medium, in rising order; between them along a
 * path.
 */
export interface Keyframes {
  readonly stepId: string
  readonly key: string
  readonly path: 'linear' | 'smooth'
  readonly keyframes: readonly { readonly frame: number; readonly value: number }[]
}

export interface GradeDocument {
  readonly schema: typeof currentSchema
  /** The side new steps stand on: scene light, or the display signal for those who work display-referred. */
  readonly working: Side
  readonly read: ReadSettings
  readonly steps: readonly Step[]
  /** At most one entry for a control; the value in its step then counts for nothing. */
  readonly animation: readonly Keyframes[]
  readonly regions: readonly Region[]
  readonly show: ShowSettings
}
