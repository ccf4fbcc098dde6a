// The Record: what was done, versions, going back without losing what came after.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { checked, GoBack, NewVersion } from '@contracts/index'
import { localActor, type ServerContext } from '../context'
import { transaction } from '../db/pool'
import {
  forkVersion,
  gradeOfShot,
  lockName,
  lockVersion,
  nameVersion,
  removeVersion,
  versionsOf,
  versionToGoBackTo,
  type RecordCursor,
} from '../db/record'
import { appendRevision } from '../db/revisions'
import { findShot } from '../db/shots'
import { notFound, Problem } from '../problem'
import { moveHead } from '../services/heads'
import { recordOf } from '../services/record'
import { isUuid, jsonBody, largeBody, uuidParam } from './params'
import { requireSeen } from './unchanged'

const body = bodyLimit({ maxSize: 16 * 1024 })
const gradeBody = bodyLimit({ maxSize: 4 * 1024 * 1024 })

/** A cursor as a page gave it; null for the first page. Throws 422 for anything else. */
function cursorParam(text: string | undefined): RecordCursor | null {
  if (text === undefined) return null
  const [at = '', depth = '', id = ''] = text.split('|')
  const sound = /^[\d-]{10} [\d:.]{8,15}\+\d\d(:\d\d)?$/.test(at) && /^\d{1,9}$/.test(depth) && isUuid(id)
  if (!sound)
    throw new Problem(422, 'invalid', 'behind is no place in a record.', {
      field: 'behind',
      hint: 'Load the record again.',
    })
  return { at, depth: Number(depth), id }
}

export function recordRoutes({ pool, workers }: ServerContext): Hono {
  return new Hono()
    .get('/shots/:id/record', async (c) => {
      const record = await recordOf(pool, uuidParam(c, 'id', 'shot'), cursorParam(c.req.query('behind')))
      if (!record) throw notFound('shot')
      return c.json(record)
    })
    .get('/shots/:id/revisions/:revisionId', async (c) => {
      const grade = await gradeOfShot(pool, uuidParam(c, 'id', 'shot'), uuidParam(c, 'revisionId', 'revision'))
      if (!grade) throw notFound('revision')
      return c.json(grade)
    })
    .post('/shots/:id/versions', body, async (c) => {
      const id = uuidParam(c, 'id', 'shot')
      const { revisionId, name } = checked(NewVersion, await jsonBody(c))
      const seen = requireSeen(c)
      await transaction(pool, async (db) => {
        seen(await lockName(db, id, name.trim()))
        if (!(await nameVersion(db, id, revisionId, name.trim(), localActor))) throw notFound('revision')
      })
      return c.json(await versionsOf(pool, id), 201)
    })
    .delete('/versions/:id', async (c) => {
      const id = uuidParam(c, 'id', 'version')
      const seen = requireSeen(c)
      await transaction(pool, async (db) => {
        const revisionId = await lockVersion(db, id)
        if (revisionId === undefined) throw notFound('version')
        seen(revisionId)
        await removeVersion(db, id)
      })
      return c.body(null, 204)
    })
    .post('/shots/:id/fork', gradeBody, async (c) => {
      const id = uuidParam(c, 'id', 'shot')
      const { parentId, summary, name, grade } = await largeBody(c, workers, 'fork')
      if (!(await transaction(pool, (db) => forkVersion(db, id, parentId, grade, summary, name.trim(), localActor))))
        throw notFound('revision')
      const shot = await findShot(pool, id)
      if (!shot) throw notFound('shot')
      return c.json(shot.revision, 201)
    })
    .post('/shots/:id/back', body, async (c) => {
      const id = uuidParam(c, 'id', 'shot')
      const { expectedId, revisionId } = checked(GoBack, await jsonBody(c))
      const back = await versionToGoBackTo(pool, id, revisionId)
      if (!back) throw notFound('revision')
      const { status, body: answer } = await moveHead(pool, id, {
        move: (db) =>
          appendRevision(db, {
            shotId: id,
            parentId: expectedId,
            grade: back.grade,
            summary: back.summary,
            actor: localActor,
            why: { kind: 'back', from: revisionId },
          }),
        summary: back.summary,
        shared: () => false,
      })
      return c.json(answer, status)
    })
}
