// Shared looks: edit once and all follow; strengths; taken out; scenes over projects; undo goes with it; two hands at
// once lose nothing.
import { readFileSync } from 'node:fs'
import { decode, encode } from 'fast-png'
import { setParameter, sharedSteps, type GradeDocument } from '@core/grade'
import type { LookSummary, ScenePicture, SceneSummary, ShotDetail, ShotRecord, ShotSummary } from '@contracts/responses'
import { answerToSize, call, get, ownShot, postJson, refusal, shotById } from '../support/api'

let shots: readonly ShotDetail[]
let projectId: string
const saturation = {
  kind: 'saturation',
  name: 'Pale',
  strength: 1,
  side: 'scene',
  params: { saturation: 0.5, vibrance: 1 },
}
const contrast = {
  kind: 'contrast',
  name: 'Contrast',
  strength: 0.8,
  side: 'scene',
  params: { contrast: 1.2, pivotStops: 0 },
}
const put = (path: string, body: unknown): Promise<Response> =>
  call(path, { method: 'PUT', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })
async function look(name: string, steps: readonly object[]): Promise<string> {
  return ((await (await postJson(`/projects/${projectId}/looks`, { name, steps })).json()) as { id: string }).id
}
const shared = async (at: number): Promise<unknown[]> =>
  sharedSteps((await shotById(shots[at]!.id)).revision.grade).map((s) => [
    s.kind,
    s.strength,
    s.params['saturation'] ?? s.params['contrast'],
  ])
async function edit(at: number, change: (g: GradeDocument) => GradeDocument): Promise<Response> {
  const { revision, id } = await shotById(shots[at]!.id)
  return postJson(`/shots/${id}/revisions`, {
    parentId: revision.headId,
    summary: 'Edited',
    grade: change(revision.grade),
  })
}
const sceneOf = async (at: number): Promise<string> => (await shotById(shots[at]!.id)).sceneId!

beforeEach(async () => {
  const first = await ownShot(readFileSync('demo/footage/potter.mov'), 'one.mov')
  projectId = first.projectId
  const more = await Promise.all(
    ['two.mov', 'three.mov'].map(
      async (name) =>
        (await (
          await call(`/projects/${projectId}/shots?name=${name}`, {
            method: 'POST',
            body: readFileSync('demo/footage/yard-cloud.mov') as unknown as BodyInit,
          })
        ).json()) as ShotDetail,
    ),
  )
  shots = [first, ...more]
  expect(
    (await postJson('/shots/changes', { shotIds: [shots[0]!.id, shots[1]!.id], scene: { name: 'Workshop' } })).status,
  ).toBe(204)
})

test(
  'one look on the project: every shot carries it behind its own correction; a change in one is a ' +
    'change in all; undo as well',
  async () => {
    const id = await look('Pale clay', [contrast, saturation])
    expect((await put(`/projects/${projectId}/look`, { sceneId: null, lookId: id, strength: 0.5 })).status).toBe(200)
    for (const at of [0, 1, 2])
      expect(await shared(at)).toEqual([
        ['contrast', 0.4, 1.2],
        ['saturation', 0.5, 0.5],
      ])
    await edit(1, (g) => setParameter(g, 'shared-2', 'saturation', 0.3))
    for (const at of [0, 1, 2])
      expect(await shared(at)).toEqual([
        ['contrast', 0.4, 1.2],
        ['saturation', 0.5, 0.3],
      ])
    expect((await get<readonly LookSummary[]>(`/projects/${projectId}/looks`))[0]).toMatchObject({
      name: 'Pale clay',
      wholeProject: true,
      scenes: [],
      steps: [{ strength: 0.8 }, { strength: 1, params: { saturation: 0.3 } }],
    })
    const { revisions } = await get<ShotRecord>(`/shots/${shots[2]!.id}/record`)
    expect(revisions[0]).toMatchObject({ summary: 'Look Pale clay changed', why: { kind: 'look' } })
    const { revision, id: edited } = await shotById(shots[1]!.id)
    expect((await postJson(`/shots/${edited}/undo`, { expectedId: revision.headId })).status).toBe(200)
    for (const at of [0, 1, 2])
      expect(await shared(at)).toEqual([
        ['contrast', 0.4, 1.2],
        ['saturation', 0.5, 0.5],
      ])
    // Each shot's own correction is its own.
    await edit(0, (g) => setParameter(g, 'exposure', 'exposureStops', 1))
    expect(
      (await shotById(shots[1]!.id)).revision.grade.steps.find((s) => s.id === 'exposure')!.params['exposureStops'],
    ).toBe(0)
  },
)

test(
  "a scene's look goes before the project's; strength by scene and by shot; a shot that moves takes " +
    'the look of its new scene; new shots take it too',
  async () => {
    const whole = await look('Whole', [contrast])
    const scene = await look('Workshop', [saturation])
    await put(`/projects/${projectId}/look`, { sceneId: null, lookId: whole, strength: 1 })
    await put(`/projects/${projectId}/look`, { sceneId: await sceneOf(0), lookId: scene, strength: 0.6 })
    expect([await shared(0), await shared(2)]).toEqual([[['saturation', 0.6, 0.5]], [['contrast', 0.8, 1.2]]])
    await put(`/shots/${shots[0]!.id}/look`, { strength: 0.5, detached: false })
    expect([await shared(0), await shared(1)]).toEqual([[['saturation', 0.3, 0.5]], [['saturation', 0.6, 0.5]]])
    await postJson('/shots/changes', { shotIds: [shots[2]!.id], scene: { id: await sceneOf(0) } })
    expect(await shared(2)).toEqual([['saturation', 0.6, 0.5]])
    const { shots: listed } = await get<{ shots: readonly ShotSummary[] }>(`/projects/${projectId}/reel`)
    expect(listed.map((s) => [s.look?.name, s.look?.from, s.look?.ownStrength])).toEqual([
      ['Workshop', 'scene', 0.5],
      ['Workshop', 'scene', 1],
      ['Workshop', 'scene', 1],
    ])
    const fresh = (await (
      await call(`/projects/${projectId}/shots?name=four.mov`, {
        method: 'POST',
        body: readFileSync('demo/footage/potter.mov') as unknown as BodyInit,
      })
    ).json()) as ShotDetail
    expect(sharedSteps((await shotById(fresh.id)).revision.grade).map((s) => s.kind)).toEqual(['contrast'])
  },
)

test(
  'taken out of the look, the steps stay and follow nobody; put back, they follow again; taken off, ' + 'they are gone',
  async () => {
    const id = await look('Pale', [saturation])
    await put(`/projects/${projectId}/look`, { sceneId: null, lookId: id, strength: 1 })
    await put(`/shots/${shots[0]!.id}/look`, { strength: 1, detached: true })
    expect(await shared(0)).toEqual([])
    expect((await shotById(shots[0]!.id)).revision.grade.steps.at(-1)).toMatchObject({
      kind: 'saturation',
      lookId: 'own',
      params: { saturation: 0.5 },
    })
    await edit(1, (g) => setParameter(g, 'shared-1', 'saturation', 0.2))
    expect((await shotById(shots[0]!.id)).revision.grade.steps.at(-1)!.params['saturation']).toBe(0.5)
    await put(`/projects/${projectId}/look`, { sceneId: null, lookId: null, strength: 1 })
    expect([await shared(1), await shared(2)]).toEqual([[], []])
  },
)

test(
  'undo over what the look did takes the shot out of it and hurts no other; redo puts it back; ' +
    'going back keeps the look',
  async () => {
    const id = await look('Steady', [saturation])
    const head = async (at: number): Promise<string> => (await shotById(shots[at]!.id)).revision.headId
    const move = async (at: number, way: 'undo' | 'redo'): Promise<number> =>
      (await postJson(`/shots/${shots[at]!.id}/${way}`, { expectedId: await head(at) })).status
    await edit(0, (g) => setParameter(g, 'exposure', 'exposureStops', 1))
    const corrected = await head(0)
    await put(`/projects/${projectId}/look`, { sceneId: null, lookId: id, strength: 1 })
    expect(await move(0, 'undo')).toBe(200)
    expect([await shared(0), await shared(1), (await shotById(shots[0]!.id)).look?.detached]).toEqual([
      [],
      [['saturation', 1, 0.5]],
      true,
    ])
    expect((await get<readonly LookSummary[]>(`/projects/${projectId}/looks`))[0]!.steps).toHaveLength(1)
    // A second undo is of the shot's own correction, as before.
    expect(await move(0, 'undo')).toBe(200)
    expect([await move(0, 'redo'), await move(0, 'redo')]).toEqual([200, 200])
    expect([await shared(0), (await shotById(shots[0]!.id)).look?.detached]).toEqual([[['saturation', 1, 0.5]], false])
    // A strength of one shot, undone, is no change of the look.
    await put(`/shots/${shots[1]!.id}/look`, { strength: 0.5, detached: false })
    expect(await move(1, 'undo')).toBe(200)
    expect([await shared(0), await shared(2)]).toEqual([[['saturation', 1, 0.5]], [['saturation', 1, 0.5]]])
    expect(
      (await postJson(`/shots/${shots[0]!.id}/back`, { expectedId: await head(0), revisionId: corrected })).status,
    ).toBe(200)
    expect(await shared(0)).toEqual([['saturation', 1, 0.5]])
  },
)

test('two hands on two shots of one look at once: both changes are in all', async () => {
  const id = await look('Both', [contrast, saturation])
  await put(`/projects/${projectId}/look`, { sceneId: null, lookId: id, strength: 1 })
  const answers = await Promise.all([
    edit(0, (g) => setParameter(g, 'shared-1', 'contrast', 1.4)),
    edit(1, (g) => setParameter(g, 'shared-2', 'saturation', 0.8)),
  ])
  // One of them may be told that its shot was changed meanwhile; nothing is half done.
  expect(answers.filter((a) => a.status === 200).length).toBeGreaterThanOrEqual(1)
  const all = await Promise.all([0, 1, 2].map(shared))
  expect(all[1]).toEqual(all[0])
  expect(all[2]).toEqual(all[0])
})

test(
  "nonsense is refused: no steps that act, a name that is taken, another project's look, strengths " + 'beyond 100 %',
  async () => {
    expect(
      (
        await refusal(
          await postJson(`/projects/${projectId}/looks`, {
            name: 'Empty',
            steps: [{ ...saturation, params: { saturation: 1, vibrance: 1 } }],
          }),
        )
      ).code,
    ).toBe('empty_look')
    const id = await look('Once', [saturation])
    expect(
      (await refusal(await postJson(`/projects/${projectId}/looks`, { name: 'Once', steps: [saturation] }))).code,
    ).toBe('taken')
    const other = await ownShot(readFileSync('demo/footage/potter.mov'))
    expect((await put(`/projects/${other.projectId}/look`, { sceneId: null, lookId: id, strength: 1 })).status).toBe(
      404,
    )
    expect((await put(`/projects/${projectId}/look`, { sceneId: null, lookId: id, strength: 1.5 })).status).toBe(422)
    expect((await put(`/shots/${shots[0]!.id}/look`, { strength: 'much', detached: false })).status).toBe(422)
  },
)

test('a scene carries a few words of what it should feel like', async () => {
  expect((await put(`/scenes/${await sceneOf(0)}/intent`, { intent: 'Early, cold, one warm lamp' })).status).toBe(204)
  expect((await shotById(shots[1]!.id)).intent).toBe('Early, cold, one warm lamp')
  expect((await shotById(shots[2]!.id)).intent).toBe('')
  expect((await put(`/scenes/${await sceneOf(0)}/intent`, { intent: 'x'.repeat(401) })).status).toBe(422)
  expect((await put('/scenes/00000000-0000-4000-8000-000000000000/intent', { intent: '' })).status).toBe(404)
})

describe('reference pictures of a scene', () => {
  const png = (width: number, height: number, value = 120): Uint8Array =>
    encode({ width, height, channels: 4, depth: 8, data: new Uint8Array(width * height * 4).fill(value) })
  const bring = (scene: string, body: Uint8Array, name = 'mood.png'): Promise<Response> =>
    call(`/scenes/${scene}/pictures?name=${encodeURIComponent(name)}`, {
      method: 'POST',
      headers: { 'content-type': 'image/png' },
      body: body as unknown as BodyInit,
    })
  const nowhere = '00000000-0000-4000-8000-000000000000'

  test('they go with the scene and with its shots, in the order they came, until they are taken away', async () => {
    const scene = await sceneOf(0)
    const first = (await (await bring(scene, png(64, 36, 90), '../folder/Cold morning.png')).json()) as ScenePicture
    expect(first).toMatchObject({ name: 'Cold morning.png', width: 64, height: 36 })
    await bring(scene, png(20, 30), 'lamp.png')
    expect((await shotById(shots[1]!.id)).intentPictures.map((p) => p.name)).toEqual(['Cold morning.png', 'lamp.png'])
    expect((await shotById(shots[2]!.id)).intentPictures).toEqual([])
    expect(
      (await get<{ scenes: readonly SceneSummary[] }>(`/projects/${projectId}/reel`)).scenes.find((s) => s.id === scene)
        ?.pictures,
    ).toHaveLength(2)
    const kept = await call(`/scene-pictures/${first.id}`)
    expect(kept.headers.get('content-type')).toBe('image/png')
    const back = decode(new Uint8Array(await kept.arrayBuffer()))
    expect([back.width, back.height, back.data[0]]).toEqual([64, 36, 90])
    expect((await call(`/scene-pictures/${first.id}`, { method: 'DELETE' })).status).toBe(204)
    expect((await shotById(shots[0]!.id)).intentPictures.map((p) => p.name)).toEqual(['lamp.png'])
    expect((await call(`/scene-pictures/${first.id}`)).status).toBe(404)
    expect((await call(`/scene-pictures/${first.id}`, { method: 'DELETE' })).status).toBe(404)
  })

  test('six are the most, also when all are brought at once', async () => {
    const scene = await sceneOf(0)
    const answers = await Promise.all(Array.from({ length: 9 }, () => bring(scene, png(8, 8))))
    expect(answers.map((a) => a.status).sort()).toEqual([...Array<number>(6).fill(201), ...Array<number>(3).fill(409)])
    expect((await shotById(shots[0]!.id)).intentPictures).toHaveLength(6)
  })

  test('what is no picture is refused, says why and leaves nothing', async () => {
    const scene = await sceneOf(0)
    const damaged = png(64, 36)
    damaged[60]! ^= 255
    const bomb = png(1000, 1000)
    new DataView(bomb.buffer, bomb.byteOffset).setUint32(16, 10)
    for (const [body, words] of [
      [new TextEncoder().encode('not a picture'), 'not a PNG'],
      [png(2000, 8), '2000 × 8'],
      [damaged, 'no picture that can be kept'],
      [bomb, 'no picture that can be kept'],
      [png(64, 36).subarray(0, 70), 'no picture that can be kept'],
      [new Uint8Array(0), 'not a PNG'],
    ] as const) {
      const refused = await refusal(await bring(scene, body, 'odd.png'))
      expect([refused.status, refused.code]).toEqual([422, 'unreadable_file'])
      expect(refused.message).toContain(words)
    }
    expect(await answerToSize(`/scenes/${scene}/pictures?name=large.png`, 'image/png', 5 * 1024 * 1024)).toBe(413)
    expect((await bring(nowhere, png(8, 8))).status).toBe(404)
    expect((await shotById(shots[0]!.id)).intentPictures).toEqual([])
  })

  test('a scene that goes takes its pictures with it', async () => {
    const { id } = (await (await bring(await sceneOf(0), png(8, 8))).json()) as ScenePicture
    await postJson('/shots/changes', { shotIds: [shots[0]!.id, shots[1]!.id], scene: { name: 'Elsewhere' } })
    expect((await call(`/scene-pictures/${id}`)).status).toBe(404)
  })
})
