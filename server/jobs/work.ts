// Running a row of work: claim, do, and write down how it ended. Nothing is thrown: the row says what went wrong.
import type { ServerContext } from '../context'
import { claimWork, endWork, reportWork, touchWork, type ClaimedWork } from '../db/work'
import type { Queryable } from '../db/pool'
import { asProblem } from '../problem'
import { newAttempt } from './attempts'

/** Answers false when the work is no longer to be done. Writes at most a few times a second. */
export type Progress = (stage: string, done: number, total: number) => Promise<boolean>

/** What a piece of work is given to do it with. */
export interface Doing {
  readonly progress: Progress
  /** Ends the work in the transaction that keeps what it made. False when another try has taken it up meanwhile. */
  readonly end: (db: Queryable) => Promise<boolean>
}

/**
 * done: it ended well · refused: what it was given is no good · broken: it failed for another reason, and may be tried
 * again · stopped: cancelled, put back, or taken up by another
 */
export type Ended = 'done' | 'refused' | 'broken' | 'stopped'

const reportEveryMs = 250
const pulseEveryMs = 5000

export async function runWork(
  context: ServerContext,
  id: string,
  work: (claimed: ClaimedWork, doing: Doing) => Promise<void>,
): Promise<Ended> {
  const { pool, log, attempts } = context
  const mine = newAttempt(id)
  const claimed = await claimWork(pool, mine)
  if (!claimed) return 'stopped'
  attempts.add(mine.attempt)
  let reportedAt = 0
  let stageNow = ''
  const progress: Progress = async (stage, done, total) => {
    const now = Date.now()
    if (stage === stageNow && now - reportedAt < reportEveryMs) return true
    reportedAt = now
    stageNow = stage
    return reportWork(pool, mine, stage, done, total)
  }
  // Long stages without numbers must not look abandoned.
  const pulse = setInterval(() => void touchWork(pool, mine).catch(() => undefined), pulseEveryMs)
  let endedInside = false
  const end = async (db: Queryable): Promise<boolean> => (endedInside = await endWork(db, mine, null))
  try {
    await work(claimed, { progress, end })
    return (await endWork(pool, mine, null)) || endedInside ? 'done' : 'stopped'
  } catch (error) {
    const problem = asProblem(error)
    if (problem.status >= 500) log.error({ err: error, work: id }, 'work failed')
    const failed = await endWork(pool, mine, {
      message: problem.message,
      ...(problem.hint ? { hint: problem.hint } : {}),
    })
    if (!failed) return 'stopped'
    return problem.status < 500 ? 'refused' : 'broken'
  } finally {
    attempts.delete(mine.attempt)
    clearInterval(pulse)
  }
}
