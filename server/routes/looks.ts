// Shared looks: list, make, put on a scene or a project, and how much of it one shot takes; and what a scene should
// feel like.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { checked, LookPlace, SceneIntent, ShotLook } from '@contracts/index'
import { lookSteps } from '@core/grade'
import { localActor, type ServerContext } from '../context'
import { lockProjectShots } from '../db/locks'
import { assignLook, insertLook, listLooks, setShotLook } from '../db/looks'
import { transaction } from '../db/pool'
import { lockIntent, setIntent } from '../db/reel'
import { findShot } from '../db/shots'
import { notFound, Problem } from '../problem'
import { bringLooks } from '../services/looks'
import { jsonBody, largeBody, uuidParam } from './params'
import { requireSeen } from './unchanged'

const small = bodyLimit({ maxSize: 16 * 1024 })

export const lookRoutes = ({ pool, workers }: ServerContext): Hono =>
  new Hono()
    .get('/projects/:id/looks', async (c) => c.json(await listLooks(pool, uuidParam(c, 'id', 'project'))))
    .post('/projects/:id/looks', bodyLimit({ maxSize: 256 * 1024 }), async (c) => {
      const id = uuidParam(c, 'id', 'project')
      const { name, steps } = await largeBody(c, workers, 'look')
      const kept = lookSteps(steps)
      if (kept.length === 0)
        throw new Problem(422, 'empty_look', 'Nothing in it acts on the whole picture, so there is no look to share.', {
          field: 'steps',
        })
      const made = await insertLook(pool, id, name.trim(), kept, localActor)
      if (!made)
        throw new Problem(409, 'taken', `There is another look called "${name.trim()}" in this project.`, {
          field: 'name',
          hint: 'Give this one another name.',
        })
      return c.json({ id: made }, 201)
    })
    .put('/projects/:id/look', small, async (c) => {
      const id = uuidParam(c, 'id', 'project')
      const { sceneId, lookId, strength } = checked(LookPlace, await jsonBody(c))
      const placed = await transaction(pool, async (db) => {
        await lockProjectShots(db, id)
        const there = await assignLook(db, id, sceneId, lookId, strength)
        if (there) await bringLooks(db, id, lookId === null ? 'Shared look taken off' : 'Shared look', localActor)
        return there
      })
      if (!placed) throw notFound(sceneId === null ? 'look' : 'scene')
      return c.json(await listLooks(pool, id))
    })
    .put('/shots/:id/look', small, async (c) => {
      const id = uuidParam(c, 'id', 'shot')
      const { strength, detached } = checked(ShotLook, await jsonBody(c))
      const shot = await findShot(pool, id)
      if (!shot) throw notFound('shot')
      await transaction(pool, async (db) => {
        await lockProjectShots(db, shot.projectId)
        await setShotLook(db, id, strength, detached)
        await bringLooks(
          db,
          shot.projectId,
          detached ? 'Taken out of the shared look' : `Shared look at ${Math.round(strength * 100)} %`,
          localActor,
        )
      })
      return c.json(await findShot(pool, id))
    })
    .put('/scenes/:id/intent', small, async (c) => {
      const { intent } = checked(SceneIntent, await jsonBody(c))
      const id = uuidParam(c, 'id', 'scene')
      const seen = requireSeen(c)
      await transaction(pool, async (db) => {
        const now = await lockIntent(db, id)
        if (now === undefined) throw notFound('scene')
        seen(now)
        await setIntent(db, id, intent.trim())
      })
      return c.body(null, 204)
    })
