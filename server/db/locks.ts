// The one lock order of everything that changes shots: shots by id, all of them in one statement, before anything is
// read that a decision rests on. A statement that locks and joins at once would lose rows whose head moves meanwhile.
import type { Queryable } from './pool'

/** Locks these shots. Call inside a transaction, before their heads are read. */
export async function lockShotRows(db: Queryable, ids: readonly string[]): Promise<void> {
  await db.query('SELECT id FROM shots WHERE id = ANY ($1::uuid[]) ORDER BY id FOR UPDATE', [ids])
}

/** Locks every shot of a project. */
export async function lockProjectShots(db: Queryable, projectId: string): Promise<void> {
  await db.query('SELECT id FROM shots WHERE project_id = $1 ORDER BY id FOR UPDATE', [projectId])
}

/** Locks every shot of the project that a shot is in: for changes of the whole order. */
export async function lockReelOf(db: Queryable, shotId: string): Promise<void> {
  await db.query(
    'SELECT id FROM shots WHERE project_id = (SELECT project_id FROM shots WHERE id = $1) ORDER BY id FOR UPDATE',
    [shotId],
  )
}

/**
 * Locks every shot that a change of one may reach: all of its project where there are shared looks, else its set-up.
 * What is reached is decided before the lock, so it is read once more under it.
 */
export async function lockReach(db: Queryable, shotId: string): Promise<void> {
  let locked = ''
  for (;;) {
    const { rows } = await db.query<{ ids: readonly string[] }>(
      `
        SELECT
          array_agg(
            o.id
            ORDER BY
              o.id
          ) AS ids
        FROM
          shots s
          JOIN shots o ON o.project_id = s.project_id
        WHERE
          s.id = $1
          AND (
            o.id = s.id
            OR o.setup_id = s.setup_id
            OR EXISTS (
              SELECT
                1
              FROM
                looks l
              WHERE
                l.project_id = s.project_id
            )
          )
      `,
      [shotId],
    )
    const ids = rows[0]?.ids ?? []
    if (ids.join() === locked) return
    locked = ids.join()
    await lockShotRows(db, ids)
  }
}
