// Projects.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { checked, NewProject } from '@contracts/index'
import type { ServerContext } from '../context'
import { insertProject, listProjects } from '../db/projects'
import { Problem } from '../problem'
import { jsonBody } from './params'

export function projectRoutes({ pool }: ServerContext): Hono {
  return new Hono()
    .get('/projects', async (c) => c.json(await listProjects(pool)))
    .post('/projects', bodyLimit({ maxSize: 16 * 1024 }), async (c) => {
      const { name } = checked(NewProject, await jsonBody(c))
      const trimmed = name.trim()
      if (!trimmed) throw new Problem(422, 'invalid', 'A project needs a name.', { field: 'name' })
      return c.json(await insertProject(pool, trimmed), 201)
    })
}
