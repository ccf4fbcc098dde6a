// Queries about work that runs in the background: imports and surveys.
import type { WorkSummary } from '@contracts/index'
import type { Queryable } from './pool'

export type WorkKind = WorkSummary['kind']
export interface NewWork {
  readonly kind: WorkKind
  readonly projectId: string | null
  readonly mediaHash: string | null
  readonly name: string
  readonly payload: object
  readonly actor: string
}

const columns = 'id, kind, name, media_hash AS "mediaHash", state, stage, done, total, error, hint'

/** Adds work; undefined when the same medium is being surveyed already. */
export async function insertWork(
  db: Queryable,
  { kind, projectId, mediaHash, name, payload, actor }: NewWork,
): Promise<string | undefined> {
  const { rows } = await db.query<{ id: string }>(
    'INSERT INTO work (kind, project_id, media_hash, name, payload, actor) VALUES ($1, $2, $3, $4, ' +
      '$5, $6) ON CONFLICT DO NOTHING RETURNING id',
    [kind, projectId, mediaHash, name, JSON.stringify(payload), actor],
  )
  return rows[0]?.id
}

export interface ClaimedWork {
  readonly id: string
  readonly projectId: string | null
  readonly mediaHash: string | null
  readonly name: string
  readonly payload: unknown
  readonly actor: string
}

/** One try of a piece of work or a render, by its token: what is not of the try that has it is left alone. */
export interface Attempt {
  readonly id: string
  readonly attempt: string
}

/** Takes queued work. Undefined when it was cancelled meanwhile or another worker has it. */
export async function claimWork(db: Queryable, { id, attempt }: Attempt): Promise<ClaimedWork | undefined> {
  const { rows } = await db.query<ClaimedWork>(
    `UPDATE work SET state = 'running', attempt = $2, done = 0, updated_at = now() WHERE id = $1 AND state = 'queued'
     RETURNING id, project_id AS "projectId", media_hash AS "mediaHash", name, payload, actor`,
    [id, attempt],
  )
  return rows[0]
}

/** Says that the work goes on, without numbers. */
export async function touchWork(db: Queryable, { id, attempt }: Attempt): Promise<void> {
  await db.query(`UPDATE work SET updated_at = now() WHERE id = $1 AND attempt = $2 AND state = 'running'`, [
    id,
    attempt,
  ])
}

/** Reports where the work is. False when it is no longer to be done. */
export async function reportWork(
  db: Queryable,
  { id, attempt }: Attempt,
  stage: string,
  done: number,
  total: number,
): Promise<boolean> {
  const { rowCount } = await db.query(
    `UPDATE work SET stage = $2, done = $3, total = $4, updated_at = now()
      WHERE id = $1 AND attempt = $5 AND state = 'running'`,
    [id, stage, done, total, attempt],
  )
  return rowCount === 1
}

/** False when the work is no longer this try's to end. */
export async function endWork(
  db: Queryable,
  { id, attempt }: Attempt,
  failure: { message: string; hint?: string } | null,
): Promise<boolean> {
  const { rowCount } = await db.query(
    `UPDATE work SET state = $2, error = $3, hint = $4, updated_at = now()
      WHERE id = $1 AND attempt = $5 AND state = 'running'`,
    [id, failure ? 'failed' : 'done', failure?.message ?? null, failure?.hint ?? null, attempt],
  )
  return rowCount === 1
}

/** Ends work that has not come to its end, and forgets work that has. */
export async function cancelWork(db: Queryable, id: string): Promise<boolean> {
  const { rowCount } = await db.query(
    `UPDATE work SET state = 'cancelled', updated_at = now() WHERE id = $1 AND state <> 'cancelled'`,
    [id],
  )
  return rowCount === 1
}

/** What goes on or went wrong in a project, oldest first. */
export async function listWork(db: Queryable, projectId: string): Promise<readonly WorkSummary[]> {
  const { rows } = await db.query<WorkSummary>(
    `
      SELECT
        ${columns}
      FROM
        work w
        LEFT JOIN LATERAL (
          SELECT
            TRUE AS found
          FROM
            shots s
          WHERE
            s.media_hash = w.media_hash
            AND s.project_id = $1
          LIMIT
            1
        ) of_shot ON w.kind = 'survey'
      WHERE
        w.state IN ('queued', 'running', 'failed')
        AND (
          w.project_id = $1
          OR of_shot.found
        )
      ORDER BY
        created_at
      LIMIT
        200
    `,
    [projectId],
  )
  return rows
}

export async function findWork(db: Queryable, id: string): Promise<WorkSummary | undefined> {
  const { rows } = await db.query<WorkSummary>(`SELECT ${columns} FROM work WHERE id = $1`, [id])
  return rows[0]
}

/**
 * What goes back into the queue: what was silent for so long, what these attempts have, and what has waited for so long
 * that whoever was to take it up may be gone.
 */
export interface PutBack {
  readonly silentSeconds: number
  readonly attempts: readonly string[]
  readonly waitedSeconds: number
}

/** The condition on a row of work or of renders; its parameters are the three of PutBack. */
export const isToBePutBack = `(
  state = 'running'
  AND (
    updated_at < now() - make_interval(secs => $1)
    OR attempt = ANY ($2::text[])
  )
  OR state = 'queued'
  AND updated_at <= now() - make_interval(secs => $3)
)`

/** Puts work back whose worker has not reported for a while (it was killed), or that is one of these attempts. */
export async function requeueWork(
  db: Queryable,
  { silentSeconds, attempts, waitedSeconds }: PutBack,
): Promise<readonly { readonly id: string; readonly kind: WorkKind }[]> {
  const { rows } = await db.query<{ id: string; kind: WorkKind }>(
    `
      UPDATE work
      SET
        state = 'queued',
        attempt = NULL,
        updated_at = now()
      WHERE
        ${isToBePutBack}
      RETURNING
        id,
        kind
    `,
    [silentSeconds, attempts, waitedSeconds],
  )
  return rows
}

/** Forgets work that ended long ago. */
export async function pruneWork(db: Queryable, days: number): Promise<number> {
  const { rowCount } = await db.query(
    `DELETE FROM work WHERE state IN ('done', 'cancelled') AND updated_at < now() - make_interval(days => $1)`,
    [days],
  )
  return rowCount ?? 0
}

/**
 * Takes rows of the queue away that nobody will take up again: those that failed, and those whose worker has been gone
 * for hours. What they were for has a state of its own.
 */
export async function pruneQueue(db: Queryable): Promise<number> {
  const { rowCount } = await db.query(
    `SELECT graphile_worker.complete_jobs (ARRAY(SELECT id FROM graphile_worker.jobs WHERE attempts >= max_attempts))`,
  )
  return rowCount ?? 0
}

/** The tries that have work under way. */
export async function runningWork(db: Queryable): Promise<readonly string[]> {
  const { rows } = await db.query<{ attempt: string }>(
    `SELECT attempt FROM work WHERE state = 'running' AND attempt IS NOT NULL`,
  )
  return rows.map((row) => row.attempt)
}
