// Grade sheets of a shot and of a project, as data to print, to keep or to open in a spreadsheet; the reel as an edit
// list.
import { Hono } from 'hono'
import type { GradeSheet } from '@contracts/responses'
import type { ServerContext } from '../context'
import { sheetAsCsv, sheetOfProject, sheetOfShot } from '../services/sheet'
import { attachment } from './pictures'
import { findProject } from '../db/projects'
import { notFound, Problem } from '../problem'
import { editListOf } from '../services/edit-list'
import { oneOf, uuidParam } from './params'

const csv = (sheet: GradeSheet, name: string): [string, 200, Record<string, string>] => [
  `\ufeff${sheetAsCsv(sheet)}`,
  200,
  { 'content-type': 'text/csv; charset=utf-8', ...attachment(`${name} grade sheet.csv`) },
]

export function sheetRoutes(context: ServerContext): Hono {
  return new Hono()
    .get('/shots/:id/sheet.json', async (c) => c.json(await sheetOfShot(context, uuidParam(c, 'id', 'shot'))))
    .get('/shots/:id/sheet.csv', async (c) => {
      const sheet = await sheetOfShot(context, uuidParam(c, 'id', 'shot'))
      return c.body(...csv(sheet, sheet.shots[0]?.name ?? 'shot'))
    })
    .get('/projects/:id/sheet.json', async (c) => c.json(await sheetOfProject(context, uuidParam(c, 'id', 'project'))))
    .get('/projects/:id/edit-list', async (c) => {
      const project = await findProject(context.pool, uuidParam(c, 'id', 'project'))
      if (!project) throw notFound('project')
      const kind = oneOf(c.req.query('kind'), 'kind', ['edl', 'otio'] as const)
      const list = await editListOf(context.pool, project.id, project.name, kind)
      if (list === undefined) throw new Problem(422, 'empty', 'The reel holds no shots yet.')
      return c.body(list, 200, {
        'content-type': 'text/plain; charset=utf-8',
        ...attachment(`${project.name}.${kind}`),
      })
    })
    .get('/projects/:id/sheet.csv', async (c) => {
      const sheet = await sheetOfProject(context, uuidParam(c, 'id', 'project'))
      return c.body(...csv(sheet, sheet.project || 'project'))
    })
}
