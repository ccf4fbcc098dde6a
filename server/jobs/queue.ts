// The job queue in PostgreSQL: several server processes may share it.
import { Logger as QueueLogger, run, type Runner } from 'graphile-worker'
import type { ServerContext } from '../context'
import { requeueAbandoned } from '../db/renders'
import { transaction, type Queryable } from '../db/pool'
import { renderShot } from './render-shot'

const renderTask = 'render'

/** Adds a render to the queue, in the caller's transaction. */
export async function enqueueRender(db: Queryable, id: string): Promise<void> {
  await db.query(`SELECT graphile_worker.add_job($1, payload := json_build_object('id', $2::text), max_attempts := 1)`, [renderTask, id])
}

// A running render reports at least this often; one that was silent for longer has lost its worker.
const silentSeconds = 20

export interface JobWorker { readonly stop: () => Promise<void> }

/** Starts taking jobs. Renders whose worker was killed are put back and taken up again. */
export async function startJobs(context: ServerContext): Promise<JobWorker> {
  const { pool, log } = context
  const logger = new QueueLogger(() => (level, message) => {
    if (level === 'error' || level === 'warning') log.warn({ queue: level }, message)
  })
  const runner: Runner = await run({
    pgPool: pool,
    logger,
    concurrency: 1,
    pollInterval: 2000,
    noHandleSignals: true,
    taskList: {
      [renderTask]: async (payload) => {
        const { id } = payload as { id?: unknown }
        if (typeof id === 'string') await renderShot(context, id)
      },
    },
  })
  const requeue = async (): Promise<void> => {
    try {
      await transaction(pool, async (db) => {
        for (const id of await requeueAbandoned(db, silentSeconds)) await enqueueRender(db, id)
      })
    } catch (error) {
      log.warn({ code: (error as { code?: string }).code }, 'abandoned renders could not be looked for')
    }
  }
  await requeue()
  const timer = setInterval(() => void requeue(), 5000)
  return {
    stop: async () => {
      clearInterval(timer)
      await runner.stop()
    },
  }
}
