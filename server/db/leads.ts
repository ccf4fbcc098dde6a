// Queries about lead frames: chosen by a person, or proposed.
import type { ShotMoments } from '@contracts/responses'
import type { Queryable } from './pool'

/** Sets the lead frame a person chose. False when the shot has no such frame. */
export async function setLeadFrame(db: Queryable, id: string, leadFrame: number): Promise<boolean> {
  const { rowCount } = await db.query(
    'UPDATE shots SET lead_frame = $2, lead_chosen = true WHERE id = $1 AND $2 >= first_frame AND $2 ' +
      '< first_frame + frame_count',
    [id, leadFrame],
  )
  return rowCount === 1
}

/** Shots of a medium whose lead frame nobody chose, and in which no subject was pointed out. */
export async function undecidedLeads(
  db: Queryable,
  mediaHash: string,
): Promise<readonly { readonly id: string; readonly firstFrame: number; readonly frameCount: number }[]> {
  const { rows } = await db.query<{ id: string; firstFrame: number; frameCount: number }>(
    'SELECT id, first_frame AS "firstFrame", frame_count AS "frameCount" FROM shots s WHERE ' +
      'media_hash = $1 AND NOT lead_chosen AND NOT EXISTS (SELECT 1 FROM picks k WHERE k.shot_id = s.id ' +
      'AND k.subject_id IS NOT NULL)',
    [mediaHash],
  )
  return rows
}

/**
 * By shot of a project: the frames it can be looked at by. Darkest and brightest are by what the camera recorded, null
 * where its frames were not surveyed yet.
 */
export async function momentsOf(db: Queryable, projectId: string): Promise<readonly ShotMoments[]> {
  const at = (order: 'ASC' | 'DESC'): string =>
    '(SELECT s.first_frame + n::int - 1 FROM unnest(v.luma[s.first_frame + 1 : s.first_frame + s.frame_count]) ' +
    `WITH ORDINALITY AS f (luma, n) ORDER BY luma ${order}, n LIMIT 1)`
  const { rows } = await db.query<ShotMoments>(
    'SELECT s.id AS "shotId", s.lead_frame AS lead, s.first_frame AS first, s.first_frame + s.frame_count - 1 AS ' +
      `last, ${at('ASC')} AS darkest, ${at('DESC')} AS brightest FROM shots s LEFT JOIN surveys v ON ` +
      'v.media_hash = s.media_hash WHERE s.project_id = $1',
    [projectId],
  )
  return rows
}

export async function setProposedLead(db: Queryable, id: string, leadFrame: number): Promise<void> {
  await db.query(
    'UPDATE shots SET lead_frame = $2 WHERE id = $1 AND NOT lead_chosen AND $2 >= first_frame AND $2 ' +
      '< first_frame + frame_count',
    [id, leadFrame],
  )
}
