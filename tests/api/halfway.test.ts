// The demo project that is half-way through: whole, and one, whatever happens while it is being made.
import type { ProjectSummary, RenderSummary, SceneSummary, ShotRecord, ShotSummary } from '@contracts/responses'
import { startDemoInstance, type DemoInstance } from '../support/demo-instance'
import { until } from '../support/until'

let program: DemoInstance
const before = process.env['PALE_DEMO']
beforeAll(async () => {
  process.env['PALE_DEMO'] = 'both'
  program = await startDemoInstance()
}, 120_000)
afterAll(async () => {
  if (before === undefined) delete process.env['PALE_DEMO']
  else process.env['PALE_DEMO'] = before
  await program.dispose()
})

const get = async <T>(path: string): Promise<T> => (await (await fetch(`${program.address}/api${path}`)).json()) as T
const halves = async (): Promise<readonly ProjectSummary[]> =>
  (await get<readonly ProjectSummary[]>('/projects')).filter(({ name }) => name === 'Ashglaze, second week')

test('killed while it is being made, it is made anew: one, and every view has something', async () => {
  await until('it is begun', async () => (await halves()).length === 1, { everyMs: 5 })
  await program.kill()
  await program.restart()
  const project = await until(
    'it is there with its last work',
    async () => {
      const [one] = await halves()
      if (!one) return false
      const { shots } = await get<{ shots: readonly ShotSummary[] }>(`/projects/${one.id}/reel`)
      return shots.find(({ name }) => name === 'Courtyard walk')?.state === 'corrected' ? one : false
    },
    { withinMs: 170_000 },
  )
  expect(await halves()).toHaveLength(1)
  const { shots, scenes } = await get<{ shots: readonly ShotSummary[]; scenes: readonly SceneSummary[] }>(
    `/projects/${project.id}/reel`,
  )
  const states = shots.map(({ state }) => state)
  for (const state of ['new', 'corrected', 'matched', 'finished']) expect(states).toContain(state)
  // Weather, water, air and night came in that week.
  for (const name of ['Snow in the yard', 'Sunken jar', 'Over the sheds', 'Shop window at night'])
    expect(shots.map((shot) => shot.name)).toContain(name)
  expect(scenes.filter(({ intent }) => intent !== '').length).toBeGreaterThan(2)
  const potter = shots.find(({ name }) => name === 'Potter at the bench')!
  const { revisions, versions } = await get<ShotRecord>(`/shots/${potter.id}/record`)
  expect(versions.map(({ name }) => name)).toEqual(['First pass'])
  expect(revisions.map(({ summary }) => summary)).toEqual([
    'Complementary split',
    'Balance for me',
    'As it stood in Ashglaze',
  ])
  const renders = await get<readonly RenderSummary[]>(`/projects/${project.id}/renders`)
  expect(renders.map(({ shotName }) => shotName).sort()).toEqual(['Glaze shelf', 'Potter at the bench'])
  expect(renders.every(({ state }) => state !== 'failed' && state !== 'cancelled')).toBe(true)
}, 300_000)
