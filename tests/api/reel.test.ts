// The reel: cutting, joining, ordering, changing many shots, edit lists, and what the survey of a clip finds.
import { readFileSync } from 'node:fs'
import type { ShotSummary, SceneSummary } from '@contracts/responses'
import type { Cut } from '@core/footage'
import { parseEdl, parseOtio } from '@core/formats'
import { call, demoReel, get, ownShot, postJson, refusal, save, shotById, surveyed } from '../support/api'

interface Reel {
  readonly shots: readonly ShotSummary[]
  readonly scenes: readonly SceneSummary[]
}
const reelOf = (projectId: string): Promise<Reel> => get<Reel>(`/projects/${projectId}/reel`)
const ranges = async (projectId: string): Promise<[string, number, number][]> =>
  (await reelOf(projectId)).shots.map((s) => [s.name, s.firstFrame, s.frameCount])
const clip = readFileSync('demo/footage/potter.mov')
const done = async (response: Response): Promise<void> => {
  if (!response.ok) throw new Error(await response.text())
}

describe('the assembly', () => {
  const truth = [40, 76, 120, 168, 204, 234, 294, 338]

  test('its cuts are found at their frames, its dissolve is flagged', async () => {
    const { shots } = await demoReel()
    const { media } = await surveyed(shots.find((s) => s.name === 'Ashglaze assembly')!.id)
    const cuts = await get<readonly Cut[]>(`/media/${media.hash}/cuts`)
    expect(cuts.map((c) => c.kind)).toEqual(['cut', 'cut', 'cut', 'dissolve', 'cut', 'cut', 'cut', 'cut'])
    cuts.forEach((cut, i) => expect(Math.abs(cut.frame - truth[i]!)).toBeLessThanOrEqual(cut.kind === 'cut' ? 0 : 3))
  })

  test('its edit list gives the same pieces by name, with handles where there is footage', async () => {
    const { shots } = await demoReel()
    const { media } = shots.find((s) => s.name === 'Ashglaze assembly')!
    expect(media.startTimecode).toBe('01:00:00:00')
    const list = readFileSync('demo/footage/assembly.edl', 'utf8')
    const ask = async (handles: number, text = list): Promise<Response> =>
      call(`/media/${media.hash}/edit-list?kind=edl&handles=${handles}`, { method: 'POST', body: text })
    const { pieces } = (await (await ask(0)).json()) as {
      pieces: { name: string; first: number; count: number; transition: number }[]
    }
    expect(pieces.map((p) => p.first)).toEqual([0, 40, 76, 120, 160, 204, 234, 294, 338])
    expect(pieces[4]).toEqual({ name: 'Apprentice', first: 160, count: 44, transition: 16 })
    const withHandles = (await (await ask(8)).json()) as { pieces: { first: number; count: number }[] }
    expect(withHandles.pieces.slice(0, 2).map((p) => [p.first, p.count])).toEqual([
      [0, 48],
      [32, 52],
    ])
    expect((await refusal(await ask(0, list.replace('01:00:01:16', '01:00:71:16')))).message).toMatch(
      /^Line \d+: .*timecode/,
    )
  })
})

test(
  'the survey proposes a sharp, typical lead frame for shots nobody decided on, and leaves others ' + 'alone',
  async () => {
    const shot = await ownShot(clip)
    const { leadChosen } = await surveyed(shot.id)
    expect(leadChosen).toBe(false)
    const wait = await shotById(shot.id)
    expect(wait.leadFrame).toBeGreaterThan(3)
    expect(wait.leadFrame).toBeLessThan(117)
    const put = (leadFrame: number): Promise<Response> =>
      call(`/shots/${shot.id}/lead-frame`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ leadFrame }),
      })
    await done(await put(7))
    expect(await shotById(shot.id)).toMatchObject({ leadFrame: 7, leadChosen: true })
    expect((await put(120)).status).toBe(422)
  },
)

test('corrections of an edit list go into the pieces, and leave with the reel as a list again', async () => {
  const { id, projectId } = await ownShot(clip)
  const cdl = { slope: [1.2, 1, 0.9], offset: [0.01, 0, -0.02], power: [1, 1.1, 1], saturation: 0.8 }
  const pieces = [
    { first: 0, count: 30, name: 'Töpfer 1', cdl },
    { first: 30, count: 40, name: 'Töpfer 2' },
  ]
  await done(await postJson(`/shots/${id}/cut`, { pieces }))
  const { shots } = await reelOf(projectId)
  const grades = await Promise.all(shots.map(async (s) => (await shotById(s.id)).revision.grade))
  expect(grades.map((g) => g.steps.filter((step) => step.kind === 'cdl').map((step) => step.params))).toEqual([
    [expect.objectContaining({ slopeRed: 1.2, offsetBlue: -0.02, powerGreen: 1.1, saturation: 0.8 })],
    [],
  ])
  const list = async (kind: 'edl' | 'otio'): Promise<string> =>
    (await call(`/projects/${projectId}/edit-list?kind=${kind}`)).text()
  const events = [
    { name: 'Töpfer 1', first: 0, count: 30, transition: 0, cdl },
    { name: 'Töpfer 2', first: 30, count: 40, transition: 0 },
  ]
  expect(parseEdl(await list('edl'), { rateNumerator: 24, rateDenominator: 1 })).toEqual(events)
  expect(parseOtio(await list('otio'), 24)).toEqual(events)
  const outside = { first: 0, count: 30, cdl: { ...cdl, power: [0, 1, 1] } }
  expect((await refusal(await postJson(`/shots/${id}/cut`, { pieces: [outside] }))).field).toMatch(/power/)
})

describe('cutting and joining', () => {
  test('pieces keep the grade, the first keeps the record; the footage is not touched', async () => {
    const shot = await ownShot(clip, 'Film.mov')
    await save(shot.id, (g) => ({ ...g, read: { ...g.read, range: 'legal' } }))
    await done(
      await postJson(`/shots/${shot.id}/cut`, {
        pieces: [
          { first: 0, count: 20, name: 'One' },
          { first: 20, count: 30, name: 'Two' },
          { first: 40, count: 32 },
        ],
      }),
    )
    expect(await ranges(shot.projectId)).toEqual([
      ['One', 0, 20],
      ['Two', 20, 30],
      ['Film.mov 3', 40, 32],
    ])
    const { shots } = await reelOf(shot.projectId)
    expect(shots.map((s) => s.media.hash)).toEqual(Array(3).fill(shot.media.hash))
    expect(shots.map((s) => [s.read.range, s.revisionDepth])).toEqual([
      ['legal', 2],
      ['legal', 1],
      ['legal', 1],
    ])
    shots.forEach((s) => expect(s.leadFrame).toBeGreaterThanOrEqual(s.firstFrame))

    const joined = await postJson('/shots/join', { shotIds: shots.map((s) => s.id) })
    expect(await joined.json()).toMatchObject({ id: shot.id, firstFrame: 0, frameCount: 72 })
    expect(await ranges(shot.projectId)).toEqual([['One', 0, 72]])
  })

  test('new pieces stand after the shot they were cut from, before the next one', async () => {
    const first = await ownShot(clip, 'a.mov')
    await done(await call(`/projects/${first.projectId}/shots?name=b.mov`, { method: 'POST', body: clip as BodyInit }))
    await done(
      await postJson(`/shots/${first.id}/cut`, {
        pieces: [
          { first: 0, count: 10, name: 'a1' },
          { first: 10, count: 10, name: 'a2' },
        ],
      }),
    )
    expect((await ranges(first.projectId)).map(([name]) => name)).toEqual(['a1', 'a2', 'b.mov'])
    expect((await reelOf(first.projectId)).shots.map((s) => s.position)).toEqual([1, 2, 3])
  })

  test('pieces outside the footage, gaps and other footage are refused, and nothing changes', async () => {
    const shot = await ownShot(clip)
    expect(
      (
        await refusal(
          await postJson(`/shots/${shot.id}/cut`, {
            pieces: [
              { first: 0, count: 10 },
              { first: 110, count: 20 },
            ],
          }),
        )
      ).message,
    ).toMatch(/Piece 2 ends at frame 130; the footage has 120/)
    expect(await ranges(shot.projectId)).toEqual([['own.mov', 0, 120]])
    await done(
      await postJson(`/shots/${shot.id}/cut`, {
        pieces: [
          { first: 0, count: 10, name: 'a' },
          { first: 30, count: 10, name: 'b' },
        ],
      }),
    )
    const ids = (await reelOf(shot.projectId)).shots.map((s) => s.id)
    expect((await refusal(await postJson('/shots/join', { shotIds: ids }))).message).toMatch(/Between frame 10 and "b"/)
    expect(
      (await refusal(await postJson('/shots/join', { shotIds: [ids[0], (await demoReel()).shots[0]!.id] }))).status,
    ).toBe(422)
    expect(await ranges(shot.projectId)).toEqual([
      ['a', 0, 10],
      ['b', 30, 10],
    ])
  })

  test('a render of a piece at another rate holds its frames at that rate', async () => {
    const shot = await ownShot(clip)
    await done(await postJson(`/shots/${shot.id}/cut`, { pieces: [{ first: 30, count: 12, name: 'piece' }] }))
    await done(await postJson('/shots/changes', { shotIds: [shot.id], played: { numerator: 12, denominator: 1 } }))
    expect((await shotById(shot.id)).played).toEqual({ numerator: 12, denominator: 1 })
    const { headId } = await shotById(shot.id)
    let render = (await (await postJson('/renders', { revisionId: headId })).json()) as {
      id: string
      state: string
      framesTotal: number
    }
    expect(render.framesTotal).toBe(12)
    while (render.state === 'queued' || render.state === 'running') render = await get(`/renders/${render.id}`)
    expect(render.state).toBe('done')
    const file = await ownShot(
      new Uint8Array(await (await call(`/renders/${render.id}/file`)).arrayBuffer()),
      'out.mp4',
    )
    expect(file.media).toMatchObject({ frameCount: 12, rateNumerator: 12, rateDenominator: 1 })
  })
})

describe('many shots at once', () => {
  async function three(): Promise<{ projectId: string; ids: string[] }> {
    const shot = await ownShot(clip)
    await done(
      await postJson(`/shots/${shot.id}/cut`, {
        pieces: [0, 1, 2].map((i) => ({ first: i * 20, count: 20, name: `Shot ${i + 1}` })),
      }),
    )
    return { projectId: shot.projectId, ids: (await reelOf(shot.projectId)).shots.map((s) => s.id) }
  }

  test('of a scene that many make at the same time there is one', async () => {
    const { projectId } = await ownShot(clip)
    const add = async (name: string): Promise<string> =>
      (
        (await (
          await call(`/projects/${projectId}/shots?name=${name}.mov`, {
            method: 'POST',
            body: clip as unknown as BodyInit,
          })
        ).json()) as { id: string }
      ).id
    const shots = [await add('a'), await add('b'), await add('c'), await add('d')]
    for (const name of [...Array.from({ length: 8 }, (_, hour) => `${hour + 10} o'clock`), 'Evening'])
      for (const made of await Promise.all(
        shots.map((id) => postJson('/shots/changes', { shotIds: [id], scene: { name } })),
      ))
        await done(made)
    const { scenes, shots: all } = await reelOf(projectId)
    expect(scenes.map(({ name }) => name)).toEqual(['Evening'])
    expect(all.filter(({ scene }) => scene === 'Evening')).toHaveLength(4)
  })

  test('scenes are made by name, filled, and go when they are empty', async () => {
    const { projectId, ids } = await three()
    await done(await postJson('/shots/changes', { shotIds: ids.slice(0, 2), scene: { name: 'Night' } }))
    await done(await postJson('/shots/changes', { shotIds: [ids[2]], scene: { name: 'Day' } }))
    let reel = await reelOf(projectId)
    expect(reel.shots.map((s) => s.scene)).toEqual(['Night', 'Night', 'Day'])
    await done(
      await postJson('/shots/changes', {
        shotIds: [ids[2]],
        scene: { id: reel.scenes.find((s) => s.name === 'Night')!.id },
      }),
    )
    reel = await reelOf(projectId)
    expect(reel.scenes.map((s) => s.name)).toEqual(['Night'])
    await done(await postJson('/shots/changes', { shotIds: ids, scene: {} }))
    expect((await reelOf(projectId)).scenes).toEqual([])
    expect((await postJson('/shots/changes', { shotIds: ids, scene: { id: ids[0] } })).status).toBe(404)
  })

  test('encoding, state and camera; each change of a grade is a revision', async () => {
    const { projectId, ids } = await three()
    await done(
      await postJson('/shots/changes', {
        shotIds: ids,
        read: { encodingId: 'log-400-95-a', range: 'full' },
        state: 'corrected',
        cameraName: 'Osier 2',
      }),
    )
    const { shots } = await reelOf(projectId)
    expect(shots.map((s) => [s.read.encodingId, s.read.gamutId, s.state, s.cameraName, s.revisionDepth])).toEqual(
      Array(3).fill(['log-400-95-a', 'w684', 'corrected', 'Osier 2', 2]),
    )
    expect(
      (
        await refusal(
          await postJson('/shots/changes', { shotIds: ids, read: { encodingId: 'nonsense', range: 'full' } }),
        )
      ).message,
    ).toMatch(/no encoding "nonsense"/)
    expect((await postJson('/shots/changes', { shotIds: [ids[0], ids[0]] })).status).toBe(422)
    expect((await reelOf(projectId)).shots.map((s) => s.revisionDepth)).toEqual([2, 2, 2])
  })

  test('order: before a shot, to the end, several at once', async () => {
    const { projectId, ids } = await three()
    const names = async (): Promise<string[]> => (await ranges(projectId)).map(([name]) => name)
    await done(await postJson(`/projects/${projectId}/order`, { shotIds: [ids[2]], beforeId: ids[0] }))
    expect(await names()).toEqual(['Shot 3', 'Shot 1', 'Shot 2'])
    await done(await postJson(`/projects/${projectId}/order`, { shotIds: [ids[2], ids[0]] }))
    expect(await names()).toEqual(['Shot 2', 'Shot 3', 'Shot 1'])
    await done(await postJson(`/projects/${projectId}/order`, { shotIds: [ids[0], ids[2]], beforeId: ids[1] }))
    expect(await names()).toEqual(['Shot 1', 'Shot 3', 'Shot 2'])
    expect((await postJson(`/projects/${projectId}/order`, { shotIds: [ids[0]], beforeId: ids[0] })).status).toBe(422)
    expect((await postJson(`/projects/${(await demoReel()).project.id}/order`, { shotIds: [ids[0]] })).status).toBe(404)
  })

  test('removing shots leaves the footage and the other shots', async () => {
    const { projectId, ids } = await three()
    await done(await postJson('/shots/remove', { shotIds: ids.slice(1) }))
    expect(await ranges(projectId)).toEqual([['Shot 1', 0, 20]])
    const { media, leadFrame } = (await reelOf(projectId)).shots[0]!
    expect((await call(`/media/${media.hash}/frames/${leadFrame}?range=full`)).status).toBe(200)
  })
})
