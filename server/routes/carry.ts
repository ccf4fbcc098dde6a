// Carrying a grade over to another shot.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { CarryOver, checked } from '@contracts/index'
import type { ServerContext } from '../context'
import { carryTo } from '../services/carry'
import { jsonBody, uuidParam } from './params'

export const carryRoutes = (context: ServerContext): Hono =>
  new Hono().post('/shots/:id/carry', bodyLimit({ maxSize: 16 * 1024 }), async (c) =>
    c.json(await carryTo(context, uuidParam(c, 'id', 'shot'), checked(CarryOver, await jsonBody(c)))),
  )
