// Putting work into the queue, in the caller's transaction.
import type { Queryable } from '../db/pool'
import { insertWork, type WorkKind } from '../db/work'

/** First whoever imported sees the shot. */
const surveyAfterSeconds = 2

/**
 * Adds the queue's job for a row of work or a render. Where one waits already it stays as it is; where one was taken by
 * a process that died before it claimed the row, there is another.
 */
export async function enqueue(db: Queryable, task: WorkKind | 'render', id: string): Promise<void> {
  await db.query(
    `
      SELECT
        graphile_worker.add_job (
          $1,
          payload := json_build_object('id', $2::text),
          job_key := $1 || ' ' || $2,
          job_key_mode := 'preserve_run_at',
          max_attempts := 1,
          priority := $3,
          run_at := now() + make_interval(secs => $4)
        )
    `,
    [task, id, task === 'survey' ? 5 : 0, task === 'survey' ? surveyAfterSeconds : 0],
  )
}

/** Looks through a medium in the background, unless that was done or is under way. */
export async function enqueueSurvey(db: Queryable, mediaHash: string, name: string, actor: string): Promise<void> {
  const { rows } = await db.query('SELECT 1 FROM media WHERE hash = $1 AND proxy IS NOT NULL', [mediaHash])
  if (rows.length > 0) return
  const id = await insertWork(db, { kind: 'survey', projectId: null, mediaHash, name, payload: {}, actor })
  if (id) await enqueue(db, 'survey', id)
}
