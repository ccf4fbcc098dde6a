// Long: the way of pictures from file to frame, in its order.
// Frames, the truth beside the footage, and what the rendered file holds.
import { execFileSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { decode as decodePng } from 'fast-png'
import { parseCube } from '@core/formats'
import {
  addKeyframe,
  addRegion,
  buildChain,
  compile,
  defaultGrade,
  execute,
  restSize,
  setParameter,
  setParameterAt,
  setRead,
  type GradeDocument,
} from '@core/grade'
import { sampleSignal, shrink, type Frame } from '@core/image'
import { measureCasts, measuredPicture, readCard } from '@core/readings'
import type { RenderSummary, ShotDetail } from '@contracts/responses'
import { demoShots, moveDone } from '../../demo/shots'
import { call, demoReel, get, ownShot, postJson, save } from '../support/api'
import { until } from '../support/until'

interface Truth {
  exposureErrorStops: number
  neutralisedBy: { temperatureMired: number; tint: number }
  leadFrame: number
  patches: { leadFrame: Record<string, [number, number][]> }
}
const truthOf = (id: string): Truth => JSON.parse(readFileSync(`demo/footage/${id}.truth.json`, 'utf8')) as Truth
const clip = (id: string): Uint8Array => readFileSync(`demo/footage/${id}.mov`)

async function frame(hash: string, index: number, range = 'full'): Promise<Frame> {
  const response = await call(`/media/${hash}/frames/${index}?range=${range}`)
  expect(response.status).toBe(200)
  const number = (name: string): number => Number(response.headers.get(`x-frame-${name}`))
  return {
    width: number('width'),
    height: number('height'),
    low: number('low'),
    high: number('high'),
    data: new Uint16Array(await response.arrayBuffer()),
  }
}

/** The mean display signal inside a patch. */
function patchMean(shown: Frame, corners: readonly [number, number][]): [number, number, number] {
  const sum: [number, number, number] = [0, 0, 0]
  let count = 0
  const ends = (axis: 0 | 1, size: number): [number, number] => [
    Math.floor(Math.min(...corners.map((c) => c[axis])) * size),
    Math.ceil(Math.max(...corners.map((c) => c[axis])) * size),
  ]
  const [left, right] = ends(0, shown.width)
  const [top, bottom] = ends(1, shown.height)
  for (let y = top; y < bottom; y++)
    for (let x = left; x < right; x++) {
      const inside = corners.every(([ax, ay], i) => {
        const [bx, by] = corners[(i + 1) % corners.length]!
        return (bx - ax) * ((y + 0.5) / shown.height - ay) - (by - ay) * ((x + 0.5) / shown.width - ax) >= 0
      })
      if (!inside) continue
      for (let c = 0; c < 3; c++) sum[c]! += shown.data[(y * shown.width + x) * 3 + c]! / 65535
      count++
    }
  return [sum[0] / count, sum[1] / count, sum[2] / count]
}

const none = (): undefined => undefined
const shown = (grade: GradeDocument, source: Frame): Frame => execute(compile(grade, none, source, restSize), source)

describe('the demo footage says what its truth says', () => {
  test.each(demoShots.map((s) => [s.id, s] as const))(
    '%s: the grey card is neutral and at its level once the known faults are taken away',
    async (id, demo) => {
      const { shots } = await demoReel()
      const shot = shots.find((s) => s.name === demo.name)!
      const truth = truthOf(id)
      let grade = defaultGrade(shot.read.encodingId, shot.read.gamutId, demo.file.range)
      grade = setParameter(
        grade,
        'exposure',
        'exposureStops',
        -truth.exposureErrorStops - demo.driftStops * moveDone(demo, truth.leadFrame),
      )
      grade = setParameter(grade, 'white-balance', 'temperatureMired', truth.neutralisedBy.temperatureMired)
      grade = setParameter(grade, 'white-balance', 'tint', truth.neutralisedBy.tint)
      const [r, g, b] = patchMean(
        shown(grade, await frame(shot.media.hash, truth.leadFrame, demo.file.range)),
        truth.patches.leadFrame['greyCard']!,
      )
      // Half a code of the file, where its codes are coarse.
      expect(Math.max(r, g, b) - Math.min(r, g, b)).toBeLessThan(demo.file.pixelFormat === 'yuv420p' ? 0.004 : 0.002)
      expect(Math.abs((r + g + b) / 3 - 0.18 ** (1 / 2.4))).toBeLessThan(0.004)
    },
  )

  test.each(demoShots.map((s) => [s.id, s] as const))(
    '%s: the card reading finds the exposure within 0.15 stop and the white within 5 mired of the truth',
    async (id, demo) => {
      const { shots } = await demoReel()
      const shot = shots.find((s) => s.name === demo.name)!
      const truth = truthOf(id)
      const corners = truth.patches.leadFrame['greyCard']!
      const axis = (k: 0 | 1): number[] => corners.map((c) => c[k]).sort((a, b) => a - b)
      // The upright area inside the four corners, as a person would draw it.
      const [x, y] = [axis(0), axis(1)]
      const area = { left: x[1]!, right: x[2]!, top: y[1]!, bottom: y[2]! }
      const source = await frame(shot.media.hash, truth.leadFrame, demo.file.range)
      const card = readCard(
        { source, chain: buildChain(defaultGrade(shot.read.encodingId, shot.read.gamutId, demo.file.range), none) },
        area,
      )!
      expect(
        Math.abs(card.exposureStops - truth.exposureErrorStops - demo.driftStops * moveDone(demo, truth.leadFrame)),
      ).toBeLessThan(0.15)
      expect(Math.abs(card.cast.mired + truth.neutralisedBy.temperatureMired)).toBeLessThan(5)
      expect(Math.abs(card.cast.duv * 1000 - truth.neutralisedBy.tint)).toBeLessThan(2)
    },
  )

  test(
    'greys are only judged where they can be told from coloured surfaces: seven shots are ' +
      'left undecided, the other three are within 10 mired of the truth',
    async () => {
      const { shots } = await demoReel()
      const judged: { id: string; off: number }[] = []
      for (const demo of demoShots) {
        const shot = shots.find((s) => s.name === demo.name)!
        const truth = truthOf(demo.id)
        const grade = defaultGrade(shot.read.encodingId, shot.read.gamutId, demo.file.range)
        const source = await frame(shot.media.hash, truth.leadFrame, demo.file.range)
        const { all } = measureCasts(
          measuredPicture({
            source,
            sourceBits: 10,
            shown: shown(grade, source),
            grade,
            chain: buildChain(grade, none),
            lut: none,
          }),
        )
        if (all && all.confidence >= 1 / 3)
          judged.push({ id: demo.id, off: Math.abs(all.mired + truth.neutralisedBy.temperatureMired) })
      }
      expect(judged.map((j) => j.id)).toEqual(['potter', 'market-phone', 'market-gamma'])
      for (const { off } of judged) expect(off).toBeLessThan(10)
    },
  )

  test('the glaze shelf, correctly exposed, needs nothing: R = G = B within 0.2 % after Read and Show', async () => {
    const { shots } = await demoReel()
    const shot = shots.find((s) => s.name === 'Glaze shelf')!
    const [r, g, b] = patchMean(
      shown(defaultGrade(shot.read.encodingId, shot.read.gamutId), await frame(shot.media.hash, shot.leadFrame)),
      truthOf('glaze-shelf').patches.leadFrame['greyCard']!,
    )
    expect(Math.max(r, g, b) - Math.min(r, g, b)).toBeLessThan(0.002)
  })

  test('the window shot holds seven stops and more over grey', async () => {
    const { shots } = await demoReel()
    const shot = shots.find((s) => s.name === 'Window bench')!
    const codes = sampleSignal(await frame(shot.media.hash, 60), 1)
    const brightest = codes.reduce((a, b) => Math.max(a, b), 0)
    const light = 10 ** ((brightest - 0.385537) / 0.24719) / 5.555556
    expect(Math.log2(light / 0.18)).toBeGreaterThan(7)
  })
})

describe('the frame service', () => {
  test('answers with the exact frame, for ever, and with 304 to those who have it', async () => {
    const { shots } = await demoReel()
    const { hash } = shots[0]!.media
    const first = await call(`/media/${hash}/frames/3?range=full`)
    expect(first.headers.get('cache-control')).toMatch(/immutable/)
    const etag = first.headers.get('etag')!
    expect((await call(`/media/${hash}/frames/3?range=full`, { headers: { 'if-none-match': etag } })).status).toBe(304)
    expect((await first.arrayBuffer()).byteLength).toBe(960 * 540 * 6)
  })

  test('a frame as small as a tile is the same picture, made smaller', async () => {
    const { shots } = await demoReel()
    const { hash } = shots[0]!.media
    const whole = await frame(hash, 3)
    const small = await call(`/media/${hash}/frames/3?range=full&size=sheet`)
    const codes = new Uint16Array(await small.arrayBuffer())
    expect([small.headers.get('x-frame-width'), small.headers.get('x-frame-height')]).toEqual(['192', '108'])
    const wanted = shrink(whole, 192, 108).data
    expect(codes).toHaveLength(wanted.length)
    // Made small before it is converted: a code of 65,535 is rounded once instead of twice.
    expect(codes.reduce((most, v, i) => Math.max(most, Math.abs(v - wanted[i]!)), 0)).toBeLessThanOrEqual(1)
    expect(small.headers.get('etag')).not.toBe((await call(`/media/${hash}/frames/3?range=full`)).headers.get('etag'))
  })

  test('every frame is its own: single frames equal the frames of one decode from start to end', async () => {
    const { shots } = await demoReel()
    const shot = shots[0]!
    const planes = execFileSync(
      'ffmpeg',
      ['-v', 'error', '-i', 'demo/footage/glaze-shelf.mov', '-f', 'rawvideo', '-pix_fmt', 'yuv422p10le', '-'],
      { maxBuffer: 1 << 28 },
    )
    const size = 960 * 540 * 4
    const luma = (n: number): Uint16Array =>
      new Uint16Array(planes.buffer.slice(planes.byteOffset + n * size, planes.byteOffset + n * size + 960 * 540 * 2))
    for (const n of [0, 1, 23, 24, 25, 47, 71, 119]) {
      const single = sampleSignal(await frame(shot.media.hash, n), 97)
      const whole = luma(n)
      let worst = 0
      for (let i = 0; i < single.length / 3; i++) {
        const y = 0.2126 * single[i * 3]! + 0.7152 * single[i * 3 + 1]! + 0.0722 * single[i * 3 + 2]!
        worst = Math.max(worst, Math.abs(y * 1023 - whole[i * 97]!))
      }
      expect(worst).toBeLessThan(0.6)
    }
  })

  test.each([
    ['/frames/120?range=full', 404],
    ['/frames/-1?range=full', 422],
    ['/frames/x?range=full', 422],
    ['/frames/0?range=odd', 422],
    ['/frames/0?range=full&size=huge', 422],
    ['/frames/0', 422],
  ])('%s is refused with %p', async (path, status) => {
    const { shots } = await demoReel()
    expect((await call(`/media/${shots[0]!.media.hash}${path}`)).status).toBe(status)
  })

  test.each([
    '/media/nothing/frames/0?range=full',
    `/media/${'0'.repeat(64)}/frames/0?range=full`,
    '/media/..%2f..%2fetc/frames/0?range=full',
  ])('%s is not there', async (path) => {
    expect((await call(path)).status).toBe(404)
  })
})

/** Everything one may do to a grade, with a region. */
function worked(grade: GradeDocument): GradeDocument {
  let g = setParameter(grade, 'exposure', 'exposureStops', 0.5)
  g = setParameter(g, 'white-balance', 'tint', 6)
  g = setParameter(g, 'contrast', 'contrast', 1.15)
  g = setParameter(g, 'saturation', 'saturation', 1.1)
  const { grade: withRegion, regionId } = addRegion(g)
  return setParameter(withRegion, `${regionId}-exposure`, 'exposureStops', 0.6)
}

describe('taking away', () => {
  let shot: ShotDetail
  let revisionId = ''
  let grade: GradeDocument
  beforeAll(async () => {
    shot = await ownShot(clip('potter'))
    const saved = await save(shot.id, (g) =>
      worked(setRead(g, { encodingId: 'log-351-128', gamutId: 'w740', range: 'full' })),
    )
    revisionId = saved.headId
    grade = saved.grade
  })

  test('the still is the preview at rest, bit for bit, in 16 bits', async () => {
    const png = decodePng(
      new Uint8Array(await (await call(`/revisions/${revisionId}/still.png?frame=10`)).arrayBuffer()),
    )
    expect(png).toMatchObject({ width: 960, height: 540, depth: 16, channels: 3 })
    const preview = shown(grade, await frame(shot.media.hash, 10))
    expect(
      Buffer.compare(Buffer.from(Uint16Array.from(png.data).buffer), Buffer.from(preview.data.buffer as ArrayBuffer)),
    ).toBe(0)
  })

  test('the .cube names the region it cannot carry, states its error, and reads back', async () => {
    const response = await call(`/revisions/${revisionId}/lut?size=33&frame=10`)
    const text = await response.text()
    expect(text).toMatch(/# Not carried: region "Region 1"\./)
    expect(text).toMatch(/Delta E 2000: mean \d\.\d+/)
    expect(response.headers.get('content-disposition')).toMatch(/attachment; filename="own\.mov\.cube"/)
    expect(parseCube(text)).toMatchObject({ dimensions: 3, size: 33 })
    const report = await get<{ leftOut: string[]; error: { mean: number; percentile999: number } }>(
      `/revisions/${revisionId}/lut?size=33&frame=10&report=only`,
    )
    expect(report.leftOut).toEqual(['region "Region 1"'])
    expect(report.error.mean).toBeLessThan(1)
  })

  async function renderOf(revision: string): Promise<RenderSummary> {
    const started = (await (await postJson('/renders', { revisionId: revision })).json()) as RenderSummary
    return started
  }
  async function settled(id: string): Promise<RenderSummary> {
    return until('the render has ended', async () => {
      const render = await get<RenderSummary>(`/renders/${id}`)
      return render.state !== 'queued' && render.state !== 'running' && render
    })
  }

  test('the rendered clip has every frame, right tags, and looks like the preview', async () => {
    const { id } = await renderOf(revisionId)
    expect(await settled(id)).toMatchObject({ state: 'done', framesDone: 120, framesTotal: 120, error: null })
    const bytes = new Uint8Array(await (await call(`/renders/${id}/file`)).arrayBuffer())
    const path = join(process.env['PALE_TEST_DATA']!, 'rendered.mp4')
    writeFileSync(path, bytes)
    const [stream] = (
      JSON.parse(
        execFileSync('ffprobe', ['-v', 'error', '-count_frames', '-show_streams', '-of', 'json', path], {
          encoding: 'utf8',
        }),
      ) as { streams: Record<string, unknown>[] }
    ).streams
    expect(stream).toMatchObject({
      codec_name: 'h264',
      width: 960,
      height: 540,
      nb_read_frames: '120',
      color_range: 'tv',
      color_space: 'bt709',
      color_transfer: 'bt709',
      color_primaries: 'bt709',
      r_frame_rate: '24/1',
    })
    // After lossy 8-bit 4:2:0 the mean difference stays small; before it, the equality is exact (see the still).
    const rgb = execFileSync(
      'ffmpeg',
      [
        '-v',
        'error',
        '-i',
        path,
        '-vf',
        'select=eq(n\\,10),scale=in_color_matrix=bt709:in_range=tv:flags=accurate_rnd+full_chroma_int',
        '-frames:v',
        '1',
        '-f',
        'rawvideo',
        '-pix_fmt',
        'rgb24',
        '-',
      ],
      { maxBuffer: 1 << 25 },
    )
    const preview = shown(grade, await frame(shot.media.hash, 10))
    const mean = preview.data.reduce((sum, code, i) => sum + Math.abs(code / 257 - rgb[i]!), 0) / preview.data.length
    expect(mean).toBeLessThan(2)
  })

  test('a render can be cancelled, and leaves nothing behind', async () => {
    const { id } = await renderOf(revisionId)
    await until('the render goes on', async () => {
      const { state, framesDone } = await get<RenderSummary>(`/renders/${id}`)
      return state === 'running' && framesDone > 0
    })
    await postJson(`/renders/${id}/cancel`, {})
    const cancelled = await settled(id)
    expect(cancelled.state).toBe('cancelled')
    expect((await call(`/renders/${id}/file`)).status).toBe(404)
    // The worker is free again for the next one.
    expect((await settled((await renderOf(shot.headId)).id)).state).toBe('done')
  })

  test('what is not there cannot be rendered or fetched', async () => {
    const nobody = '00000000-0000-4000-8000-000000000000'
    expect((await postJson('/renders', { revisionId: nobody })).status).toBe(404)
    expect((await postJson('/renders', { revisionId: 'x' })).status).toBe(422)
    expect((await call(`/revisions/${nobody}/still.png?frame=0`)).status).toBe(404)
    expect((await call(`/revisions/${revisionId}/still.png?frame=5000`)).status).toBe(422)
    expect((await call(`/revisions/${revisionId}/lut?frame=0&size=4096`)).status).toBe(422)
  })
})

test('what changes along the clip is so in every still, and the .cube says as at which frame it is', async () => {
  const shot = await ownShot(clip('potter'), 'ramp.mov')
  const exposed = (grade: GradeDocument, stops: number): GradeDocument =>
    setParameter(grade, 'exposure', 'exposureStops', stops)
  const ramp = (
    await save(shot.id, (g) =>
      addKeyframe(exposed(addKeyframe(g, 'exposure', 'exposureStops', 10), 0), 'exposure', 'exposureStops', 50),
    )
  ).headId
  const marked = (await save(shot.id, (g) => setParameterAt(g, 'exposure', 'exposureStops', 2, 50))).headId
  const still = async (id: string, at: number): Promise<Uint8Array> =>
    new Uint8Array(await (await call(`/revisions/${id}/thumbnail?frame=${at}&as=graded`)).arrayBuffer())
  const two = (await save(shot.id, (g) => exposed({ ...g, animation: [] }, 2))).headId
  const one = (await save(shot.id, (g) => exposed(g, 1))).headId
  expect(await still(marked, 10)).toEqual(await still(ramp, 10))
  expect(await still(marked, 50)).toEqual(await still(two, 50))
  // Halfway along a smooth path.
  expect(await still(marked, 30)).toEqual(await still(one, 30))
  expect(
    ((await (await call(`/revisions/${marked}/lut?frame=30&report=only`)).json()) as { leftOut: string[] }).leftOut,
  ).toEqual(['Exposure along the clip: 0.00 stops at frame 10, +2.00 stops at frame 50 (taken as at frame 30)'])
})
