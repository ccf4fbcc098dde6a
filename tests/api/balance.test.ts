// Balance for me over the wire: asked for a shot, nothing is changed by asking.
import { readFileSync } from 'node:fs'
import type { ShotProposal } from '@contracts/responses'
import { call, get, ownShot, postJson, refusal, shotById } from '../support/api'

const clip = readFileSync('demo/footage/potter.mov')

test('a shot in green light is told what would make it neutral, with pictures, and is left as it was', async () => {
  const shot = await ownShot(clip)
  await postJson('/shots/changes', { shotIds: [shot.id], read: { encodingId: 'log-351-128', range: 'full' } })
  const { headId } = await shotById(shot.id)
  const answer = await get<ShotProposal>(`/shots/${shot.id}/balance`)
  expect([answer.shotId, answer.headId]).toEqual([shot.id, headId])
  const [advised] = answer.choices
  expect(advised!.changes.join()).toMatch(/Tint 0\.0 .* → \+\d/)
  expect(advised!.grade.steps.find((s) => s.kind === 'white-balance')?.params['tint']).toBeGreaterThan(5)
  const [picture, same] = await Promise.all(
    [advised!.id, 'brighter'].map(async (id) =>
      Buffer.from(await (await call(`/shots/${shot.id}/balance/${id}`)).arrayBuffer()),
    ),
  )
  expect(picture!.subarray(1, 4).toString()).toBe('PNG')
  expect(picture!.equals(same!)).toBe(false)
  expect((await shotById(shot.id)).headId).toBe(headId)
})

test('what is not there says so', async () => {
  const shot = await ownShot(clip)
  expect((await refusal(await call(`/shots/${shot.id}/balance/best`))).status).toBe(422)
  expect((await refusal(await call(`/shots/${shot.id}/balance/ramp`))).status).toBe(404)
  expect((await refusal(await call('/shots/00000000-0000-4000-8000-000000000000/balance'))).status).toBe(404)
})
