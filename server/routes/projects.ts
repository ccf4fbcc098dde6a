// Projects.
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { checked, NewProject, ProjectChange } from '@contracts/index'
import { localActor, type ServerContext } from '../context'
import { transaction } from '../db/pool'
import { changeProject, insertProject, listProjects } from '../db/projects'
import { notFound, Problem } from '../problem'
import { duplicateProject } from '../services/duplicate'
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
    .patch('/projects/:id', bodyLimit({ maxSize: 16 * 1024 }), async (c) => {
      const { name, ...change } = checked(ProjectChange, await jsonBody(c))
      const trimmed = name?.trim()
      if (trimmed === '') throw new Problem(422, 'invalid', 'A project needs a name.', { field: 'name' })
      const id = uuidParam(c, 'id', 'project')
      if (!(await changeProject(pool, id, { ...change, ...(trimmed === undefined ? {} : { name: trimmed }) })))
        throw notFound('project')
      return c.body(null, 204)
    })
    .post('/projects/:id/copy', bodyLimit({ maxSize: 1024 }), async (c) => {
      const id = uuidParam(c, 'id', 'project')
      return c.json(await transaction(pool, (db) => duplicateProject(db, id, localActor)), 201)
    })
}
