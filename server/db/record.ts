// The Record as it is read: every revision of a shot with what it changed, and versions: revisions with a name.
import type { RecordEntry, ShotRecord, VersionSummary } from '@contracts/responses'
import { differences, type GradeDocument } from '@core/grade'
import type { Queryable } from './pool'
import { presentGrade } from './revisions'

type Row = Omit<RecordEntry, 'changes' | 'at'> & { at: Date; grade: GradeDocument }
/** So many of the newest are read: a record of years stays quick. */
const newest = 2000

export async function shotRecord(db: Queryable, shotId: string): Promise<ShotRecord | undefined> {
  const { rows: shots } = await db.query<{ headId: string; tipId: string }>(
    'SELECT head_id AS "headId", tip_id AS "tipId" FROM shots WHERE id = $1',
    [shotId],
  )
  const shot = shots[0]
  if (!shot) return undefined
  const { rows } = await db.query<Row>(
    `
      SELECT
        id,
        parent_id AS "parentId",
        depth,
        summary,
        why,
        actor,
        created_at AS at,
        grade
      FROM
        revisions
      WHERE
        shot_id = $1
      ORDER BY
        created_at DESC,
        depth DESC
      LIMIT
        ${newest}
    `,
    [shotId],
  )
  const grades = new Map(rows.map((r) => [r.id, presentGrade(r.grade)]))
  const revisions = rows.map(({ grade: _, at, ...r }): RecordEntry => {
    const after = grades.get(r.id)
    const before = r.parentId === null ? undefined : grades.get(r.parentId)
    return {
      ...r,
      at: at.toISOString(),
      changes: before && after ? differences(before, after).map((d) => d.words) : [],
    }
  })
  return { ...shot, revisions, versions: await versionsOf(db, shotId) }
}

export async function versionsOf(db: Queryable, shotId: string): Promise<readonly VersionSummary[]> {
  const { rows } = await db.query<Omit<VersionSummary, 'at'> & { at: Date }>(
    'SELECT id, name, revision_id AS "revisionId", actor, created_at AS at FROM versions WHERE ' +
      'shot_id = $1 ORDER BY created_at',
    [shotId],
  )
  return rows.map((r) => ({ ...r, at: r.at.toISOString() }))
}

/** Gives a revision of the shot a name; a name that is there moves to it. False when the shot has no such revision. */
export async function nameVersion(
  db: Queryable,
  shotId: string,
  revisionId: string,
  name: string,
  actor: string,
): Promise<boolean> {
  const { rowCount } = await db.query(
    `
      INSERT INTO
        versions (shot_id, revision_id, name, actor)
      SELECT
        shot_id,
        id,
        $3,
        $4
      FROM
        revisions
      WHERE
        shot_id = $1
        AND id = $2
      ON CONFLICT (shot_id, name) DO UPDATE
      SET
        revision_id = excluded.revision_id,
        actor = excluded.actor,
        created_at = now()
    `,
    [shotId, revisionId, name, actor],
  )
  return rowCount === 1
}

export async function removeVersion(db: Queryable, id: string): Promise<boolean> {
  const { rowCount } = await db.query('DELETE FROM versions WHERE id = $1', [id])
  return rowCount === 1
}

/** The grade of a revision of this very shot. */
export async function gradeOfShot(
  db: Queryable,
  shotId: string,
  revisionId: string,
): Promise<GradeDocument | undefined> {
  const { rows } = await db.query<{ grade: unknown }>('SELECT grade FROM revisions WHERE shot_id = $1 AND id = $2', [
    shotId,
    revisionId,
  ])
  return rows[0] && presentGrade(rows[0].grade)
}

/** A revision beside the present path, under a name: what someone made while the shot went on without them. */
export async function forkVersion(
  db: Queryable,
  shotId: string,
  parentId: string,
  grade: GradeDocument,
  summary: string,
  name: string,
  actor: string,
): Promise<boolean> {
  const { rows } = await db.query<{ id: string }>(
    'INSERT INTO revisions (shot_id, parent_id, depth, grade, summary, actor) SELECT shot_id, id, ' +
      'depth + 1, $3, $4, $5 FROM revisions WHERE shot_id = $1 AND id = $2 RETURNING id',
    [shotId, parentId, JSON.stringify(grade), summary, actor],
  )
  return rows[0] !== undefined && nameVersion(db, shotId, rows[0].id, name, actor)
}

/** A revision of this very shot with how the record calls going back to it. */
export async function versionToGoBackTo(
  db: Queryable,
  shotId: string,
  revisionId: string,
): Promise<{ readonly grade: GradeDocument; readonly summary: string } | undefined> {
  const { rows } = await db.query<{ grade: unknown; depth: number; name: string | null }>(
    `
      SELECT
        r.grade,
        r.depth,
        (
          SELECT
            v.name
          FROM
            versions v
          WHERE
            v.revision_id = r.id
          LIMIT
            1
        ) AS name
      FROM
        revisions r
      WHERE
        r.shot_id = $1
        AND r.id = $2
    `,
    [shotId, revisionId],
  )
  const row = rows[0]
  return row && { grade: presentGrade(row.grade), summary: `Back to ${row.name ?? `revision ${row.depth}`}` }
}
