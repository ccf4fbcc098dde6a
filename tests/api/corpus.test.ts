// Long: one table of odd files, each with what must come of it.
// Every kind of file that people have: imported, its facts, frame-accurate seeks, and bars that decode to what they
// are.
import { execFileSync } from 'node:child_process'
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { ShotDetail } from '@contracts/responses'
import { call, get, importUploads, ownShot, projectNamed } from '../support/api'
import { barError, barsInCodes, counterOf, encodeMaster, type Master, type RgbFrame } from '../support/clips'

const folder = (): string => process.env['PALE_TEST_DATA']!

async function frameOf(shot: ShotDetail, index: number): Promise<RgbFrame> {
  const response = await call(`/media/${shot.media.hash}/frames/${index}?range=${shot.media.range}`)
  if (!response.ok) throw new Error(`frame ${index}: ${response.status} ${await response.text()}`)
  const number = (name: string): number => Number(response.headers.get(`x-frame-${name}`))
  const width = number('width')
  const height = number('height')
  const low = number('low')
  const high = number('high')
  const data = new Uint16Array(await response.arrayBuffer())
  const value = (x: number, y: number, c: number): number =>
    low + (data[(Math.floor(y * height) * width + Math.floor(x * width)) * 3 + c]! / 65535) * (high - low)
  return { width, height, at: (x, y) => [value(x, y, 0), value(x, y, 1), value(x, y, 2)] }
}

const hd: Master = { width: 320, height: 180, frames: 12, range: 'legal', matrix: 'bt709', bitDepth: 10 }
const eight: Master = { ...hd, bitDepth: 8 }
const full: Master = { ...hd, range: 'full' }
// Files with nothing but this in their frame headers.
const intraTags = ['-bsf:v', 'prores_metadata=color_primaries=bt709:color_trc=bt709:colorspace=bt709']
const tags709 = ['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709']
const x264 = ['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '4', '-bf', '2', '-g', '8']
const x265 = ['-c:v', 'libx265', '-preset', 'ultrafast', '-x265-params', 'log-level=error:crf=4:keyint=8']

interface Variant {
  readonly name: string
  readonly master?: Master
  readonly args: readonly string[]
  readonly rate?: string
  readonly facts: Partial<ShotDetail['media']>
  /** Codes of 10 bits by which a bar may be off what it is in the file's own depth. */
  readonly within: number
}

const variants: readonly Variant[] = [
  {
    name: 'h264-8-420.mov',
    master: eight,
    args: [...x264, '-pix_fmt', 'yuv420p', ...tags709],
    facts: {
      codec: 'h264',
      bitDepth: 8,
      chroma: '4:2:0',
      range: 'legal',
      rangeTagged: true,
      matrix: 'bt709',
      matrixTagged: true,
      primaries: 'bt709',
    },
    within: 1,
  },
  {
    name: 'h264-10-422-full.mov',
    master: full,
    args: [...x264, '-pix_fmt', 'yuv422p10le', ...tags709],
    facts: { bitDepth: 10, chroma: '4:2:2', range: 'full' },
    within: 1,
  },
  {
    name: 'h264-lossless-10-444.mp4',
    args: ['-c:v', 'libx264', '-qp', '0', '-pix_fmt', 'yuv444p10le', ...tags709],
    facts: { bitDepth: 10, chroma: '4:4:4' },
    within: 1,
  },
  {
    name: 'hevc-8-420.mp4',
    master: eight,
    args: [...x265, '-pix_fmt', 'yuv420p', ...tags709],
    facts: { codec: 'hevc', bitDepth: 8, chroma: '4:2:0' },
    within: 1,
  },
  {
    name: 'hevc-10-422.mov',
    args: [...x265, '-pix_fmt', 'yuv422p10le', ...tags709],
    facts: { codec: 'hevc', bitDepth: 10, chroma: '4:2:2' },
    within: 1,
  },
  {
    name: 'hevc-10-2020-pq.mp4',
    master: { ...hd, matrix: 'bt2020' },
    args: [
      ...x265,
      '-pix_fmt',
      'yuv420p10le',
      '-colorspace',
      'bt2020nc',
      '-color_primaries',
      'bt2020',
      '-color_trc',
      'smpte2084',
    ],
    facts: { matrix: 'bt2020', primaries: 'bt2020', transfer: 'smpte2084', bitDepth: 10 },
    within: 1,
  },
  {
    name: 'hevc-hlg.mov',
    master: { ...hd, matrix: 'bt2020' },
    args: [
      ...x265,
      '-pix_fmt',
      'yuv420p10le',
      '-colorspace',
      'bt2020nc',
      '-color_primaries',
      'bt2020',
      '-color_trc',
      'arib-std-b67',
    ],
    facts: { transfer: 'arib-std-b67' },
    within: 1,
  },
  {
    name: 'intra-422-10.mov',
    args: ['-c:v', 'prores_ks', '-profile:v', '3', '-pix_fmt', 'yuv422p10le', ...intraTags],
    facts: { bitDepth: 10, chroma: '4:2:2' },
    within: 1,
  },
  {
    name: 'intra-444-12.mov',
    args: ['-c:v', 'prores_ks', '-profile:v', '4', '-pix_fmt', 'yuv444p10le', ...intraTags],
    facts: { chroma: '4:4:4', bitDepth: 12 },
    within: 2,
  },
  {
    name: 'intra-hqx.mxf',
    args: ['-c:v', 'dnxhd', '-profile:v', 'dnxhr_hqx', '-pix_fmt', 'yuv422p10le'],
    facts: { codec: 'dnxhd', container: 'mxf', bitDepth: 10 },
    within: 1,
  },
  {
    name: 'ffv1-10-422.mkv',
    args: ['-c:v', 'ffv1', '-pix_fmt', 'yuv422p10le', ...tags709],
    facts: { codec: 'ffv1', container: 'matroska', chroma: '4:2:2' },
    within: 1,
  },
  {
    name: 'ffv1-rgb-16.mkv',
    master: { ...full, rgb: true },
    args: ['-c:v', 'ffv1', '-pix_fmt', 'gbrp16le'],
    facts: { chroma: 'RGB', bitDepth: 16, range: 'full' },
    within: 0.1,
  },
  {
    name: 'vp9.webm',
    master: eight,
    args: [
      '-c:v',
      'libvpx-vp9',
      '-crf',
      '4',
      '-b:v',
      '0',
      '-deadline',
      'realtime',
      '-cpu-used',
      '8',
      '-pix_fmt',
      'yuv420p',
      ...tags709,
    ],
    facts: { codec: 'vp9', bitDepth: 8 },
    within: 1,
  },
  {
    name: 'av1-10.mp4',
    args: ['-c:v', 'libsvtav1', '-preset', '10', '-crf', '8', '-pix_fmt', 'yuv420p10le', ...tags709],
    facts: { codec: 'av1', bitDepth: 10 },
    within: 1,
  },
  {
    name: 'motion-pictures.avi',
    master: { ...full, bitDepth: 8, matrix: 'bt601' },
    args: ['-c:v', 'mjpeg', '-q:v', '2', '-pix_fmt', 'yuvj420p'],
    facts: { container: 'avi', range: 'full', matrix: 'bt601' },
    within: 1,
  },
  {
    name: 'uncompressed.mov',
    args: ['-c:v', 'v210', '-pix_fmt', 'yuv422p10le', ...tags709],
    facts: { codec: 'v210', bitDepth: 10, chroma: '4:2:2' },
    within: 1,
  },
  {
    name: 'packed-8.avi',
    master: { ...hd, bitDepth: 8, matrix: 'bt601' },
    args: ['-c:v', 'rawvideo', '-pix_fmt', 'uyvy422'],
    facts: { storedFormat: 'uyvy422', pixelFormat: 'yuv422p', chroma: '4:2:2' },
    within: 1,
  },
  {
    name: 'odd-853x481.mkv',
    master: { ...hd, width: 853, height: 481, frames: 4 },
    args: ['-c:v', 'libx264', '-qp', '0', '-pix_fmt', 'yuv444p10le', ...tags709],
    facts: { width: 853, height: 481, frameCount: 4 },
    within: 1,
  },
  {
    name: 'odd-420.mkv',
    master: { ...hd, width: 321, height: 181 },
    args: ['-c:v', 'ffv1', '-pix_fmt', 'yuv420p10le', ...tags709],
    facts: { width: 321, height: 181, chroma: '4:2:0' },
    within: 1,
  },
  {
    name: 'one-frame.mp4',
    master: { ...hd, bitDepth: 8, frames: 1 },
    args: [...x264, '-pix_fmt', 'yuv420p', ...tags709],
    facts: { frameCount: 1 },
    within: 1,
  },
  {
    name: 'fields.mov',
    args: ['-c:v', 'prores_ks', '-flags', '+ildct', '-top', '1', '-pix_fmt', 'yuv422p10le', ...intraTags],
    facts: { interlaced: 'top first' },
    within: 1,
  },
  {
    name: 'anamorphic-601.mov',
    master: { ...hd, width: 720, height: 576, frames: 3, matrix: 'bt601' },
    args: [
      '-c:v',
      'libx264',
      '-qp',
      '0',
      '-pix_fmt',
      'yuv422p10le',
      '-colorspace',
      'smpte170m',
      '-bsf:v',
      'h264_metadata=sample_aspect_ratio=64/45',
    ],
    facts: { pixelAspect: [64, 45], matrix: 'bt601' },
    within: 1,
  },
  {
    name: 'transport.ts',
    master: eight,
    args: [...x264, '-pix_fmt', 'yuv420p', ...tags709],
    facts: { container: 'mpegts', frameCount: 12 },
    within: 1,
  },
  {
    name: 'timecode-2997.mov',
    args: ['-c:v', 'ffv1', '-pix_fmt', 'yuv422p10le', '-timecode', '01:00:59;28', ...tags709],
    rate: '30000/1001',
    facts: { rateNumerator: 30000, rateDenominator: 1001, startTimecode: '01:00:59;28', variableRate: null },
    within: 1,
  },
]

test.each(variants.map((v) => [v.name, v] as const))('%s', async (name, { master = hd, args, rate, facts, within }) => {
  const shot = await ownShot(encodeMaster(folder(), name, master, args, rate), name)
  expect(shot.media).toMatchObject({
    kind: 'film',
    width: master.width,
    height: master.height,
    frameCount: master.frames,
    variableRate: null,
    ...facts,
  })
  expect(shot).toMatchObject({ firstFrame: 0, frameCount: master.frames })
  for (const index of new Set([0, Math.floor(master.frames / 2), master.frames - 1])) {
    if (index >= master.frames) continue
    const frame = await frameOf(shot, index)
    expect({ index, counter: counterOf(frame) }).toEqual({ index, counter: index })
    const { bitDepth, range, matrix } = shot.media
    const off = barError(frame, master.rgb ? undefined : barsInCodes(bitDepth, range, matrix))
    expect({ index, off: off <= within ? 'within' : off }).toEqual({ index, off: 'within' })
  }
})

test('a turned clip is shown upright', async () => {
  encodeMaster(folder(), 'flat.mov', hd, [...x264, '-pix_fmt', 'yuv422p10le', ...tags709])
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-i',
    join(folder(), 'flat.mov'),
    '-c',
    'copy',
    '-metadata:s:v:0',
    'rotate=270',
    join(folder(), 'turned.mov'),
  ])
  const shot = await ownShot(readFileSync(join(folder(), 'turned.mov')), 'turned.mov')
  expect(shot.media).toMatchObject({ width: 180, height: 320, rotation: 90 })
  const frame = await frameOf(shot, 5)
  // The stored picture's top is at the right, its left at the top.
  expect(counterOf({ ...frame, at: (x, y) => frame.at(1 - y, x) })).toBe(5)
})

test('a variable rate is found, and every frame is still found by its number', async () => {
  encodeMaster(folder(), 'even.mkv', hd, ['-c:v', 'ffv1', '-pix_fmt', 'yuv422p10le'])
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-i',
    join(folder(), 'even.mkv'),
    '-vf',
    "setpts='if(lt(N,6),N,6+(N-6)*2.5)/25/TB'",
    '-fps_mode',
    'vfr',
    '-c:v',
    'ffv1',
    join(folder(), 'uneven.mkv'),
  ])
  const shot = await ownShot(readFileSync(join(folder(), 'uneven.mkv')), 'uneven.mkv')
  expect(shot.media.variableRate).toEqual([8.333, 25])
  for (const index of [0, 5, 6, 7, 11]) expect(counterOf(await frameOf(shot, index))).toBe(index)
})

describe('pictures', () => {
  const extracted = (kind: string, args: readonly string[]): string[] => {
    const place = join(folder(), `pictures-${kind}`)
    mkdirSync(place, { recursive: true })
    encodeMaster(folder(), 'master.mkv', { ...full, rgb: true, frames: 5 }, ['-c:v', 'ffv1', '-pix_fmt', 'gbrp16le'])
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-i',
      join(folder(), 'master.mkv'),
      ...args,
      join(place, `f_%04d.${kind}`),
    ])
    return [1, 2, 3, 4, 5].map((n) => join(place, `f_000${n}.${kind}`))
  }

  test.each([
    ['png', ['-pix_fmt', 'rgb48be'], 16, 0.1],
    ['tif', ['-pix_fmt', 'rgb48le'], 16, 0.1],
    ['dpx', ['-pix_fmt', 'gbrp10le'], 10, 1],
    ['jpg', ['-q:v', '1', '-pix_fmt', 'yuvj444p'], 8, 12],
  ] as const)('a sequence of %s', async (kind, args, bitDepth, within) => {
    const project = await projectNamed('Pictures')
    const shot = await importUploads(project, extracted(kind, args), {
      pictures: true,
      name: `take.${kind}`,
      rate: { numerator: 24, denominator: 1 },
    })
    expect(shot.media).toMatchObject({
      kind: 'pictures',
      frameCount: 5,
      bitDepth,
      rateNumerator: 24,
      range: 'full',
      width: 320,
    })
    for (const index of [0, 3, 4]) {
      const frame = await frameOf(shot, index)
      expect(counterOf(frame)).toBe(index)
      expect(barError(frame)).toBeLessThanOrEqual(within)
    }
  })

  test('floating point holds light: it is read as carried linear, and middle grey is where it belongs', async () => {
    const project = await projectNamed('Light')
    const raw = Buffer.from(Float32Array.from({ length: 64 * 48 * 3 }, (_, i) => (i % 64 < 32 ? 0.18 : 12)).buffer)
    const path = join(folder(), 'light.exr')
    execFileSync(
      'ffmpeg',
      [
        '-v',
        'error',
        '-y',
        '-f',
        'rawvideo',
        '-pix_fmt',
        'gbrpf32le',
        '-s',
        '64x48',
        '-i',
        'pipe:0',
        '-frames:v',
        '1',
        path,
      ],
      { input: raw },
    )
    const shot = await importUploads(project, [path], { pictures: false })
    expect(shot.media).toMatchObject({ kind: 'still', bitDepth: 32, chroma: 'RGB', frameCount: 1 })
    expect(shot.read).toMatchObject({ encodingId: 'acescct', gamutId: 'bt709' })
    const frame = await frameOf(shot, 0)
    expect(frame.at(0.25, 0.5)[0]).toBeCloseTo(0.413588, 4)
    expect(frame.at(0.75, 0.5)[2]).toBeCloseTo((Math.log2(12) + 9.72) / 17.52, 4)
  })

  test('pictures of other sizes, damaged ones and missing numbers are named', async () => {
    const project = await projectNamed('Odd pictures')
    const files = extracted('png', ['-pix_fmt', 'rgb24'])
    execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', files[2]!, '-vf', 'scale=100:50', join(folder(), 'small.png')])
    await expect(
      importUploads(project, [files[0]!, files[1]!, join(folder(), 'small.png')], {
        pictures: true,
        name: 'mixed.png',
      }),
    ).rejects.toThrow(/Picture 3 of "mixed\.png" is 100×50/)
    writeFileSync(join(folder(), 'cut.png'), readFileSync(files[1]!).subarray(0, 400))
    await expect(
      importUploads(project, [files[0]!, join(folder(), 'cut.png')], { pictures: true, name: 'cut.png' }),
    ).rejects.toThrow(/damaged|picture/i)
    expect((await get<{ shots: unknown[] }>(`/projects/${project}/reel`)).shots).toEqual([])
  })
})
