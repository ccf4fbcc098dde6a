// Queries about render jobs and their state.
import type { RenderSummary } from '@contracts/index'
import type { Queryable } from './pool'

const columns = `
  n.id,
  n.shot_id AS "shotId",
  s.name AS "shotName",
  n.revision_id AS "revisionId",
  n.state,
  n.frames_done AS "framesDone",
  n.frames_total AS "framesTotal",
  n.error,
  n.size_bytes::float8 AS "sizeBytes",
  n.created_at AS "createdAt"
`

export async function insertRender(
  db: Queryable,
  revisionId: string,
  actor: string,
): Promise<{ id: string } | undefined> {
  const { rows } = await db.query<{ id: string }>(
    `INSERT INTO renders (shot_id, project_id, revision_id, frames_total, actor)
     SELECT r.shot_id, s.project_id, r.id, s.frame_count, $2
       FROM revisions r JOIN shots s ON s.id = r.shot_id WHERE r.id = $1
     RETURNING id`,
    [revisionId, actor],
  )
  return rows[0]
}

export async function findRender(db: Queryable, id: string): Promise<RenderSummary | undefined> {
  const { rows } = await db.query<RenderSummary>(
    `SELECT ${columns} FROM renders n JOIN shots s ON s.id = n.shot_id WHERE n.id = $1`,
    [id],
  )
  return rows[0]
}

export async function listRenders(db: Queryable, projectId: string): Promise<readonly RenderSummary[]> {
  const { rows } = await db.query<RenderSummary>(
    `
      WITH
        newest AS (
          SELECT
            *
          FROM
            renders
          WHERE
            project_id = $1
          ORDER BY
            created_at DESC
          LIMIT
            100
        )
      SELECT
        ${columns}
      FROM
        newest n
        JOIN shots s ON s.id = n.shot_id
      ORDER BY
        n.created_at DESC
    `,
    [projectId],
  )
  return rows
}

/** Takes a queued render. False when it was cancelled meanwhile or another worker has it. */
export async function claimRender(db: Queryable, id: string): Promise<boolean> {
  const { rowCount } = await db.query(
    `UPDATE renders SET state = 'running', frames_done = 0, updated_at = now() WHERE id = $1 AND state = 'queued'`,
    [id],
  )
  return rowCount === 1
}

/** Reports progress. False when the render is no longer to be run. */
export async function reportProgress(db: Queryable, id: string, framesDone: number): Promise<boolean> {
  const { rowCount } = await db.query(
    `UPDATE renders SET frames_done = $2, updated_at = now() WHERE id = $1 AND state = 'running'`,
    [id, framesDone],
  )
  return rowCount === 1
}

export async function finishRender(db: Queryable, id: string, sizeBytes: number): Promise<boolean> {
  const { rowCount } = await db.query(
    `
      UPDATE renders
      SET
        state = 'done',
        frames_done = frames_total,
        size_bytes = $2,
        updated_at = now()
      WHERE
        id = $1
        AND state = 'running'
    `,
    [id, sizeBytes],
  )
  return rowCount === 1
}

export async function failRender(db: Queryable, id: string, message: string): Promise<void> {
  await db.query(
    `UPDATE renders SET state = 'failed', error = $2, updated_at = now() WHERE id = $1 AND state = 'running'`,
    [id, message],
  )
}

export async function cancelRender(db: Queryable, id: string): Promise<void> {
  await db.query(
    `UPDATE renders SET state = 'cancelled', updated_at = now() WHERE id = $1 AND state IN ('queued', 'running')`,
    [id],
  )
}

/** Puts renders back whose worker has not reported for a while (it was killed), and returns their ids. */
export async function requeueAbandoned(db: Queryable, silentSeconds: number): Promise<readonly string[]> {
  const { rows } = await db.query<{ id: string }>(
    `UPDATE renders SET state = 'queued', updated_at = now()
      WHERE state = 'running' AND updated_at < now() - make_interval(secs => $1) RETURNING id`,
    [silentSeconds],
  )
  return rows.map((r) => r.id)
}
