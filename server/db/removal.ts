// Queries about what is removed, and what nobody uses any more.
import type { Queryable } from './pool'

/** Takes a project off the list. False when there is none. */
export async function removeProject(db: Queryable, id: string): Promise<boolean> {
  const { rowCount } = await db.query('UPDATE projects SET removed_at = now() WHERE id = $1 AND removed_at IS NULL', [
    id,
  ])
  return rowCount === 1
}

/** Puts a removed project on the list again. False when it is gone for good. */
export async function restoreProject(db: Queryable, id: string): Promise<boolean> {
  const { rowCount } = await db.query('UPDATE projects SET removed_at = NULL WHERE id = $1', [id])
  return rowCount === 1
}

/** Deletes projects that were removed so many days ago. */
export async function deleteRemovedProjects(db: Queryable, days: number): Promise<number> {
  const { rowCount } = await db.query(
    'DELETE FROM projects WHERE removed_at <= now() - make_interval(secs => $1 * 86400)',
    [days],
  )
  return rowCount ?? 0
}

/**
 * Forgets media that no shot is of, so many days old. A shot that is being made of one meanwhile keeps it: the database
 * refuses one of the two.
 */
export async function deleteUnusedMedia(db: Queryable, days: number): Promise<readonly string[]> {
  const { rows } = await db.query<{ hash: string }>(
    `
      DELETE FROM media m
      WHERE
        m.created_at <= now() - make_interval(secs => $1 * 86400)
        AND NOT EXISTS (
          SELECT
            1
          FROM
            shots s
          WHERE
            s.media_hash = m.hash
        )
        AND NOT EXISTS (
          SELECT
            1
          FROM
            work w
          WHERE
            w.media_hash = m.hash
            AND w.state IN ('queued', 'running')
        )
      RETURNING
        m.hash
    `,
    [days],
  )
  return rows.map((row) => row.hash)
}

/** Of these hashes, those that there is a medium of. */
export async function knownMedia(db: Queryable, hashes: readonly string[]): Promise<ReadonlySet<string>> {
  const { rows } = await db.query<{ hash: string }>('SELECT hash FROM media WHERE hash = ANY ($1::text[])', [hashes])
  return new Set(rows.map((row) => row.hash))
}

/** Of these ids, those that there is a render of. */
export async function knownRenders(db: Queryable, ids: readonly string[]): Promise<ReadonlySet<string>> {
  const { rows } = await db.query<{ id: string }>('SELECT id FROM renders WHERE id = ANY ($1::uuid[])', [ids])
  return new Set(rows.map((row) => row.id))
}
