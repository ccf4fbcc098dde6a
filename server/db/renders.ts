// Queries about render jobs and their state.
import type { RenderSummary } from '@contracts/index'
import type { Queryable } from './pool'
import { isToBePutBack, type Attempt, type PutBack } from './work'

const columns = `
  n.id,
  n.shot_id AS "shotId",
  s.name AS "shotName",
  s.first_frame AS "firstFrame",
  s.frame_count AS "frameCount",
  s.lead_frame AS "leadFrame",
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
            AND removed_at IS NULL
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
export async function claimRender(db: Queryable, { id, attempt }: Attempt): Promise<boolean> {
  const { rowCount } = await db.query(
    `UPDATE renders SET state = 'running', attempt = $2, frames_done = 0, updated_at = now()
      WHERE id = $1 AND state = 'queued'`,
    [id, attempt],
  )
  return rowCount === 1
}

/** Reports progress. False when the render is no longer to be run. */
export async function reportProgress(db: Queryable, { id, attempt }: Attempt, framesDone: number): Promise<boolean> {
  const { rowCount } = await db.query(
    `UPDATE renders SET frames_done = $2, updated_at = now() WHERE id = $1 AND attempt = $3 AND state = 'running'`,
    [id, framesDone, attempt],
  )
  return rowCount === 1
}

/** Says that the render goes on, though no frame was finished lately. */
export async function touchRender(db: Queryable, { id, attempt }: Attempt): Promise<void> {
  await db.query(`UPDATE renders SET updated_at = now() WHERE id = $1 AND attempt = $2 AND state = 'running'`, [
    id,
    attempt,
  ])
}

/** False when the render is no longer this try's. Until the transaction ends nobody else takes or cancels it. */
export async function finishRender(db: Queryable, { id, attempt }: Attempt, sizeBytes: number): Promise<boolean> {
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
        AND attempt = $3
        AND state = 'running'
    `,
    [id, sizeBytes, attempt],
  )
  return rowCount === 1
}

export async function failRender(db: Queryable, { id, attempt }: Attempt, message: string): Promise<void> {
  await db.query(
    `UPDATE renders SET state = 'failed', error = $2, updated_at = now()
      WHERE id = $1 AND attempt = $3 AND state = 'running'`,
    [id, message, attempt],
  )
}

export async function cancelRender(db: Queryable, id: string): Promise<void> {
  await db.query(
    `UPDATE renders SET state = 'cancelled', updated_at = now() WHERE id = $1 AND state IN ('queued', 'running')`,
    [id],
  )
}

/** Puts renders back, and returns their ids. */
export async function requeueRenders(
  db: Queryable,
  { silentSeconds, attempts, waitedSeconds }: PutBack,
): Promise<readonly string[]> {
  const { rows } = await db.query<{ id: string }>(
    `UPDATE renders SET state = 'queued', attempt = NULL, updated_at = now() WHERE ${isToBePutBack} RETURNING id`,
    [silentSeconds, attempts, waitedSeconds],
  )
  return rows.map((r) => r.id)
}

/** The tries that have a render under way. */
export async function runningRenders(db: Queryable): Promise<readonly string[]> {
  const { rows } = await db.query<{ attempt: string }>(
    `SELECT attempt FROM renders WHERE state = 'running' AND attempt IS NOT NULL`,
  )
  return rows.map((row) => row.attempt)
}
