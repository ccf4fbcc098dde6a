// Queries about lead frames: chosen by a person, or proposed.
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

export async function setProposedLead(db: Queryable, id: string, leadFrame: number): Promise<void> {
  await db.query(
    'UPDATE shots SET lead_frame = $2 WHERE id = $1 AND NOT lead_chosen AND $2 >= first_frame AND $2 ' +
      '< first_frame + frame_count',
    [id, leadFrame],
  )
}
