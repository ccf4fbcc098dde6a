// Running a row of work: claim, do, and write down how it ended. Nothing is thrown: the row says what went wrong.
import type { ServerContext } from '../context'
import { claimWork, endWork, reportWork, type ClaimedWork } from '../db/work'
import { asProblem } from '../problem'

/** Answers false when the work is no longer to be done. Writes at most a few times a second. */
export type Progress = (stage: string, done: number, total: number) => Promise<boolean>

const reportEveryMs = 250

export async function runWork(
  context: ServerContext,
  id: string,
  work: (claimed: ClaimedWork, progress: Progress) => Promise<void>,
): Promise<void> {
  const { pool, log } = context
  const claimed = await claimWork(pool, id)
  if (!claimed) return
  let reportedAt = 0
  let stageNow = ''
  const progress: Progress = async (stage, done, total) => {
    const now = Date.now()
    if (stage === stageNow && now - reportedAt < reportEveryMs) return true
    reportedAt = now
    stageNow = stage
    return reportWork(pool, id, stage, done, total)
  }
  // Long stages without numbers must not look abandoned.
  const pulse = setInterval(
    () =>
      void pool
        .query(`UPDATE work SET updated_at = now() WHERE id = $1 AND state = 'running'`, [id])
        .catch(() => undefined),
    5000,
  )
  try {
    await work(claimed, progress)
    await endWork(pool, id, null)
  } catch (error) {
    const problem = asProblem(error)
    if (problem.status >= 500) log.error({ err: error, work: id }, 'work failed')
    await endWork(pool, id, { message: problem.message, ...(problem.hint ? { hint: problem.hint } : {}) })
  } finally {
    clearInterval(pulse)
  }
}
