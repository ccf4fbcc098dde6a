// What Balance for me would choose for a shot, and small pictures of it.
import { Hono } from 'hono'
import type { ServerContext } from '../context'
import { balanceReader } from '../services/balance'
import { freshPng, oneOf, uuidParam } from './params'

const choices = ['evidence', 'least', 'brighter', 'darker', 'ramp', 'picture'] as const

export function balanceRoutes(context: ServerContext): Hono {
  const balance = balanceReader(context)
  return new Hono()
    .get('/shots/:id/balance', async (c) => c.json(await balance.of(uuidParam(c, 'id', 'shot'))))
    .get('/shots/:id/balance/:choice', async (c) => {
      const choice = oneOf(c.req.param('choice'), 'choice', choices)
      return freshPng(c, await balance.picture(uuidParam(c, 'id', 'shot'), choice))
    })
}
