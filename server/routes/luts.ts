// LUTs: import, list, and the file itself.
import { readFile } from 'node:fs/promises'
import { basename } from 'node:path'
import { Hono } from 'hono'
import type { LutSummary } from '@contracts/index'
import { cubeLimits, parseCube } from '@core/index'
import { localActor, type ServerContext } from '../context'
import { findLut, insertLut, listLuts } from '../db/luts'
import { notFound, Problem } from '../problem'
import { attachment } from './pictures'
import { hashParam } from './params'

export function lutRoutes({ pool, store }: ServerContext): Hono {
  return new Hono()
    .get('/luts', async (c) => c.json(await listLuts(pool)))
    .post('/luts', async (c) => {
      const name = basename((c.req.query('name') ?? '').replaceAll('\\', '/')).replace(/\p{Cc}/gu, '').replace(/\.cube$/i, '').trim().slice(0, 120) || 'Untitled'
      if (!c.req.raw.body) throw new Problem(422, 'empty_file', `"${name}" is empty.`)
      const received = await store.receive(c.req.raw.body as never, cubeLimits.maxBytes, name)
      try {
        const { title, dimensions, size } = parseCube(await readFile(received.path, 'utf8'))
        const lut: LutSummary = { hash: received.hash, name, title, dimensions, size }
        await store.keep(received.path, store.lutPath(received.hash))
        await insertLut(pool, lut, localActor)
        return c.json(await findLut(pool, received.hash), 201)
      } finally {
        await store.discard(received.path)
      }
    })
    .get('/luts/:hash/file', async (c) => {
      const lut = await findLut(pool, hashParam(c, 'hash', 'LUT'))
      if (!lut) throw notFound('LUT')
      const text = await readFile(store.lutPath(lut.hash), 'utf8')
      return c.body(text, 200, { 'content-type': 'text/plain; charset=utf-8', 'cache-control': 'private, max-age=31536000, immutable', ...attachment(`${lut.name}.cube`) })
    })
}
