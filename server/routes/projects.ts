// Projects and their reels; importing a clip.
import { basename } from 'node:path'
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { checked, NewProject } from '@contracts/index'
import { localActor, type ServerContext } from '../context'
import { findProject, insertProject, listProjects } from '../db/projects'
import { findShot, listShots } from '../db/shots'
import { importClip } from '../media/import'
import { notFound, Problem } from '../problem'
import { uuidParam } from './params'

const maxClipBytes = 8 * 1024 ** 3

export function projectRoutes(context: ServerContext): Hono {
  const { pool } = context
  return new Hono()
    .get('/projects', async (c) => c.json(await listProjects(pool)))
    .post('/projects', bodyLimit({ maxSize: 16 * 1024 }), async (c) => {
      const { name } = checked(NewProject, await c.req.json())
      const trimmed = name.trim()
      if (!trimmed) throw new Problem(422, 'invalid', 'A project needs a name.', { field: 'name' })
      return c.json(await insertProject(pool, trimmed), 201)
    })
    .get('/projects/:id/reel', async (c) => {
      const project = await findProject(pool, uuidParam(c, 'id', 'project'))
      if (!project) throw notFound('project')
      return c.json({ project, shots: await listShots(pool, project.id) })
    })
    .post('/projects/:id/shots', async (c) => {
      const project = await findProject(pool, uuidParam(c, 'id', 'project'))
      if (!project) throw notFound('project')
      const name = clipName(c.req.query('name'))
      if (!c.req.raw.body) throw new Problem(422, 'empty_file', `"${name}" is empty.`)
      const { id } = await importClip(context, { body: c.req.raw.body, maxBytes: maxClipBytes, name, projectId: project.id, actor: localActor })
      return c.json(await findShot(pool, id), 201)
    })
}

/** A file's name as a shot's name: only its last part, without control characters, at most 120 long. */
function clipName(given: string | undefined): string {
  const last = basename((given ?? '').replaceAll('\\', '/')).replace(/\p{Cc}/gu, '').trim()
  return (last || 'Untitled').slice(0, 120)
}
