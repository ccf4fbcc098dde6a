// Queries about set-ups: shots that are corrected together.
import { presentGrade } from '@core/grade'
import type { GradeDocument } from '@core/grade'
import { lockShotRows } from './locks'
import { onlyRow, type Queryable } from './pool'

/**
 * Links shots of one project as a set-up of their own; they leave the ones they were in. False when they are not all
 * there or not of one project.
 */
export async function linkShots(db: Queryable, shotIds: readonly string[]): Promise<boolean> {
  await lockShotRows(db, shotIds)
  const { rows } = await db.query<{ projectId: string }>(
    'SELECT project_id AS "projectId" FROM shots WHERE id = ANY($1::uuid[])',
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
  await lockShotRows(db, shotIds)
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

export interface SetupMember {
  readonly id: string
  readonly headId: string
  readonly grade: GradeDocument
  /** The name of the shot that the others are asked for. */
  readonly from: string
}

/** The other shots of a shot's set-up, by id. */
export async function othersOfSetup(db: Queryable, shotId: string): Promise<readonly SetupMember[]> {
  const { rows } = await db.query<Omit<SetupMember, 'grade'> & { readonly grade: unknown }>(
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
  return rows.map((row) => ({ ...row, grade: presentGrade(row.grade) }))
}
