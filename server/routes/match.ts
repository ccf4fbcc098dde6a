// What would match a shot to another one, and small pictures of it.
import { Hono } from 'hono'
import type { ServerContext } from '../context'
import { matchReader } from '../services/match'
import { oneOf, uuidParam } from './params'

const choices = ['all', 'colour'] as const

export function matchRoutes(context: ServerContext): Hono {
  const match = matchReader(context)
  return new Hono()
    .get('/shots/:id/match/:reference', async (c) =>
      c.json(await match.of(uuidParam(c, 'id', 'shot'), uuidParam(c, 'reference', 'shot'))),
    )
    .get('/shots/:id/match/:reference/:choice', async (c) => {
      const choice = oneOf(c.req.param('choice'), 'choice', choices)
      const png = await match.picture(uuidParam(c, 'id', 'shot'), uuidParam(c, 'reference', 'shot'), choice)
      // It is of both shots as they are now; the address that the page asks by says which.
      return c.body(Buffer.from(png) as unknown as ArrayBuffer, 200, {
        'content-type': 'image/png',
        'cache-control': 'no-store',
      })
    })
}
