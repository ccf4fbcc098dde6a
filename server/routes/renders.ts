// Renders: start one, watch it, cancel it, take the file.
import { createReadStream } from 'node:fs'
import { Readable } from 'node:stream'
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { checked, NewRender, type RenderSummary } from '@contracts/index'
import { localActor, type ServerContext } from '../context'
import { transaction } from '../db/pool'
import { cancelRender, findRender, insertRender, listRenders } from '../db/renders'
import { enqueue } from '../jobs/enqueue'
import { notFound, Problem } from '../problem'
import { attachment } from './pictures'
import { jsonBody, uuidParam } from './params'

export function renderRoutes({ pool, store, space }: ServerContext): Hono {
  async function renderById(id: string): Promise<RenderSummary> {
    const render = await findRender(pool, id)
    if (!render) throw notFound('render')
    return render
  }

  return new Hono()
    .get('/projects/:id/renders', async (c) => c.json(await listRenders(pool, uuidParam(c, 'id', 'project'))))
    .post('/renders', bodyLimit({ maxSize: 16 * 1024 }), async (c) => {
      const { revisionId } = checked(NewRender, await jsonBody(c))
      await space.require(0)
      const id = await transaction(pool, async (db) => {
        const render = await insertRender(db, revisionId, localActor)
        if (!render) throw notFound('revision')
        await enqueue(db, 'render', render.id)
        return render.id
      })
      return c.json(await renderById(id), 201)
    })
    .get('/renders/:id', async (c) => c.json(await renderById(uuidParam(c, 'id', 'render'))))
    .post('/renders/:id/cancel', bodyLimit({ maxSize: 1024 }), async (c) => {
      const id = uuidParam(c, 'id', 'render')
      await cancelRender(pool, id)
      return c.json(await renderById(id))
    })
    .get('/renders/:id/file', async (c) => {
      const render = await renderById(uuidParam(c, 'id', 'render'))
      const path = store.renderPath(render.id)
      const size = await store.sizeOf(path)
      if (render.state !== 'done' || size === undefined)
        throw new Problem(404, 'not_ready', 'This render has no finished file.')
      const stream = Readable.toWeb(createReadStream(path)) as ReadableStream
      return c.body(stream, 200, {
        'content-type': 'video/mp4',
        'content-length': String(size),
        ...attachment(`${render.shotName} graded.mp4`),
      })
    })
}
