// Set-ups: linking shots, and taking a correction from one to all.
import { followChange, type GradeDocument } from '@core/grade'
import { onlyRow, type Queryable } from './pool'
import { appendRevision, presentGrade } from './revisions'

/**
 * Links shots of one project as a set-up of their own; they leave the ones they were in. False when they are not all
 * there or not of one project.
 */
export async function linkShots(db: Queryable, shotIds: readonly string[]): Promise<boolean> {
  const { rows } = await db.query<{ projectId: string }>(
    'SELECT project_id AS "projectId" FROM shots WHERE id = ANY($1::uuid[]) ORDER BY id FOR UPDATE',
    [shotIds],
  )
  const projectId = rows[0]?.projectId
  if (!projectId || rows.length < shotIds.length || rows.some((r) => r.projectId !== projectId)) return false
  const made = await db.query<{ id: string }>(
    `
      INSERT INTO
        setups (project_id, name)
      SELECT
        $1,
        'Set-up ' || (
          coalesce(
            max(
              substring(
                name
                FROM
                  '^Set-up ([0-9]{1,6})$'
              )::int
            ),
            0
          ) + 1
        )
      FROM
        setups
      WHERE
        project_id = $1
      RETURNING
        id
    `,
    [projectId],
  )
  await db.query('UPDATE shots SET setup_id = $2 WHERE id = ANY($1::uuid[])', [shotIds, onlyRow(made).id])
  await dropLoneSetups(db, projectId)
  return true
}

export async function unlinkShots(db: Queryable, shotIds: readonly string[]): Promise<void> {
  const { rows } = await db.query<{ projectId: string }>(
    'UPDATE shots SET setup_id = NULL WHERE id = ANY($1::uuid[]) RETURNING project_id AS "projectId"',
    [shotIds],
  )
  for (const projectId of new Set(rows.map((r) => r.projectId))) await dropLoneSetups(db, projectId)
}

/** One shot alone is no set-up. */
async function dropLoneSetups(db: Queryable, projectId: string): Promise<void> {
  await db.query(
    'DELETE FROM setups u WHERE project_id = $1 AND (SELECT count(*) FROM shots s WHERE s.setup_id = u.id) < 2',
    [projectId],
  )
}

/**
 * Locks all shots of a set-up in one order, so that two hands never wait for each other. Call first in a transaction.
 */
export async function lockSetup(db: Queryable, shotId: string): Promise<void> {
  await db.query(
    'SELECT id FROM shots WHERE id = $1 OR setup_id = (SELECT setup_id FROM shots WHERE id = $1) ' +
      'ORDER BY id FOR UPDATE',
    [shotId],
  )
}

export interface Head {
  readonly id: string
  readonly grade: GradeDocument
  readonly shared: boolean
  /** Why it was made; null for a hand's work. */ readonly kind: string | null
}
export async function headOf(db: Queryable, shotId: string): Promise<Head | undefined> {
  const { rows } = await db.query<{ id: string; grade: unknown; shared: boolean; kind: string | null }>(
    "SELECT r.id, r.grade, r.shared, r.why ->> 'kind' AS kind FROM shots s JOIN revisions r ON r.id = " +
      's.head_id WHERE s.id = $1',
    [shotId],
  )
  return rows[0] && { ...rows[0], grade: presentGrade(rows[0].grade) }
}

/** Makes the change of one shot on the others of its set-up, each as a revision of its own. */
export async function spread(
  db: Queryable,
  shotId: string,
  before: GradeDocument,
  after: Head,
  summary: string,
  actor: string,
): Promise<void> {
  const { rows } = await db.query<{ id: string; headId: string; grade: unknown; from: string }>(
    `
      SELECT
        o.id,
        o.head_id AS "headId",
        r.grade,
        s.name AS "from"
      FROM
        shots s
        JOIN shots o ON o.setup_id = s.setup_id
        AND o.id <> s.id
        JOIN revisions r ON r.id = o.head_id
      WHERE
        s.id = $1
      ORDER BY
        o.id
    `,
    [shotId],
  )
  for (const other of rows) {
    const own = presentGrade(other.grade)
    const grade = followChange(own, before, after.grade)
    if (grade !== own)
      await appendRevision(db, other.id, other.headId, grade, `${summary}, with ${other.from}`.slice(0, 400), actor, {
        kind: 'setup',
        from: after.id,
      })
  }
}
