// Changes to the reel: scenes, order, cutting and joining, one change for many shots. Media are never touched.
import { presentGrade } from '@core/grade'
import type { SceneSummary } from '@contracts/index'
import type { GradeDocument } from '@core/grade'
import { lockShotRows } from './locks'

import { onlyRow, type Queryable } from './pool'
import { picturesOf } from './scene-pictures'

export async function listScenes(db: Queryable, projectId: string): Promise<readonly SceneSummary[]> {
  const { rows } = await db.query<SceneSummary>(
    `
      SELECT
        c.id,
        c.name,
        c.position,
        c.intent,
        ${picturesOf('c')} AS pictures
      FROM
        scenes c
      WHERE
        c.project_id = $1
      ORDER BY
        c.position
    `,
    [projectId],
  )
  return rows
}

/** Whoever makes or removes scenes of a project waits for the one before. Call after the shots are locked. */
async function lockScenes(db: Queryable, projectId: string): Promise<void> {
  await db.query("SELECT pg_advisory_xact_lock(hashtextextended('scenes of ' || $1, 0))", [projectId])
}

/** The scene of this name in the project, made when it is not there: two who make it at the same time get the same. */
export async function sceneNamed(db: Queryable, projectId: string, name: string): Promise<string> {
  await lockScenes(db, projectId)
  const known = await db.query<{ id: string }>('SELECT id FROM scenes WHERE project_id = $1 AND name = $2', [
    projectId,
    name,
  ])
  if (known.rows[0]) return known.rows[0].id
  const { rows } = await db.query<{ id: string }>(
    'INSERT INTO scenes (project_id, name, position) SELECT $1, $2, coalesce(max(position), 0) + 1 ' +
      'FROM scenes WHERE project_id = $1 RETURNING id',
    [projectId, name],
  )
  return onlyRow({ rows }).id
}

/** Scenes that no shot is in any more go. Of several that empty one at the same time, the last sees it empty. */
export async function dropEmptyScenes(db: Queryable, projectId: string): Promise<void> {
  await lockScenes(db, projectId)
  await db.query(
    'DELETE FROM scenes c WHERE project_id = $1 AND NOT EXISTS (SELECT 1 FROM shots s WHERE s.scene_id = c.id)',
    [projectId],
  )
}

export interface ReelShot {
  readonly id: string
  readonly projectId: string
  readonly sceneId: string | null
  readonly mediaHash: string
  readonly name: string
  readonly cameraName: string | null
  readonly position: number
  readonly firstFrame: number
  readonly frameCount: number
  readonly leadFrame: number
  readonly leadChosen: boolean
  readonly mediaFrames: number
  /** Of the medium, as it was last found; null before it was guessed. */
  readonly codeCeiling: number | null
  readonly headId: string
  readonly grade: GradeDocument
}

/** Locks the shots with these ids and reads them, in reel order. Call inside a transaction. */
export async function lockShots(db: Queryable, ids: readonly string[]): Promise<readonly ReelShot[]> {
  await lockShotRows(db, ids)
  const { rows } = await db.query<ReelShot>(
    `
      SELECT
        s.id,
        s.project_id AS "projectId",
        s.scene_id AS "sceneId",
        s.media_hash AS "mediaHash",
        s.name,
        s.camera_name AS "cameraName",
        s.position,
        s.first_frame AS "firstFrame",
        s.frame_count AS "frameCount",
        s.lead_frame AS "leadFrame",
        s.lead_chosen AS "leadChosen",
        (m.facts ->> 'frameCount')::int AS "mediaFrames",
        (m.guess ->> 'codeCeiling')::float8 AS "codeCeiling",
        s.head_id AS "headId",
        r.grade
      FROM
        shots s
        JOIN media m ON m.hash = s.media_hash
        JOIN revisions r ON r.id = s.head_id
      WHERE
        s.id = ANY ($1::uuid[])
      ORDER BY
        s.position
    `,
    [ids],
  )
  return rows.map((row) => ({ ...row, grade: presentGrade(row.grade) }))
}

export async function setScene(db: Queryable, ids: readonly string[], sceneId: string | null): Promise<void> {
  await db.query('UPDATE shots SET scene_id = $2 WHERE id = ANY($1::uuid[])', [ids, sceneId])
}
export async function setState(db: Queryable, ids: readonly string[], state: string): Promise<void> {
  await db.query('UPDATE shots SET state = $2 WHERE id = ANY($1::uuid[])', [ids, state])
}
export async function setStaysAsItLooks(db: Queryable, ids: readonly string[], stays: boolean): Promise<void> {
  await db.query('UPDATE shots SET stays_as_it_looks = $2 WHERE id = ANY($1::uuid[])', [ids, stays])
}
export async function setCamera(db: Queryable, ids: readonly string[], cameraName: string): Promise<void> {
  await db.query(`UPDATE shots SET camera_name = nullif($2, '') WHERE id = ANY($1::uuid[])`, [ids, cameraName])
}
/** What a scene should feel like; undefined when there is no such scene. The scene is locked. */
export async function lockIntent(db: Queryable, sceneId: string): Promise<string | undefined> {
  const { rows } = await db.query<{ intent: string }>('SELECT intent FROM scenes WHERE id = $1 FOR UPDATE', [sceneId])
  return rows[0]?.intent
}
export async function setIntent(db: Queryable, sceneId: string, intent: string): Promise<void> {
  await db.query('UPDATE scenes SET intent = $2 WHERE id = $1', [sceneId, intent])
}

/** Gives shots a standard of their own; null takes it off them. */
export async function setStandard(db: Queryable, ids: readonly string[], standardId: string | null): Promise<void> {
  await db.query('UPDATE shots SET standard_id = $2 WHERE id = ANY($1::uuid[])', [ids, standardId])
}
export async function setPlayed(
  db: Queryable,
  ids: readonly string[],
  rate: { numerator: number; denominator: number } | null,
): Promise<void> {
  await db.query('UPDATE shots SET played_numerator = $2, played_denominator = $3 WHERE id = ANY($1::uuid[])', [
    ids,
    rate?.numerator ?? null,
    rate?.denominator ?? null,
  ])
}

export async function setPiece(
  db: Queryable,
  id: string,
  {
    first,
    count,
    name,
    leadFrame,
    leadChosen,
  }: { first: number; count: number; name: string; leadFrame: number; leadChosen: boolean },
): Promise<void> {
  await db.query(
    'UPDATE shots SET first_frame = $2, frame_count = $3, name = $4, lead_frame = $5, lead_chosen = $6 WHERE id = $1',
    [id, first, count, name, leadFrame, leadChosen],
  )
}

export async function removeShots(db: Queryable, ids: readonly string[]): Promise<void> {
  await db.query('DELETE FROM shots WHERE id = ANY($1::uuid[])', [ids])
}

/** Numbers the reel anew: `moved` stand before `beforeId`, or at the end. */
export async function reorder(
  db: Queryable,
  projectId: string,
  moved: readonly string[],
  beforeId: string | null,
): Promise<void> {
  await db.query(
    `
      WITH
        target AS (
          SELECT
            coalesce(
              (
                SELECT
                  position
                FROM
                  shots
                WHERE
                  id = $3
              ),
              (
                SELECT
                  coalesce(max(position), 0) + 1
                FROM
                  shots
                WHERE
                  project_id = $1
              )
            ) AS at
        ),
        ordered AS (
          SELECT
            s.id,
            row_number() OVER (
              ORDER BY
                CASE
                  WHEN s.id = ANY ($2::uuid[]) THEN target.at
                  ELSE s.position
                END,
                s.id <> ALL ($2::uuid[]),
                array_position($2::uuid[], s.id),
                s.position
            ) AS place
          FROM
            shots s,
            target
          WHERE
            s.project_id = $1
        )
      UPDATE shots s
      SET
        position = o.place
      FROM
        ordered o
      WHERE
        o.id = s.id
        AND s.position <> o.place
    `,
    [projectId, moved, beforeId],
  )
}
