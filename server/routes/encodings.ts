// Encodings of the user's own: list, keep, remove, and whole files of them.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import type { EncodingDefinition } from '@core/colour'
import { localActor, type ServerContext } from '../context'
import { deleteEncoding, insertEncoding, listEncodings } from '../db/encodings'
import { transaction } from '../db/pool'
import { notFound, Problem } from '../problem'
import { largeBody } from './params'

export function encodingRoutes({ pool, workers }: ServerContext): Hono {
  const keep = (definitions: readonly EncodingDefinition[]): Promise<void> =>
    transaction(pool, async (db) => {
      for (const definition of definitions)
        if (!(await insertEncoding(db, definition, localActor)))
          throw new Problem(409, 'taken', `There is another encoding with the id "${definition.id}".`, {
            field: 'id',
            hint: 'Give this one another id, or remove the other.',
          })
    })
  return new Hono()
    .get('/encodings', async (c) => c.json(await listEncodings(pool)))
    .post('/encodings', bodyLimit({ maxSize: 512 * 1024 }), async (c) => {
      const definition = await largeBody(c, workers, 'encoding')
      await keep([definition])
      return c.json(definition, 201)
    })
    .post('/encodings/import', bodyLimit({ maxSize: 8 * 1024 * 1024 }), async (c) => {
      const { encodings } = await largeBody(c, workers, 'encodings')
      await keep(encodings)
      return c.json(await listEncodings(pool), 201)
    })
    .delete('/encodings/:id', async (c) => {
      if (!(await deleteEncoding(pool, c.req.param('id')))) throw notFound('encoding')
      return c.body(null, 204)
    })
}
