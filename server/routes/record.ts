// The Record: what was done, versions, going back without losing what came after.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { checked, checkedGrade, GoBack, NewFork, NewVersion } from '@contracts/index'
import { localActor, type ServerContext } from '../context'
import { onlyRow, transaction } from '../db/pool'
import { forkVersion, gradeOfShot, nameVersion, removeVersion, shotRecord, versionsOf } from '../db/record'
import { appendRevision } from '../db/revisions'
import { findShot } from '../db/shots'
import { notFound } from '../problem'
import { uuidParam } from './params'
import { answerMove, together } from './shots'

const body = bodyLimit({ maxSize: 16 * 1024 })
const gradeBody = bodyLimit({ maxSize: 4 * 1024 * 1024 })

export function recordRoutes({ pool }: ServerContext): Hono {
  return new Hono()
    .get('/shots/:id/record', async (c) => {
      const record = await shotRecord(pool, uuidParam(c, 'id', 'shot'))
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
      const { revisionId, name } = checked(NewVersion, await c.req.json())
      if (!(await nameVersion(pool, id, revisionId, name.trim(), localActor))) throw notFound('revision')
      return c.json(await versionsOf(pool, id), 201)
    })
    .delete('/versions/:id', async (c) => {
      if (!(await removeVersion(pool, uuidParam(c, 'id', 'version')))) throw notFound('version')
      return c.body(null, 204)
    })
    .post('/shots/:id/fork', gradeBody, async (c) => {
      const id = uuidParam(c, 'id', 'shot')
      const { parentId, summary, name, grade } = checked(NewFork, await c.req.json())
      const document = checkedGrade(grade)
      if (!(await transaction(pool, (db) => forkVersion(db, id, parentId, document, summary, name.trim(), localActor))))
        throw notFound('revision')
      const shot = await findShot(pool, id)
      if (!shot) throw notFound('shot')
      return c.json(shot.revision, 201)
    })
    .post('/shots/:id/back', body, async (c) => {
      const id = uuidParam(c, 'id', 'shot')
      const { expectedId, revisionId } = checked(GoBack, await c.req.json())
      const { status, body: answer } = await answerMove(pool, id, async (db) => {
        const grade = await gradeOfShot(db, id, revisionId)
        if (!grade) throw notFound('revision')
        const { rows } = await db.query<{ depth: number; name: string | null }>(
          'SELECT depth, (SELECT name FROM versions v WHERE v.revision_id = r.id LIMIT 1) AS name FROM ' +
            'revisions r WHERE id = $1',
          [revisionId],
        )
        const { name, depth } = onlyRow({ rows })
        const summary = `Back to ${name ?? `revision ${depth}`}`
        return together(
          db,
          id,
          () => appendRevision(db, id, expectedId, grade, summary, localActor, { kind: 'back', from: revisionId }),
          summary,
          () => false,
        )
      })
      return c.json(answer, status)
    })
}
