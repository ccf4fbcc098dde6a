// How footage opens that nobody has said anything of: what is display video stays as its file looks, tags are believed,
// what looks flat is asked about, and what was settled for one file is offered for the next of its kind.
import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { decode as decodePng } from 'fast-png'
import type { RenderSummary, ShotDetail, ShotSummary } from '@contracts/responses'
import { setParameter } from '@core/grade'
import { Client } from 'pg'
import { untouchedShots } from '../../server/db/openings'
import { call, get, importUploads, postJson, projectNamed, shotById, wholeRecord } from '../support/api'
import { databaseUrl } from '../support/database'
import { until } from '../support/until'

const scratch = (): string => process.env['PALE_TEST_DATA']!
const ffmpeg = (...args: string[]): Buffer => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args], { maxBuffer: 1e9 })

async function imported(project: string, path: string): Promise<ShotDetail> {
  await importUploads(project, [path], { pictures: false })
  const { shots } = await get<{ shots: ShotSummary[] }>(`/projects/${project}/reel`)
  return shotById(shots.at(-1)!.id)
}

/** A finished picture with every hue, smooth enough that no way of sampling chroma matters, as an untagged video. */
function finishedVideo(name: string, ...encoder: string[]): string {
  const path = join(scratch(), name)
  ffmpeg(
    ...[
      '-f',
      'lavfi',
      '-i',
      'gradients=s=320x180:c0=0x102030:c1=0xf0d0a0:c2=0x30a060:c3=0x802040:nb_colors=4:d=1:r=12',
    ],
    ...['-vf', 'scale=out_color_matrix=bt709:out_range=tv,setparams=colorspace=bt709', ...encoder, path],
  )
  return path
}

test.each([
  ['H.264 of 8 bits', 'plain-8.mp4', ['-c:v', 'libx264', '-crf', '12', '-pix_fmt', 'yuv444p']],
  ['H.264 of 10 bits', 'plain-10.mp4', ['-c:v', 'libx264', '-crf', '12', '-pix_fmt', 'yuv444p10le']],
  ['all-intra of 10 bits', 'plain-intra.mov', ['-c:v', 'prores_ks', '-profile:v', '4', '-pix_fmt', 'yuv444p10le']],
])('display video in %s opens as it looks, and untouched equals its file to 1/255', async (_, name, encoder) => {
  const path = finishedVideo(name, ...encoder)
  const shot = await imported(await projectNamed(name), path)
  expect(shot.read.encodingId).toBe('gamma-2.4')
  expect(shot.guess?.opening.because).toBe('as it looks')
  const answer = await call(`/revisions/${shot.headId}/still.png?frame=0`)
  const still = decodePng(new Uint8Array(await answer.arrayBuffer()))
  const decoded = ffmpeg(
    ...[
      '-i',
      path,
      '-frames:v',
      '1',
      '-vf',
      'scale=in_color_matrix=bt709:in_range=tv:flags=accurate_rnd+full_chroma_int',
    ],
    ...['-f', 'rawvideo', '-pix_fmt', 'rgb48le', 'pipe:1'],
  )
  let worst = 0
  for (let i = 0; i < still.data.length; i++)
    worst = Math.max(worst, Math.abs(still.data[i]! - decoded.readUInt16LE(i * 2)) / 257)
  expect(still.data).toHaveLength(320 * 180 * 3)
  expect(worst).toBeLessThanOrEqual(1)
  // The render is compressed again, in 4:2:0: its luma is what can be compared, and that it leans to neither side.
  const rendered = join(scratch(), `rendered-${name}.mp4`)
  writeFileSync(rendered, await renderOf(shot.headId))
  const [before, after] = [lumaOf(path), lumaOf(rendered)]
  expect(after).toHaveLength(before.length)
  let near = 0
  let lean = 0
  for (let i = 0; i < before.length; i++) {
    const apart = before[i]! - after[i]!
    if (Math.abs(apart) <= 1) near++
    lean += apart
  }
  expect(near / before.length).toBeGreaterThan(0.95)
  expect(Math.abs(lean / before.length)).toBeLessThan(0.1)
})

const lumaOf = (path: string): Buffer =>
  ffmpeg('-i', path, '-vf', 'extractplanes=y,format=gray', '-f', 'rawvideo', 'pipe:1')

async function renderOf(revisionId: string): Promise<Uint8Array> {
  const { id } = (await (await postJson('/renders', { revisionId })).json()) as RenderSummary
  await until('the render has ended', async () => {
    const { state } = await get<RenderSummary>(`/renders/${id}`)
    return state !== 'queued' && state !== 'running'
  })
  return new Uint8Array(await (await call(`/renders/${id}/file`)).arrayBuffer())
}

test('HLG and PQ open by their tags', async () => {
  const project = await projectNamed('Tagged')
  for (const [transfer, id] of [
    ['arib-std-b67', 'hlg'],
    ['smpte2084', 'pq'],
  ] as const) {
    const path = finishedVideo(
      `${id}.mp4`,
      ...['-c:v', 'libx264', '-pix_fmt', 'yuv420p10le', '-color_trc', transfer, '-color_primaries', 'bt2020'],
    )
    expect((await imported(project, path)).read).toMatchObject({ encodingId: id, gamutId: 'bt2020' })
  }
})

/** Half grey, with a lamp in a few frames that no guess looks at. */
function clipWithLamp(name: string, frames: number): string {
  const path = join(scratch(), name)
  ffmpeg(
    ...['-f', 'lavfi', '-i', `color=c=0x606060:s=320x180:r=24:d=${frames / 24}`],
    ...['-vf', "drawbox=x=20:y=20:w=60:h=60:color=white:t=fill:enable='between(n,20,26)'"],
    ...['-c:v', 'libx264', '-pix_fmt', 'yuv420p10le', '-color_trc', 'arib-std-b67', '-color_primaries', 'bt2020', path],
  )
  return path
}

describe('once the whole clip was looked through', () => {
  const shoulder = async (id: string): Promise<number> =>
    (await shotById(id)).revision.grade.show.params.sceneMaximumStops

  test('the shoulder of an untouched shot ends at its brightest light', async () => {
    const shot = await imported(await projectNamed('Lamp'), clipWithLamp('lamp.mp4', 72))
    const before = await shoulder(shot.id)
    const after = await until('the shoulder has moved', async () => {
      const now = await shoulder(shot.id)
      return now !== before && now
    })
    expect(after).toBeGreaterThan(before)
    const now = await shotById(shot.id)
    expect(now.revision).toMatchObject({ byItself: true, canUndo: true })
    expect(now.guess?.codeCeiling).toBeGreaterThan(0.9)
    const [last] = await wholeRecord(shot.id)
    expect(last).toMatchObject({ summary: 'Shoulder to the brightest light of the clip', why: { kind: 'opening' } })
  })

  test('a long clip is there before it is guessed, and its guess comes after it', async () => {
    // Over 600 million pixels.
    const project = await projectNamed('Long')
    const shot = await imported(project, clipWithLamp('long.mp4', 10_800))
    expect(shot.read.encodingId).toBe('hlg')
    const guessed = await until('the guess is made', async () => (await shotById(shot.id)).guess)
    expect(guessed).toMatchObject({ encodingId: 'hlg', tagged: true })
  })

  test('what a hand has changed, undone or left as it looks is not touched any more', async () => {
    const db = new Client(databaseUrl())
    await db.connect()
    try {
      const project = await projectNamed('Touched')
      const path = finishedVideo('touched.mp4', '-c:v', 'libx264', '-pix_fmt', 'yuv420p')
      const shots = [await imported(project, path), await imported(project, path), await imported(project, path)]
      const untouched = async (): Promise<readonly boolean[]> => {
        const found = await untouchedShots(db, shots[0]!.media.hash)
        return shots.map((shot) => found.some(({ id }) => id === shot.id))
      }
      expect(await untouched()).toEqual([true, true, true])
      const [first, second] = shots
      const { revision } = await shotById(first!.id)
      const grade = setParameter(revision.grade, 'exposure', 'exposureStops', 1)
      const saved = await postJson(`/shots/${first!.id}/revisions`, {
        parentId: revision.headId,
        summary: 'Exposure',
        grade,
      })
      const { headId } = (await saved.json()) as { headId: string }
      expect(await untouched()).toEqual([false, true, true])
      expect((await postJson(`/shots/${first!.id}/undo`, { expectedId: headId })).status).toBe(200)
      expect(await untouched()).toEqual([false, true, true])
      await postJson('/shots/changes', { shotIds: [second!.id], staysAsItLooks: true })
      expect(await untouched()).toEqual([false, false, true])
    } finally {
      await db.end()
    }
  })
})

test('what a file says of itself is kept by its own keys, and shown as it says it', async () => {
  const path = finishedVideo('said.mov', '-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-metadata', 'comment=kiln 3 test')
  const shot = await imported(await projectNamed('Said'), path)
  expect(shot.media.said).toContainEqual(['comment', 'kiln 3 test'])
})

describe('flat footage', () => {
  /** Grey, soft and of one camera: the name of the file and its time differ. */
  const flatClip = (name: string, time: string): string => {
    const path = join(scratch(), name)
    ffmpeg(
      ...['-i', 'demo/footage/glaze-shelf.mov', '-frames:v', '24', '-c:v', 'libx264', '-crf', '24'],
      ...['-pix_fmt', 'yuv420p', '-metadata', `creation_time=${time}`, '-metadata', 'camera=test bench', path],
    )
    return path
  }

  test('is asked about, is settled for all that are like it, and offers what was settled to the next', async () => {
    const project = await projectNamed('Flat')
    const first = await imported(project, flatClip('flat-1.mov', '2026-01-02T10:00:00Z'))
    const second = await imported(project, flatClip('flat-2.mov', '2026-01-03T11:30:00Z'))
    expect(second.likeness).toBe(first.likeness)
    expect(first.guess?.opening).toMatchObject({ encodingId: 'gamma-2.4', asks: true })
    expect(first.guess!.opening.offers).toHaveLength(3)
    expect(second.askedLikeIt).toEqual([first.id])
    const [offer] = first.guess!.opening.offers
    const picture = await call(`/revisions/${first.headId}/read-as/${offer!.encodingId}?frame=${first.leadFrame}`)
    expect([picture.status, picture.headers.get('content-type')]).toEqual([200, 'image/png'])
    expect((await call(`/revisions/${first.headId}/read-as/no-such?frame=${first.leadFrame}`)).status).toBe(404)

    const settled = await postJson('/shots/changes', { shotIds: [first.id], read: { encodingId: offer!.encodingId } })
    expect(settled.status).toBe(204)
    const now = await shotById(first.id)
    expect(now.read.encodingId).toBe(offer!.encodingId)
    expect(now.read.range).toBe(first.read.range)
    expect((await shotById(second.id)).usualReading).toMatchObject({ encodingId: offer!.encodingId, shots: 1 })
    expect((await shotById(second.id)).askedLikeIt).toEqual([])

    await postJson('/shots/changes', { shotIds: [second.id], staysAsItLooks: true })
    expect((await shotById(second.id)).staysAsItLooks).toBe(true)
  })

  test('an encoding of one’s own is read by like those that ship', async () => {
    const own = {
      id: 'own-first-reading',
      name: 'Workshop flat',
      gamutId: 'bt709',
      source: 'measured in a test',
      curve: {
        family: 'table',
        entries: [0, 0.02, 0.18, 0.9, 4].map((linear, i) => ({ linear, code: 0.08 + i * 0.2 })),
      },
    }
    const kept = await postJson('/encodings', own)
    expect([kept.status, await kept.clone().text()]).toEqual([expect.any(Number), expect.any(String)])
    expect(kept.ok).toBe(true)
    const shot = await imported(await projectNamed('Own'), flatClip('flat-own.mov', '2026-02-02T10:00:00Z'))
    expect((await postJson('/shots/changes', { shotIds: [shot.id], read: { encodingId: own.id } })).status).toBe(204)
    expect((await shotById(shot.id)).read).toMatchObject({ encodingId: own.id, own: { name: own.name } })
    expect((await call(`/revisions/${shot.headId}/read-as/${own.id}?frame=${shot.leadFrame}`)).status).toBe(200)
    expect((await call(`/encodings/${own.id}`, { method: 'DELETE' })).status).toBe(204)
  })
})
