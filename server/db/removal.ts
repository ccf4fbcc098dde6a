// Queries about what is removed, and what nobody uses any more.
import type { Queryable } from './pool'

/** What can be removed and brought back, with the column that names it. */
const removable = { projects: 'id', luts: 'hash', renders: 'id' } as const
export type Removable = keyof typeof removable

/** Takes something off its list. False when it is not on it. */
export async function removeOne(db: Queryable, what: Removable, name: string): Promise<boolean> {
  const { rowCount } = await db.query(
    `UPDATE ${what} SET removed_at = now() WHERE ${removable[what]} = $1 AND removed_at IS NULL`,
    [name],
  )
  return rowCount === 1
}

/** Puts what was removed on its list again. False when it is gone for good. */
export async function restoreOne(db: Queryable, what: Removable, name: string): Promise<boolean> {
  const { rowCount } = await db.query(`UPDATE ${what} SET removed_at = NULL WHERE ${removable[what]} = $1`, [name])
  return rowCount === 1
}

/** Deletes projects, or renders, that were removed so many days ago. */
export async function deleteRemoved(db: Queryable, what: 'projects' | 'renders', days: number): Promise<number> {
  const { rowCount } = await db.query(
    `DELETE FROM ${what} WHERE removed_at <= now() - make_interval(secs => $1 * 86400)`,
    [days],
  )
  return rowCount ?? 0
}

/** Deletes LUTs that were removed so many days ago and that no grade, look or recipe names. */
export async function deleteRemovedLuts(db: Queryable, days: number): Promise<readonly string[]> {
  const named = (table: string, column: string): string =>
    `NOT EXISTS (SELECT 1 FROM ${table} t WHERE strpos(t.${column}::text, l.hash) > 0)`
  const { rows } = await db.query<{ hash: string }>(
    `DELETE FROM luts l WHERE l.removed_at <= now() - make_interval(secs => $1 * 86400)
      AND ${named('revisions', 'grade')} AND ${named('looks', 'steps')} AND ${named('recipes', 'steps')}
      RETURNING l.hash`,
    [days],
  )
  return rows.map((row) => row.hash)
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
