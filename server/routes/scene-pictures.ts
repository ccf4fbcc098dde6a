// Pictures of what a scene should feel like: brought as small PNGs, shown, taken away.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { scenePictureLimits } from '@contracts/index'
import { withoutAncillary } from '@core/formats'
import type { ServerContext } from '../context'
import { transaction } from '../db/pool'
import { addScenePicture, removeScenePicture, scenePicture } from '../db/scene-pictures'
import { notFound, Problem } from '../problem'
import { plainName, uuidParam } from './params'

const { maxBytes, maxSide, perScene } = scenePictureLimits
const tooLarge = (): Problem =>
  new Problem(413, 'too_large', `A reference picture may have ${maxBytes / 1048576} MB.`, {
    hint: 'Import a smaller one.',
  })

export const scenePictureRoutes = ({ pool, workers }: ServerContext): Hono =>
  new Hono()
    .post(
      '/scenes/:id/pictures',
      bodyLimit({
        maxSize: maxBytes,
        onError: () => {
          throw tooLarge()
        },
      }),
      async (c) => {
        const sceneId = uuidParam(c, 'id', 'scene')
        const name = plainName(c.req.query('name')) || 'Untitled'
        const png = new Uint8Array(await c.req.arrayBuffer())
        const size = await workers.checkPicture({ png, mostSide: maxSide })
        if ('fault' in size)
          throw new Problem(422, 'unreadable_file', `"${name}" is no picture that can be kept. ${size.fault}`)
        const { width, height } = size
        const kept = withoutAncillary(png)
        const made = await transaction(pool, (db) => addScenePicture(db, sceneId, { name, width, height, png: kept }))
        if (made === 'none') throw notFound('scene')
        if (made === 'full')
          throw new Problem(409, 'full', `A scene may carry ${perScene} pictures.`, { hint: 'Take one away first.' })
        return c.json({ id: made, name, width, height }, 201)
      },
    )
    .get('/scene-pictures/:id', async (c) => {
      const png = await scenePicture(pool, uuidParam(c, 'id', 'picture'))
      if (!png) throw notFound('picture')
      return c.body(png as unknown as ArrayBuffer, 200, {
        'content-type': 'image/png',
        'cache-control': 'private, max-age=31536000, immutable',
      })
    })
    .delete('/scene-pictures/:id', async (c) => {
      if (!(await removeScenePicture(pool, uuidParam(c, 'id', 'picture')))) throw notFound('picture')
      return c.body(null, 204)
    })
