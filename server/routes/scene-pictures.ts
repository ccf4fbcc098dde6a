// Pictures of what a scene should feel like: brought as small PNGs, shown, taken away.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { scenePictureLimits } from '@contracts/index'
import { decodePng, FormatError, pngHeader } from '@core/formats'
import type { ServerContext } from '../context'
import { transaction } from '../db/pool'
import { addScenePicture, removeScenePicture, scenePicture } from '../db/scene-pictures'
import { notFound, Problem } from '../problem'
import { plainName, uuidParam } from './params'

const { maxBytes, maxSide, perScene } = scenePictureLimits
const tooLarge = (): Problem =>
  new Problem(413, 'too_large', `A reference picture may have ${maxBytes / 1048576} MB.`, {
    hint: 'Bring a smaller one.',
  })

export const scenePictureRoutes = ({ pool }: ServerContext): Hono =>
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
        const { width, height } = sizeOf(png, name)
        const made = await transaction(pool, (db) => addScenePicture(db, sceneId, { name, width, height, png }))
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

/** Decoded once, so that only what can be shown is kept. */
function sizeOf(png: Uint8Array, name: string): { readonly width: number; readonly height: number } {
  try {
    const header = pngHeader(png)
    const { width, height } = header
    if (width < 1 || height < 1 || width > maxSide || height > maxSide)
      throw new FormatError(`It is ${width} × ${height}; ${maxSide} a side is the most.`, 0)
    decodePng(png, header)
    return header
  } catch (error) {
    if (error instanceof FormatError)
      throw new Problem(422, 'unreadable_file', `"${name}" is no picture that can be kept. ${error.message}`)
    throw error
  }
}
