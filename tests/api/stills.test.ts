// The shelf and notes over the wire: kept with their grade, found, carried from, and never of another project.
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { setParameter } from '@core/grade'
import type { ShotDetail, ShotFindings, ShotMoments, ShotProposal, Still } from '@contracts/responses'
import { call, get, ownShot, postJson, projectNamed, refusal, shotById, surveyed } from '../support/api'

const put = (path: string, body: object): Promise<Response> =>
  call(path, { method: 'PUT', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) })
const idOf = async (response: Response): Promise<string> => ((await response.json()) as { id: string }).id
const clip = readFileSync('demo/footage/potter.mov')

async function regraded(shot: ShotDetail, stops: number): Promise<ShotDetail> {
  await postJson(`/shots/${shot.id}/revisions`, {
    parentId: shot.headId,
    summary: 'Exposure',
    grade: setParameter(shot.revision.grade, 'exposure', 'exposureStops', stops),
  })
  return shotById(shot.id)
}

test('a still keeps the grade of its moment, is named and noted, and its grade is carried from it', async () => {
  const shot = await regraded(await ownShot(clip), 0.7)
  const stills = `/projects/${shot.projectId}/stills`
  const id = await idOf(await postJson(stills, { shotId: shot.id, frame: 9, name: 'First try' }))
  await regraded(shot, -1)
  expect((await put(`/stills/${id}`, { name: 'Warm one', notes: 'as the director liked it' })).status).toBe(204)
  const [still] = await get<readonly Still[]>(stills)
  expect(still).toMatchObject({
    id,
    name: 'Warm one',
    notes: 'as the director liked it',
    from: { shotId: shot.id, revisionId: shot.headId, frame: 9 },
  })
  const { choices } = await get<ShotProposal>(
    `/shots/${shot.id}/carry/${shot.id}?stations=level&solve=0&revision=${still!.from!.revisionId}&frame=9`,
  )
  const exposure = (of: ShotDetail): unknown => of.revision.grade.steps.find((s) => s.id === 'exposure')!.params
  const kept = choices[0]!.grade.steps.find((s) => s.id === 'exposure')!.params
  expect([kept, exposure(await shotById(shot.id))]).toEqual([exposure(shot), expect.not.objectContaining(kept)])
  expect((await call(`/stills/${id}`, { method: 'DELETE' })).status).toBe(204)
  expect(await get(stills)).toEqual([])
  expect((await call(`/stills/${id}`, { method: 'DELETE' })).status).toBe(404)
})

test('an imported picture lies on the same shelf; what is none is refused', async () => {
  const project = await projectNamed('Shelf')
  const path = join(process.env['PALE_TEST_DATA']!, 'board.png')
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', 'color=orange:s=64x36', '-frames:v', '1', path])
  const send = (body: Uint8Array | string): Promise<Response> =>
    call(`/projects/${project}/stills/pictures?name=board.png`, {
      method: 'POST',
      headers: { 'content-type': 'image/png' },
      body: body as BodyInit,
    })
  const id = await idOf(await send(readFileSync(path)))
  const [still] = await get<readonly Still[]>(`/projects/${project}/stills`)
  expect(still).toMatchObject({ id, name: 'board.png', from: null })
  const bytes = Buffer.from(await (await call(`/stills/${id}/picture`)).arrayBuffer())
  expect(bytes.subarray(1, 4).toString()).toBe('PNG')
  expect(await refusal(await send('no picture'))).toMatchObject({ status: 422, code: 'unreadable_file' })
  expect(await get<readonly Still[]>(`/projects/${project}/stills`)).toHaveLength(1)
})

test('what does not belong together is refused, and nothing is kept', async () => {
  const [shot, other] = [await ownShot(clip), await projectNamed('Other shelf')]
  const still = (body: object, project = shot.projectId): Promise<Response> =>
    postJson(`/projects/${project}/stills`, { shotId: shot.id, frame: 3, name: 'x', ...body })
  expect((await refusal(await still({}, other))).message).toMatch(/another project/)
  expect((await refusal(await still({ frame: 5000 }))).message).toMatch(/5000 is none of them/)
  expect((await still({ name: '' })).status).toBe(422)
  expect(await get(`/projects/${shot.projectId}/stills`)).toEqual([])
  const stranger = await ownShot(clip)
  const carried = await call(`/shots/${shot.id}/carry/${shot.id}?stations=level&solve=0&revision=${stranger.headId}`)
  expect((await refusal(carried)).message).toMatch(/not one of the shot/)
})

test('a note stands at its frame and on the shot; a frame of another shot takes none', async () => {
  const shot = await ownShot(clip)
  const note = (frame: number, words: string): Promise<Response> =>
    postJson(`/shots/${shot.id}/notes`, { frame, words })
  const id = await idOf(await note(40, 'the face goes green here'))
  await idOf(await note(12, 'too dark'))
  const words = async (): Promise<readonly (readonly [number, string])[]> =>
    (await shotById(shot.id)).notes.map((n) => [n.frame, n.words] as const)
  expect(await words()).toEqual([
    [12, 'too dark'],
    [40, 'the face goes green here'],
  ])
  expect((await note(9000, 'x')).status).toBe(422)
  expect((await note(3, '')).status).toBe(422)
  expect((await call(`/notes/${id}`, { method: 'DELETE' })).status).toBe(204)
  expect(await words()).toEqual([[12, 'too dark']])
})

test('a shot is looked at by its darkest and its brightest frame, and measured there', async () => {
  const shot = await ownShot(readFileSync('demo/footage/courtyard.mov'))
  await surveyed(shot.id)
  const [moments] = await get<readonly ShotMoments[]>(`/projects/${shot.projectId}/moments`)
  expect(moments).toMatchObject({ shotId: shot.id, first: 0, last: shot.frameCount - 1 })
  const measured = async (frame: number): Promise<number> => {
    const found = await get<ShotFindings>(`/shots/${shot.id}/findings?frame=${frame}`)
    expect(found.frame).toBe(frame)
    return found.findings.find((f) => f.id === 'middle')!.value
  }
  expect(await measured(moments!.brightest!)).toBeGreaterThan((await measured(moments!.darkest!)) + 0.1)
  expect((await call(`/shots/${shot.id}/findings?frame=100000`)).status).toBe(422)
})
