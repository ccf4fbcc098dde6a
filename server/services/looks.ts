// Shared looks: bringing every shot of a project to what its look is now, and following a hand on one of them.
import { detachLook, lookAfter, withSharedLook } from '@core/grade'
import { lookOfShot, setDetached, setLookSteps, shotsWithLooks } from '../db/looks'
import type { Queryable } from '../db/pool'
import { appendRevision, type Head } from '../db/revisions'

/**
 * Brings the shots of a project, or some of them, to what their look is now, each by a revision of its own where
 * something changes. Call with the shots locked.
 */
export async function bringLooks(
  db: Queryable,
  projectId: string,
  summary: string,
  actor: string,
  shotIds: readonly string[] | null = null,
): Promise<void> {
  for (const { id, headId, grade, detached, look } of await shotsWithLooks(db, projectId, shotIds)) {
    const after = detached ? detachLook(grade) : withSharedLook(grade, look)
    if (after !== grade)
      await appendRevision(db, { shotId: id, parentId: headId, grade: after, summary, actor, why: { kind: 'look' } })
  }
}

/**
 * What follows when one shot came to another state. `steppedOver` is the revision that undo or redo stepped over.
 * A hand on the shared steps is a hand on the look, and the others follow. Stepping over a revision that the look
 * itself made takes this shot out of it, or puts it back, and leaves the look alone; any other state that lacks the
 * look is brought to it. Call with the shots locked.
 */
export async function followLook(
  db: Queryable,
  shotId: string,
  before: Head,
  after: Head,
  steppedOver: Head | null,
  actor: string,
): Promise<void> {
  const look = await lookOfShot(db, shotId)
  if (!look) return
  const carries = withSharedLook(after.grade, look) === after.grade
  if (steppedOver?.kind === 'look') {
    if (carries === look.detached) await setDetached(db, shotId, !carries)
    return
  }
  if (look.detached || carries) return
  const steps = lookAfter(look.steps, before.grade, after.grade)
  if (steps) await setLookSteps(db, look.id, steps)
  const summary = steps ? `Look ${look.name} changed` : 'Shared look'
  await bringLooks(db, look.projectId, summary, actor, steps ? null : [shotId])
}
