// Standards of one's own, cards, subjects and waivers: kept, refused when wrong, and never lost.
import { setParameter } from '@core/grade'
import type { HouseStandard } from '@core/readings'
import type { ShotDetail, ShotFindings } from '@contracts/responses'
import { readFileSync } from 'node:fs'
import { call, demoReel, get, ownShot, postJson, refusal, shotById } from '../support/api'

const clip = readFileSync('demo/footage/potter.mov')
const putJson = (path: string, body: unknown): Promise<Response> =>
  call(path, { method: 'PUT', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })
const own = (id: string, more: object = {}): object => ({
  id,
  name: 'Ours',
  tip: 'A test',
  targets: { black: { low: 0.03, high: 0.06, tolerance: 0.002 } },
  ...more,
})
const area = { left: 0.1, top: 0.2, right: 0.3, bottom: 0.4 }
const card = { luma: 0.3, chroma: 0.2, hueDegrees: 121 }
let shot: ShotDetail
beforeAll(async () => {
  shot = await ownShot(clip)
})

describe('standards', () => {
  test('are kept, changed, exported and imported, and removed', async () => {
    expect((await putJson('/standards/own-a', own('own-a'))).status).toBe(200)
    expect((await putJson('/standards/own-a', own('own-a', { name: 'Ours, later' }))).status).toBe(200)
    expect((await get<readonly HouseStandard[]>('/standards')).find((s) => s.id === 'own-a')?.name).toBe('Ours, later')
    const imported = await postJson('/standards/import', {
      kind: 'pale-meridian-standards',
      version: 1,
      standards: [own('own-b'), own('own-c')],
    })
    expect(imported.status).toBe(201)
    for (const id of ['own-a', 'own-b', 'own-c'])
      expect((await call(`/standards/${id}`, { method: 'DELETE' })).status).toBe(204)
    expect((await call('/standards/own-a', { method: 'DELETE' })).status).toBe(404)
  })

  test.each([
    ['an id of a shipped one', { id: 'broad-day' }, /own-/],
    ['a reading that is none', { targets: { brightness: { low: 0, high: 1, tolerance: 0 } } }, /not a reading/],
    ['a reading that has no target', { targets: { noWhite: { low: 0, high: 1, tolerance: 0 } } }, /not a reading/],
    [
      'ends the wrong way round',
      { targets: { black: { low: 0.5, high: 0.1, tolerance: 0 } } },
      /low must not be over high/,
    ],
    ['no number', { targets: { black: { low: null, high: 0.1, tolerance: 0 } } }, /must be a number/],
    ['a tolerance under zero', { targets: { black: { low: 0, high: 0.1, tolerance: -1 } } }, /tolerance/],
    ['a field of its own', { targets: { black: { low: 0, high: 0.1, tolerance: 0, script: 'x' } } }, /not known/],
    ['a name of control characters', { name: 'a\u0007b' }, /name/],
  ])('%s is refused with its reason', async (_, change, words) => {
    const said = await refusal(await putJson('/standards/own-x', own('own-x', change)))
    expect(said.status).toBe(422)
    expect(`${said.field ?? ''} ${said.message}`).toMatch(words)
    expect((await get<readonly HouseStandard[]>('/standards')).some((s) => s.id === 'own-x')).toBe(false)
  })

  test('a bad one among good ones imports none of them', async () => {
    const response = await postJson('/standards/import', {
      kind: 'pale-meridian-standards',
      version: 1,
      standards: [own('own-y'), own('nonsense')],
    })
    expect(response.status).toBe(422)
    expect((await get<readonly HouseStandard[]>('/standards')).some((s) => s.id === 'own-y')).toBe(false)
  })

  test("a scene goes by one of the user's own, and by the project's again once that is removed", async () => {
    await putJson('/standards/own-s', own('own-s'))
    await postJson('/shots/changes', { shotIds: [shot.id], scene: { name: 'Yard' } })
    expect((await postJson('/shots/changes', { shotIds: [shot.id], standardId: 'own-s' })).status).toBe(204)
    expect((await shotById(shot.id)).standardId).toBe('own-s')
    expect(
      (await refusal(await postJson('/shots/changes', { shotIds: [shot.id], standardId: 'own-not-there' }))).code,
    ).toBe('no_standard')
    await call('/standards/own-s', { method: 'DELETE' })
    expect((await shotById(shot.id)).standardId).toBe('common-ground')
  })
})

test(
  'the findings of a shot follow its grade, its lead frame and what is pointed out, and bring its ' + 'waivers along',
  async () => {
    const found = await get<ShotFindings>(`/shots/${shot.id}/findings`)
    const value = (of: ShotFindings, id: string): number | undefined => of.findings.find((f) => f.id === id)?.value
    expect(found).toMatchObject({ headId: shot.headId, leadFrame: shot.leadFrame, waivers: [] })
    expect(found.findings.length).toBeGreaterThan(12)
    const grade = setParameter(shot.revision.grade, 'exposure', 'exposureStops', 1)
    await postJson(`/shots/${shot.id}/revisions`, { parentId: shot.headId, summary: 'Exposure', grade })
    await putJson(`/shots/${shot.id}/card`, { frame: shot.leadFrame, area })
    await postJson(`/shots/${shot.id}/waivers`, { reading: 'white', subject: '', waived: true, reason: 'night' })
    const brighter = await get<ShotFindings>(`/shots/${shot.id}/findings`)
    // However the guess reads it, a stop lifts the middle.
    expect(value(brighter, 'middle')! - value(found, 'middle')!).toBeGreaterThan(0.05)
    expect(value(found, 'cardExposure')).toBeUndefined()
    expect(value(brighter, 'cardExposure')).toBeDefined()
    expect(brighter.waivers.map((w) => w.reading)).toEqual(['white'])
    await postJson(`/shots/${shot.id}/waivers`, { reading: 'white', subject: '', waived: false })
    await call(`/shots/${shot.id}/card`, { method: 'DELETE' })
  },
)

describe('what is pointed out', () => {
  test('a card: picked, moved, taken back', async () => {
    expect(((await (await putJson(`/shots/${shot.id}/card`, { frame: 3, area })).json()) as ShotDetail).card).toEqual({
      frame: 3,
      area,
    })
    await putJson(`/shots/${shot.id}/card`, { frame: 5, area })
    expect((await shotById(shot.id)).card?.frame).toBe(5)
    expect(((await (await call(`/shots/${shot.id}/card`, { method: 'DELETE' })).json()) as ShotDetail).card).toBeNull()
    expect((await putJson(`/shots/${shot.id}/card`, { frame: 3, area: { ...area, right: 4 } })).status).toBe(422)
    expect(
      (await putJson(`/shots/${shot.id.replace(/.$/, shot.id.endsWith('0') ? '1' : '0')}/card`, { frame: 3, area }))
        .status,
    ).toBe(404)
  })

  test('a subject: sampled, sampled again, placed in another shot of the project only, removed', async () => {
    const subject = { name: 'Ember', shotId: shot.id, frame: 3, area, card }
    const made = (await (await postJson(`/projects/${shot.projectId}/subjects`, subject)).json()) as ShotDetail
    expect(made.subjects).toEqual([{ id: expect.any(String) as string, name: 'Ember', card, here: { frame: 3, area } }])
    const again = (await (
      await postJson(`/projects/${shot.projectId}/subjects`, { ...subject, card: { ...card, luma: 0.4 } })
    ).json()) as ShotDetail
    expect(again.subjects).toHaveLength(1)
    expect(again.subjects[0]?.card.luma).toBe(0.4)
    const stranger = (await demoReel()).shots[0]!
    expect((await putJson(`/shots/${stranger.id}/subjects/${made.subjects[0]!.id}`, { frame: 0, area })).status).toBe(
      404,
    )
    expect((await postJson(`/projects/${shot.projectId}/subjects`, { ...subject, shotId: stranger.id })).status).toBe(
      404,
    )
    expect(
      (await postJson(`/projects/${shot.projectId}/subjects`, { ...subject, card: { ...card, luma: 'dark' } })).status,
    ).toBe(422)
    expect((await call(`/subjects/${made.subjects[0]!.id}`, { method: 'DELETE' })).status).toBe(204)
    expect((await shotById(shot.id)).subjects).toEqual([])
  })
})

test(
  'a frame in which a subject was pointed out becomes the proposed lead; one that a person chose ' + 'stays',
  async () => {
    const other = await ownShot(clip, 'lead.mov')
    await postJson(`/projects/${other.projectId}/subjects`, { name: 'Ember', shotId: other.id, frame: 41, area, card })
    expect((await shotById(other.id)).leadFrame).toBe(41)
    await putJson(`/shots/${other.id}/lead-frame`, { leadFrame: 7 })
    await postJson(`/projects/${other.projectId}/subjects`, { name: 'Ember', shotId: other.id, frame: 50, area, card })
    expect((await shotById(other.id)).leadFrame).toBe(7)
  },
)

test('a waiver needs a reason, stands until it is taken up again, and both stay in the record', async () => {
  const waive = (body: object): Promise<Response> => postJson(`/shots/${shot.id}/waivers`, body)
  expect((await waive({ reading: 'black', waived: true })).status).toBe(422)
  expect((await waive({ reading: 'black', waived: true, reason: '' })).status).toBe(422)
  expect((await waive({ reading: 'mood', waived: true, reason: 'so' })).status).toBe(422)
  const shotAfter = (await (
    await waive({ reading: 'black', waived: true, reason: 'Smoke in the yard' })
  ).json()) as ShotDetail
  expect(shotAfter.waivers).toMatchObject([{ reading: 'black', subject: '', reason: 'Smoke in the yard' }])
  await waive({ reading: 'skinHue', subject: 'Ember', waived: true, reason: 'Firelight' })
  expect((await shotById(shot.id)).waivers.map((w) => [w.reading, w.subject])).toEqual([
    ['black', ''],
    ['skinHue', 'Ember'],
  ])
  await waive({ reading: 'black', waived: false })
  expect((await shotById(shot.id)).waivers.map((w) => w.reading)).toEqual(['skinHue'])
})
