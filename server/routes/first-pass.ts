// What the first pass over a scene would make of a shot, and a small picture of it.
import { Hono, type Context } from 'hono'
import type { ServerContext } from '../context'
import { firstPassChoices, firstPassReader } from '../services/first-pass'
import { freshPng, oneOf, uuidParam } from './params'

const idsOf = (c: Context): readonly [string, string] => [uuidParam(c, 'id', 'shot'), uuidParam(c, 'hero', 'shot')]

export function firstPassRoutes(context: ServerContext): Hono {
  const firstPass = firstPassReader(context)
  return new Hono()
    .get('/shots/:id/first-pass/:hero', async (c) => c.json(await firstPass.of(...idsOf(c))))
    .get('/shots/:id/first-pass/:hero/:choice', async (c) => {
      oneOf(c.req.param('choice'), 'choice', firstPassChoices)
      return freshPng(c, await firstPass.picture(...idsOf(c)))
    })
}
