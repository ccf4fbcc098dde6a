// The job queue in PostgreSQL: several server processes may share it.
import { Logger as QueueLogger, run, type Runner, type TaskList } from 'graphile-worker'
import type { ServerContext } from '../context'
import { requeueAbandoned } from '../db/renders'
import { pruneWork, requeueAbandonedWork } from '../db/work'
import { transaction } from '../db/pool'
import { enqueue } from './enqueue'
import { importFiles } from './import-files'
import { renderShot } from './render-shot'
import { surveyMedia } from './survey-media'

// Running work reports at least this often; what was silent for longer has lost its worker.
const silentSeconds = 20
/** Work that has ended is kept this long. */
const keptDays = 7
const pruneEveryMs = 3600_000

export interface JobWorker {
  readonly stop: () => Promise<void>
}

/** Starts taking jobs. Work whose process was killed is put back and taken up again. */
export async function startJobs(context: ServerContext): Promise<JobWorker> {
  const { pool, log } = context
  const job = (run: (context: ServerContext, id: string) => Promise<void>) => async (payload: unknown) => {
    const { id } = payload as { id?: unknown }
    if (typeof id === 'string') await run(context, id)
  }
  const logger = new QueueLogger(() => (level, message) => {
    if (level === 'error' || level === 'warning') log.warn({ queue: level }, message)
  })
  // Surveys have workers of their own, so that no import or render waits for long proxies. Named queues would not do:
  // one stays locked for hours when its worker is killed.
  const workersOf = (taskList: TaskList): Promise<Runner> =>
    run({ pgPool: pool, logger, concurrency: 2, pollInterval: 2000, noHandleSignals: true, taskList })
  const runners = [
    await workersOf({ render: job(renderShot), import: job(importFiles) }),
    await workersOf({ survey: job(surveyMedia) }),
  ]
  const requeue = async (): Promise<void> => {
    try {
      await transaction(pool, async (db) => {
        for (const id of await requeueAbandoned(db, silentSeconds)) await enqueue(db, 'render', id)
        for (const { id, kind } of await requeueAbandonedWork(db, silentSeconds)) await enqueue(db, kind, id)
      })
    } catch (error) {
      log.warn({ code: (error as { code?: string }).code }, 'abandoned work could not be looked for')
    }
  }
  const prune = async (): Promise<void> => {
    await pruneWork(pool, keptDays).catch((error: { code?: string }) =>
      log.warn({ code: error.code }, 'ended work could not be pruned'),
    )
  }
  await requeue()
  await prune()
  const timer = setInterval(() => void requeue(), 5000)
  const pruning = setInterval(() => void prune(), pruneEveryMs)
  return {
    stop: async () => {
      clearInterval(timer)
      clearInterval(pruning)
      await Promise.all(runners.map((runner) => runner.stop()))
    },
  }
}
