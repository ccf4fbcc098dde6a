// Moving a shot's head, and with it what must follow: the other shots of its set-up, and those of its shared look.
import type { RevisionState } from '@contracts/index'
import { followChange } from '@core/grade'
import { localActor } from '../context'
import { lockReach } from '../db/locks'
import { transaction, type Pool, type Queryable } from '../db/pool'
import { appendRevision, headOf, stateOf, type Head, type HeadResult } from '../db/revisions'
import { othersOfSetup } from '../db/setups'
import { notFound, Problem } from '../problem'
import { followLook } from './looks'

export interface HeadMove {
  readonly move: (db: Queryable) => Promise<HeadResult>
  /** What the record of the other shots says. */
  readonly summary: string
  /** Whether the set-up follows. */
  readonly shared: (before: Head, after: Head) => boolean
  /** The revision that is stepped over, if one is. */
  readonly steppedOver?: (before: Head, after: Head) => Head
}

export interface HeadAnswer {
  readonly status: 200 | 409
  readonly body: object
}

/**
 * Moves a shot's head and answers with the state that this very move led to: it is read under the same locks, so that
 * what another hand adds later is never taken for one's own. 409 carries the state that is there instead.
 */
export async function moveHead(pool: Pool, shotId: string, { move, ...follow }: HeadMove): Promise<HeadAnswer> {
  const { result, revision } = await transaction(pool, async (db) => {
    const reach = await lockReach(db, shotId)
    // A shot by itself is most common, and nothing need be known of what follows it.
    const before = reach && (reach.looks || reach.setupId !== null) ? await headOf(db, shotId) : undefined
    const result = await move(db)
    const after = before && (await headOf(db, shotId))
    if (result === 'moved' && before && after) await followMove(db, shotId, before, after, follow)
    return { result, revision: await stateOf(db, shotId) }
  })
  if (result === 'missing' || !revision) throw notFound('shot')
  if (result === 'nowhere') throw new Problem(422, 'nothing_there', 'There is nothing further in that direction.')
  return result === 'moved' ? { status: 200, body: revision } : clash(revision)
}

function clash(newer: RevisionState): HeadAnswer {
  const error = {
    code: 'conflict',
    message: 'This shot was changed elsewhere meanwhile.',
    hint: 'Take the newer state, put both together, or keep yours beside it.',
  }
  return { status: 409, body: { error, newer } }
}

async function followMove(
  db: Queryable,
  shotId: string,
  before: Head,
  after: Head,
  { summary, shared, steppedOver }: Omit<HeadMove, 'move'>,
): Promise<void> {
  if (shared(before, after)) await propagateToSetup(db, shotId, before, after, summary)
  await followLook(db, shotId, before, after, steppedOver?.(before, after) ?? null, localActor)
}

/** Makes the change of one shot on the others of its set-up, each as a revision of its own. */
async function propagateToSetup(
  db: Queryable,
  shotId: string,
  before: Head,
  after: Head,
  summary: string,
): Promise<void> {
  for (const other of await othersOfSetup(db, shotId)) {
    const grade = followChange(other.grade, before.grade, after.grade)
    if (grade === other.grade) continue
    await appendRevision(db, {
      shotId: other.id,
      parentId: other.headId,
      grade,
      summary: `${summary}, with ${other.from}`,
      actor: localActor,
      why: { kind: 'setup', from: after.id },
    })
  }
}
