// Queries about house standards of one's own.
import { defaultStandardId, type HouseStandard } from '@core/readings'
import type { Queryable } from './pool'

export async function listStandards(db: Queryable): Promise<readonly HouseStandard[]> {
  const { rows } = await db.query<{ definition: HouseStandard }>(
    'SELECT definition FROM own_standards ORDER BY name, id LIMIT 500',
  )
  return rows.map((r) => r.definition)
}

export async function standardExists(db: Queryable, id: string): Promise<boolean> {
  const { rowCount } = await db.query('SELECT 1 FROM own_standards WHERE id = $1', [id])
  return rowCount === 1
}

/** What stands under an id, null where nothing does. Until the transaction ends nobody else puts or removes it. */
export async function lockStandard(db: Queryable, id: string): Promise<HouseStandard | null> {
  await db.query(`SELECT pg_advisory_xact_lock(hashtext('standard ' || $1))`, [id])
  const { rows } = await db.query<{ definition: HouseStandard }>('SELECT definition FROM own_standards WHERE id = $1', [
    id,
  ])
  return rows[0]?.definition ?? null
}

export async function putStandard(db: Queryable, standard: HouseStandard, actor: string): Promise<void> {
  await db.query(
    `
      INSERT INTO
        own_standards (id, name, definition, actor)
      VALUES
        ($1, $2, $3, $4)
      ON CONFLICT (id) DO UPDATE
      SET
        name = EXCLUDED.name,
        definition = EXCLUDED.definition,
        actor = EXCLUDED.actor,
        updated_at = now()
    `,
    [standard.id, standard.name, JSON.stringify(standard), actor],
  )
}

/** Removes one; what went by it goes by its scene's or project's standard again. */
export async function deleteStandard(db: Queryable, id: string): Promise<void> {
  await db.query('UPDATE shots SET standard_id = NULL WHERE standard_id = $1', [id])
  await db.query('UPDATE scenes SET standard_id = NULL WHERE standard_id = $1', [id])
  await db.query('UPDATE projects SET standard_id = $2 WHERE standard_id = $1', [id, defaultStandardId])
  await db.query('DELETE FROM own_standards WHERE id = $1', [id])
}
