// Queries about shots.
import type { ShotDetail, ShotSummary } from '@contracts/index'
import type { GradeDocument } from '@core/grade'
import { showDefaultsColumn } from './defaults'
import { lookColumn } from './looks'
import { pointedColumns } from './pointed'

import { onlyRow, type Queryable } from './pool'
import { stateColumns, stateOfRow, type StateRow } from './revisions'
import { picturesOf } from './scene-pictures'
import { notesColumn } from './stills'

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
  coalesce(s.standard_id, c.standard_id, p.standard_id) AS "standardId",
  s.standard_id AS "ownStandardId",
  CASE
    WHEN s.played_numerator IS NOT NULL THEN jsonb_build_object(
      'numerator',
      s.played_numerator,
      'denominator',
      s.played_denominator
    )
  END AS played,
  CASE
    WHEN z.setup_id IS NOT NULL THEN jsonb_build_object('id', z.setup_id, 'name', z.name, 'shots', z.shots)
  END AS setup,
  ${lookColumn} AS look,
  m.facts || jsonb_build_object('hash', m.hash, 'linked', m.seal IS NOT NULL) AS media,
  m.proxy,
  m.guess,
  s.stays_as_it_looks AS "staysAsItLooks",
  m.likeness,
  q.reading AS "usualReading",
  ${notesColumn} AS notes,
  s.head_id AS "headId",
  r.read,
  r.display_id AS "displayId",
  r.depth AS "revisionDepth"
`
/**
 * What shots of files like those that are asked about are read by, where somebody chose it: the commonest reading, and
 * how many have it.
 */
const usualReadings = `
  asked AS (
    SELECT DISTINCT
      m.likeness
    FROM
      chosen s
      JOIN media m ON m.hash = s.media_hash
    WHERE
      m.likeness <> ''
      AND (m.guess #>> '{opening,asks}')::boolean
  ),
  usual AS (
    SELECT DISTINCT
      ON (likeness) likeness,
      read || jsonb_build_object('shots', shots) AS reading
    FROM
      (
        SELECT
          m.likeness,
          jsonb_strip_nulls(
            jsonb_build_object(
              'encodingId',
              r.read -> 'encodingId',
              'gamutId',
              r.read -> 'gamutId',
              'own',
              r.read -> 'own'
            )
          ) AS read,
          count(*) AS shots
        FROM
          asked a
          JOIN media m ON m.likeness = a.likeness
          AND m.likeness <> ''
          JOIN shots o ON o.media_hash = m.hash
          JOIN revisions r ON r.id = o.head_id
        WHERE
          r.read ->> 'encodingId' IS DISTINCT FROM m.guess #>> '{opening,encodingId}'
        GROUP BY
          1,
          2
      ) g
    ORDER BY
      likeness,
      shots DESC
  )
`
/** Shots that are chosen by a query over `shots`, with everything that is said of them: each table is met once. */
const chosen = (shots: string): string => `
  WITH
    chosen AS (${shots}),
    sizes AS (
      SELECT
        u.id AS setup_id,
        u.name,
        (
          SELECT
            count(*)
          FROM
            shots o
          WHERE
            o.setup_id = u.id
        ) AS shots
      FROM
        (
          SELECT DISTINCT
            setup_id
          FROM
            chosen
          WHERE
            setup_id IS NOT NULL
        ) d
        JOIN setups u ON u.id = d.setup_id
    ),
    ${usualReadings}
`
const summaryTables = `
  chosen s
  JOIN media m ON m.hash = s.media_hash
  JOIN revisions r ON r.id = s.head_id
  JOIN projects p ON p.id = s.project_id
  LEFT JOIN scenes c ON c.id = s.scene_id
  LEFT JOIN sizes z ON z.setup_id = s.setup_id
  LEFT JOIN usual q ON q.likeness = m.likeness
  LEFT JOIN looks l ON l.id = coalesce(c.look_id, p.look_id)
`

/** The shots of a reel behind a position, so many at most. */
export async function listShots(
  db: Queryable,
  projectId: string,
  after: number,
  limit: number,
): Promise<readonly ShotSummary[]> {
  const { rows } = await db.query<ShotSummary>(
    `
      ${chosen(`
        SELECT
          *
        FROM
          shots
        WHERE
          project_id = $1
          AND position > $2
        ORDER BY
          position
        LIMIT
          $3
      `)}
      SELECT
        ${summaryColumns}
      FROM
        ${summaryTables}
      ORDER BY
        s.position
    `,
    [projectId, after, limit],
  )
  return rows
}

/** The ids of a project's shots in reel order. */
export async function shotIdsOf(db: Queryable, projectId: string): Promise<readonly string[]> {
  const { rows } = await db.query<{ id: string }>('SELECT id FROM shots WHERE project_id = $1 ORDER BY position', [
    projectId,
  ])
  return rows.map((r) => r.id)
}

type DetailRow = ShotSummary & Omit<ShotDetail, 'revision'> & StateRow

export async function findShot(db: Queryable, id: string): Promise<ShotDetail | undefined> {
  const { rows } = await db.query<DetailRow>(
    `
      ${chosen('SELECT * FROM shots WHERE id = $1')}
      SELECT
        ${summaryColumns},
        p.name AS "projectName",
        ${showDefaultsColumn} AS "showDefaults",
        coalesce(c.intent, '') AS intent,
        ${picturesOf('c')} AS "intentPictures",
        ${stateColumns},
        ${pointedColumns},
        (
          SELECT
            coalesce(jsonb_agg(o.id), '[]')
          FROM
            media n
            JOIN shots o ON o.media_hash = n.hash
            JOIN revisions h ON h.id = o.head_id
          WHERE
            n.likeness = m.likeness
            AND n.likeness <> ''
            AND o.project_id = s.project_id
            AND o.id <> s.id
            AND (n.guess #>> '{opening,asks}')::boolean
            AND NOT o.stays_as_it_looks
            AND h.read ->> 'encodingId' = n.guess #>> '{opening,encodingId}'
        ) AS "askedLikeIt",
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
    `,
    [id],
  )
  const row = rows[0]
  if (!row) return undefined
  const { grade, revisionSummary, savedAt, byItself, canUndo, canRedo, ...shot } = row
  const state = { headId: row.headId, grade, revisionSummary, savedAt, byItself, canUndo, canRedo }
  return { ...shot, revision: stateOfRow(state) }
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
  /** Imports with a smaller one stand before it on the reel. */
  readonly importOrder?: number
}

/** The first shot of the reel whose import was asked for later. */
export async function shotOfLaterImport(
  db: Queryable,
  projectId: string,
  importOrder: number,
): Promise<string | undefined> {
  const { rows } = await db.query<{ id: string }>(
    'SELECT id FROM shots WHERE project_id = $1 AND import_order > $2 ORDER BY position LIMIT 1',
    [projectId, importOrder],
  )
  return rows[0]?.id
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
          import_order,
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
          $10,
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
      shot.importOrder ?? null,
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
