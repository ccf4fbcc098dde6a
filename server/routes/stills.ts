// The stills of a project, and notes on moments of shots.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { checked, NewMomentNote, NewStill, StillChange, stillLimits } from '@contracts/index'
import { withoutAncillary } from '@core/formats'
import { localActor, type ServerContext } from '../context'
import { transaction } from '../db/pool'
import { findProject } from '../db/projects'
import { findShot } from '../db/shots'
import { addNote, addStill, changeStill, listStills, removeNote, removeStill, stillPicture } from '../db/stills'
import { notFound, Problem } from '../problem'
import { frameWithin, jsonBody, plainName, uuidParam } from './params'

const { maxBytes, maxSide, perProject } = stillLimits
const body = bodyLimit({ maxSize: 16 * 1024 })

/** The id of what was added. Throws where it could not be. */
function added(id: string, what: string, most: string): { readonly id: string } {
  if (id === 'none') throw notFound(what)
  if (id === 'full') throw new Problem(409, 'full', most, { hint: 'Remove one first.' })
  return { id }
}

export const stillRoutes = ({ pool, workers }: ServerContext): Hono =>
  new Hono()
    .get('/projects/:id/stills', async (c) => {
      const project = await findProject(pool, uuidParam(c, 'id', 'project'))
      if (!project) throw notFound('project')
      return c.json(await listStills(pool, project.id))
    })
    .post('/projects/:id/stills', body, async (c) => {
      const projectId = uuidParam(c, 'id', 'project')
      const { shotId, frame, name } = checked(NewStill, await jsonBody(c))
      const shot = await findShot(pool, shotId)
      if (!shot) throw notFound('shot')
      if (shot.projectId !== projectId)
        throw new Problem(422, 'invalid', 'The shot is one of another project.', { field: 'shotId' })
      const of = { revisionId: shot.headId, frame: frameWithin(String(frame), shot) }
      const id = await transaction(pool, (db) => addStill(db, projectId, { name, actor: localActor, of }))
      return c.json(added(id, 'project', `A project may keep ${perProject} stills.`), 201)
    })
    .post(
      '/projects/:id/stills/pictures',
      bodyLimit({
        maxSize: maxBytes,
        onError: () => {
          throw new Problem(413, 'too_large', `A picture for the shelf may have ${maxBytes / 1048576} MB.`, {
            hint: 'Import a smaller one.',
          })
        },
      }),
      async (c) => {
        const projectId = uuidParam(c, 'id', 'project')
        const name = plainName(c.req.query('name')).slice(0, 80) || 'Untitled'
        const png = new Uint8Array(await c.req.arrayBuffer())
        const size = await workers.checkPicture({ png, mostSide: maxSide })
        if ('fault' in size)
          throw new Problem(422, 'unreadable_file', `"${name}" is no picture that can be kept. ${size.fault}`)
        const of = { ...size, png: withoutAncillary(png) }
        const id = await transaction(pool, (db) => addStill(db, projectId, { name, actor: localActor, of }))
        return c.json(added(id, 'project', `A project may keep ${perProject} stills.`), 201)
      },
    )
    .put('/stills/:id', body, async (c) => {
      const change = checked(StillChange, await jsonBody(c))
      if (!(await changeStill(pool, uuidParam(c, 'id', 'still'), change))) throw notFound('still')
      return c.body(null, 204)
    })
    .get('/stills/:id/picture', async (c) => {
      const png = await stillPicture(pool, uuidParam(c, 'id', 'still'))
      if (!png) throw notFound('picture')
      return c.body(png as unknown as ArrayBuffer, 200, {
        'content-type': 'image/png',
        'cache-control': 'private, max-age=31536000, immutable',
      })
    })
    .delete('/stills/:id', async (c) => {
      if (!(await removeStill(pool, uuidParam(c, 'id', 'still')))) throw notFound('still')
      return c.body(null, 204)
    })
    .post('/shots/:id/notes', body, async (c) => {
      const shotId = uuidParam(c, 'id', 'shot')
      const note = checked(NewMomentNote, await jsonBody(c))
      const shot = await findShot(pool, shotId)
      if (!shot) throw notFound('shot')
      frameWithin(String(note.frame), shot)
      const id = await transaction(pool, (db) => addNote(db, shotId, note, localActor))
      return c.json(added(id, 'shot', 'The shot has as many notes as it may.'), 201)
    })
    .delete('/notes/:id', async (c) => {
      if (!(await removeNote(pool, uuidParam(c, 'id', 'note')))) throw notFound('note')
      return c.body(null, 204)
    })
