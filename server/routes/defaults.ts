// What shots have of their scene and project: read and changed.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { checked, DefaultsChange } from '@contracts/index'
import { localActor, type ServerContext } from '../context'
import { projectDefaults } from '../db/defaults'
import { transaction } from '../db/pool'
import { notFound } from '../problem'
import { changeDefaults } from '../services/defaults'
import { jsonBody, uuidParam } from './params'

export const defaultsRoutes = ({ pool }: ServerContext): Hono =>
  new Hono()
    .get('/projects/:id/defaults', async (c) => {
      const found = await projectDefaults(pool, uuidParam(c, 'id', 'project'))
      if (!found) throw notFound('project')
      return c.json(found)
    })
    .put('/projects/:id/defaults', bodyLimit({ maxSize: 16 * 1024 }), async (c) => {
      const id = uuidParam(c, 'id', 'project')
      const change = checked(DefaultsChange, await jsonBody(c))
      return c.json(await transaction(pool, (db) => changeDefaults(db, id, change, localActor)))
    })
