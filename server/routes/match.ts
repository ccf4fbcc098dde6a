// What would match a shot to another one, and small pictures of it.
import { Hono, type Context } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { checked, SwatchPairs } from '@contracts/index'
import { matchChoiceIds } from '@core/matching'
import type { ServerContext } from '../context'
import { findShot } from '../db/shots'
import { notFound } from '../problem'
import { matchReader, type Pair } from '../services/match'
import { frameWithin, freshPng, jsonBody, oneOf, uuidParam, wholeNumber } from './params'

/** Surfaces of a match are numbered from 0; there are at most a few dozen. */
const mostSurface = 999

function pairOf(c: Context): Pair {
  const struck = c.req.query('without') ?? ''
  return {
    shotId: uuidParam(c, 'id', 'shot'),
    referenceId: uuidParam(c, 'reference', 'shot'),
    without: struck === '' ? [] : struck.split(',', 100).map((id) => wholeNumber(id, 'without', mostSurface)),
  }
}

export function matchRoutes(context: ServerContext): Hono {
  const match = matchReader(context)
  return new Hono()
    .get('/shots/:id/match/:reference', async (c) => c.json(await match.of(pairOf(c))))
    .post('/shots/:id/swatches', bodyLimit({ maxSize: 64 * 1024 }), async (c) => {
      const { frame, pairs } = checked(SwatchPairs, await jsonBody(c))
      const shot = await findShot(context.pool, uuidParam(c, 'id', 'shot'))
      if (!shot) throw notFound('shot')
      return c.json(await match.swatches(shot, frameWithin(String(frame), shot), pairs))
    })
    .get('/shots/:id/match/:reference/:choice', async (c) => {
      const choice = oneOf(c.req.param('choice'), 'choice', matchChoiceIds)
      return freshPng(c, await match.picture(pairOf(c), choice))
    })
}
