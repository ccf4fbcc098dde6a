// The job queue in PostgreSQL: several server processes may share it.
import { setTimeout as delay } from 'node:timers/promises'
import { Logger as QueueLogger, run, type Runner, type TaskList } from 'graphile-worker'
import type { ServerContext } from '../context'
import { requeueRenders, runningRenders } from '../db/renders'
import { pruneQueue, pruneWork, requeueWork, runningWork, type PutBack } from '../db/work'
import { transaction } from '../db/pool'
import { isLost } from './attempts'
import { collect } from '../services/collect'
import { enqueue } from './enqueue'
import { importFiles } from './import-files'
import { renderShot } from './render-shot'
import { surveyMedia } from './survey-media'

// Running work reports at least this often; what was silent for longer has lost its worker.
const silentSeconds = 20
/** Work that has ended is kept this long. */
const keptDays = 7
const pruneEveryMs = 3600_000
/** A silence that nothing reaches. */
const never = 1e9
/** What is under way at the end may take so long to notice it. */
const graceMs = 2000

export interface JobWorker {
  readonly stop: () => Promise<void>
}

/** Starts taking jobs. Work whose process was killed is put back and taken up again. */
export async function startJobs(context: ServerContext, removedDays: number): Promise<JobWorker> {
  const { pool, log, attempts } = context
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
  const putBack = (which: PutBack): Promise<void> =>
    transaction(pool, async (db) => {
      for (const id of await requeueRenders(db, which)) await enqueue(db, 'render', id)
      for (const { id, kind } of await requeueWork(db, which)) await enqueue(db, kind, id)
    })
  const requeue = async (waitedSeconds: number): Promise<void> => {
    try {
      const running = [...(await runningRenders(pool)), ...(await runningWork(pool))]
      await putBack({ silentSeconds, attempts: running.filter(isLost), waitedSeconds })
    } catch (error) {
      log.warn({ code: (error as { code?: string }).code }, 'abandoned work could not be looked for')
    }
  }
  const prune = async (): Promise<void> => {
    await Promise.all([pruneWork(pool, keptDays), pruneQueue(pool)]).catch((error: { code?: string }) =>
      log.warn({ code: error.code }, 'ended work could not be pruned'),
    )
    await context.space.keepBallast().catch((error: unknown) => log.warn({ err: error }, 'no ballast was kept'))
    await collect(context, removedDays).catch((error: unknown) =>
      log.warn({ err: error }, 'what nobody uses could not be collected'),
    )
  }
  await requeue(0)
  await prune()
  const timer = setInterval(() => void requeue(silentSeconds), 5000)
  const pruning = setInterval(() => void prune(), pruneEveryMs)
  return {
    stop: async () => {
      clearInterval(timer)
      clearInterval(pruning)
      // Nothing more is taken. What is under way goes back into the queue: it is told so when it reports next, and
      // whoever starts after this process takes it up.
      const stopped = Promise.all(runners.map((runner) => runner.stop()))
      await putBack({ silentSeconds: never, attempts: [...attempts], waitedSeconds: never })
      await Promise.race([stopped, delay(graceMs, undefined, { ref: false })])
    },
  }
}
