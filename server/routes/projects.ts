// Projects.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { checked, NewProject } from '@contracts/index'
import type { ServerContext } from '../context'
import { insertProject, listProjects } from '../db/projects'
import { removeProject, restoreProject } from '../db/removal'
import { notFound, Problem } from '../problem'
import { jsonBody, uuidParam } from './params'

export function projectRoutes({ pool }: ServerContext): Hono {
  return new Hono()
    .get('/projects', async (c) => c.json(await listProjects(pool)))
    .post('/projects', bodyLimit({ maxSize: 16 * 1024 }), async (c) => {
      const { name } = checked(NewProject, await jsonBody(c))
      const trimmed = name.trim()
      if (!trimmed) throw new Problem(422, 'invalid', 'A project needs a name.', { field: 'name' })
      return c.json(await insertProject(pool, trimmed), 201)
    })
    .delete('/projects/:id', async (c) => {
      if (!(await removeProject(pool, uuidParam(c, 'id', 'project')))) throw notFound('project')
      return c.body(null, 204)
    })
    .post('/projects/:id/restore', bodyLimit({ maxSize: 1024 }), async (c) => {
      if (!(await restoreProject(pool, uuidParam(c, 'id', 'project')))) throw notFound('project')
      return c.body(null, 204)
    })
}
