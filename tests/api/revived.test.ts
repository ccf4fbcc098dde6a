// What dies is started again, at the same address and with all that was stored.
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { setParameter } from '@core/grade'
import type { ProjectSummary, RenderSummary, RevisionState, ShotDetail } from '@contracts/responses'
import { clusterFolder } from '../../server/db/cluster'
import { startDemoInstance, type DemoInstance } from '../support/demo-instance'
import { until } from '../support/until'

let demo: DemoInstance
beforeAll(async () => {
  demo = await startDemoInstance()
}, 120_000)
afterAll(() => demo.dispose())

const api = (path: string, init: RequestInit = {}): Promise<Response> => fetch(`${demo.address}/api${path}`, init)
const get = async <T>(path: string): Promise<T> => (await (await api(path)).json()) as T
const shotId = async (): Promise<string> => (await get<ProjectSummary[]>('/projects'))[0]?.firstShotId ?? ''
async function save(stops: number): Promise<Response> {
  const id = await shotId()
  const { revision } = await get<ShotDetail>(`/shots/${id}`)
  return api(`/shots/${id}/revisions`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      parentId: revision.headId,
      summary: 'Exposure',
      grade: setParameter(revision.grade, 'exposure', 'exposureStops', stops),
    }),
  })
}
const answers = (): Promise<boolean> =>
  api('/health').then(
    (r) => r.ok,
    () => false,
  )

test('the server', async () => {
  const saved = (await (await save(0.25)).json()) as RevisionState
  const before = demo.pid()
  process.kill(before, 'SIGKILL')
  await until('it answers again', answers)
  expect(demo.pid()).not.toBe(before)
  expect((await get<ShotDetail>(`/shots/${await shotId()}`)).headId).toBe(saved.headId)
})

test('the database, all of its processes at once', async () => {
  const saved = (await (await save(0.5)).json()) as RevisionState
  const file = join(clusterFolder(demo.dataFolder), 'postmaster.pid')
  const pid = (): number => (existsSync(file) ? Number(readFileSync(file, 'utf8').split('\n')[0]) : 0)
  const before = pid()
  process.kill(before, 'SIGKILL')
  await until('it was started again', () => pid() > 0 && pid() !== before)
  await until('the server has it again', answers)
  expect((await get<ShotDetail>(`/shots/${await shotId()}`)).headId).toBe(saved.headId)
  const { headId } = (await (await save(0.75)).json()) as RevisionState
  // The queue goes on as well.
  const asked = await api('/renders', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ revisionId: headId }),
  })
  const { id } = (await asked.json()) as RenderSummary
  await until('a render is made', async () => (await get<RenderSummary>(`/renders/${id}`)).state === 'done')
})
