// Files that are not what they say, and clips of other shapes.
import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { readdirSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { bakeLut } from '@core/bake'
import { printClf, printHald } from '@core/formats'
import { defaultGrade } from '@core/grade'
import type { Inspection } from '@core/lut-bench'
import { unpackLut } from '@core/luts'
import type { LutSummary, ShotDetail } from '@contracts/responses'
import { call, get, ownShot, postJson, refusal, unfinished } from '../support/api'
import { until } from '../support/until'

const scratch = (): string => process.env['PALE_TEST_DATA']!
const stored = (folder: string): string[] => readdirSync(join(scratch(), folder))

/** What other tests are bringing in meanwhile goes away by itself; what a refusal left would not. */
async function nothingStays(before: readonly string[]): Promise<void> {
  const left = unfinished().filter((name) => !before.includes(name))
  await until('what was left goes away', () => !unfinished().some((name) => left.includes(name)))
}

async function makeProject(): Promise<string> {
  return ((await (await postJson('/projects', { name: 'Imports' })).json()) as { id: string }).id
}
const send = (projectId: string, name: string, body: Uint8Array | string): Promise<Response> =>
  call(`/projects/${projectId}/shots?name=${encodeURIComponent(name)}`, { method: 'POST', body: body as BodyInit })

describe('a file that is no usable video is refused in one sentence and leaves nothing', () => {
  const demo = readFileSync('demo/footage/potter.mov')
  const truncated = (): Uint8Array => demo.subarray(0, Math.floor(demo.length * 0.6))
  const damaged = (): Uint8Array => {
    const bytes = Buffer.from(demo)
    for (let i = Math.floor(bytes.length * 0.5); i < bytes.length * 0.55; i++) bytes[i] = (i * 37) & 255
    return bytes
  }

  test.each<[string, string, () => Uint8Array | string, RegExp]>([
    ['text', 'notes.mov', () => 'These are notes, not a clip.\n'.repeat(50), /"notes\.mov" is not a video/],
    ['an empty file', 'empty.mov', () => '', /"empty\.mov" is empty/],
    ['a truncated clip', 'short.mov', truncated, /"short\.mov" is damaged or ends early: \d+ of its 120 frames/],
    ['a damaged clip', 'scratched.mov', damaged, /"scratched\.mov" is damaged or ends early/],
    [
      'a playlist that points elsewhere',
      'list.m3u8',
      () => '#EXTM3U\n#EXT-X-TARGETDURATION:4\n#EXTINF:4,\nhttp://127.0.0.1:1/x.ts\n#EXT-X-ENDLIST\n',
      /is not a video/,
    ],
    [
      'a concat script that points at a file',
      'list.txt',
      () => "ffconcat version 1.0\nfile '/etc/passwd'\n",
      /is not a video/,
    ],
    [
      'random bytes',
      'noise.mp4',
      () => Uint8Array.from({ length: 40000 }, (_, i) => (i * i * 31 + i) & 255),
      /is not a video/,
    ],
  ])('%s', async (_, name, body, reason) => {
    const project = await makeProject()
    const sent = body()
    const before = unfinished()
    const { status, message } = await refusal(await send(project, name, sent))
    expect(status).toBe(422)
    expect(message).toMatch(reason)
    expect(message.split('\n')).toHaveLength(1)
    expect(stored('media')).not.toContain(createHash('sha256').update(sent).digest('hex'))
    await nothingStays(before)
    expect((await get<{ shots: unknown[] }>(`/projects/${project}/reel`)).shots).toEqual([])
  })

  test('a clip that was cut off on its way to the disk', async () => {
    const path = join(scratch(), 'cut.mov')
    writeFileSync(path, demo)
    truncateSync(path, 3000)
    expect((await refusal(await send(await makeProject(), 'cut.mov', readFileSync(path)))).message).toMatch(
      /is not a video|damaged/,
    )
  })
})

describe('file names are only names', () => {
  test.each([
    ['../../etc/passwd.mov', 'passwd.mov'],
    ['a"b\'; rm -rf ~ $(x).mov', 'a"b\'; rm -rf ~ $(x).mov'],
    ['Töpferei 窯.mov', 'Töpferei 窯.mov'],
    ['C:\\clips\\kiln.mov', 'kiln.mov'],
    ['-i.mov', '-i.mov'],
    ['', 'Untitled'],
  ])('%j becomes %j', async (given, kept) => {
    expect((await ownShot(readFileSync('demo/footage/potter.mov'), given)).name).toBe(kept)
  })
})

test('the same content twice is stored once', async () => {
  const clip = readFileSync('demo/footage/window-bench.mov')
  const first = await ownShot(clip)
  const before = stored('media').length
  const second = await ownShot(clip)
  expect(second.media.hash).toBe(first.media.hash)
  expect(second.id).not.toBe(first.id)
  expect(stored('media')).toHaveLength(before)
})

describe('clips of other shapes', () => {
  /** A clip of one grey, made with ffmpeg as a camera would. */
  function make(name: string, args: readonly string[]): Uint8Array {
    const path = join(scratch(), name)
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      'color=c=0x808080:s=321x181:r=25:d=0.4',
      ...args,
      path,
    ])
    return readFileSync(path)
  }

  test.each<[string, string[], Partial<ShotDetail['media']>]>([
    [
      'a.mp4',
      ['-vf', 'scale=321:181', '-c:v', 'libx264', '-pix_fmt', 'yuv444p', '-color_range', 'tv', '-colorspace', 'bt709'],
      {
        width: 321,
        height: 181,
        bitDepth: 8,
        chroma: '4:4:4',
        range: 'legal',
        rangeTagged: true,
        matrix: 'bt709',
        frameCount: 10,
      },
    ],
    [
      'b.mkv',
      ['-c:v', 'ffv1', '-pix_fmt', 'yuv422p10le'],
      { bitDepth: 10, chroma: '4:2:2', range: 'legal', codec: 'ffv1' },
    ],
    [
      'c.mov',
      [
        '-c:v',
        'libx265',
        '-x265-params',
        'log-level=error',
        '-vf',
        'scale=322:182:out_range=pc',
        '-pix_fmt',
        'yuv420p10le',
        '-color_range',
        'pc',
        '-colorspace',
        'bt2020nc',
      ],
      { width: 322, chroma: '4:2:0', bitDepth: 10, range: 'full', matrix: 'bt2020', codec: 'hevc' },
    ],
  ])('%s is read with its own facts, and one grey is one grey', async (name, args, facts) => {
    const shot = await ownShot(make(name, args), name)
    expect(shot.media).toMatchObject(facts)
    const response = await call(`/media/${shot.media.hash}/frames/9?range=${shot.media.range}`)
    const data = new Uint16Array(await response.arrayBuffer())
    const grey = ((0x80 / 255 + 0.25) / 1.5) * 65535
    expect(data).toHaveLength(shot.media.width * shot.media.height * 3)
    expect(data.reduce((worst, v) => Math.max(worst, Math.abs(v - grey)), 0)).toBeLessThan(65535 / 255)
  })
})

describe('LUTs', () => {
  const good = `TITLE "Ash"\nLUT_3D_SIZE 2\n${'0 0 0\n1 0 0\n0 1 0\n1 1 0\n0 0 1\n1 0 1\n0 1 1\n1 1 1\n'}`
  const sendLut = (name: string, body: string): Promise<Response> =>
    call(`/luts?name=${encodeURIComponent(name)}`, { method: 'POST', body })

  test('a good one is kept under its content and given back as it was', async () => {
    const lut = (await (await sendLut('Ash look.cube', good)).json()) as LutSummary
    expect(lut).toMatchObject({ name: 'Ash look', title: 'Ash', dimensions: 3, size: 2 })
    expect(await (await call(`/luts/${lut.hash}/file`)).text()).toBe(good)
    await sendLut('Another name.cube', good)
    expect((await get<LutSummary[]>('/luts')).filter((l) => l.hash === lut.hash).map((l) => l.name)).toEqual([
      'Ash look',
    ])
  })

  test.each([
    ['wrong count', good.slice(0, -6), /Line \d+: The table has 7 rows/],
    ['NaN', good.replace('1 1 1', 'NaN 1 1'), /Line 10: "NaN" is not a number/],
    ['size 1', good.replace('SIZE 2', 'SIZE 1'), /Line 2: A size of 1 is refused/],
    ['size 300', good.replace('SIZE 2', 'SIZE 300'), /Line 2: A size of 300 is refused/],
    ['no size', good.replace('LUT_3D_SIZE 2\n', ''), /Line 2: Rows begin before the size/],
    ['text first', `=hello=\n${good}`, /Line 1: "=hello=" is no keyword/],
    ['nothing', '', /empty|size is missing/],
  ])('%s is refused with line and reason', async (_, body, reason) => {
    const before = unfinished()
    const own = createHash('sha256').update(body).digest('hex')
    const { status, message } = await refusal(await sendLut('bad.cube', body))
    expect(status).toBe(422)
    expect(message).toMatch(reason)
    expect(stored('luts').filter((name) => name.startsWith(own))).toEqual([])
    await nothingStays(before)
  })

  test('CRLF, comments and a domain are read; 1D, too', async () => {
    expect((await sendLut('crlf.cube', `# note\r\n${good.replaceAll('\n', '\r\n')}`)).status).toBe(201)
    expect(
      (await sendLut('domain.cube', good.replace('LUT_3D', 'DOMAIN_MIN 0 0 0\nDOMAIN_MAX 2 2 2\nLUT_3D'))).status,
    ).toBe(201)
    expect((await sendLut('one.cube', 'LUT_1D_SIZE 2\n0 0 0\n1 1 1\n')).status).toBe(201)
  })

  test('common LUT format, Hald pictures and curves as text are told by their content, and come packed', async () => {
    const cube = bakeLut(defaultGrade('log-420-95'), () => undefined, 16, 'Shelf')
    const send = async (name: string, body: string | Uint8Array): Promise<LutSummary> =>
      (await (
        await call(`/luts?${new URLSearchParams({ name, folder: 'Shelf looks' })}`, {
          method: 'POST',
          body: body as never,
        })
      ).json()) as LutSummary
    const clf = await send('a.cube', printClf('shelf', [cube], []))
    const hald = await send('b.png', printHald(cube))
    const csv = await send('c.csv', 'in,out\n0,0\n0.5,0.6\n1,1\n')
    expect([clf, hald, csv].map(({ format, dimensions, size, folder }) => [format, dimensions, size, folder])).toEqual([
      ['clf', 3, 16, 'Shelf looks'],
      ['hald', 3, 16, 'Shelf looks'],
      ['csv', 1, 3, 'Shelf looks'],
    ])
    const packed = unpackLut(new Uint8Array(await (await call(`/luts/${hald.hash}/packed`)).arrayBuffer()))
    if (packed?.dimensions !== 3) throw new Error('A cube was expected.')
    packed.data.forEach((v, i) => expect(Math.abs(v - cube.data[i]!)).toBeLessThan(1 / 65535))
    // What it was made for is found when it is asked for, and kept.
    expect(clf.expects).toBeNull()
    const found = await get<Inspection>(`/luts/${clf.hash}/inspection`)
    expect(found.expects).toMatchObject({ kind: 'conversion', certain: true, alike: ['log-420-95'] })
    expect((await get<LutSummary[]>('/luts')).find((l) => l.hash === clf.hash)?.expects).toEqual(found.expects)
    expect(await get<Inspection>(`/luts/${clf.hash}/inspection`)).toMatchObject({
      size: 16,
      folds: [],
      colours: found.colours,
    })
  })

  test('a LUT kept by an earlier version, which packed nothing, is packed when it is asked for', async () => {
    const { hash } = (await (await sendLut('old.cube', good.replace('"Ash"', '"Old ash"'))).json()) as LutSummary
    rmSync(join(scratch(), 'luts', `${hash}.cube.packed`), { force: true })
    expect(unpackLut(new Uint8Array(await (await call(`/luts/${hash}/packed`)).arrayBuffer()))).toMatchObject({
      dimensions: 3,
      size: 2,
      title: 'Old ash',
    })
  })

  test.each([
    ['a bomb in XML', '<!DOCTYPE a [<!ENTITY b "c">]><ProcessList/>', /document type/],
    ['an empty process list', '<ProcessList id="a"></ProcessList>', /empty/],
    ['a picture that is no table', 'PNG', /no keyword|not a keyword|size is missing/],
  ])('%s is refused', async (_, body, reason) => {
    expect((await refusal(await sendLut('bad.clf', body))).message).toMatch(reason)
  })
})
