// Queries about shots.
import type { RevisionState, ShotDetail, ShotSummary } from '@contracts/index'
import type { GradeDocument } from '@core/grade'
import { lookColumn } from './looks'
import { pointedColumns } from './pointed'
import { presentGrade } from './revisions'
import { onlyRow, type Queryable } from './pool'
import { picturesOf } from './scene-pictures'

const summaryColumns = `
  s.id,
  s.project_id AS "projectId",
  s.name,
  s.position,
  s.scene_id AS "sceneId",
  c.name AS scene,
  s.camera_name AS "cameraName",
  s.first_frame AS "firstFrame",
  s.frame_count AS "frameCount",
  s.lead_frame AS "leadFrame",
  s.lead_chosen AS "leadChosen",
  s.state,
  coalesce(
    c.standard_id,
    (
      SELECT
        j.standard_id
      FROM
        projects j
      WHERE
        j.id = s.project_id
    )
  ) AS "standardId",
  CASE
    WHEN s.played_numerator IS NULL THEN NULL
    ELSE jsonb_build_object('numerator', s.played_numerator, 'denominator', s.played_denominator)
  END AS played,
  CASE
    WHEN s.setup_id IS NULL THEN NULL
    ELSE jsonb_build_object(
      'id',
      s.setup_id,
      'name',
      (
        SELECT
          u.name
        FROM
          setups u
        WHERE
          u.id = s.setup_id
      ),
      'shots',
      (
        SELECT
          count(*)
        FROM
          shots o
        WHERE
          o.setup_id = s.setup_id
      )
    )
  END AS setup,
  ${lookColumn} AS look,
  m.facts || jsonb_build_object('hash', m.hash) AS media,
  m.proxy,
  m.guess,
  s.head_id AS "headId",
  r.grade -> 'read' AS read,
  r.grade -> 'show' ->> 'displayId' AS "displayId",
  r.depth AS "revisionDepth"
`
const summaryTables = `
  shots s
  JOIN media m ON m.hash = s.media_hash
  JOIN revisions r ON r.id = s.head_id
  LEFT JOIN scenes c ON c.id = s.scene_id
`

export async function listShots(db: Queryable, projectId: string): Promise<readonly ShotSummary[]> {
  const { rows } = await db.query<ShotSummary>(
    `SELECT ${summaryColumns} FROM ${summaryTables} WHERE s.project_id = $1 ORDER BY s.position`,
    [projectId],
  )
  return rows
}

type DetailRow = ShotSummary &
  Omit<ShotDetail, 'revision'> & {
    grade: GradeDocument
    revisionSummary: string
    savedAt: Date
    hasParent: boolean
    hasRedo: boolean
  }

export async function findShot(db: Queryable, id: string): Promise<ShotDetail | undefined> {
  const { rows } = await db.query<DetailRow>(
    `
      SELECT
        ${summaryColumns},
        p.name AS "projectName",
        coalesce(c.intent, '') AS intent,
        ${picturesOf('c')} AS "intentPictures",
        r.grade,
        r.summary AS "revisionSummary",
        r.created_at AS "savedAt",
        r.parent_id IS NOT NULL AS "hasParent",
        s.tip_id <> s.head_id AS "hasRedo",
        ${pointedColumns},
        (
          SELECT
            id
          FROM
            shots b
          WHERE
            b.project_id = s.project_id
            AND b.position < s.position
          ORDER BY
            b.position DESC
          LIMIT
            1
        ) AS "previousShotId",
        (
          SELECT
            id
          FROM
            shots n
          WHERE
            n.project_id = s.project_id
            AND n.position > s.position
          ORDER BY
            n.position
          LIMIT
            1
        ) AS "nextShotId"
      FROM
        ${summaryTables}
        JOIN projects p ON p.id = s.project_id
      WHERE
        s.id = $1
    `,
    [id],
  )
  const row = rows[0]
  if (!row) return undefined
  const { grade: stored, revisionSummary, savedAt, hasParent, hasRedo, ...shot } = row
  const revision: RevisionState = {
    headId: row.headId,
    grade: presentGrade(stored),
    summary: revisionSummary,
    savedAt: savedAt.toISOString(),
    canUndo: hasParent,
    canRedo: hasRedo,
  }
  return { ...shot, revision }
}

export interface NewShot {
  readonly projectId: string
  readonly sceneId: string | null
  readonly mediaHash: string
  readonly name: string
  readonly cameraName: string | null
  readonly firstFrame: number
  readonly frameCount: number
  readonly leadFrame: number
  readonly leadChosen: boolean
  readonly grade: GradeDocument
  readonly actor: string
  /** What the first revision says. */
  readonly summary: string
}

/** Adds a shot at the end of the reel with its first revision; see services/shots.ts. Call inside a transaction. */
export async function insertShot(db: Queryable, shot: NewShot): Promise<{ id: string }> {
  // The project's row lock keeps two imports from taking the same position.
  await db.query('UPDATE projects SET updated_at = now() WHERE id = $1', [shot.projectId])
  const { rows } = await db.query<{ id: string }>(
    `
      INSERT INTO
        shots (
          project_id,
          scene_id,
          media_hash,
          name,
          camera_name,
          first_frame,
          frame_count,
          lead_frame,
          lead_chosen,
          position
        )
      VALUES
        (
          $1,
          $2,
          $3,
          $4,
          $5,
          $6,
          $7,
          $8,
          $9,
          (
            SELECT
              coalesce(max(position), 0) + 1
            FROM
              shots
            WHERE
              project_id = $1
          )
        )
      RETURNING
        id
    `,
    [
      shot.projectId,
      shot.sceneId,
      shot.mediaHash,
      shot.name,
      shot.cameraName,
      shot.firstFrame,
      shot.frameCount,
      shot.leadFrame,
      shot.leadChosen,
    ],
  )
  const id = onlyRow({ rows }).id
  const first = await db.query<{ id: string }>(
    'INSERT INTO revisions (shot_id, parent_id, depth, grade, summary, actor) VALUES ($1, NULL, 1, ' +
      '$2, $3, $4) RETURNING id',
    [id, JSON.stringify(shot.grade), shot.summary, shot.actor],
  )
  await db.query('UPDATE shots SET head_id = $2, tip_id = $2 WHERE id = $1', [id, onlyRow(first).id])
  return { id }
}
