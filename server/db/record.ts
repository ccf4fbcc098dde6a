// Queries about the record: revisions from the newest on, what each changed, and versions: revisions with a name.
import type { RecordEntry, VersionSummary } from '@contracts/responses'
import { presentGrade, type GradeDocument } from '@core/grade'
import { lockShotRows } from './locks'
import type { Queryable } from './pool'

export type StoredEntry = Omit<RecordEntry, 'changes'> & { readonly changes: readonly string[] | null }
interface EntryRow extends Omit<StoredEntry, 'at'> {
  readonly at: Date
  /** Where the page behind this entry begins. */
  readonly cursor: string
}
const entryColumns = `
  r.id,
  r.parent_id AS "parentId",
  r.depth,
  r.summary,
  r.why,
  r.actor,
  r.created_at AS at,
  k.words AS changes
`
const entryOf = ({ at, cursor: _, ...entry }: EntryRow): StoredEntry => ({ ...entry, at: at.toISOString() })

export interface EntryPage {
  readonly entries: readonly StoredEntry[]
  /** Where the next page begins; null behind the last. */
  readonly next: string | null
}
/** A place in a record: when, how deep and which. */
export interface RecordCursor {
  readonly at: string
  readonly depth: number
  readonly id: string
}

/** A shot's revisions from the newest on, behind a cursor. */
export async function entriesOf(
  db: Queryable,
  shotId: string,
  behind: RecordCursor | null,
  limit: number,
): Promise<EntryPage> {
  const { rows } = await db.query<EntryRow>(
    `
      SELECT
        ${entryColumns},
        r.created_at::text || '|' || r.depth || '|' || r.id AS cursor
      FROM
        revisions r
        LEFT JOIN revision_changes k ON k.revision_id = r.id
      WHERE
        r.shot_id = $1
        AND (
          $2::timestamptz IS NULL
          OR (r.created_at, r.depth, r.id) < ($2, $3, $4::uuid)
        )
      ORDER BY
        r.created_at DESC,
        r.depth DESC,
        r.id DESC
      LIMIT
        $5
    `,
    [shotId, behind?.at ?? null, behind?.depth ?? 0, behind?.id ?? null, limit],
  )
  return { entries: rows.map(entryOf), next: rows.length === limit ? (rows.at(-1)?.cursor ?? null) : null }
}

/** The revisions that a revision stands on, itself first; so many at most. */
export async function entriesBelow(db: Queryable, headId: string, limit: number): Promise<readonly StoredEntry[]> {
  const { rows } = await db.query<EntryRow>(
    `
      WITH RECURSIVE
        path AS (
          SELECT
            id,
            parent_id,
            1 AS step
          FROM
            revisions
          WHERE
            id = $1
          UNION ALL
          SELECT
            r.id,
            r.parent_id,
            path.step + 1
          FROM
            path
            JOIN revisions r ON r.id = path.parent_id
          WHERE
            path.step < $2
        )
      SELECT
        ${entryColumns},
        '' AS cursor
      FROM
        path
        JOIN revisions r ON r.id = path.id
        LEFT JOIN revision_changes k ON k.revision_id = r.id
      ORDER BY
        path.step
    `,
    [headId, limit],
  )
  return rows.map(entryOf)
}

export interface BeforeAndAfter {
  readonly id: string
  readonly before: GradeDocument | null
  readonly after: GradeDocument
}

/** Grades of revisions with those they were made on. */
export async function gradesAround(db: Queryable, ids: readonly string[]): Promise<readonly BeforeAndAfter[]> {
  const { rows } = await db.query<{ id: string; before: unknown; after: unknown }>(
    `
      SELECT
        r.id,
        b.grade AS before,
        r.grade AS after
      FROM
        revisions r
        LEFT JOIN revisions b ON b.id = r.parent_id
      WHERE
        r.id = ANY ($1::uuid[])
    `,
    [ids],
  )
  return rows.map(({ id, before, after }) => ({
    id,
    before: before === null ? null : presentGrade(before),
    after: presentGrade(after),
  }))
}

/** Keeps what revisions changed, in words. */
export async function keepChanges(db: Queryable, changes: ReadonlyMap<string, readonly string[]>): Promise<void> {
  if (changes.size === 0) return
  await db.query(
    `
      INSERT INTO
        revision_changes (revision_id, words)
      SELECT
        k.id,
        k.words
      FROM
        jsonb_to_recordset($1) AS k (id uuid, words jsonb)
      ON CONFLICT DO NOTHING
    `,
    [JSON.stringify([...changes].map(([id, words]) => ({ id, words })))],
  )
}

/** Where a shot stands in its record; undefined when there is no such shot. */
export async function standingOf(
  db: Queryable,
  shotId: string,
): Promise<{ readonly headId: string; readonly tipId: string } | undefined> {
  const { rows } = await db.query<{ headId: string; tipId: string }>(
    'SELECT head_id AS "headId", tip_id AS "tipId" FROM shots WHERE id = $1',
    [shotId],
  )
  return rows[0]
}

export async function versionsOf(db: Queryable, shotId: string): Promise<readonly VersionSummary[]> {
  const { rows } = await db.query<Omit<VersionSummary, 'at'> & { at: Date }>(
    'SELECT id, name, revision_id AS "revisionId", actor, created_at AS at FROM versions WHERE ' +
      'shot_id = $1 ORDER BY created_at',
    [shotId],
  )
  return rows.map((r) => ({ ...r, at: r.at.toISOString() }))
}

/** Which revision carries a name in a shot, null where none does. The shot is locked. */
export async function lockName(db: Queryable, shotId: string, name: string): Promise<string | null> {
  await lockShotRows(db, [shotId])
  const { rows } = await db.query<{ revisionId: string }>(
    'SELECT revision_id AS "revisionId" FROM versions WHERE shot_id = $1 AND name = $2',
    [shotId, name],
  )
  return rows[0]?.revisionId ?? null
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

/** The revision that a version is; undefined when there is no such version. The version is locked. */
export async function lockVersion(db: Queryable, id: string): Promise<string | undefined> {
  const { rows } = await db.query<{ revisionId: string }>(
    'SELECT revision_id AS "revisionId" FROM versions WHERE id = $1 FOR UPDATE',
    [id],
  )
  return rows[0]?.revisionId
}

export async function removeVersion(db: Queryable, id: string): Promise<void> {
  await db.query('DELETE FROM versions WHERE id = $1', [id])
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
