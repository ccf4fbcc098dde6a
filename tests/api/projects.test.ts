// Projects as wholes: named, put out of the way, copied.
import { setParameter } from '@core/grade'
import type { ProjectSummary, ShotSummary } from '@contracts/responses'
import { call, demoReel, get, postJson, projectNamed, refusal, shotById } from '../support/api'

const projects = (): Promise<readonly ProjectSummary[]> => get<readonly ProjectSummary[]>('/projects')
const found = async (id: string): Promise<ProjectSummary | undefined> => (await projects()).find((p) => p.id === id)
const change = (id: string, body: object): Promise<Response> =>
  call(`/projects/${id}`, {
    method: 'PATCH',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  })

test('a project is renamed and archived, and what is wrong is refused', async () => {
  const id = await projectNamed('Kiln')
  expect((await change(id, { name: '  Kiln at dawn ' })).status).toBe(204)
  expect(await found(id)).toMatchObject({ name: 'Kiln at dawn', archived: false, shotCount: 0, pictures: [] })
  expect((await change(id, { archived: true })).status).toBe(204)
  expect(await found(id)).toMatchObject({ name: 'Kiln at dawn', archived: true })
  await change(id, { archived: false })
  expect((await found(id))?.archived).toBe(false)
  for (const name of ['', '   ', 'x'.repeat(81), 'a\u0000b'])
    expect(await refusal(await change(id, { name }))).toMatchObject({ status: 422, field: 'name' })
  expect((await change('00000000-0000-4000-8000-000000000000', { name: 'Ash' })).status).toBe(404)
  expect((await change('nothing', { name: 'Ash' })).status).toBe(404)
})

test('the list shows a picture of each scene, and how far the project is', async () => {
  const { project, shots } = await demoReel()
  const demo = (await found(project.id))!
  expect(demo.shotCount).toBe(shots.length)
  expect(demo.pictures.length).toBeGreaterThan(1)
  expect(demo.pictures.length).toBeLessThanOrEqual(4)
  const [first] = shots
  expect(demo.pictures[0]).toMatchObject({ revisionId: first!.headId, frame: first!.leadFrame })
  await postJson('/shots/changes', { shotIds: [first!.id], state: 'finished' })
  expect((await found(project.id))!.finishedCount).toBe(demo.finishedCount + 1)
  await postJson('/shots/changes', { shotIds: [first!.id], state: first!.state })
})

describe('a copy', () => {
  test('holds every shot as it stands, in its scene and with its look, and lives a life of its own', async () => {
    const { project, shots } = await demoReel()
    const [first] = shots
    const before = await shotById(first!.id)
    const { id } = (await (await postJson(`/projects/${project.id}/copy`, {})).json()) as { id: string }
    const copies = (await get<{ shots: readonly ShotSummary[] }>(`/projects/${id}/reel`)).shots
    expect(copies.map(({ name, scene, state, leadFrame }) => ({ name, scene, state, leadFrame }))).toEqual(
      shots.map(({ name, scene, state, leadFrame }) => ({ name, scene, state, leadFrame })),
    )
    expect((await found(id))?.name).toBe(`${project.name}, copy`)
    const copy = await shotById(copies[0]!.id)
    expect(copy.revision.grade).toEqual(before.revision.grade)
    expect(copy.revision).toMatchObject({ canUndo: false, summary: `As it stood in ${project.name}` })
    expect(copy.media.hash).toBe(before.media.hash)
    const grade = setParameter(copy.revision.grade, 'exposure', 'exposureStops', 2)
    await postJson(`/shots/${copy.id}/revisions`, { parentId: copy.revision.headId, summary: 'Exposure', grade })
    expect((await shotById(first!.id)).revision.grade).toEqual(before.revision.grade)
  })

  test('has looks of its own: a change of one is none of the other', async () => {
    const id = await projectNamed('Looks')
    const { project } = await demoReel()
    const copied = (await (await postJson(`/projects/${project.id}/copy`, {})).json()) as { id: string }
    const [shot] = (await get<{ shots: readonly ShotSummary[] }>(`/projects/${copied.id}/reel`)).shots
    const { revision } = await shotById(shot!.id)
    const { kind, name, strength, side, params } = revision.grade.steps.find((s) => s.kind === 'saturation')!
    const made = await postJson(`/projects/${copied.id}/looks`, {
      name: 'Ash',
      steps: [{ kind, name, strength, side, params: { ...params, saturation: 0.5 } }],
    })
    expect(made.status).toBe(201)
    const { id: lookId } = (await made.json()) as { id: string }
    const put = await call(`/projects/${copied.id}/look`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ sceneId: null, lookId, strength: 1 }),
    })
    expect(put.status).toBeLessThan(300)
    const again = (await (await postJson(`/projects/${copied.id}/copy`, {})).json()) as { id: string }
    const [twice] = (await get<{ shots: readonly ShotSummary[] }>(`/projects/${again.id}/reel`)).shots
    const steps = (await shotById(twice!.id)).revision.grade.steps.filter((s) => s.lookId !== undefined)
    expect(steps.length).toBeGreaterThan(0)
    for (const step of steps) expect(step.lookId).not.toBe(lookId)
    expect(twice!.look?.name).toBe('Ash')
    expect(revision.grade.steps.filter((s) => s.lookId !== undefined)).toEqual([])
    expect((await found(id))?.shotCount).toBe(0)
  })

  test('of nothing is refused, and nothing is left of it', async () => {
    const before = (await projects()).length
    expect((await postJson('/projects/00000000-0000-4000-8000-000000000000/copy', {})).status).toBe(404)
    expect((await projects()).length).toBe(before)
  })
})
