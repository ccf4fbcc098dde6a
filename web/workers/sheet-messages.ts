// What the contact sheet and its workers say to each other.
import type { GradeDocument, RecipeContent } from '@core/grade'
import type { CodeRange } from '@core/image'
import type { TraceImage } from '@core/instruments'
import type { LutPlace, SheetFacts } from '@core/lut-bench'
import type { Area } from '@core/readings'

/** The picture that goes through everything. */
export interface SheetPicture {
  readonly mediaHash: string
  readonly frameIndex: number
  readonly range: CodeRange
  readonly grade: GradeDocument
  /** A person's skin in it. */ readonly skin: Area | null
}
export type SheetItem =
  | { readonly kind: 'plain' }
  | { readonly kind: 'lut'; readonly hash: string; readonly place: Pick<LutPlace, 'place' | 'takes'> }
  | { readonly kind: 'recipe'; readonly content: RecipeContent }
export interface SheetRequest {
  readonly id: number
  readonly generation: number
  readonly picture: SheetPicture
  readonly item: SheetItem
  readonly strength: number
}
/**
 * The picture that will be asked for soon, and what it will first go through: all that is needed can be fetched and
 * tried meanwhile.
 */
export interface SheetPreparation {
  readonly prepare: SheetPicture
  readonly item: SheetItem | null
}
export type SheetAnswer = { readonly id: number; readonly generation: number } & (
  { readonly image: TraceImage; readonly facts: SheetFacts } | { readonly fault: string }
)
