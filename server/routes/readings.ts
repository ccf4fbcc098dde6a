// House standards of one's own, what is pointed out in shots, and waived readings.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import type { ShotFindings } from '@contracts/responses'
import { checked, NewSubject, NewWaiver, OwnStandard, PickedArea } from '@contracts/index'
import { pointedAt } from '@core/readings'
import { localActor, type ServerContext } from '../context'
import { addWaiver, lockPick, lockSubjectCard, putPick, putSubject, removePick, removeSubject } from '../db/pointed'
import { transaction } from '../db/pool'
import { findShot } from '../db/shots'
import { deleteStandard, listStandards, lockStandard, putStandard } from '../db/standards'
import { notFound, Problem } from '../problem'
import { frameWithin, jsonBody, largeBody, uuidParam } from './params'
import { requireSeen } from './unchanged'

const body = bodyLimit({ maxSize: 64 * 1024 })
const fileBody = bodyLimit({ maxSize: 2 * 1024 * 1024 })

export function readingRoutes({ pool, workers, findings }: ServerContext): Hono {
  /** Every change to a shot's picks and waivers answers with the shot as it is now. */
  const shotNow = async (id: string): Promise<object> => {
    const shot = await findShot(pool, id)
    if (!shot) throw notFound('shot')
    return shot
  }
  return new Hono()
    .get('/standards', async (c) => c.json(await listStandards(pool)))
    .put('/standards/:id', body, async (c) => {
      const standard = checked(OwnStandard, await jsonBody(c))
      if (standard.id !== c.req.param('id'))
        throw new Problem(422, 'invalid', "The id in the address is not the standard's.", { field: 'id' })
      const seen = requireSeen(c)
      await transaction(pool, async (db) => {
        seen(await lockStandard(db, standard.id))
        await putStandard(db, standard, localActor)
      })
      return c.json(standard)
    })
    .post('/standards/import', fileBody, async (c) => {
      const { standards } = await largeBody(c, workers, 'standards')
      await transaction(pool, async (db) => {
        for (const standard of standards) await putStandard(db, standard, localActor)
      })
      return c.json(await listStandards(pool), 201)
    })
    .delete('/standards/:id', async (c) => {
      const id = c.req.param('id')
      const seen = requireSeen(c)
      await transaction(pool, async (db) => {
        const standard = await lockStandard(db, id)
        if (!standard) throw notFound('standard')
        seen(standard)
        await deleteStandard(db, id)
      })
      return c.body(null, 204)
    })
    .put('/shots/:id/card', body, async (c) => {
      const id = uuidParam(c, 'id', 'shot')
      const pick = checked(PickedArea, await jsonBody(c))
      const seen = requireSeen(c)
      await transaction(pool, async (db) => {
        seen(await lockPick(db, id, null))
        if (!(await putPick(db, id, null, pick, localActor))) throw notFound('shot')
      })
      return c.json(await shotNow(id))
    })
    .delete('/shots/:id/card', async (c) => {
      const id = uuidParam(c, 'id', 'shot')
      const seen = requireSeen(c)
      await transaction(pool, async (db) => {
        seen(await lockPick(db, id, null))
        await removePick(db, id, null)
      })
      return c.json(await shotNow(id))
    })
    .post('/projects/:id/subjects', body, async (c) => {
      const projectId = uuidParam(c, 'id', 'project')
      const subject = checked(NewSubject, await jsonBody(c))
      const seen = requireSeen(c)
      await transaction(pool, async (db) => {
        seen(await lockSubjectCard(db, projectId, subject.name))
        const subjectId = await putSubject(db, projectId, subject, localActor)
        if (!subjectId || !(await putPick(db, subject.shotId, subjectId, subject, localActor))) throw notFound('shot')
      })
      return c.json(await shotNow(subject.shotId), 201)
    })
    .delete('/subjects/:id', async (c) => {
      if (!(await removeSubject(pool, uuidParam(c, 'id', 'subject')))) throw notFound('subject')
      return c.body(null, 204)
    })
    .put('/shots/:id/subjects/:subjectId', body, async (c) => {
      const id = uuidParam(c, 'id', 'shot')
      const subjectId = uuidParam(c, 'subjectId', 'subject')
      const pick = checked(PickedArea, await jsonBody(c))
      const seen = requireSeen(c)
      await transaction(pool, async (db) => {
        seen(await lockPick(db, id, subjectId))
        if (!(await putPick(db, id, subjectId, pick, localActor))) throw notFound('subject')
      })
      return c.json(await shotNow(id))
    })
    .delete('/shots/:id/subjects/:subjectId', async (c) => {
      const id = uuidParam(c, 'id', 'shot')
      const subjectId = uuidParam(c, 'subjectId', 'subject')
      const seen = requireSeen(c)
      await transaction(pool, async (db) => {
        seen(await lockPick(db, id, subjectId))
        await removePick(db, id, subjectId)
      })
      return c.json(await shotNow(id))
    })
    .get('/shots/:id/findings', async (c) => {
      const shot = await findShot(pool, uuidParam(c, 'id', 'shot'))
      if (!shot) throw notFound('shot')
      const {
        media: { hash, bitDepth },
        revision: { grade },
      } = shot
      const asked = c.req.query('frame')
      const frame = asked === undefined ? shot.leadFrame : frameWithin(asked, shot)
      // What somebody sits before is measured before what goes on by itself.
      const waitedFor = c.req.query('waited') === 'true'
      const measured = await findings({ hash, frame, bitDepth, grade, pointed: pointedAt(frame, shot) }, waitedFor)
      return c.json({
        headId: shot.headId,
        leadFrame: shot.leadFrame,
        frame,
        findings: measured,
        waivers: shot.waivers,
      } satisfies ShotFindings)
    })
    .post('/shots/:id/waivers', body, async (c) => {
      const id = uuidParam(c, 'id', 'shot')
      const waiver = checked(NewWaiver, await jsonBody(c))
      if (!(await addWaiver(pool, id, waiver, localActor))) throw notFound('shot')
      return c.json(await shotNow(id), 201)
    })
}
