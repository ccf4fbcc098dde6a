// The Record: revisions are only ever added; undo and redo move the shot's pointer.
import type { RevisionState } from '@contracts/index'
import { differences, presentGrade, type GradeDocument } from '@core/grade'
import type { Queryable } from './pool'

export interface RevisionRow {
  readonly id: string
  readonly shotId: string
  readonly shotName: string
  readonly mediaHash: string
  readonly firstFrame: number
  readonly frameCount: number
  readonly played: { numerator: number; denominator: number } | null
  readonly grade: GradeDocument
}

export async function findRevision(db: Queryable, id: string): Promise<RevisionRow | undefined> {
  const { rows } = await db.query<RevisionRow>(
    `
      SELECT
        r.id,
        r.shot_id AS "shotId",
        s.name AS "shotName",
        s.media_hash AS "mediaHash",
        s.first_frame AS "firstFrame",
        s.frame_count AS "frameCount",
        CASE
          WHEN s.played_numerator IS NULL THEN NULL
          ELSE jsonb_build_object('numerator', s.played_numerator, 'denominator', s.played_denominator)
        END AS played,
        r.grade
      FROM
        revisions r
        JOIN shots s ON s.id = r.shot_id
      WHERE
        r.id = $1
    `,
    [id],
  )
  const row = rows[0]
  return row && { ...row, grade: presentGrade(row.grade) }
}

export interface Head {
  readonly id: string
  readonly grade: GradeDocument
  readonly shared: boolean
  /** Why it was made; null for a hand's work. */
  readonly kind: string | null
}
export async function headOf(db: Queryable, shotId: string): Promise<Head | undefined> {
  const { rows } = await db.query<{ id: string; grade: unknown; shared: boolean; kind: string | null }>(
    "SELECT r.id, r.grade, r.shared, r.why ->> 'kind' AS kind FROM shots s JOIN revisions r ON r.id = " +
      's.head_id WHERE s.id = $1',
    [shotId],
  )
  return rows[0] && { ...rows[0], grade: presentGrade(rows[0].grade) }
}

/** What a shot's head says, where `s` is the shot and `r` its head. */
export const stateColumns = `
  s.head_id AS "headId",
  r.grade,
  r.summary AS "revisionSummary",
  r.created_at AS "savedAt",
  coalesce(r.why ->> 'kind', '') = 'opening' AS "byItself",
  r.parent_id IS NOT NULL AS "canUndo",
  s.tip_id <> s.head_id AS "canRedo"
`
export interface StateRow {
  readonly headId: string
  readonly grade: unknown
  readonly revisionSummary: string
  readonly savedAt: Date
  readonly byItself: boolean
  readonly canUndo: boolean
  readonly canRedo: boolean
}
export const stateOfRow = ({ grade, revisionSummary, savedAt, ...rest }: StateRow): RevisionState => ({
  ...rest,
  grade: presentGrade(grade),
  summary: revisionSummary,
  savedAt: savedAt.toISOString(),
})

/** The state that a shot is in. Undefined when there is no such shot. */
export async function stateOf(db: Queryable, shotId: string): Promise<RevisionState | undefined> {
  const { rows } = await db.query<StateRow>({
    name: 'state of a shot',
    text: `SELECT ${stateColumns} FROM shots s JOIN revisions r ON r.id = s.head_id WHERE s.id = $1`,
    values: [shotId],
  })
  return rows[0] && stateOfRow(rows[0])
}

export type HeadResult = 'moved' | 'conflict' | 'nowhere' | 'missing'

interface LockedHead {
  readonly headId: string
  readonly tipId: string
  /** The grade of the revision that the change is meant for. */
  readonly expected: unknown
}
async function lockHead(db: Queryable, shotId: string, expectedId: string): Promise<LockedHead | undefined> {
  const { rows } = await db.query<LockedHead>({
    name: 'lock a head',
    // What a revision holds never changes, so that it may be read before the lock is there.
    text: `
      SELECT
        head_id AS "headId",
        tip_id AS "tipId",
        (
          SELECT
            grade
          FROM
            revisions
          WHERE
            id = $2
        ) AS expected
      FROM
        shots
      WHERE
        id = $1
      FOR UPDATE
    `,
    values: [shotId, expectedId],
  })
  return rows[0]
}

export interface NewHead {
  readonly shotId: string
  readonly parentId: string
  readonly grade: GradeDocument
  /** Cut to what the record holds. */
  readonly summary: string
  readonly actor: string
  readonly why?: object | undefined
  /** The other shots of the set-up, if there are any, follow it. */
  readonly shared?: boolean
}
const summaryLength = 400

/** Adds a revision on top of `parentId` and makes it the present one. Call inside a transaction. */
export async function appendRevision(
  db: Queryable,
  { shotId, parentId, grade, summary, actor, why, shared = false }: NewHead,
): Promise<HeadResult> {
  const shot = await lockHead(db, shotId, parentId)
  if (!shot) return 'missing'
  if (shot.headId !== parentId) return 'conflict'
  const words = differences(presentGrade(shot.expected), grade).map((d) => d.words)
  await db.query({
    name: 'append a revision',
    text: `
      WITH
        added AS (
          INSERT INTO
            revisions (shot_id, parent_id, depth, grade, summary, actor, why, shared)
          SELECT
            $1,
            id,
            depth + 1,
            $3,
            $4,
            $5,
            $6,
            $7
            AND EXISTS (
              SELECT
                1
              FROM
                shots s
                JOIN shots o ON o.setup_id = s.setup_id
                AND o.id <> s.id
              WHERE
                s.id = $1
            )
          FROM
            revisions
          WHERE
            id = $2
          RETURNING
            id
        ),
        moved AS (
          UPDATE shots
          SET
            head_id = added.id,
            tip_id = added.id
          FROM
            added
          WHERE
            shots.id = $1
        )
      INSERT INTO
        revision_changes (revision_id, words)
      SELECT
        id,
        $8
      FROM
        added
    `,
    values: [
      shotId,
      parentId,
      JSON.stringify(grade),
      summary.slice(0, summaryLength),
      actor,
      why ? JSON.stringify(why) : null,
      shared,
      JSON.stringify(words),
    ],
  })
  return 'moved'
}

/** Moves the pointer to the parent. Call inside a transaction. */
export async function undo(db: Queryable, shotId: string, expectedId: string): Promise<HeadResult> {
  const shot = await lockHead(db, shotId, expectedId)
  if (!shot) return 'missing'
  if (shot.headId !== expectedId) return 'conflict'
  const { rowCount } = await db.query(
    'UPDATE shots s SET head_id = r.parent_id FROM revisions r WHERE s.id = $1 AND r.id = s.head_id ' +
      'AND r.parent_id IS NOT NULL',
    [shotId],
  )
  return rowCount === 1 ? 'moved' : 'nowhere'
}

/** Moves the pointer one revision toward the tip. Call inside a transaction. */
export async function redo(db: Queryable, shotId: string, expectedId: string): Promise<HeadResult> {
  const shot = await lockHead(db, shotId, expectedId)
  if (!shot) return 'missing'
  if (shot.headId !== expectedId) return 'conflict'
  const { rowCount } = await db.query(
    `WITH RECURSIVE back AS (
       SELECT id, parent_id FROM revisions WHERE id = $2
       UNION ALL
       SELECT r.id, r.parent_id FROM revisions r JOIN back ON r.id = back.parent_id WHERE back.parent_id <> $3
     )
     UPDATE shots SET head_id = back.id FROM back WHERE shots.id = $1 AND back.parent_id = $3`,
    [shotId, shot.tipId, expectedId],
  )
  return rowCount === 1 ? 'moved' : 'nowhere'
}
