// The first pass over the wire: balanced, matched to the hero, given its look; proposed only, and accepted as a whole.
import { readFileSync } from 'node:fs'
import { addStep } from '@core/grade'
import type { ShotDetail, ShotProposal } from '@contracts/responses'
import { call, get, ownShot, postJson, projectNamed, refusal, shotById } from '../support/api'

let project: string
beforeAll(async () => {
  project = await projectNamed('First pass')
})
async function shotOf(file: string, encodingId: string): Promise<ShotDetail> {
  const response = await call(`/projects/${project}/shots?name=${file}.mov`, {
    method: 'POST',
    body: readFileSync(`demo/footage/${file}.mov`) as BodyInit,
  })
  const { id } = (await response.json()) as ShotDetail
  await postJson('/shots/changes', { shotIds: [id], read: { encodingId, range: 'legal' } })
  return shotById(id)
}

test('a shot comes to its hero: matched on top of its balance, with the look of the hero', async () => {
  const hero = await shotOf('market-phone', 'hlg')
  const graded = addStep(hero.revision.grade, 'cdl', 'Slope, offset, power', { slopeRed: 1.06 })
  const saved = await postJson(`/shots/${hero.id}/revisions`, {
    parentId: hero.headId,
    summary: 'A look',
    grade: graded,
  })
  expect(saved.ok).toBe(true)
  const shot = await shotOf('market-gamma', 'bt709-camera')
  const path = `/shots/${shot.id}/first-pass/${hero.id}`
  const { choices, headId, note, losses, outside } = await get<ShotProposal>(path)
  expect(headId).toBe(shot.headId)
  const [all] = choices
  expect(note).toMatch(/Matched to market-phone\.mov: ΔE \d+\.\d → \d\.\d over \d+ shared surfaces/)
  expect(note).toMatch(/The look of market-phone\.mov\./)
  // That look clips more of this shot than its standard allows: it is named, and such a shot is accepted by itself.
  expect(losses!.join()).toMatch(/^Frame \d+: Clipped: \d+\.\d+ % of pixels/)
  expect(note).toContain(losses![0])
  expect(all!.sure).toBe(false)
  expect(outside!.map((o) => o.reading)).toContain('clipped')
  expect(all!.grade.steps.some((s) => s.kind === 'cdl' && s.params['slopeRed'] === 1.06)).toBe(true)
  expect(all!.changes.length).toBeGreaterThan(1)
  const png = Buffer.from(await (await call(`${path}/all`)).arrayBuffer())
  expect(png.subarray(1, 4).toString()).toBe('PNG')
  // Asking changed nothing.
  expect((await shotById(shot.id)).headId).toBe(shot.headId)
  // The hero itself is only balanced.
  expect((await get<ShotProposal>(`/shots/${hero.id}/first-pass/${hero.id}`)).note).not.toMatch(/Matched|look of/)
})

test('what shares nothing with the hero is brought to a shot before it that shows the same', async () => {
  project = await projectNamed('First pass, nothing shared')
  const hero = await shotOf('snow-yard', 'log-420-95')
  await shotOf('market-phone', 'hlg')
  const shot = await shotOf('market-gamma', 'bt709-camera')
  const { note, choices } = await get<ShotProposal>(`/shots/${shot.id}/first-pass/${hero.id}`)
  expect(note).toMatch(/Matched to market-phone\.mov: ΔE \d+\.\d → \d\.\d over \d+ shared surfaces/)
  expect(choices[0]!.changes.join()).toMatch(/Exposure/)
  expect(note).not.toMatch(/Nothing is shared|look of/)
})

test('a hero of another project is refused', async () => {
  const [shot, other] = [await ownShot(readFileSync('demo/footage/potter.mov')), await shotOf('market-phone', 'hlg')]
  expect((await refusal(await call(`/shots/${shot.id}/first-pass/${other.id}`))).message).toMatch(/another project/)
  expect((await call(`/shots/${shot.id}/first-pass/${shot.id}/some`)).status).toBe(422)
})
