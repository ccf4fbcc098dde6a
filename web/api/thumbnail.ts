// Addresses of small pictures. They are kept by the browser for ever, so all that a picture rests on is in them.
import type { FrameRange } from '@contracts/responses'

export interface ThumbnailOf extends FrameRange {
  readonly revisionId: string
  /** Of the medium. */
  readonly frame: number
  readonly as: 'shot' | 'graded'
}

export const thumbnailAddress = ({ revisionId, frame, as, firstFrame, frameCount }: ThumbnailOf): string =>
  `/api/revisions/${revisionId}/thumbnail?frame=${frame}&as=${as}&range=${firstFrame}-${frameCount}`
