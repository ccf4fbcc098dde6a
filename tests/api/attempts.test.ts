// A try of work that stood still for long, and that another took up meanwhile, neither reports, nor ends, nor fails
// what is no longer its own.
import pg from 'pg'
import {
  claimRender,
  failRender,
  finishRender,
  insertRender,
  reportProgress,
  requeueRenders,
} from '../../server/db/renders'
import { claimWork, endWork, insertWork, reportWork, requeueWork, touchWork } from '../../server/db/work'
import { databaseUrl } from '../support/database'
import { demoReel, shotById } from '../support/api'

let db: pg.Client
beforeAll(async () => {
  db = new pg.Client(databaseUrl())
  await db.connect()
})
afterAll(() => db.end())
beforeEach(() => db.query('BEGIN'))
afterEach(() => db.query('ROLLBACK'))

const silent = { silentSeconds: -1, attempts: [], waitedSeconds: 1e9 }

test('a render', async () => {
  const { shots } = await demoReel()
  const { revision } = await shotById(shots[0]!.id)
  const { id } = (await insertRender(db, revision.headId, 'test'))!
  const [first, second] = [
    { id, attempt: 'first' },
    { id, attempt: 'second' },
  ]
  expect(await claimRender(db, first)).toBe(true)
  expect(await claimRender(db, second)).toBe(false)
  expect(await reportProgress(db, first, 1)).toBe(true)
  expect(await requeueRenders(db, silent)).toContain(id)
  expect(await claimRender(db, second)).toBe(true)
  expect(await reportProgress(db, first, 2)).toBe(false)
  expect(await finishRender(db, first, 1)).toBe(false)
  await failRender(db, first, 'stood still')
  expect(await reportProgress(db, second, 3)).toBe(true)
  expect(await finishRender(db, second, 1)).toBe(true)
})

test('an import; put back by name when its process ends', async () => {
  const { project } = await demoReel()
  const id = (await insertWork(db, {
    kind: 'import',
    projectId: project.id,
    mediaHash: null,
    name: 'a',
    payload: {},
    actor: 'test',
  }))!
  const [first, second] = [
    { id, attempt: 'first' },
    { id, attempt: 'second' },
  ]
  expect((await claimWork(db, first))?.id).toBe(id)
  await touchWork(db, first)
  expect(await requeueWork(db, { silentSeconds: 1e9, attempts: ['other'], waitedSeconds: 1e9 })).toEqual([])
  expect(await requeueWork(db, { silentSeconds: 1e9, attempts: ['first'], waitedSeconds: 1e9 })).toEqual([
    { id, kind: 'import' },
  ])
  expect((await claimWork(db, second))?.id).toBe(id)
  expect(await reportWork(db, first, 'reading', 1, 2)).toBe(false)
  expect(await endWork(db, first, null)).toBe(false)
  expect(await endWork(db, first, { message: 'stood still' })).toBe(false)
  expect(await endWork(db, second, null)).toBe(true)
})
