// Long: the way of footage from file to frame, in its order.
// Uploads in parts, the media folder, proxies, killed workers, hostile files.
import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import {
  copyFileSync,
  lstatSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  symlinkSync,
  utimesSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { defaultGrade, setParameter } from '@core/grade'
import type { FolderEntry, RenderSummary, ShotSummary, WorkSummary } from '@contracts/responses'
import {
  call,
  get,
  importUploads,
  ownShot,
  postJson,
  projectNamed,
  refusal,
  save,
  sendInParts,
  shotById,
  surveyed,
  unfinished,
  workDone,
} from '../support/api'
import { until } from '../support/until'

const scratch = (): string => process.env['PALE_TEST_DATA']!
const demo = readFileSync('demo/footage/potter.mov')
const stored = (folder: string): string[] => readdirSync(join(scratch(), folder))
const tus = { 'tus-resumable': '1.0.0' }

describe('uploads in parts', () => {
  test('a broken upload says how far it came and is gone on with; the file is the same', async () => {
    const made = await call('/uploads', {
      method: 'POST',
      headers: {
        ...tus,
        'upload-length': String(demo.length),
        'upload-metadata': `filename ${Buffer.from('Töpfer.mov').toString('base64')}`,
      },
    })
    const place = made.headers.get('location')!
    expect(place).toMatch(/^\/api\/uploads\/[0-9a-f]{32}$/)
    const path = place.slice(4)
    const id = path.split('/').at(-1)!
    const patch = (offset: number, body: Uint8Array): Promise<Response> =>
      call(path, {
        method: 'PATCH',
        headers: { ...tus, 'content-type': 'application/offset+octet-stream', 'upload-offset': String(offset) },
        body: body as BodyInit,
      })
    expect((await patch(0, demo.subarray(0, 500_000))).status).toBe(204)
    const project = await projectNamed('Parts')
    expect(
      (await refusal(await postJson(`/projects/${project}/imports`, { uploads: [id], pictures: false }))).message,
    ).toMatch(new RegExp(`^Only 500000 of ${demo.length} bytes`))
    const offset = Number((await call(path, { method: 'HEAD', headers: tus })).headers.get('upload-offset'))
    expect(offset).toBe(500_000)
    expect((await patch(0, demo.subarray(0, 10))).status).toBe(409)
    expect((await patch(offset, demo.subarray(offset))).status).toBe(204)
    const work = (await (
      await postJson(`/projects/${project}/imports`, { uploads: [id], pictures: false })
    ).json()) as WorkSummary
    await workDone(project, work.id)
    const { shots } = await get<{ shots: { name: string; media: { hash: string } }[] }>(`/projects/${project}/reel`)
    expect(shots).toMatchObject([
      { name: 'Töpfer.mov', media: { hash: createHash('sha256').update(demo).digest('hex') } },
    ])
    expect(stored('uploads').filter((n) => n.startsWith(id))).toEqual([])
  })

  test('shots stand in the order in which their files were chosen, whichever is done first', async () => {
    const project = await projectNamed('In order')
    const names = async (): Promise<readonly string[]> =>
      (await get<{ shots: ShotSummary[] }>(`/projects/${project}/reel`)).shots.map(({ name }) => name)
    const bring = async (name: string, order?: number): Promise<void> => {
      const uploads = [await sendInParts(`${name}.mov`, demo)]
      const asked = await postJson(`/projects/${project}/imports`, { uploads, pictures: false, order })
      await workDone(project, ((await asked.json()) as WorkSummary).id)
    }
    await bring('third', 30)
    await bring('first', 10)
    await bring('without')
    await bring('second', 20)
    expect(await names()).toEqual(['first.mov', 'second.mov', 'third.mov', 'without.mov'])
    await Promise.all([bring('seventh', 70), bring('fifth', 50), bring('sixth', 60)])
    expect((await names()).slice(4)).toEqual(['fifth.mov', 'sixth.mov', 'seventh.mov'])
  })

  test('an upload can be given up', async () => {
    const id = await sendInParts('x.mov', demo.subarray(0, 1000))
    expect((await call(`/uploads/${id}`, { method: 'DELETE', headers: tus })).status).toBe(204)
    expect(stored('uploads').filter((n) => n.startsWith(id))).toEqual([])
  })

  test.each(['..%2f..%2fetc%2fpasswd', 'ffff', '0'.repeat(31) + 'g'])('%s is no upload', async (id) => {
    expect((await call(`/uploads/${id}`, { method: 'HEAD', headers: tus })).status).toBe(404)
  })

  test('what is no film fails with its reason, which can be put away, and leaves nothing', async () => {
    const project = await projectNamed('Bad')
    const path = join(scratch(), 'notes.mov')
    const bytes = 'not a film\n'.repeat(1000)
    const hash = createHash('sha256').update(bytes).digest('hex')
    writeFileSync(path, bytes)
    await expect(importUploads(project, [path], { pictures: false })).rejects.toThrow(
      /"notes\.mov" is not a video or picture/,
    )
    const [work] = await get<WorkSummary[]>(`/projects/${project}/work`)
    expect((await call(`/work/${work!.id}`, { method: 'DELETE' })).status).toBe(204)
    expect(await get(`/projects/${project}/work`)).toEqual([])
    // Other tests import clips of their own meanwhile: only this one's bytes must not have been kept.
    expect(stored('media').filter((n) => n.startsWith(hash))).toEqual([])
    // Other clips may still be looked through; in the end nothing is left.
    await until('nothing is left', () => unfinished().length === 0)
  })
})

/** An original that was looked at is not looked at again for a second. */
const oneLookOn = (): Promise<void> => pause(1100)

test('a proxy that is lost is made again when it is asked for', async () => {
  const shot = await surveyed((await ownShot(demo, 'lost.mov')).id)
  const proxy = `/media/${shot.media.hash}/proxy`
  const kept = join(scratch(), 'proxies', `${shot.media.hash}.mp4`)
  expect((await call(proxy)).status).toBe(200)
  rmSync(kept)
  expect((await call(proxy)).status).toBe(404)
  expect((await shotById(shot.id)).proxy).toBeNull()
  await surveyed(shot.id)
  expect((await call(proxy)).status).toBe(200)
})

describe('the media folder', () => {
  const library = (): string => join(scratch(), 'library')

  test('files are listed and linked, not copied; folders of numbered pictures are sequences', async () => {
    mkdirSync(join(library(), 'day one', 'take'), { recursive: true })
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-i',
      'demo/footage/market-phone.mov',
      '-c',
      'copy',
      '-metadata',
      'comment=another',
      join(library(), 'day one', 'it\'s "a" clip.mov'),
    ])
    for (const n of [8, 9, 10])
      execFileSync('ffmpeg', [
        '-v',
        'error',
        '-y',
        '-f',
        'lavfi',
        '-i',
        `color=c=0x0${n.toString(16)}8080:s=64x48:d=1`,
        '-frames:v',
        '1',
        join(library(), 'day one', 'take', `t.${n}.png`),
      ])
    const entries = await get<FolderEntry[]>(`/library?path=${encodeURIComponent('day one')}`)
    expect(entries.map((e) => [e.name, e.kind])).toEqual([
      ['take', 'pictures'],
      ['it\'s "a" clip.mov', 'file'],
    ])
    const project = await projectNamed('Linked')
    for (const { path, kind } of entries)
      await workDone(
        project,
        (
          (await (
            await postJson(`/projects/${project}/imports`, { path, pictures: kind === 'pictures' })
          ).json()) as WorkSummary
        ).id,
      )
    const { shots } = await get<{
      shots: {
        id: string
        name: string
        frameCount: number
        media: { hash: string; transfer?: string }
        read: { encodingId: string; gamutId: string }
      }[]
    }>(`/projects/${project}/reel`)
    expect(shots.map((s) => [s.name, s.frameCount])).toEqual([
      ['take', 3],
      ['it\'s "a" clip.mov', 120],
    ])
    expect(shots[1]).toMatchObject({
      media: { transfer: 'arib-std-b67' },
      read: { encodingId: 'hlg', gamutId: 'bt2020' },
    })
    const { media } = shots[1]!
    expect(lstatSync(join(scratch(), 'media', media.hash)).isSymbolicLink()).toBe(true)
    expect((await call(`/media/${media.hash}/frames/3?range=legal`)).status).toBe(200)
    const clip = join(library(), 'day one', 'it\'s "a" clip.mov')
    const aside = join(library(), 'aside.mov')
    const frame = (index: number): Promise<Response> => call(`/media/${media.hash}/frames/${index}?range=legal`)
    // Another time alone is no other film: the whole is hashed, and it is used again.
    utimesSync(clip, new Date(), new Date(Date.now() - 60_000))
    await oneLookOn()
    expect((await frame(40)).status).toBe(200)
    // Another film under its name, of the same time: nobody is shown its pictures, nothing is rendered from them.
    const { mtime } = statSync(clip)
    renameSync(clip, aside)
    copyFileSync('demo/footage/potter.mov', clip)
    utimesSync(clip, mtime, mtime)
    await oneLookOn()
    expect(await refusal(await frame(60))).toMatchObject({
      status: 409,
      code: 'original_changed',
      message: 'The linked file of this clip was replaced by another.',
    })
    const { revision } = await shotById(shots[1]!.id)
    const render = (await (await postJson('/renders', { revisionId: revision.headId })).json()) as RenderSummary
    const ended = await until('the render ended', async () => {
      const now = await get<RenderSummary>(`/renders/${render.id}`)
      return now.state !== 'queued' && now.state !== 'running' && now
    })
    expect(ended).toMatchObject({
      state: 'failed',
      error: 'The linked file of this clip was replaced by another.',
      sizeBytes: null,
    })
    // What was linked and is gone is said plainly; put back, it is used again.
    rmSync(clip)
    await oneLookOn()
    expect((await refusal(await frame(61))).message).toBe('The linked file of this clip is not where it was.')
    // Another file is not taken for it; the same from another place is.
    const again = async (path: string): Promise<Response> =>
      postJson(`/projects/${project}/imports`, { path, pictures: false, again: media.hash })
    const endOf = async (response: Response): Promise<WorkSummary | undefined> => {
      const { id } = (await response.json()) as WorkSummary
      return until('the work ended', async () => {
        const now = (await get<readonly WorkSummary[]>(`/projects/${project}/work`)).find((w) => w.id === id)
        return now?.state === 'failed' ? now : !now && { ...({} as WorkSummary), state: 'done' as const }
      })
    }
    copyFileSync('demo/footage/potter.mov', join(library(), 'other.mov'))
    expect((await endOf(await again('other.mov')))?.error).toBe(
      '"other.mov" is not the file that this clip was made from.',
    )
    expect((await frame(61)).status).toBe(409)
    expect((await endOf(await again('aside.mov')))?.state).toBe('done')
    expect((await frame(62)).status).toBe(200)
    const now = await get<{ shots: ShotSummary[] }>(`/projects/${project}/reel`)
    expect(now.shots.map((s) => [s.name, s.media.linked])).toEqual([
      ['take', true],
      ['it\'s "a" clip.mov', true],
    ])
  })

  test('a numbered picture that is a link out of it, or to no file, is refused by its name', async () => {
    const folder = join(library(), 'led away')
    mkdirSync(folder, { recursive: true })
    const project = await projectNamed('Led away')
    for (const leads of ['/etc/passwd', folder, join(folder, 'none')]) {
      writeFileSync(join(folder, 't.1.png'), '')
      symlinkSync(leads, join(folder, 't.2.png'))
      const work = (await (
        await postJson(`/projects/${project}/imports`, { path: 'led away', pictures: true })
      ).json()) as WorkSummary
      await expect(workDone(project, work.id)).rejects.toThrow('"t.2.png" is no file of the media folder.')
      rmSync(join(folder, 't.2.png'))
    }
  })

  test.each(['../', '../../etc', '/etc/passwd', 'outside/passwd', '..\\..'])('%s is not in it', async (path) => {
    try {
      symlinkSync('/etc', join(library(), 'outside'))
    } catch {
      // It is there from the case before.
    }
    expect((await call(`/library?path=${encodeURIComponent(path)}`)).status).toBe(404)
    expect(
      (await postJson(`/projects/${await projectNamed('Outside')}/imports`, { path, pictures: false })).status,
    ).toBe(404)
    rmSync(join(library(), 'outside'), { force: true })
  })
})

describe('hostile files', () => {
  const made = (name: string, args: readonly string[]): string => {
    const path = join(scratch(), name)
    execFileSync('ffmpeg', ['-v', 'error', '-y', ...args, path])
    return path
  }

  test('a picture of 16k is refused', async () => {
    // Nothing but a header that claims it: signature, IHDR of 16384 × 16384, and an empty IDAT.
    const { crc32 } = await import('node:zlib')
    const chunk = (type: string, data: Buffer): Buffer => {
      const body = Buffer.concat([Buffer.from(type, 'latin1'), data])
      const out = Buffer.alloc(body.length + 8)
      out.writeUInt32BE(data.length, 0)
      body.copy(out, 4)
      out.writeUInt32BE(crc32(body), body.length + 4)
      return out
    }
    const header = Buffer.alloc(13)
    header.writeUInt32BE(16384, 0)
    header.writeUInt32BE(16384, 4)
    header.set([8, 2, 0, 0, 0], 8)
    const path = join(scratch(), 'wide.png')
    writeFileSync(
      path,
      Buffer.concat([
        Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'),
        chunk('IHDR', header),
        chunk('IDAT', Buffer.alloc(0)),
        chunk('IEND', Buffer.alloc(0)),
      ]),
    )
    await expect(importUploads(await projectNamed('Wide'), [path], { pictures: false })).rejects.toThrow(
      /16384×16384; pictures up to 8192|is not a video or picture/,
    )
  })

  test('a film whose picture changes its size on the way is refused, with both sizes', async () => {
    const part = (size: string): string =>
      made(`part-${size}.ts`, ['-f', 'lavfi', '-i', `testsrc2=s=${size}:r=24`, '-frames:v', '12', '-c:v', 'mpeg2video'])
    const path = join(scratch(), 'two-sizes.ts')
    writeFileSync(path, Buffer.concat(['320x180', '160x96'].map((size) => readFileSync(part(size)))))
    await expect(importUploads(await projectNamed('Two sizes'), [path], { pictures: false })).rejects.toThrow(
      /two-sizes\.ts" changes its picture from 320×180 to 160×96/,
    )
  })

  test('ten hours of film are refused before their frames are looked at', async () => {
    // Five frames, the last of which is shown ten hours after the first: the header promises the rest.
    const path = made('ten-hours.mkv', [
      '-f',
      'lavfi',
      '-i',
      'color=s=16x16:r=24:d=0.2',
      '-c:v',
      'ffv1',
      '-bsf:v',
      'setts=ts=if(gte(N\\,4)\\,36000000\\,PTS)',
    ])
    await expect(importUploads(await projectNamed('Ten hours'), [path], { pictures: false })).rejects.toThrow(
      /about 864\d{3} frames; up to 500000/,
    )
  })
})

describe('proxies', () => {
  test('every frame stands alone, in the rate of the original, and comes in ranges', async () => {
    const shot = await surveyed((await ownShot(readFileSync('demo/footage/glaze-shelf.mov'))).id)
    expect(shot.proxy).toMatchObject({
      width: 960,
      height: 540,
      bitDepth: 10,
      range: 'source',
      low: 0,
      high: 1,
      rotation: 0,
    })
    const whole = new Uint8Array(await (await call(`/media/${shot.media.hash}/proxy`)).arrayBuffer())
    const part = await call(`/media/${shot.media.hash}/proxy`, { headers: { range: 'bytes=100-199' } })
    expect([part.status, part.headers.get('content-range')]).toEqual([206, `bytes 100-199/${whole.length}`])
    expect(new Uint8Array(await part.arrayBuffer())).toEqual(whole.subarray(100, 200))
    expect(
      (await call(`/media/${shot.media.hash}/proxy`, { headers: { range: `bytes=${whole.length}-` } })).status,
    ).toBe(416)
    const path = join(scratch(), 'proxy.mp4')
    writeFileSync(path, whole)
    const packets = execFileSync(
      'ffprobe',
      ['-v', 'error', '-show_entries', 'packet=pts_time,flags', '-of', 'csv=p=0', path],
      { encoding: 'utf8' },
    )
      .trim()
      .split('\n')
      .map((l) => l.split(','))
    expect(packets).toHaveLength(120)
    packets.forEach(([time, flags], i) => {
      expect(Number(time)).toBeCloseTo(i / 24, 5)
      expect(flags).toMatch(/^K/)
    })
  })

  test.each(['potter', 'glaze-shelf', 'kiln-night', 'market-phone'])(
    'the proxy of %s looks like the exact frame through a grade: mean ΔE at most 0.5',
    async (id) => {
      const truth = JSON.parse(readFileSync(`demo/footage/${id}.truth.json`, 'utf8')) as {
        encodingId: string
        gamutId: string
        exposureErrorStops: number
        range: 'full' | 'legal'
      }
      const shot = await surveyed((await ownShot(readFileSync(`demo/footage/${id}.mov`))).id)
      const { exactFrame, proxyFrame, differenceThrough } = await import('../support/proxy')
      let grade = setParameter(
        defaultGrade(truth.encodingId, truth.gamutId, truth.range),
        'exposure',
        'exposureStops',
        -truth.exposureErrorStops,
      )
      grade = setParameter(grade, 'contrast', 'contrast', 1.15)
      const report = differenceThrough(grade, await exactFrame(shot, 20), await proxyFrame(shot, 20))
      expect(report.mean).toBeLessThanOrEqual(0.5)
      expect(report.mean).toBeGreaterThan(0)
    },
  )

  test('a turned, odd-sized and a floating-point clip have proxies that match their frames', async () => {
    const { exactFrame, proxyFrame, differenceThrough } = await import('../support/proxy')
    const path = join(scratch(), 'odd.mov')
    const turned = join(scratch(), 'turned.mov')
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-i',
      'demo/footage/window-bench.mov',
      '-frames:v',
      '4',
      '-vf',
      'scale=853:481:in_range=pc:out_range=pc,format=yuv444p10le',
      '-c:v',
      'libx264',
      '-crf',
      '4',
      '-color_range',
      'pc',
      '-colorspace',
      'bt709',
      path,
    ])
    execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', path, '-c', 'copy', '-metadata:s:v:0', 'rotate=270', turned])
    for (const file of [path, turned]) {
      const shot = await surveyed((await ownShot(readFileSync(file))).id)
      const exact = await exactFrame(shot, 2)
      const proxy = await proxyFrame(shot, 2)
      expect([proxy.width, proxy.height]).toEqual([exact.width, exact.height])
      expect(differenceThrough(defaultGrade('log-400-95-a', 'w684'), exact, proxy).mean).toBeLessThan(0.5)
    }
    const light = join(scratch(), 'light.exr')
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      'gradients=s=320x180:c0=0x202020:c1=0xd0b090:d=0.04,format=gbrpf32le',
      '-frames:v',
      '1',
      light,
    ])
    const still = await surveyed((await importUploads(await projectNamed('Light'), [light], { pictures: false })).id)
    expect(still.proxy).toMatchObject({ low: -0.25, high: 1.25, range: 'full' })
    expect(
      differenceThrough(defaultGrade('acescct', 'bt709'), await exactFrame(still, 0), await proxyFrame(still, 0)).mean,
    ).toBeLessThan(1)
  })
})

test('work can begin before the proxy is there', async () => {
  const path = join(scratch(), 'early.mov')
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-i',
    'demo/footage/kiln-night.mov',
    '-c',
    'copy',
    '-metadata',
    'comment=early',
    path,
  ])
  const shot = await ownShot(readFileSync(path), 'early.mov')
  expect(shot.proxy).toBeNull()
  expect((await call(`/media/${shot.media.hash}/frames/5?range=full`)).status).toBe(200)
  await save(shot.id, (g) => setParameter(g, 'exposure', 'exposureStops', 0.5))
  expect((await surveyed(shot.id)).revision.canUndo).toBe(true)
})
