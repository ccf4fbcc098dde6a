// Finds out what a video file holds, and refuses files that cannot be read to their end.
import type { MediaFacts } from '@contracts/index'
import type { MatrixId } from '@core/index'
import { Problem } from '../problem'
import { fileArgument, filesOnly, runChild } from './child'

export interface Probed { readonly facts: MediaFacts; readonly frameTimes: readonly number[]; readonly transfer: string | undefined }

export const mediaLimits = { maxWidth: 8192, maxHeight: 8192, maxFrames: 500_000 } as const

interface ProbeStream {
  codec_name?: string
  pix_fmt?: string
  width?: number
  height?: number
  nb_frames?: string
  r_frame_rate?: string
  avg_frame_rate?: string
  color_range?: string
  color_space?: string
  color_transfer?: string
}
interface ProbeOutput { streams?: ProbeStream[]; packets?: { pts_time?: string }[]; format?: { start_time?: string } }

const refuse = (message: string, hint = 'Export the clip again from its source and import that.'): Problem => new Problem(422, 'unreadable_media', message, { hint })

const damaged = (name: string, readable: number, promised: number): Problem =>
  refuse(`"${name}" is damaged or ends early: ${readable} of its ${promised} frames can be read.`, 'Copy it again from the card, or export it again.')

/** Reads the container and every packet's time. Throws a Problem with one sentence for files that are not usable video. */
export async function probe(path: string, name: string): Promise<Probed> {
  const result = await runChild('ffprobe', [
    '-v', 'error', ...filesOnly, '-select_streams', 'v:0',
    '-show_entries', 'stream=codec_name,pix_fmt,width,height,nb_frames,r_frame_rate,avg_frame_rate,color_range,color_space,color_transfer:packet=pts_time:format=start_time',
    '-of', 'json', '-i', fileArgument(path),
  ], { seconds: 120, maxOutputBytes: 96 * 1024 * 1024 })
  if (result.stoppedBy) throw refuse(`"${name}" takes too long to look through.`)
  const output = parseJson(result.stdout)
  const stream = output.streams?.[0]
  if (result.code !== 0 || !stream?.width || !stream.height || !stream.pix_fmt) throw refuse(`"${name}" is not a video that can be read.`, 'Check that it is a whole video file and not another kind of file with a video name.')
  if (stream.width > mediaLimits.maxWidth || stream.height > mediaLimits.maxHeight) throw refuse(`"${name}" is ${stream.width}×${stream.height}; pictures up to ${mediaLimits.maxWidth}×${mediaLimits.maxHeight} can be read.`)
  const start = Number(output.format?.start_time ?? 0) || 0
  const frameTimes = (output.packets ?? []).map((p) => Number(p.pts_time) - start).filter(Number.isFinite).sort((a, b) => a - b)
  if (frameTimes.length === 0) throw refuse(`"${name}" holds no frames.`)
  const promised = Number(stream.nb_frames) || 0
  if (promised > frameTimes.length) throw damaged(name, frameTimes.length, promised)
  if (frameTimes.length > mediaLimits.maxFrames) throw refuse(`"${name}" has ${frameTimes.length} frames; up to ${mediaLimits.maxFrames} can be read.`, 'Cut it into shorter files.')
  return { facts: factsOf(stream, frameTimes.length, name), frameTimes, transfer: stream.color_transfer }
}

function parseJson(bytes: Buffer): ProbeOutput {
  try {
    return JSON.parse(bytes.toString('utf8')) as ProbeOutput
  } catch {
    return {}
  }
}

function factsOf(stream: ProbeStream, frameCount: number, name: string): MediaFacts {
  const pixelFormat = stream.pix_fmt ?? ''
  const planar = /^yuv(j?)(420|422|444)p(?:(9|10|12|14|16)le)?$/.exec(pixelFormat)
  if (!planar) throw refuse(`"${name}" stores its picture as ${pixelFormat}; Y'CbCr in 4:2:0, 4:2:2 or 4:4:4 is read.`)
  const [, jpeg, layout, depth] = planar
  const rate = /^(\d+)\/(\d+)$/.exec(stream.avg_frame_rate ?? '') ?? /^(\d+)\/(\d+)$/.exec(stream.r_frame_rate ?? '')
  const numerator = Number(rate?.[1]) || 25, denominator = Number(rate?.[2]) || 1
  return {
    width: stream.width ?? 0,
    height: stream.height ?? 0,
    frameCount,
    rateNumerator: numerator,
    rateDenominator: denominator,
    codec: stream.codec_name ?? 'unknown',
    pixelFormat,
    bitDepth: depth ? Number(depth) : 8,
    chroma: layout === '420' ? '4:2:0' : layout === '422' ? '4:2:2' : '4:4:4',
    range: stream.color_range === 'pc' || jpeg ? 'full' : 'legal',
    rangeTagged: stream.color_range === 'pc' || stream.color_range === 'tv',
    matrix: matrixOf(stream),
    ...(stream.color_transfer && stream.color_transfer !== 'unknown' ? { transfer: stream.color_transfer } : {}),
  }
}

function matrixOf({ color_space: space, height = 0 }: ProbeStream): MatrixId {
  if (space === 'bt2020nc' || space === 'bt2020c') return 'bt2020'
  if (space === 'smpte170m' || space === 'bt470bg') return 'bt601'
  if (space === 'bt709') return 'bt709'
  return height <= 480 ? 'bt601' : 'bt709'
}

/** Decodes the whole file once. Throws a Problem when frames are missing or damaged. */
export async function requireDecodable(path: string, name: string, frameCount: number): Promise<void> {
  const seconds = Math.min(3600, 30 + frameCount / 5)
  const result = await runChild('ffmpeg', [
    '-v', 'error', '-nostdin', ...filesOnly, '-err_detect', 'explode', '-i', fileArgument(path), '-map', '0:v:0', '-f', 'null', '-progress', 'pipe:1', '-',
  ], { seconds, maxOutputBytes: 16 * 1024 * 1024 })
  if (result.stoppedBy) throw refuse(`"${name}" takes too long to decode.`)
  const decoded = Number([...result.stdout.toString('utf8').matchAll(/^frame=\s*(\d+)/gm)].at(-1)?.[1] ?? 0)
  if (result.code !== 0 || result.stderr.trim() !== '' || decoded < frameCount)
    throw damaged(name, Math.min(decoded, frameCount), frameCount)
}
