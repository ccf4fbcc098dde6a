// Proxies for playback, served in ranges so that the browser fetches only what it plays.
import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { Readable } from 'node:stream'
import { Hono } from 'hono'
import { localActor, type ServerContext } from '../context'
import { forgetProxy } from '../db/media'
import { transaction } from '../db/pool'
import { enqueueSurvey } from '../jobs/enqueue'
import { notFound, Problem } from '../problem'
import { hashParam } from './params'

export function proxyRoutes({ pool, store }: ServerContext): Hono {
  /** A proxy that is gone is made again; until then the shot has none. */
  const makeAgain = (hash: string): Promise<void> =>
    transaction(pool, async (db) => {
      if (await forgetProxy(db, hash)) await enqueueSurvey(db, hash, 'Proxy', localActor)
    })

  return new Hono().get('/media/:hash/proxy', async (c) => {
    const hash = hashParam(c, 'hash', 'clip')
    const path = store.proxyPath(hash)
    const size = (await stat(path).catch(() => undefined))?.size
    if (size === undefined) {
      await makeAgain(hash)
      throw notFound('proxy')
    }
    const asked = c.req.header('range')
    const range = asked === undefined ? { from: 0, to: size - 1 } : rangeOf(asked, size)
    const headers = {
      'content-type': 'video/mp4',
      'accept-ranges': 'bytes',
      'cache-control': 'private, max-age=31536000, immutable',
      'content-length': String(range.to - range.from + 1),
    }
    const body = Readable.toWeb(createReadStream(path, { start: range.from, end: range.to })) as ReadableStream
    return asked === undefined
      ? c.body(body, 200, headers)
      : c.body(body, 206, { ...headers, 'content-range': `bytes ${range.from}-${range.to}/${size}` })
  })
}

/** One range of bytes (RFC 9110, clause 14.2). Throws a Problem when it cannot be met. */
function rangeOf(header: string, size: number): { from: number; to: number } {
  const match = /^bytes=(\d*)-(\d*)$/.exec(header)
  const [, first = '', last = ''] = match ?? []
  const from = first === '' ? Math.max(0, size - Number(last)) : Number(first)
  const to = first === '' || last === '' ? size - 1 : Math.min(Number(last), size - 1)
  if (!match || (first === '' && last === '') || from > to || from >= size)
    throw new Problem(416, 'bad_range', `The proxy has ${size} bytes.`)
  return { from, to }
}
