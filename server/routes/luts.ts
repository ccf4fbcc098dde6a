// LUTs: import, list, what was found in them, and the files themselves.
import { readFile, stat } from 'node:fs/promises'
import { lutExtension, lutNameOf } from '@core/formats'
import { Hono } from 'hono'
import type { ServerContext } from '../context'
import { findLut, listLuts } from '../db/luts'
import { inspectingLater, inspectionOf, keepLut } from '../services/luts'
import { packedBeside } from '../store/store'
import { notFound, Problem } from '../problem'
import { attachment } from './pictures'
import { hashParam, plainName } from './params'

const forever = 'private, max-age=31536000, immutable'

export function lutRoutes(context: ServerContext): Hono {
  const { pool, store, workers } = context
  const known = async (
    c: Parameters<typeof hashParam>[0],
  ): Promise<NonNullable<Awaited<ReturnType<typeof findLut>>>> => {
    const lut = await findLut(pool, hashParam(c, 'hash', 'LUT'))
    if (!lut) throw notFound('LUT')
    return lut
  }
  const inspectLater = inspectingLater(context)
  return (
    new Hono()
      .get('/luts', async (c) => c.json(await listLuts(pool)))
      .post('/luts', async (c) => {
        const name = lutNameOf(plainName(c.req.query('name'))) || 'Untitled'
        const folder = plainName(c.req.query('folder'))
        if (!c.req.raw.body) throw new Problem(422, 'empty_file', `"${name}" is empty.`)
        const kept = await keepLut(context, c.req.raw.body as never, name, folder)
        inspectLater(kept.hash)
        return c.json(kept, 201)
      })
      .get('/luts/:hash/inspection', async (c) => {
        const { hash } = await known(c)
        return c.json(await inspectionOf(context, hash))
      })
      // As this program keeps it: nothing to be read again.
      .get('/luts/:hash/packed', async (c) => {
        const { hash } = await known(c)
        const place = store.lutPath(hash)
        const packed = packedBeside(place)
        if (!(await stat(packed).catch(() => undefined))) {
          const fresh = store.temporaryPath()
          const read = await workers.readLutFile({ path: place, packedPath: fresh })
          if ('fault' in read) throw new Problem(422, 'unreadable_file', read.fault)
          await store.keep(fresh, packed)
        }
        return c.body((await readFile(packed)) as unknown as ArrayBuffer, 200, {
          'content-type': 'application/octet-stream',
          'cache-control': forever,
        })
      })
      .get('/luts/:hash/file', async (c) => {
        const { hash, name, format } = await known(c)
        const extension = lutExtension(format)
        const bytes = await readFile(store.lutPath(hash))
        return c.body(bytes as unknown as ArrayBuffer, 200, {
          'content-type': extension === 'png' ? 'image/png' : 'text/plain; charset=utf-8',
          'cache-control': forever,
          ...attachment(`${name}.${extension}`),
        })
      })
  )
}
