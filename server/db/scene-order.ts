// Queries about the order of a scene.
import type { Queryable } from './pool'

/** The shots before one in its scene as they are now, the nearest first, so many at most. */
export async function shotsBefore(
  db: Queryable,
  shotId: string,
  most: number,
): Promise<readonly { readonly id: string; readonly headId: string }[]> {
  const { rows } = await db.query<{ id: string; headId: string }>(
    `
      SELECT
        o.id,
        o.head_id AS "headId"
      FROM
        shots s
        JOIN shots o ON o.project_id = s.project_id
        AND o.scene_id IS NOT DISTINCT FROM s.scene_id
        AND o.position < s.position
      WHERE
        s.id = $1
      ORDER BY
        o.position DESC
      LIMIT
        $2
    `,
    [shotId, most],
  )
  return rows
}
