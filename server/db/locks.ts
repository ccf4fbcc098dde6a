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

/** How far a change of a shot may reach. */
export interface Reach {
  readonly projectId: string
  readonly setupId: string | null
  /** Whether its project has shared looks. */
  readonly looks: boolean
}
async function reachOf(db: Queryable, shotId: string): Promise<Reach | undefined> {
  const { rows } = await db.query<Reach>(
    `
      SELECT
        s.project_id AS "projectId",
        s.setup_id AS "setupId",
        EXISTS (
          SELECT
            1
          FROM
            looks l
          WHERE
            l.project_id = s.project_id
        ) AS looks
      FROM
        shots s
      WHERE
        s.id = $1
    `,
    [shotId],
  )
  return rows[0]
}

/**
 * Locks every shot that a change of one may reach: all of its project where there are shared looks, else its set-up.
 * How far that is may change until it is locked, so it is asked once more then.
 * Undefined when there is no such shot.
 */
export async function lockReach(db: Queryable, shotId: string): Promise<Reach | undefined> {
  for (let before = ''; ;) {
    const reach = await reachOf(db, shotId)
    const now = JSON.stringify(reach ?? null)
    if (!reach || now === before) return reach
    before = now
    if (reach.looks) await lockProjectShots(db, reach.projectId)
    else if (reach.setupId !== null) await lockSetup(db, reach.setupId)
    else await lockShotRows(db, [shotId])
  }
}

async function lockSetup(db: Queryable, setupId: string): Promise<void> {
  await db.query('SELECT id FROM shots WHERE setup_id = $1 ORDER BY id FOR UPDATE', [setupId])
}
