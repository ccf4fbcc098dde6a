// What the Cameras view and its worker say to each other.
import type { GradeDocument } from '@core/grade'
import type { ColourTags, Guess } from '@core/guess'
import type { Box, CodeRange } from '@core/image'
import type { TraceImage } from '@core/instruments'

interface OfFrame {
  readonly id: number
  readonly mediaHash: string
  readonly frameIndex: number
  readonly range: CodeRange
}
export type CameraRequest =
  /** The frame as its codes are, to pick patches on. */
  | ({ readonly ask: 'picture' } & OfFrame)
  /** The mean signal of boxes given as shares of the frame. */
  | ({ readonly ask: 'patches'; readonly boxes: readonly Box[] } & OfFrame)
  /** Every encoding weighed, and the frame through the likelier ones. */
  | ({
      readonly ask: 'compare'
      readonly tags: ColourTags
      readonly grade: GradeDocument
      readonly pictures: number
      /** The medium's size. */ readonly width: number
      readonly height: number
      readonly frameCount: number
    } & OfFrame)

export interface ComparedPicture {
  readonly encodingId: string
  readonly range: CodeRange
  readonly picture: TraceImage
}
export type CameraAnswer =
  | { readonly id: number; readonly ask: 'picture'; readonly picture: TraceImage }
  | { readonly id: number; readonly ask: 'patches'; readonly means: readonly (readonly [number, number, number])[] }
  | {
      readonly id: number
      readonly ask: 'compare'
      readonly guess: Guess
      readonly pictures: readonly ComparedPicture[]
    }
  | { readonly id: number; readonly ask: 'fault'; readonly message: string }
