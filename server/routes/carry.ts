// What carrying a grade over to another shot would make of it, and a small picture of that.
import { Hono, type Context } from 'hono'
import { CarryOver, checked } from '@contracts/index'
import { shapeBounds } from '@core/regions'
import type { ServerContext } from '../context'
import { Problem } from '../problem'
import { carryReader, type CarriedFrom, type MovedRegion } from '../services/carry'
import { freshPng, uuidParam } from './params'

const most = 64

function carriedOf(c: Context): CarriedFrom {
  const { stations, solve, revision, frame } = c.req.query()
  return {
    shotId: uuidParam(c, 'id', 'shot'),
    fromId: uuidParam(c, 'from', 'shot'),
    asked: checked(CarryOver, {
      stations: stations?.split(',', most) ?? [],
      solve: solve === '1',
      ...(revision === undefined ? {} : { revisionId: revision }),
      ...(frame === undefined ? {} : { frame: Number(frame) }),
    }),
  }
}

/** Regions that were dragged: "id:x:y", one after another, with commas between. */
function movesOf(c: Context): readonly MovedRegion[] {
  const { min, max } = shapeBounds.place
  return (c.req.query('moved') ?? '')
    .split(',', most)
    .filter((text) => text !== '')
    .map((text) => {
      const [id = '', x, y] = text.split(':')
      const by = [Number(x), Number(y)] as const
      if (!by.every((v) => v >= min && v <= max))
        throw new Problem(422, 'invalid', 'A region can be moved by shares of the picture alone.', { field: 'moved' })
      return { id, x: by[0], y: by[1] }
    })
}

export function carryRoutes(context: ServerContext): Hono {
  const carry = carryReader(context)
  return new Hono()
    .get('/shots/:id/carry/:from', async (c) => c.json(await carry.of(carriedOf(c))))
    .get('/shots/:id/carry/:from/carried', async (c) => {
      return freshPng(c, await carry.picture(carriedOf(c), movesOf(c)))
    })
}
