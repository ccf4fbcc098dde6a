// Addresses of small pictures. They are kept by the browser for ever, so all that a picture rests on is in them.
import type { FrameRange } from '@contracts/responses'

export interface ThumbnailOf extends FrameRange {
  readonly revisionId: string
  /** Of the medium. */
  readonly frame: number
  readonly as: 'shot' | 'graded'
}

/** The graded picture with its footage read by another encoding. */
export const readAsAddress = (
  { revisionId, frame, firstFrame, frameCount }: Omit<ThumbnailOf, 'as'>,
  encodingId: string,
): string =>
  `/api/revisions/${revisionId}/read-as/${encodeURIComponent(encodingId)}` +
  `?frame=${frame}&range=${firstFrame}-${frameCount}`

export const thumbnailAddress = ({ revisionId, frame, as, firstFrame, frameCount }: ThumbnailOf): string =>
  `/api/revisions/${revisionId}/thumbnail?frame=${frame}&as=${as}&range=${firstFrame}-${frameCount}`
