// Pictures of what a scene should feel like.
import { scenePictureLimits } from '@contracts/index'
import { onlyRow, type Queryable } from './pool'

/** All pictures of the scene `alias.id`, as a column of JSON. */
export const picturesOf = (alias: string): string =>
  `
    (
      SELECT
        coalesce(
          json_agg(
            json_build_object('id', q.id, 'name', q.name, 'width', q.width, 'height', q.height)
            ORDER BY
              q.created_at,
              q.id
          ),
          '[]'::json
        )
      FROM
        scene_pictures q
      WHERE
        q.scene_id = ${alias}.id
    )
  `

export interface NewScenePicture {
  readonly name: string
  readonly width: number
  readonly height: number
  readonly png: Uint8Array
}

/** The picture's id; "none" without such a scene, "full" where it has as many as it may. */
export async function addScenePicture(
  db: Queryable,
  sceneId: string,
  { name, width, height, png }: NewScenePicture,
): Promise<string> {
  // The scene's row is held, so that two at once are counted one after the other.
  const scene = await db.query('SELECT 1 FROM scenes WHERE id = $1 FOR UPDATE', [sceneId])
  if (scene.rowCount === 0) return 'none'
  const {
    rows: [stored],
  } = await db.query<{ count: number }>('SELECT count(*)::int AS count FROM scene_pictures WHERE scene_id = $1', [
    sceneId,
  ])
  if ((stored?.count ?? 0) >= scenePictureLimits.perScene) return 'full'
  const { rows } = await db.query<{ id: string }>(
    'INSERT INTO scene_pictures (scene_id, name, width, height, png) VALUES ($1, $2, $3, $4, $5) RETURNING id',
    [sceneId, name, width, height, png],
  )
  return onlyRow({ rows }).id
}

export async function scenePicture(db: Queryable, id: string): Promise<Uint8Array | undefined> {
  const { rows } = await db.query<{ png: Uint8Array }>('SELECT png FROM scene_pictures WHERE id = $1', [id])
  return rows[0]?.png
}

export async function removeScenePicture(db: Queryable, id: string): Promise<boolean> {
  const { rowCount } = await db.query('DELETE FROM scene_pictures WHERE id = $1', [id])
  return rowCount === 1
}
