// Queries about shots that stand as they opened.
import type { Queryable } from './pool'

export interface UntouchedShot {
  readonly id: string
  readonly projectId: string
  readonly sceneId: string | null
}

/** Shots of a medium that no hand has changed: all that came after their import came by itself. */
export async function untouchedShots(db: Queryable, mediaHash: string): Promise<readonly UntouchedShot[]> {
  const { rows } = await db.query<UntouchedShot>(
    `
      SELECT
        s.id,
        s.project_id AS "projectId",
        s.scene_id AS "sceneId"
      FROM
        shots s
      WHERE
        s.media_hash = $1
        AND NOT s.stays_as_it_looks
        AND s.head_id = s.tip_id
        AND NOT EXISTS (
          SELECT
            1
          FROM
            revisions r
          WHERE
            r.shot_id = s.id
            AND r.parent_id IS NOT NULL
            AND coalesce(r.why ->> 'kind', 'hand') NOT IN ('look', 'defaults', 'opening')
        )
      ORDER BY
        s.position
    `,
    [mediaHash],
  )
  return rows
}
