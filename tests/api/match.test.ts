// Matching over the wire: one table seen by two cameras is brought together, and nothing is changed by asking.
import { readFileSync } from 'node:fs'
import type { ShotDetail, ShotProposal } from '@contracts/responses'
import { call, get, ownShot, postJson, projectNamed, refusal, shotById } from '../support/api'

const bytesOf = async (path: string): Promise<Buffer> => Buffer.from(await (await call(path)).arrayBuffer())
let project: string
beforeAll(async () => {
  project = await projectNamed('Market')
})
/** A clip of the demo, read as it was filmed. */
async function shotOf(file: string, encodingId: string, range: 'full' | 'legal' = 'legal'): Promise<ShotDetail> {
  const response = await call(`/projects/${project}/shots?name=${file}.mov`, {
    method: 'POST',
    body: readFileSync(`demo/footage/${file}.mov`) as BodyInit,
  })
  const { id } = (await response.json()) as ShotDetail
  await postJson('/shots/changes', { shotIds: [id], read: { encodingId, range } })
  return shotById(id)
}

test('the old camera is matched to the phone: proposed with pictures, accepted, and alike after it', async () => {
  const phone = await shotOf('market-phone', 'hlg')
  const old = await shotOf('market-gamma', 'bt709-camera')
  const path = `/shots/${old.id}/match/${phone.id}`
  const answer = await get<ShotProposal>(path)
  expect([answer.shotId, answer.headId]).toEqual([old.id, old.headId])
  const [whole] = answer.choices
  expect(whole).toMatchObject({ id: 'all', name: 'Match' })
  expect(whole!.sentence).toMatch(/^ΔE \d+\.\d → \d\.\d over \d+ shared surfaces\./)
  const [before, after] = /ΔE ([\d.]+) → ([\d.]+)/.exec(whole!.sentence)!.slice(1).map(Number)
  expect(after).toBeLessThan(before! / 2)
  expect(whole!.changes.join()).toMatch(/Exposure .* → /)
  const [one, other] = await Promise.all([bytesOf(`${path}/all`), bytesOf(`${path}/colour`)])
  expect(one.subarray(1, 4).toString()).toBe('PNG')
  expect(one.equals(other)).toBe(false)
  expect((await shotById(old.id)).headId).toBe(old.headId)
  const saved = await postJson(`/shots/${old.id}/revisions`, {
    parentId: old.headId,
    summary: 'Matched to the phone',
    why: { kind: 'matched', aims: [whole!.sentence], from: phone.headId },
    grade: whole!.grade,
  })
  expect(saved.status).toBe(200)
  const again = await get<ShotProposal>(path)
  expect(Number(/ΔE ([\d.]+)/.exec(again.note)?.[1])).toBeLessThan(before! / 2)
})

test('scenes that share nothing are not matched, and what is not there says so', async () => {
  const phone = await shotOf('market-phone', 'hlg')
  const kiln = await shotOf('kiln-night', 'log-407-95', 'full')
  const answer = await get<ShotProposal>(`/shots/${kiln.id}/match/${phone.id}`)
  expect(answer.choices.map((c) => [c.id, c.sure])).toEqual([['tone', false]])
  expect(answer.note).toBe('Nothing is seen in both pictures by which they could be matched.')
  expect((await refusal(await call(`/shots/${kiln.id}/match/${phone.id}/all`))).status).toBe(404)
  expect((await refusal(await call(`/shots/${kiln.id}/match/${phone.id}/best`))).status).toBe(422)
  expect((await refusal(await call(`/shots/${kiln.id}/match/${kiln.id}`))).status).toBe(422)
  const elsewhere = await ownShot(readFileSync('demo/footage/market-gamma.mov'))
  expect((await refusal(await call(`/shots/${elsewhere.id}/match/${phone.id}`))).status).toBe(422)
  const nobody = '00000000-0000-4000-8000-000000000000'
  expect((await refusal(await call(`/shots/${kiln.id}/match/${nobody}`))).status).toBe(404)
})

test('places of a shot are brought to swatches of another picture; nonsense is refused', async () => {
  const old = await shotOf('market-gamma', 'bt709-camera')
  const left = { left: 0.1, right: 0.16, top: 0.1, bottom: 0.2 }
  const pairs = [
    { id: 0, seen: [0.3, 0.3, 0.3], area: left },
    { id: 5, seen: [0.45, 0.42, 0.4], area: { left: 0.6, right: 0.66, top: 0.6, bottom: 0.7 } },
  ]
  const ask = (body: object): Promise<Response> => postJson(`/shots/${old.id}/swatches`, body)
  const answer = (await (await ask({ frame: old.leadFrame, pairs })).json()) as ShotProposal
  expect(answer.headId).toBe(old.headId)
  expect(answer.surfaces!.map((s) => s.id)).toEqual([0, 5])
  expect(answer.surfaces!.map((s) => s.shown.here)).toEqual(pairs.map((p) => p.seen))
  const [choice] = answer.choices
  expect(choice).toMatchObject({ id: 'pairs', name: 'Match the pairs' })
  expect(choice!.changes.join()).toMatch(/Exposure/)
  const middle = (of: 'before' | 'after'): number => Math.max(...answer.surfaces!.map((s) => s[of]))
  expect(middle('after')).toBeLessThan(middle('before'))
  // Asking changes nothing.
  expect((await shotById(old.id)).headId).toBe(old.headId)
  for (const [body, field] of [
    [{ frame: old.leadFrame, pairs: [] }, 'pairs'],
    [{ frame: old.leadFrame, pairs: [{ id: 0, seen: [0.3, 2, 0.3], area: left }] }, 'pairs.0.seen'],
    [{ frame: old.leadFrame, pairs: [{ id: 0, seen: [0.3, 0.3], area: left }] }, 'pairs.0.seen'],
    [{ frame: 99_999, pairs }, 'frame'],
    [{ frame: old.leadFrame, pairs: Array.from({ length: 13 }, () => pairs[0]) }, 'pairs'],
  ] as const)
    expect(await refusal(await ask(body))).toMatchObject({ status: 422, field })
})
