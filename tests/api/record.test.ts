// The Record: revisions, undo and redo, and two hands on one shot.
import { readFileSync } from 'node:fs'
import { setParameter, type GradeDocument } from '@core/grade'
import type { GradeSheet, RevisionState, ShotDetail, ShotRecord } from '@contracts/responses'
import { answerToSize, call, get, ownShot, postJson, refusal, save, shotById, wholeRecord } from '../support/api'

let shot: ShotDetail
beforeEach(async () => {
  shot = await ownShot(readFileSync('demo/footage/potter.mov'))
})

const exposed =
  (stops: number) =>
  (grade: GradeDocument): GradeDocument =>
    setParameter(grade, 'exposure', 'exposureStops', stops)
const exposureOf = (state: { grade: GradeDocument }): unknown =>
  state.grade.steps.find((s) => s.id === 'exposure')!.params['exposureStops']
const move = async (direction: 'undo' | 'redo', expectedId: string): Promise<Response> =>
  postJson(`/shots/${shot.id}/${direction}`, { expectedId })

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
  const mine = exposed(1)(shot.revision.grade)
  const theirs = exposed(2)(shot.revision.grade)
  expect(
    (await postJson(`/shots/${shot.id}/revisions`, { parentId: shot.headId, summary: 'theirs', grade: theirs })).status,
  ).toBe(200)
  const late = await postJson(`/shots/${shot.id}/revisions`, { parentId: shot.headId, summary: 'mine', grade: mine })
  expect(late.status).toBe(409)
  const { newer } = (await late.json()) as { newer: RevisionState }
  expect(exposureOf(newer)).toBe(2)
  expect(exposureOf((await shotById(shot.id)).revision)).toBe(2)
  expect((await move('undo', shot.headId)).status).toBe(409)
})

test('twenty edits at once: one wins, nineteen are told', async () => {
  const answers = await Promise.all(
    Array.from({ length: 20 }, (_, i) =>
      postJson(`/shots/${shot.id}/revisions`, {
        parentId: shot.headId,
        summary: `n ${i}`,
        grade: exposed(i / 10 + 0.1)(shot.revision.grade),
      }),
    ),
  )
  expect(answers.map((a) => a.status).sort()).toEqual([200, ...Array<number>(19).fill(409)])
  expect((await shotById(shot.id)).revisionDepth).toBe(2)
})

test('a grade that does not meet its contract is refused at its field', async () => {
  const grade = JSON.parse(JSON.stringify(shot.revision.grade)) as { steps: { params: object }[] }
  grade.steps[0]!.params = { exposureStops: 1e9 }
  const fault = await refusal(
    await postJson(`/shots/${shot.id}/revisions`, { parentId: shot.headId, summary: 'x', grade }),
  )
  expect(fault).toMatchObject({
    status: 422,
    code: 'invalid',
    field: 'steps.0.params',
    message: 'Exposure must be a number from -8 to 8.',
  })
})

test.each([
  ['no body', ''],
  ['broken JSON', '{"parentId":'],
  ['a list', '[]'],
  [
    'a strange field',
    JSON.stringify({ parentId: '00000000-0000-4000-8000-000000000000', summary: 'x', grade: {}, admin: true }),
  ],
])('%s is refused with a sentence', async (_, body) => {
  const response = await call(`/shots/${shot.id}/revisions`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body,
  })
  expect([400, 422]).toContain(response.status)
  expect((await refusal(response)).message).toMatch(/\.$/)
})

test('a body beyond its cap is refused', async () => {
  expect(await answerToSize(`/shots/${shot.id}/revisions`, 'application/json', 5_000_000)).toBe(413)
})

test('the lead frame must be a frame of the clip', async () => {
  const put = (leadFrame: unknown): Promise<Response> =>
    call(`/shots/${shot.id}/lead-frame`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ leadFrame }),
    })
  expect((await put(7)).status).toBe(204)
  expect((await shotById(shot.id)).leadFrame).toBe(7)
  for (const bad of [120, -1, 1.5, '3', null]) expect((await put(bad)).status).toBe(422)
})

describe('the record', () => {
  const record = (): Promise<ShotRecord> => get<ShotRecord>(`/shots/${shot.id}/record`)

  test('says of every revision what it changed in words and numbers, and why', async () => {
    const why = { kind: 'aim', aims: ['Black at 4.0 %'] }
    expect(
      (
        await postJson(`/shots/${shot.id}/revisions`, {
          parentId: shot.headId,
          summary: 'Aims',
          grade: exposed(0.7)(shot.revision.grade),
          why,
        })
      ).status,
    ).toBe(200)
    const { revisions, headId, tipId } = await record()
    expect(revisions).toHaveLength(2)
    expect(revisions[0]).toMatchObject({
      id: headId,
      depth: 2,
      summary: 'Aims',
      why,
      changes: ['Exposure 0.00 stops → +0.70 stops'],
      parentId: shot.headId,
    })
    expect(tipId).toBe(headId)
    for (const bad of [{ kind: 'guess' }, { kind: 'aim', aims: ['x'.repeat(201)] }, { kind: 'aim', note: 'x' }])
      expect(
        (
          await refusal(
            await postJson(`/shots/${shot.id}/revisions`, {
              parentId: headId,
              summary: 'x',
              grade: shot.revision.grade,
              why: bad,
            }),
          )
        ).status,
      ).toBe(422)
  })

  test('versions are named, moved and removed; going back adds a revision and loses nothing', async () => {
    const one = await save(shot.id, exposed(1))
    const two = await save(shot.id, exposed(2))
    expect((await postJson(`/shots/${shot.id}/versions`, { revisionId: one.headId, name: 'A' })).status).toBe(201)
    expect(
      (await postJson(`/shots/${shot.id}/versions`, { revisionId: '00000000-0000-4000-8000-000000000000', name: 'B' }))
        .status,
    ).toBe(404)
    const back = await postJson(`/shots/${shot.id}/back`, { expectedId: two.headId, revisionId: one.headId })
    expect(exposureOf((await back.json()) as RevisionState)).toBe(1)
    const now = await record()
    expect(now.revisions.map((r) => r.summary).slice(0, 1)).toEqual(['Back to A'])
    expect(now.revisions.some((r) => r.id === two.headId)).toBe(true)
    expect(now.revisions[0]!.why).toEqual({ kind: 'back', from: one.headId })
    expect((await postJson(`/shots/${shot.id}/back`, { expectedId: two.headId, revisionId: one.headId })).status).toBe(
      409,
    )
    await postJson(`/shots/${shot.id}/versions`, { revisionId: two.headId, name: 'A' })
    expect((await record()).versions.map((v) => [v.name, v.revisionId])).toEqual([['A', two.headId]])
    expect((await call(`/versions/${(await record()).versions[0]!.id}`, { method: 'DELETE' })).status).toBe(204)
    expect((await record()).versions).toEqual([])
  })

  test('what was made on an older state is kept beside the newer one under a name', async () => {
    const newer = await save(shot.id, exposed(2))
    const answer = await postJson(`/shots/${shot.id}/fork`, {
      parentId: shot.headId,
      summary: 'mine',
      name: 'Mine',
      grade: exposed(-1)(shot.revision.grade),
    })
    expect(((await answer.json()) as RevisionState).headId).toBe(newer.headId)
    const { versions, revisions } = await record()
    const mine = revisions.find((r) => r.id === versions[0]!.revisionId)!
    expect([versions[0]!.name, mine.parentId, mine.changes]).toEqual([
      'Mine',
      shot.headId,
      ['Exposure 0.00 stops → −1.00 stops'],
    ])
    expect(await get<GradeDocument>(`/shots/${shot.id}/revisions/${mine.id}`)).toEqual(exposed(-1)(shot.revision.grade))
  })

  test('five hundred steps back to the start and forth to the end give the same documents, bit by bit', async () => {
    const documents: string[] = [JSON.stringify(shot.revision.grade)]
    let parentId = shot.headId
    let grade = shot.revision.grade
    for (let step = 1; step <= 500; step++) {
      grade =
        step % 3 === 0
          ? setParameter(grade, 'contrast', 'contrast', 1 + Math.sin(step) / 7)
          : exposed(Math.cos(step * 1.7) / 3)(grade)
      const state = (await (
        await postJson(`/shots/${shot.id}/revisions`, { parentId, summary: `step ${step}`, grade })
      ).json()) as RevisionState
      parentId = state.headId
      documents.push(JSON.stringify(state.grade))
    }
    let at = (await shotById(shot.id)).revision
    for (let step = 499; step >= 0; step--) {
      at = (await (await move('undo', at.headId)).json()) as RevisionState
      if (JSON.stringify(at.grade) !== documents[step]) throw new Error(`step ${step} came back changed`)
    }
    expect(at).toMatchObject({ canUndo: false, canRedo: true })
    for (let step = 1; step <= 500; step++) {
      at = (await (await move('redo', at.headId)).json()) as RevisionState
      if (JSON.stringify(at.grade) !== documents[step]) throw new Error(`step ${step} came forth changed`)
    }
    expect(at).toMatchObject({ canUndo: true, canRedo: false })
    expect(await wholeRecord(shot.id)).toHaveLength(501)
  })

  test(
    'the grade sheet tells controls, readings before and after, and what was waived; a name is no ' +
      'formula in a spreadsheet',
    async () => {
      await save(shot.id, exposed(0.7), '=1+1')
      await postJson(`/shots/${shot.id}/waivers`, { reading: 'black', subject: '', waived: true, reason: 'smoke' })
      const {
        shots: [sheet],
      } = await get<GradeSheet>(`/shots/${shot.id}/sheet.json`)
      expect(sheet!.controls).toEqual([{ step: 'Exposure', words: 'Exposure +0.70 stops' }])
      const black = sheet!.readings.find((r) => r.name === 'Black')!
      expect(black.waived).toBe('smoke')
      expect(Number(black.after)).toBeGreaterThan(Number(black.before))
      expect(sheet!.record.map((r) => r.depth)).toEqual([2, 1])
      const csv = await (await call(`/shots/${shot.id}/sheet.csv`)).text()
      expect(csv.split('\r\n')[0]).toContain('"shot","scene","what"')
      expect(csv).toContain('"\'=1+1"')
      expect(csv).toMatch(/"control","Exposure","","Exposure \+0.70 stops"/)
      expect((await get<GradeSheet>(`/projects/${shot.projectId}/sheet.json`)).shots.map((s) => s.name)).toEqual([
        sheet!.name,
      ])
    },
  )
})
