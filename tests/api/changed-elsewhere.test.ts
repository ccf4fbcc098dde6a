// Two tabs that saw the same: the second to change it is told, and what the first stored stays.
import { readFileSync } from 'node:fs'
import { seenHeader } from '@contracts/seen'
import type { SceneSummary, ShotDetail, ShotRecord } from '@contracts/responses'
import type { HouseStandard } from '@core/readings'
import { call, get, ownShot, postJson, refusal, save, shotById } from '../support/api'

const area = { left: 0.1, top: 0.2, right: 0.3, bottom: 0.4 }
const card = { luma: 0.3, chroma: 0.2, hueDegrees: 121 }
let shot: ShotDetail
beforeAll(async () => {
  shot = await ownShot(readFileSync('demo/footage/potter.mov'))
})

const send = (method: string, path: string, body: unknown, seen: unknown): Promise<Response> =>
  call(path, {
    method,
    headers: { 'content-type': 'application/json', ...seenHeader(seen) },
    ...(body === null ? {} : { body: JSON.stringify(body) }),
  })

/** The first of two changes that saw the same is taken, the second told. */
async function onlyTheFirst(first: Promise<Response>, second: () => Promise<Response>): Promise<void> {
  const answer = await first
  expect(answer.status).toBeLessThan(300)
  expect(await refusal(await second())).toMatchObject({ status: 412, code: 'changed_elsewhere' })
}

test('a standard', async () => {
  const own = (name: string): object => ({ id: 'own-two-tabs', name, tip: '', targets: {} })
  const stored = async (): Promise<HouseStandard | undefined> =>
    (await get<readonly HouseStandard[]>('/standards')).find((s) => s.id === 'own-two-tabs')
  const put = (name: string, seen: unknown): Promise<Response> =>
    send('PUT', '/standards/own-two-tabs', own(name), seen)
  // Both made a first one of their own, and both called it the same.
  await onlyTheFirst(put('One', null), () => put('Two', null))
  const seen = await stored()
  await onlyTheFirst(put('One, later', seen), () => put('Two, later', seen))
  expect((await stored())?.name).toBe('One, later')
  expect((await send('DELETE', '/standards/own-two-tabs', null, seen)).status).toBe(412)
  expect((await send('DELETE', '/standards/own-two-tabs', null, await stored())).status).toBe(204)
})

test('a standard that two make in the same moment is the one of one of them', async () => {
  const own = (n: number): object => ({ id: 'own-at-once', name: `Nr ${n}`, tip: '', targets: {} })
  const answers = await Promise.all([1, 2, 3, 4].map((n) => send('PUT', '/standards/own-at-once', own(n), null)))
  expect(answers.map((a) => a.status).sort()).toEqual([200, 412, 412, 412])
  await call('/standards/own-at-once', { method: 'DELETE' })
})

test('a card', async () => {
  const path = `/shots/${shot.id}/card`
  const put = (frame: number, seen: unknown): Promise<Response> => send('PUT', path, { frame, area }, seen)
  await onlyTheFirst(put(3, null), () => put(4, null))
  const seen = (await shotById(shot.id)).card
  await onlyTheFirst(put(5, seen), () => send('DELETE', path, null, seen))
  expect((await shotById(shot.id)).card?.frame).toBe(5)
})

test('a subject: its card, and where it lies in a shot', async () => {
  const make = (luma: number, seen: unknown): Promise<Response> =>
    send(
      'POST',
      `/projects/${shot.projectId}/subjects`,
      { name: 'Ember', shotId: shot.id, frame: 3, area, card: { ...card, luma } },
      seen,
    )
  await onlyTheFirst(make(0.3, null), () => make(0.4, null))
  const [subject] = (await shotById(shot.id)).subjects
  expect(subject?.card.luma).toBe(0.3)
  const path = `/shots/${shot.id}/subjects/${subject?.id}`
  const seen = subject?.here ?? null
  await onlyTheFirst(send('PUT', path, { frame: 7, area }, seen), () => send('DELETE', path, null, seen))
  expect((await shotById(shot.id)).subjects[0]?.here?.frame).toBe(7)
})

test('what a scene should feel like', async () => {
  await postJson('/shots/changes', { shotIds: [shot.id], scene: { name: 'Two tabs' } })
  const scene = async (): Promise<SceneSummary> => {
    const { scenes } = await get<{ scenes: readonly SceneSummary[] }>(`/projects/${shot.projectId}/reel`)
    return scenes.find((s) => s.name === 'Two tabs')!
  }
  const { id, intent } = await scene()
  const put = (words: string): Promise<Response> => send('PUT', `/scenes/${id}/intent`, { intent: words }, intent)
  await onlyTheFirst(put('Cold'), () => put('Warm'))
  expect((await scene()).intent).toBe('Cold')
})

test("a version's name", async () => {
  const [one, two] = [await save(shot.id, (g) => g), await save(shot.id, (g) => g)]
  const versions = async (): Promise<ShotRecord['versions']> =>
    (await get<ShotRecord>(`/shots/${shot.id}/record`)).versions
  const name = (revisionId: string, seen: unknown): Promise<Response> =>
    send('POST', `/shots/${shot.id}/versions`, { revisionId, name: 'For the client' }, seen)
  await onlyTheFirst(name(one.headId, null), () => name(two.headId, null))
  const [version] = await versions()
  await onlyTheFirst(name(two.headId, version?.revisionId), () =>
    send('DELETE', `/versions/${version?.id}`, null, version?.revisionId),
  )
  expect((await versions()).map((v) => v.revisionId)).toEqual([two.headId])
})

test('where a shot is cut', async () => {
  const { firstFrame, frameCount } = shot
  const cut = (count: number): Promise<Response> =>
    send('POST', `/shots/${shot.id}/cut`, { pieces: [{ first: 2, count }] }, { frameCount, firstFrame })
  await onlyTheFirst(cut(20), () => cut(10))
  expect((await shotById(shot.id)).frameCount).toBe(20)
})
