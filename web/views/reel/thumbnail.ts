import type { ShotSummary } from '@contracts/responses'

/** The address of a shot's lead frame (or another) as a small picture. */
export const thumbnailOf = (shot: ShotSummary, as: 'shot' | 'graded', frame = shot.leadFrame): string =>
  `/api/revisions/${shot.headId}/thumbnail?frame=${frame}&as=${as}`
