// The Record: revisions, undo and redo, and two hands on one shot.
import { readFileSync } from 'node:fs'
import { setParameter, type GradeDocument } from '@core/index'
import type { RevisionState, ShotDetail } from '@contracts/responses'
import { call, ownShot, postJson, refusal, save, shotById } from '../support/api'

let shot: ShotDetail
beforeEach(async () => { shot = await ownShot(readFileSync('demo/footage/potter.mov')) })

const exposed = (stops: number) => (grade: GradeDocument): GradeDocument => setParameter(grade, 'exposure', 'exposureStops', stops)
const exposureOf = (state: { grade: GradeDocument }): unknown => state.grade.steps.find((s) => s.id === 'exposure')!.params['exposureStops']
const move = async (direction: 'undo' | 'redo', expectedId: string): Promise<Response> => postJson(`/shots/${shot.id}/${direction}`, { expectedId })

test('an edit is a new revision on top of the one it was made on', async () => {
  const first = await save(shot.id, exposed(1), 'Exposure 1')
  expect(first).toMatchObject({ summary: 'Exposure 1', canUndo: true, canRedo: false })
  expect(first.headId).not.toBe(shot.headId)
  expect((await shotById(shot.id)).revisionDepth).toBe(2)
})

test('the document comes back as it went, value for value', async () => {
  const odd = exposed(0.1 + 0.2)(shot.revision.grade)
  const saved = await save(shot.id, () => odd)
  expect(saved.grade).toEqual(odd)
  expect((await shotById(shot.id)).revision.grade).toEqual(odd)
})

test('undo and redo walk the same path, and a new edit ends redo', async () => {
  const states: RevisionState[] = [shot.revision]
  for (const stops of [1, 2, 3]) states.push(await save(shot.id, exposed(stops)))
  for (const expected of [2, 1, 0]) {
    const { revision } = await shotById(shot.id)
    expect(exposureOf((await (await move('undo', revision.headId)).json()) as RevisionState)).toBe(expected)
  }
  const start = (await shotById(shot.id)).revision
  expect(start).toMatchObject({ headId: shot.headId, canUndo: false, canRedo: true })
  expect((await move('undo', start.headId)).status).toBe(422)
  for (const expected of [1, 2]) {
    const { revision } = await shotById(shot.id)
    const redone = (await (await move('redo', revision.headId)).json()) as RevisionState
    expect(exposureOf(redone)).toBe(expected)
    expect(redone.headId).toBe(states[expected]!.headId)
  }
  await save(shot.id, exposed(-1))
  const { revision } = await shotById(shot.id)
  expect(revision.canRedo).toBe(false)
  expect((await move('redo', revision.headId)).status).toBe(422)
})

test('the later of two hands gets 409 with the newer state, and nothing is overwritten', async () => {
  const mine = exposed(1)(shot.revision.grade), theirs = exposed(2)(shot.revision.grade)
  expect((await postJson(`/shots/${shot.id}/revisions`, { parentId: shot.headId, summary: 'theirs', grade: theirs })).status).toBe(200)
  const late = await postJson(`/shots/${shot.id}/revisions`, { parentId: shot.headId, summary: 'mine', grade: mine })
  expect(late.status).toBe(409)
  const { newer } = (await late.json()) as { newer: RevisionState }
  expect(exposureOf(newer)).toBe(2)
  expect(exposureOf((await shotById(shot.id)).revision)).toBe(2)
  expect((await move('undo', shot.headId)).status).toBe(409)
})

test('twenty edits at once: one wins, nineteen are told', async () => {
  const answers = await Promise.all(Array.from({ length: 20 }, (_, i) => postJson(`/shots/${shot.id}/revisions`, { parentId: shot.headId, summary: `n ${i}`, grade: exposed(i / 10 + 0.1)(shot.revision.grade) })))
  expect(answers.map((a) => a.status).sort()).toEqual([200, ...Array<number>(19).fill(409)])
  expect((await shotById(shot.id)).revisionDepth).toBe(2)
})

test('a grade that does not meet its contract is refused at its field', async () => {
  const grade = JSON.parse(JSON.stringify(shot.revision.grade)) as { steps: { params: object }[] }
  grade.steps[0]!.params = { exposureStops: 1e9 }
  const fault = await refusal(await postJson(`/shots/${shot.id}/revisions`, { parentId: shot.headId, summary: 'x', grade }))
  expect(fault).toMatchObject({ status: 422, code: 'invalid', field: 'steps.0.params', message: 'Exposure must be a number from -8 to 8.' })
})

test.each([
  ['no body', ''],
  ['broken JSON', '{"parentId":'],
  ['a list', '[]'],
  ['a strange field', JSON.stringify({ parentId: '00000000-0000-4000-8000-000000000000', summary: 'x', grade: {}, admin: true })],
])('%s is refused with a sentence', async (_, body) => {
  const response = await call(`/shots/${shot.id}/revisions`, { method: 'POST', headers: { 'content-type': 'application/json' }, body })
  expect([400, 422]).toContain(response.status)
  expect((await refusal(response)).message).toMatch(/\.$/)
})

test('a body beyond its cap is refused', async () => {
  const response = await call(`/shots/${shot.id}/revisions`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ pad: 'x'.repeat(600_000) }) })
  expect(response.status).toBe(413)
})

test('the lead frame must be a frame of the clip', async () => {
  const put = (leadFrame: unknown): Promise<Response> => call(`/shots/${shot.id}/lead-frame`, { method: 'PUT', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ leadFrame }) })
  expect((await put(7)).status).toBe(204)
  expect((await shotById(shot.id)).leadFrame).toBe(7)
  for (const bad of [72, -1, 1.5, '3', null]) expect((await put(bad)).status).toBe(422)
})
