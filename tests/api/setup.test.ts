// Set-ups: one correction serves all, offsets stay, undo goes with it, two hands at once lose nothing.
import { readFileSync } from 'node:fs'
import { addRegion, setParameter, type GradeDocument } from '@core/grade'
import type { RevisionState, ShotDetail, ShotRecord, ShotSummary } from '@contracts/responses'
import { call, get, ownShot, postJson, refusal, shotById } from '../support/api'

let shots: readonly ShotDetail[]
beforeEach(async () => {
  const first = await ownShot(readFileSync('demo/footage/potter.mov'), 'one.mov')
  const more = await Promise.all(
    ['two.mov', 'three.mov'].map(
      async (name) =>
        (await (
          await call(`/projects/${first.projectId}/shots?name=${name}`, {
            method: 'POST',
            body: readFileSync('demo/footage/yard-cloud.mov') as unknown as BodyInit,
          })
        ).json()) as ShotDetail,
    ),
  )
  shots = [first, ...more]
  expect((await postJson('/shots/link', { shotIds: shots.map((s) => s.id) })).status).toBe(204)
})
const exposed = (g: GradeDocument, stops: number): GradeDocument => setParameter(g, 'exposure', 'exposureStops', stops)
async function edit(at: number, change: (g: GradeDocument) => GradeDocument, alone = false): Promise<Response> {
  const { revision, id } = await shotById(shots[at]!.id)
  return postJson(`/shots/${id}/revisions`, {
    parentId: revision.headId,
    summary: 'Exposure',
    grade: change(revision.grade),
    ...(alone ? { alone } : {}),
  })
}
const stops = (): Promise<unknown[]> =>
  Promise.all(
    shots.map(
      async (s) =>
        (await shotById(s.id)).revision.grade.steps.find((x) => x.id === 'exposure')!.params['exposureStops'],
    ),
  )
const move = async (at: number, way: 'undo' | 'redo'): Promise<Response> =>
  postJson(`/shots/${shots[at]!.id}/${way}`, { expectedId: (await shotById(shots[at]!.id)).revision.headId })

test('a correction goes to all by as much; one that stays is an offset; undo and redo go with it', async () => {
  await edit(1, (g) => exposed(g, 0.3), true)
  expect(await stops()).toEqual([0, 0.3, 0])
  await edit(0, (g) => exposed(g, 1))
  expect(await stops()).toEqual([1, 1.3, 1])
  const { revisions } = await get<ShotRecord>(`/shots/${shots[1]!.id}/record`)
  expect(revisions[0]).toMatchObject({
    summary: 'Exposure, with one.mov',
    why: { kind: 'setup' },
    changes: ['Exposure +0.30 stops → +1.30 stops'],
  })
  await move(0, 'undo')
  expect(await stops()).toEqual([0, 0.3, 0])
  await move(0, 'redo')
  expect(await stops()).toEqual([1, 1.3, 1])
  // An edit that stayed is undone where it stayed.
  await edit(2, (g) => exposed(g, 2), true)
  await move(2, 'undo')
  expect(await stops()).toEqual([1, 1.3, 1])
})

test('regions stay where they are; unlinked shots go their own way; a set-up of one is none', async () => {
  await edit(0, (g) => addRegion(g).grade)
  expect((await shotById(shots[1]!.id)).revision.grade.regions).toEqual([])
  expect((await shotById(shots[0]!.id)).setup).toMatchObject({ name: 'Set-up 1', shots: 3 })
  await postJson('/shots/unlink', { shotIds: [shots[0]!.id] })
  await edit(0, (g) => exposed(g, 1))
  expect(await stops()).toEqual([1, 0, 0])
  await postJson('/shots/unlink', { shotIds: [shots[1]!.id] })
  const reel = await get<{ shots: readonly ShotSummary[] }>(`/projects/${shots[0]!.projectId}/reel`)
  expect(reel.shots.map((s) => s.setup)).toEqual([null, null, null])
})

test(
  'hands on two shots of one set-up at once: nothing hangs, and every answered correction is in all ' + 'of them',
  async () => {
    for (let round = 0; round < 5; round++) {
      const answers = await Promise.all(
        [0, 1, 2].map(async (at) =>
          edit(at, (g) =>
            exposed(
              g,
              Math.round(Number(g.steps.find((s) => s.id === 'exposure')!.params['exposureStops']) * 10 + 1) / 10,
            ),
          ),
        ),
      )
      const done = answers.filter((a) => a.status === 200).length
      expect(answers.every((a) => a.status === 200 || a.status === 409)).toBe(true)
      expect(done).toBeGreaterThan(0)
      const all = await stops()
      expect(new Set(all).size).toBe(1)
    }
  },
)

test('shots of two projects, shots that are gone and a single shot cannot be linked', async () => {
  const other = await ownShot(readFileSync('demo/footage/potter.mov'), 'elsewhere.mov')
  expect(await refusal(await postJson('/shots/link', { shotIds: [shots[0]!.id, other.id] }))).toMatchObject({
    status: 422,
    field: 'shotIds',
  })
  expect(
    await refusal(await postJson('/shots/link', { shotIds: [shots[0]!.id, '00000000-0000-4000-8000-000000000000'] })),
  ).toMatchObject({ status: 422 })
  expect((await postJson('/shots/link', { shotIds: [shots[0]!.id] })).status).toBeGreaterThanOrEqual(400)
  const state = (await (await edit(0, (g) => exposed(g, 0.5))).json()) as RevisionState
  expect(state.canUndo).toBe(true)
})
