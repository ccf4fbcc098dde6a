// One shot: its state, its revisions, undo and redo.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { checked, HeadMove, LeadFrame } from '@contracts/index'
import { localActor, type ServerContext } from '../context'
import { setLeadFrame } from '../db/leads'
import { appendRevision, redo, undo } from '../db/revisions'
import { findShot } from '../db/shots'
import { notFound, Problem } from '../problem'
import { moveHead } from '../services/heads'
import { jsonBody, largeBody, uuidParam } from './params'

const smallBody = bodyLimit({ maxSize: 16 * 1024 })
const gradeBody = bodyLimit({ maxSize: 4 * 1024 * 1024 })

export function shotRoutes({ pool, workers }: ServerContext): Hono {
  return new Hono()
    .get('/shots/:id', async (c) => {
      const shot = await findShot(pool, uuidParam(c, 'id', 'shot'))
      if (!shot) throw notFound('shot')
      return c.json(shot)
    })
    .post('/shots/:id/revisions', gradeBody, async (c) => {
      const shotId = uuidParam(c, 'id', 'shot')
      const { parentId, summary, grade, why, alone = false } = await largeBody(c, workers, 'revision')
      const revision = { shotId, parentId, grade, summary, actor: localActor, why, shared: !alone }
      const { status, body } = await moveHead(pool, shotId, {
        move: (db) => appendRevision(db, revision),
        summary,
        shared: (_, after) => after.shared,
      })
      return c.json(body, status)
    })
    .post('/shots/:id/undo', smallBody, async (c) => {
      const shotId = uuidParam(c, 'id', 'shot')
      const { expectedId } = checked(HeadMove, await jsonBody(c))
      const { status, body } = await moveHead(pool, shotId, {
        move: (db) => undo(db, shotId, expectedId),
        summary: 'Undone',
        shared: (before) => before.shared,
        steppedOver: (before) => before,
      })
      return c.json(body, status)
    })
    .post('/shots/:id/redo', smallBody, async (c) => {
      const shotId = uuidParam(c, 'id', 'shot')
      const { expectedId } = checked(HeadMove, await jsonBody(c))
      const { status, body } = await moveHead(pool, shotId, {
        move: (db) => redo(db, shotId, expectedId),
        summary: 'Done again',
        shared: (_, after) => after.shared,
        steppedOver: (_, after) => after,
      })
      return c.json(body, status)
    })
    .put('/shots/:id/lead-frame', smallBody, async (c) => {
      const id = uuidParam(c, 'id', 'shot')
      const { leadFrame } = checked(LeadFrame, await jsonBody(c))
      if (!(await setLeadFrame(pool, id, leadFrame)))
        throw new Problem(422, 'invalid', 'The shot has no such frame.', { field: 'leadFrame' })
      return c.body(null, 204)
    })
}
