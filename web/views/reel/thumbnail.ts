import type { ShotSummary } from '@contracts/responses'
import { thumbnailAddress } from '../../api/thumbnail'

/** The address of a shot's lead frame (or another) as a small picture. */
export const thumbnailOf = (shot: ShotSummary, as: 'shot' | 'graded', frame = shot.leadFrame): string =>
  thumbnailAddress({ ...shot, revisionId: shot.headId, frame, as })
