// Finds out what a media file holds, and refuses files that cannot be read to their end.
import { stat } from 'node:fs/promises'
import { extname } from 'node:path'
import type { MediaFacts } from '@contracts/index'
import type { MatrixId } from '@core/colour'
import type { QuarterTurn } from '@core/image'
import { decoderLimits, fileArgument, filesOnly, runDecoder, type ChildResult } from './child'
import { damagedMedia, unreadableMedia, type MediaFault } from './fault'
import { chromaName, planarFor } from './formats'
import { readPictureHeader, type PictureHeader } from './picture-header'

export interface Probed {
  readonly facts: MediaFacts
  readonly frameTimes: readonly number[]
}

export const mediaLimits = { side: 8192, frames: 500_000 } as const

interface ProbeStream {
  codec_name?: string
  pix_fmt?: string
  width?: number
  height?: number
  nb_frames?: string
  duration?: string
  r_frame_rate?: string
  avg_frame_rate?: string
  sample_aspect_ratio?: string
  field_order?: string
  color_range?: string
  color_space?: string
  color_transfer?: string
  color_primaries?: string
  tags?: Record<string, string>
  side_data_list?: { rotation?: number }[]
}
interface ProbeOutput {
  streams?: ProbeStream[]
  format?: { format_name?: string; start_time?: string; duration?: string; tags?: Record<string, string> }
}

/**
 * Reads the container and every frame's time. Throws a MediaFault with one sentence for files that are not usable
 * video or pictures.
 */
export async function probe(path: string, name: string): Promise<Probed> {
  const given = new AbortController()
  // Of a large file they take long: they are read while the header is, whatever that will say.
  const size = (await stat(path).catch(() => undefined))?.size ?? 0
  const early = size > readAtOnceBytes ? readPackets(path, given.signal) : undefined
  early?.catch(() => undefined)
  try {
    return await probeBeside(path, name, () => early ?? readPackets(path))
  } finally {
    given.abort()
  }
}

const readAtOnceBytes = 64 * 1024 ** 2

async function probeBeside(path: string, name: string, packets: () => Promise<ChildResult>): Promise<Probed> {
  const { stream, output } = await readHeader(path, name)
  const kind = /_pipe$|^image2$/.test(output.format?.format_name ?? '') ? 'still' : 'film'
  const promised = kind === 'still' ? 1 : Number(stream.nb_frames) || 0
  const seconds = Number(stream.duration ?? output.format?.duration) || 0
  const expected = Math.max(promised, Math.round(seconds * ratio(stream.avg_frame_rate)))
  if (expected > mediaLimits.frames) throw tooLong(name, expected)
  const { frameTimes, seekMarginSeconds, keyFrames } =
    kind === 'still' ? { frameTimes: [0], seekMarginSeconds: 0, keyFrames: [] } : timesOf(await packets(), name, output)
  if (frameTimes.length === 0) throw unreadableMedia(`"${name}" holds no frames.`)
  if (promised > frameTimes.length) throw damagedMedia(name, frameTimes.length, promised)
  if (frameTimes.length > mediaLimits.frames) throw tooLong(name, frameTimes.length)
  const facts = factsOf(stream, output, kind, frameTimes, name)
  const header = kind === 'still' ? await readPictureHeader(path) : null
  return { facts: { ...withHeader(facts, header), seekMarginSeconds, keyFrames }, frameTimes }
}

const tooLong = (name: string, frames: number): MediaFault =>
  unreadableMedia(
    `"${name}" has about ${frames} frames; up to ${mediaLimits.frames} can be read.`,
    'Cut it into shorter files.',
  )

const headerEntries = [
  'stream=codec_name,pix_fmt,width,height,nb_frames,duration,r_frame_rate,avg_frame_rate,sample_aspect_ratio,' +
    'field_order,color_range,color_space,color_transfer,color_primaries',
  'stream_tags',
  'stream_side_data=rotation',
  'format=format_name,start_time,duration',
  'format_tags',
].join(':')

async function readHeader(path: string, name: string): Promise<{ stream: ProbeStream; output: ProbeOutput }> {
  const result = await runDecoder(
    'ffprobe',
    [
      '-v',
      'error',
      ...filesOnly,
      ...decoderLimits,
      '-select_streams',
      'v:0',
      '-show_entries',
      headerEntries,
      '-of',
      'json',
      '-i',
      fileArgument(path),
    ],
    { seconds: 60, maxOutputBytes: 4 * 1024 * 1024 },
  )
  if (result.stoppedBy) throw unreadableMedia(`"${name}" takes too long to look through.`)
  const output = parseJson(result.stdout)
  const stream = output.streams?.[0]
  if (stream?.width && stream.height && Math.max(stream.width, stream.height) > mediaLimits.side)
    throw unreadableMedia(
      `"${name}" is ${stream.width}×${stream.height}; pictures up to ` +
        `${mediaLimits.side}×${mediaLimits.side} can be read.`,
    )
  if (result.code !== 0 || !stream?.width || !stream.height || !stream.pix_fmt)
    throw unreadableMedia(
      `"${name}" is not a video or picture that can be read.`,
      'Check that it is a whole file and not another kind of file with a video name.',
    )
  return { stream, output }
}

// These containers are sought by time alone, so a decoder may land between two key frames.
const soughtByTime = /mpegts|^mpeg$/

const readPackets = (path: string, signal?: AbortSignal): Promise<ChildResult> =>
  runDecoder(
    'ffprobe',
    [
      '-v',
      'error',
      ...filesOnly,
      '-select_streams',
      'v:0',
      '-show_entries',
      'packet=pts_time,dts_time,flags',
      '-of',
      'csv=p=0',
      '-i',
      fileArgument(path),
    ],
    { seconds: 180, maxOutputBytes: 64 * 1024 * 1024, ...(signal ? { signal } : {}) },
  )

/**
 * Presentation times in seconds from the start, in order; packets that the container marks as not shown are left out.
 * And how far before a frame decoding must begin: containers seek by decoding time, which runs ahead of presentation
 * where frames are reordered.
 */
function timesOf(
  result: ChildResult,
  name: string,
  { format }: ProbeOutput,
): { frameTimes: number[]; seekMarginSeconds: number; keyFrames: readonly number[] } {
  if (result.stoppedBy) throw unreadableMedia(`"${name}" takes too long to look through.`)
  const start = Number(format?.start_time ?? 0) || 0
  const frameTimes: number[] = []
  const keyTimes: number[] = []
  let ahead = 0
  for (const line of result.stdout.toString('latin1').split('\n')) {
    const [pts = '', dts = '', flags = ''] = line.split(',')
    const shown = Number(pts === 'N/A' || pts === '' ? dts : pts)
    const decoded = Number(dts)
    if (line === '' || !Number.isFinite(shown)) continue
    if (Number.isFinite(decoded)) ahead = Math.max(ahead, shown - decoded)
    if (flags.includes('D')) continue
    frameTimes.push(shown - start)
    if (flags.includes('K')) keyTimes.push(shown)
  }
  keyTimes.sort((a, b) => a - b)
  const keyGap = soughtByTime.test(format?.format_name ?? '')
    ? keyTimes.reduce((gap, t, i) => Math.max(gap, t - (keyTimes[i - 1] ?? t)), 1)
    : 0
  frameTimes.sort((a, b) => a - b)
  const isKey = new Set(keyTimes.map((time) => time - start))
  const alone = frameTimes.flatMap((time, index) => (isKey.has(time) ? [index] : []))
  return { frameTimes, seekMarginSeconds: Math.min(ahead + keyGap, 30), keyFrames: spreadOver(alone) }
}

/** So many are kept at most: a file with fewer has no others. */
export const mostKeyFrames = 9
/** Up to nine of the numbers, spread evenly over them. */
const spreadOver = (all: readonly number[]): readonly number[] =>
  all.length <= mostKeyFrames
    ? all
    : Array.from(
        { length: mostKeyFrames },
        (_, n) => all[Math.round((n * (all.length - 1)) / (mostKeyFrames - 1))] ?? 0,
      )

const mostSaid = 40
const longestSaid = 200
/** What the file says beside what is read already, by its own keys. */
function saidBy({ tags: ofStream = {} }: ProbeStream, { format }: ProbeOutput): NonNullable<MediaFacts['said']> {
  const plain = (text: string): string => text.replace(/\s+/g, ' ').trim().slice(0, longestSaid)
  return [...new Map([...Object.entries(format?.tags ?? {}), ...Object.entries(ofStream)])]
    .map(([key, value]) => [plain(key), plain(value)] as const)
    .filter(([key, value]) => key !== '' && value !== '' && !/^(timecode|duration)$/i.test(key))
    .slice(0, mostSaid)
}

/** Facts with what the picture's own header says, which goes before the prober's reading of it. */
type HeaderFacts = Omit<MediaFacts, 'seekMarginSeconds' | 'keyFrames'>
function withHeader(facts: HeaderFacts, header: PictureHeader | null): HeaderFacts {
  if (!header) return facts
  const { transfer: _, ...others } = facts
  const { transfer, primaries, said } = header
  return {
    ...others,
    ...(transfer ? { transfer } : {}),
    ...(primaries ? { primaries } : {}),
    said: [...said, ...(facts.said ?? [])].slice(0, mostSaid),
  }
}

function parseJson(bytes: Buffer): ProbeOutput {
  try {
    return JSON.parse(bytes.toString('utf8')) as ProbeOutput
  } catch {
    return {}
  }
}

function fraction(text: string | undefined): [number, number] | undefined {
  const match = /^(\d+)[/:](\d+)$/.exec(text ?? '')
  const top = Number(match?.[1])
  const bottom = Number(match?.[2])
  return top > 0 && bottom > 0 ? [top, bottom] : undefined
}
function ratio(text: string | undefined): number {
  const [top, bottom] = fraction(text) ?? [0, 1]
  return top / bottom
}

/** A tag's value, unless the file only says that it does not know. */
const said = (tag: string | undefined): string | undefined =>
  tag === undefined || tag === 'unknown' || tag === 'reserved' || tag === 'unspecified' ? undefined : tag

function factsOf(
  stream: ProbeStream,
  { format }: ProbeOutput,
  kind: 'film' | 'still',
  frameTimes: readonly number[],
  name: string,
): Omit<MediaFacts, 'seekMarginSeconds' | 'keyFrames'> {
  const stored = stream.pix_fmt ?? ''
  const planar = planarFor(stored)
  if (!planar)
    throw unreadableMedia(
      `"${name}" stores its picture as ${stored}; Y'CbCr, RGB and grey samples of 8 to 16 bits and ` +
        'floating point are read.',
    )
  const rotation = turnOf(stream)
  const sideways = rotation % 180 !== 0
  const width = stream.width ?? 0
  const height = stream.height ?? 0
  const aspect = fraction(stream.sample_aspect_ratio) ?? [1, 1]
  const [rateNumerator, rateDenominator] = (kind === 'still'
    ? undefined
    : (fraction(stream.avg_frame_rate) ?? fraction(stream.r_frame_rate))) ?? [24, 1]
  const transfer = said(stream.color_transfer)
  const primaries = said(stream.color_primaries)
  const container =
    kind === 'still'
      ? extname(name).slice(1).toLowerCase() || (stream.codec_name ?? '')
      : ((format?.format_name ?? '').split(',')[0] ?? '')
  return {
    kind,
    width: sideways ? height : width,
    height: sideways ? width : height,
    pixelAspect: sideways ? [aspect[1], aspect[0]] : aspect,
    rotation,
    frameCount: frameTimes.length,
    rateNumerator,
    rateDenominator,
    variableRate: variableRate(frameTimes, rateNumerator / rateDenominator),
    durationSeconds: (frameTimes.at(-1) ?? 0) + rateDenominator / rateNumerator,
    startTimecode: timecodeOf(stream.tags?.['timecode'] ?? format?.tags?.['timecode']),
    container,
    codec: stream.codec_name ?? 'unknown',
    storedFormat: stored,
    pixelFormat: planar.name,
    bitDepth: planar.bitDepth,
    chroma: chromaName(planar),
    interlaced: interlacingOf(stream.field_order),
    range:
      stream.color_range === 'pc' ||
      planar.model === 'rgb' ||
      /^yuvj/.test(stored) ||
      (kind === 'still' && planar.model === 'grey')
        ? 'full'
        : 'legal',
    rangeTagged: stream.color_range === 'pc' || stream.color_range === 'tv',
    matrix: matrixOf(stream),
    matrixTagged: said(stream.color_space) !== undefined,
    ...(transfer ? { transfer } : {}),
    ...(primaries ? { primaries } : {}),
    said: saidBy(stream, { ...(format ? { format } : {}) }),
  }
}

/** The display matrix says how far the picture was turned anticlockwise; only quarter turns are applied. */
function turnOf({ side_data_list: sides }: ProbeStream): QuarterTurn {
  const anticlockwise = sides?.find((s) => s.rotation !== undefined)?.rotation ?? 0
  const turn = (((Math.round(-anticlockwise / 90) * 90) % 360) + 360) % 360
  return turn as QuarterTurn
}

const timecodeOf = (text: string | undefined): string | null =>
  /^\d\d:\d\d:\d\d[:;.]\d\d$/.test(text ?? '') ? (text as string).replace('.', ';') : null

function interlacingOf(order: string | undefined): MediaFacts['interlaced'] {
  if (order === 'tt' || order === 'tb') return 'top first'
  return order === 'bb' || order === 'bt' ? 'bottom first' : null
}

/**
 * Slowest and fastest rate when frames stray from even spacing by more than containers round (1 ms and a tenth of a
 * frame).
 */
export function variableRate(times: readonly number[], rate: number): readonly [number, number] | null {
  if (times.length < 3) return null
  let shortest = Infinity
  let longest = 0
  for (let i = 1; i < times.length; i++) {
    const gap = (times[i] ?? 0) - (times[i - 1] ?? 0)
    shortest = Math.min(shortest, gap)
    longest = Math.max(longest, gap)
  }
  const even = 1 / rate
  const slack = Math.max(0.0021, even * 0.1)
  if (longest - even <= slack && even - shortest <= slack) return null
  return [round(1 / longest), round(1 / Math.max(shortest, 1e-4))]
}
const round = (v: number): number => Math.round(v * 1000) / 1000

/** By the tag; without one, standard definition is BT.601 and all else BT.709. */
function matrixOf({ color_space: space, width = 0, height = 0 }: ProbeStream): MatrixId {
  if (space === 'bt2020nc' || space === 'bt2020c') return 'bt2020'
  if (space === 'smpte170m' || space === 'bt470bg') return 'bt601'
  if (space === 'bt709') return 'bt709'
  return width <= 720 && height <= 576 ? 'bt601' : 'bt709'
}
