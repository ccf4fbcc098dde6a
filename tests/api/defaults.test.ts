// What shots have of their scene and project: a change moves all that follow, and only those.
import { readFileSync } from 'node:fs'
import { setShow } from '@core/grade'
import type { DefaultsMoved, ProjectDefaults } from '@contracts/responses'
import { call, get, ownShot, postJson, refusal, save, shotById, wholeRecord } from '../support/api'

const clip = readFileSync('demo/footage/potter.mov')
const put = (projectId: string, body: object): Promise<Response> =>
  call(`/projects/${projectId}/defaults`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  })
const moved = async (projectId: string, body: object): Promise<DefaultsMoved> => {
  const response = await put(projectId, body)
  if (!response.ok) throw new Error(await response.text())
  return (await response.json()) as DefaultsMoved
}
const shown = async (id: string): Promise<[string, string]> => {
  const { show } = (await shotById(id)).revision.grade
  return [show.displayId, show.method]
}
const read = (shotIds: string[], encodingId: string): Promise<Response> =>
  postJson('/shots/changes', { shotIds, read: { encodingId, range: 'full' } })

describe('three shots of a project, one of them set by a hand', () => {
  let project: string
  let ids: string[]
  const byHand = (): string => ids[2]!

  beforeAll(async () => {
    const whole = await ownShot(clip, 'one.mov')
    project = whole.projectId
    const cut = await postJson(`/shots/${whole.id}/cut`, {
      pieces: [0, 20, 40].map((first) => ({ first, count: 20 })),
    })
    ids = ((await cut.json()) as { shotIds: string[] }).shotIds
    await read(ids, 'log-351-128')
    await save(byHand(), (grade) => setShow(grade, { method: 'straight' }), 'By hand')
  })

  test('they open through the rendering', async () => {
    expect(await Promise.all(ids.map(shown))).toEqual([
      ['bt709-2.4', 'rendered'],
      ['bt709-2.4', 'rendered'],
      ['bt709-2.4', 'straight'],
    ])
  })

  test('a change moves those that follow, each by a revision, and is taken back as one', async () => {
    const { before, moved: count } = await moved(project, { sceneId: null, rendering: 'print' })
    expect([before.rendering, count]).toEqual([null, 2])
    expect((await Promise.all(ids.map(shown))).map(([, method]) => method)).toEqual(['print', 'print', 'straight'])
    const [latest] = await wholeRecord(ids[0]!)
    expect(latest).toMatchObject({ summary: "Project's display", why: { kind: 'defaults' } })
    expect((await moved(project, { sceneId: null, rendering: before.rendering })).moved).toBe(2)
    expect((await Promise.all(ids.map(shown))).map(([, method]) => method)).toEqual([
      'rendered',
      'rendered',
      'straight',
    ])
  })

  test('a scene differs from its project, and what is put into it follows', async () => {
    await postJson('/shots/changes', { shotIds: [ids[0]], scene: { name: 'Kiln' } })
    const [sceneId] = Object.keys((await get<ProjectDefaults>(`/projects/${project}/defaults`)).scenes)
    expect((await moved(project, { sceneId, displayId: 'p3-d65' })).moved).toBe(1)
    await moved(project, { sceneId: null, displayId: 'srgb' })
    expect((await Promise.all(ids.map(shown))).map(([display]) => display)).toEqual(['p3-d65', 'srgb', 'srgb'])
    await postJson('/shots/changes', { shotIds: [ids[1]], scene: { name: 'Kiln' } })
    expect(await shown(ids[1]!)).toEqual(['p3-d65', 'rendered'])
    await postJson('/shots/changes', { shotIds: [ids[0]], scene: {} })
    expect(await shown(ids[0]!)).toEqual(['srgb', 'rendered'])
    expect((await moved(project, { sceneId, displayId: null })).moved).toBe(1)
    expect(await shown(ids[1]!)).toEqual(['srgb', 'rendered'])
  })

  test('stepped back over, one shot is out of it and the others stay', async () => {
    await moved(project, { sceneId: null, displayId: 'bt709-2.4', rendering: 'rolloff' })
    await call(`/shots/${ids[0]}/undo`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ expectedId: (await shotById(ids[0]!)).headId }),
    })
    expect((await shown(ids[0]!))[1]).toBe('rendered')
    expect((await moved(project, { sceneId: null, rendering: 'print' })).moved).toBe(1)
    expect((await shown(ids[0]!))[1]).toBe('rendered')
  })

  test('new footage opens as the project says', async () => {
    await moved(project, { sceneId: null, displayId: 'p3-d65', rendering: 'print' })
    const response = await call(`/projects/${project}/shots?name=next.mov`, { method: 'POST', body: clip })
    expect(response.status).toBe(201)
    const { id } = (await response.json()) as { id: string }
    expect((await shown(id))[0]).toBe('p3-d65')
    expect((await shotById(id)).showDefaults).toEqual({ displayId: 'p3-d65', rendering: 'print' })
    await read([id], 'log-351-128')
    expect((await shown(id))[1]).toBe('print')
  })

  test('a standard: the shot’s own, else its scene’s, else the project’s', async () => {
    const standards = (): Promise<string[]> => Promise.all(ids.map(async (id) => (await shotById(id)).standardId))
    await moved(project, { sceneId: null, standardId: 'night' })
    const [sceneId] = Object.keys((await get<ProjectDefaults>(`/projects/${project}/defaults`)).scenes)
    await moved(project, { sceneId, standardId: 'broad-day' })
    await postJson('/shots/changes', { shotIds: [byHand()], standardId: 'common-ground' })
    expect(await standards()).toEqual(['night', 'broad-day', 'common-ground'])
    await postJson('/shots/changes', { shotIds: [byHand()], standardId: null })
    expect(await standards()).toEqual(['night', 'broad-day', 'night'])
    expect((await postJson('/shots/changes', { shotIds: ids, standardId: 'mine' })).status).toBe(422)
  })

  test.each([
    ['a LUT as a rendering', { sceneId: null, rendering: 'lut' }, 422],
    ['a display that is none', { sceneId: null, displayId: 'cinema' }, 422],
    ['a standard that is none', { sceneId: null, standardId: 'mine' }, 422],
    ['no word of where', { rendering: 'print' }, 422],
    ['a scene of nowhere', { sceneId: '00000000-0000-4000-8000-000000000000', rendering: 'print' }, 404],
  ])('%s is refused', async (_, body, status) => {
    const before = await get<ProjectDefaults>(`/projects/${project}/defaults`)
    expect((await refusal(await put(project, body))).status).toBe(status)
    expect(await get<ProjectDefaults>(`/projects/${project}/defaults`)).toEqual(before)
  })
})
