// Projects, LUTs and renders are taken off their lists, and brought back while they can be.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import type { ServerContext } from '../context'
import { transaction } from '../db/pool'
import { cancelRender } from '../db/renders'
import { removeOne, restoreOne, type Removable } from '../db/removal'
import { notFound } from '../problem'
import { hashParam, uuidParam } from './params'

const words: Readonly<Record<Removable, string>> = { projects: 'project', luts: 'LUT', renders: 'render' }

export function removalRoutes({ pool }: ServerContext): Hono {
  const routes = new Hono()
  for (const what of ['projects', 'luts', 'renders'] as const) {
    const param = what === 'luts' ? hashParam : uuidParam
    routes
      .delete(`/${what}/:id`, async (c) => {
        const id = param(c, 'id', words[what])
        const found = await transaction(pool, async (db) => {
          // Nobody waits any more for what is taken away.
          if (what === 'renders') await cancelRender(db, id)
          return removeOne(db, what, id)
        })
        if (!found) throw notFound(words[what])
        return c.body(null, 204)
      })
      .post(`/${what}/:id/restore`, bodyLimit({ maxSize: 1024 }), async (c) => {
        if (!(await restoreOne(pool, what, param(c, 'id', words[what])))) throw notFound(words[what])
        return c.body(null, 204)
      })
  }
  return routes
}
