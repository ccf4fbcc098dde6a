// One shot: its state, its revisions, undo and redo.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { checked, checkedGrade, HeadMove, LeadFrame, NewRevision } from '@contracts/index'
import { localActor, type ServerContext } from '../context'
import { transaction, type Pool, type Queryable } from '../db/pool'
import { appendRevision, redo, undo, type HeadResult } from '../db/revisions'
import { setLeadFrame } from '../db/leads'
import { followLook, lockForLook } from '../db/looks'
import { headOf, lockSetup, spread, type Head } from '../db/setups'
import { findShot } from '../db/shots'
import { notFound, Problem } from '../problem'
import { uuidParam } from './params'

const smallBody = bodyLimit({ maxSize: 16 * 1024 })
const gradeBody = bodyLimit({ maxSize: 4 * 1024 * 1024 })

/** Runs a move of the head and answers with the shot's state as it is now; 409 carries it as well. */
export async function answerMove(
  pool: Pool,
  shotId: string,
  move: (db: Queryable) => Promise<HeadResult>,
): Promise<{ status: 200 | 409; body: object }> {
  const result = await transaction(pool, move)
  const shot = await findShot(pool, shotId)
  if (result === 'missing' || !shot) throw notFound('shot')
  if (result === 'nowhere') throw new Problem(422, 'nothing_there', 'There is nothing further in that direction.')
  if (result === 'moved') return { status: 200, body: shot.revision }
  const error = {
    code: 'conflict',
    message: 'This shot was changed elsewhere meanwhile.',
    hint: 'Take the newer state, put both together, or keep yours beside it.',
  }
  return { status: 409, body: { error, newer: shot.revision } }
}

/**
 * Moves a shot's head and, where that is asked for, the other shots of its set-up with it. `over` is the revision that
 * is stepped over, if one is.
 */
export async function together(
  db: Queryable,
  shotId: string,
  move: () => Promise<HeadResult>,
  summary: string,
  shared: (before: Head, after: Head) => boolean,
  over: (before: Head, after: Head) => Head | null = () => null,
): Promise<HeadResult> {
  await lockForLook(db, shotId)
  await lockSetup(db, shotId)
  const before = await headOf(db, shotId)
  const result = await move()
  const after = await headOf(db, shotId)
  if (result === 'moved' && before && after && shared(before, after))
    await spread(db, shotId, before.grade, after, summary, localActor)
  if (result === 'moved' && before && after)
    await followLook(db, shotId, before, after, over(before, after), localActor)
  return result
}

export function shotRoutes({ pool }: ServerContext): Hono {
  return new Hono()
    .get('/shots/:id', async (c) => {
      const shot = await findShot(pool, uuidParam(c, 'id', 'shot'))
      if (!shot) throw notFound('shot')
      return c.json(shot)
    })
    .post('/shots/:id/revisions', gradeBody, async (c) => {
      const id = uuidParam(c, 'id', 'shot')
      const { parentId, summary, grade, why, alone = false } = checked(NewRevision, await c.req.json())
      const document = checkedGrade(grade)
      const { status, body } = await answerMove(pool, id, (db) =>
        together(
          db,
          id,
          () => appendRevision(db, id, parentId, document, summary, localActor, why, !alone),
          summary,
          (_, { shared }) => shared,
        ),
      )
      return c.json(body, status)
    })
    .post('/shots/:id/undo', smallBody, async (c) => {
      const id = uuidParam(c, 'id', 'shot')
      const { expectedId } = checked(HeadMove, await c.req.json())
      const { status, body } = await answerMove(pool, id, (db) =>
        together(
          db,
          id,
          () => undo(db, id, expectedId),
          'Undone',
          ({ shared }) => shared,
          (before) => before,
        ),
      )
      return c.json(body, status)
    })
    .post('/shots/:id/redo', smallBody, async (c) => {
      const id = uuidParam(c, 'id', 'shot')
      const { expectedId } = checked(HeadMove, await c.req.json())
      const { status, body } = await answerMove(pool, id, (db) =>
        together(
          db,
          id,
          () => redo(db, id, expectedId),
          'Done again',
          (_, { shared }) => shared,
          (_, after) => after,
        ),
      )
      return c.json(body, status)
    })
    .put('/shots/:id/lead-frame', smallBody, async (c) => {
      const id = uuidParam(c, 'id', 'shot')
      const { leadFrame } = checked(LeadFrame, await c.req.json())
      if (!(await setLeadFrame(pool, id, leadFrame)))
        throw new Problem(422, 'invalid', 'The shot has no such frame.', { field: 'leadFrame' })
      return c.body(null, 204)
    })
}
