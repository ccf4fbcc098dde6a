// The frames of a shot at which its clip is darkest and brightest, by what the camera recorded.
import type { ShotDetail } from '@contracts/responses'
import { findSurvey } from '../db/media'
import type { Pool } from '../db/pool'

/** None where the clip has not been looked through yet. */
export async function clipEnds(
  pool: Pool,
  { media, firstFrame, frameCount }: Pick<ShotDetail, 'media' | 'firstFrame' | 'frameCount'>,
): Promise<readonly number[]> {
  const survey = await findSurvey(pool, media.hash)
  const luma = survey?.luma.slice(firstFrame, firstFrame + frameCount) ?? []
  if (luma.length < frameCount) return []
  return [luma.indexOf(Math.min(...luma)), luma.indexOf(Math.max(...luma))].map((i) => firstFrame + i)
}
