// What the solver is asked and what it answers.
import { type GradeDocument, type LutFinder } from '../grade'
import type { Frame } from '../image'
import { type Aim, type Quantity } from './aim'
import { type ControlId } from './controls'

export interface AimProblem {
  readonly grade: GradeDocument
  readonly lut: LutFinder
  readonly frame: Frame
  /** Its number in the medium: what changes along the clip is moved there. 0 without it. */
  readonly frameIndex?: number
  /** The other frames that aims speak of. */
  readonly frames?: ReadonlyMap<number, Frame>
  readonly aims: readonly Aim[]
  /** Controls that stay where they are. */
  readonly locked: ReadonlySet<ControlId>
}

export interface Move {
  readonly control: ControlId
  readonly label: string
  readonly from: number
  readonly to: number
  readonly words: string
}

export interface GoalResult {
  readonly quantity: Quantity
  readonly wanted: number
  readonly before: number | null
  readonly after: number | null
  readonly met: boolean
}

export interface AimResult {
  readonly aim: Aim
  readonly goals: readonly GoalResult[]
  readonly met: boolean
  /** Why it could not be met; empty where it was. */
  readonly why: string
}

export interface Solution {
  readonly grade: GradeDocument
  readonly moves: readonly Move[]
  readonly aims: readonly AimResult[]
  /** All aims are met. */
  readonly met: boolean
}
