// The survey job: one pass through a medium that makes its proxy, measures every frame, finds cuts and proposes lead
// frames.
import { once } from 'node:events'
import type { MediaFacts, ProxyFacts } from '@contracts/index'
import { findCuts, proposeLead, sketch, type Sketch } from '@core/footage'
import { fitWithin, videoHigh, videoLow } from '@core/image'
import type { ServerContext } from '../context'
import { findMedia, keepProxy, keepSurvey } from '../db/media'
import { setProposedLead, undecidedLeads } from '../db/leads'
import { decoderLimits, filesOnly, startYieldingDecoder } from '@media/child'
import { decodeAll, decodedPicture, inputOf } from '@media/decode'
import { decoderLog, loggedDecoder } from '@media/decoder-log'
import { changingSize } from '@media/fault'
import { findBrightestLight, guessAndSettle } from '../services/guess'
import { Problem } from '../problem'
import { runWork, type Progress } from './work'

// A constant quantiser keeps the noise of dark log footage, which a grade lifts: a rate factor spends too little there.
// Without arithmetic coding a frame takes a quarter more bytes and half the time to decode.
const proxyQuality = ['-qp', '13', '-x264-params', 'cabac=0:no-psy=1'] as const
const proxyLimits = { width: 960, height: 540 } as const
const sketchPicture = { width: 160, height: 90 } as const

export async function surveyMedia(context: ServerContext, id: string): Promise<void> {
  await runWork(context, id, async ({ mediaHash, name }, { progress }) => {
    const media = mediaHash === null ? undefined : await findMedia(context.pool, mediaHash)
    if (!media) throw new Problem(404, 'not_found', `"${name}" is no longer there.`)
    const path = context.store.mediaPath(media.hash)
    await context.requireOriginal(media.hash)
    await guessAndSettle(context, { ...media, path })
    const output = context.store.outputPath()
    try {
      const sketches = await analyseFrames(context, { ...media, name, path }, output, progress)
      if (!sketches) return
      await context.requireOriginal(media.hash)
      if (sketches.length !== media.facts.frameCount)
        throw new Problem(
          422,
          'undecodable',
          `Only ${sketches.length} of the ${media.facts.frameCount} frames of "${name}" could be decoded for playback.`,
        )
      await context.store.keepOutput(output, context.store.proxyPath(media.hash))
      await keepProxy(context.pool, media.hash, proxyOf(media.facts))
      const luma = sketches.map((s) => s.luma)
      const sharpness = sketches.map((s) => s.sharpness)
      await keepSurvey(context.pool, media.hash, { luma, sharpness, cuts: findCuts(sketches) })
      for (const shot of await undecidedLeads(context.pool, media.hash))
        await setProposedLead(context.pool, shot.id, proposeLead({ luma, sharpness }, shot.firstFrame, shot.frameCount))
      await findBrightestLight(
        context,
        media,
        sketches.map((s) => s.lights),
      )
    } finally {
      await context.store.discard(output)
    }
  })
}

/** The proxy's size as it is stored: within 960 by 540 once it is turned. */
function proxySize({ width, height, rotation }: MediaFacts): { width: number; height: number } {
  const shown = fitWithin(width, height, proxyLimits.width, proxyLimits.height)
  return rotation % 180 === 0 ? shown : { width: shown.height, height: shown.width }
}

/** Chroma that the original has at every pixel is not thinned out. */
const proxyChroma = ({ chroma }: MediaFacts): ProxyFacts['chroma'] =>
  chroma === '4:4:4' || chroma === 'RGB' ? '4:4:4' : '4:2:2'

const isFloat = ({ bitDepth }: MediaFacts): boolean => bitDepth > 16

export function proxyOf(facts: MediaFacts): ProxyFacts {
  const rgb = facts.chroma === 'RGB' || isFloat(facts)
  // Carried linear light: the proxy's 0 and 1 stand for the ends of what a frame can carry.
  const span = isFloat(facts) ? { low: videoLow, high: videoHigh } : { low: 0, high: 1 }
  return {
    ...proxySize(facts),
    bitDepth: 10,
    chroma: proxyChroma(facts),
    range: rgb ? 'full' : 'source',
    matrix: rgb ? 'bt709' : facts.matrix,
    ...span,
    rotation: isFloat(facts) ? 0 : facts.rotation,
  }
}

/** Undefined when the work was cancelled. */
async function analyseFrames(
  context: ServerContext,
  { facts, name, path }: { readonly facts: MediaFacts; readonly name: string; readonly path: string },
  output: string,
  progress: Progress,
): Promise<readonly Sketch[] | undefined> {
  const throughCore = isFloat(facts)
  const input = throughCore ? rawInput(facts) : inputOf(path, facts)
  const { width, height } = throughCore
    ? fitWithin(facts.width, facts.height, proxyLimits.width, proxyLimits.height)
    : proxySize(facts)
  const rgb = facts.chroma === 'RGB' || throughCore
  const code = facts.range === 'full' ? 'pc' : 'tv'
  // Code values are kept as they are: what they mean is decided when they are read.
  const range = rgb ? 'out_color_matrix=bt709:out_range=pc' : `in_range=${code}:out_range=${code}`
  const fields = facts.interlaced
    ? `estdif=mode=frame:parity=${facts.interlaced === 'top first' ? 'tff' : 'bff'}:deint=all,`
    : ''
  const proxyFilters = [
    `scale=${width}:${height}:flags=area+accurate_rnd+full_chroma_int+full_chroma_inp:${range}`,
    'pad=ceil(iw/2)*2:ih',
    'setsar=1',
    `settb=${facts.rateDenominator}/${facts.rateNumerator}`,
    'setpts=N',
    `format=${proxyChroma(facts) === '4:4:4' ? 'yuv444p10le' : 'yuv422p10le'}`,
  ]
  const sketchRange = rgb ? range : `in_range=${code}:out_range=${code}`
  const sketchFilters = [
    `scale=${sketchPicture.width}:${sketchPicture.height}:flags=area:${sketchRange}`,
    'format=yuv444p',
  ]
  const filters = [
    `[0:v:0]${fields}split[a][b]`,
    `[a]${proxyFilters.join(',')}[p]`,
    `[b]${sketchFilters.join(',')}[s]`,
  ].join(';')
  const child = startYieldingDecoder(
    [
      ...loggedDecoder,
      '-nostdin',
      '-y',
      // Damage ends the pass: a concealed frame is not what was shot.
      ...(throughCore ? [] : [...filesOnly, ...decoderLimits, '-err_detect', 'explode']),
      ...input.args,
      '-filter_complex',
      filters,
      '-map',
      '[p]',
      '-map_metadata',
      '-1',
      '-fps_mode',
      'passthrough',
      '-enc_time_base',
      `${facts.rateDenominator}:${facts.rateNumerator}`,
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-g',
      '1',
      '-bf',
      '0',
      ...proxyQuality,
      '-video_track_timescale',
      String(Math.min(facts.rateNumerator, 1_000_000)),
      '-movflags',
      '+faststart',
      '-f',
      'mp4',
      output,
      '-map',
      '[s]',
      '-fps_mode',
      'passthrough',
      '-f',
      'rawvideo',
      'pipe:1',
    ],
    input.folder,
  )
  const log = decoderLog()
  child.stderr.on('data', (chunk: Buffer) => log.take(chunk.toString('utf8')))
  child.stdin.on('error', () => undefined)
  const closed = once(child, 'close') as Promise<[number | null]>
  closed.catch(() => undefined)
  const feeding = throughCore
    ? feed(context, path, facts, { width, height }, child.stdin)
    : (child.stdin.end(), Promise.resolve())
  feeding.catch(() => child.kill('SIGKILL'))
  const sketches: Sketch[] = []
  const size = sketchPicture.width * sketchPicture.height * 3
  let pending = Buffer.alloc(0)
  try {
    for await (const chunk of child.stdout as AsyncIterable<Buffer>) {
      pending = Buffer.concat([pending, chunk])
      while (pending.length >= size) {
        sketches.push(sketch(pending.subarray(0, size), sketchPicture.width, sketchPicture.height))
        pending = pending.subarray(size)
      }
      if (!(await progress('making the proxy', sketches.length, facts.frameCount))) return undefined
    }
    await feeding
    const [exit] = await closed
    if (log.sizes().length > 1) throw changingSize(name, log.sizes())
    if (exit !== 0) throw new Error(`The proxy could not be made: ${log.faults().at(-1) ?? ''}`)
    return sketches
  } finally {
    child.kill('SIGKILL')
  }
}

const rawInput = (facts: MediaFacts): { readonly args: readonly string[]; readonly folder?: string } => {
  const { width, height } = fitWithin(facts.width, facts.height, proxyLimits.width, proxyLimits.height)
  return {
    args: [
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgb48le',
      '-s',
      `${width}x${height}`,
      '-r',
      `${facts.rateNumerator}/${facts.rateDenominator}`,
      '-i',
      'pipe:0',
    ],
  }
}

/** Floating point goes through the core, as the Bench's own frames do. */
async function feed(
  { workers }: ServerContext,
  path: string,
  facts: MediaFacts,
  size: { width: number; height: number },
  to: NodeJS.WritableStream,
): Promise<void> {
  const decoder = decodeAll(path, facts)
  try {
    for await (const planes of decoder.frames) {
      const frame = await workers.previewFrame({
        source: decodedPicture(planes, facts),
        maxWidth: size.width,
        maxHeight: size.height,
      })
      if (!to.write(Buffer.from(frame.bytes.buffer, frame.bytes.byteOffset, frame.bytes.byteLength)))
        await once(to as NodeJS.EventEmitter & NodeJS.WritableStream, 'drain')
    }
  } finally {
    decoder.stop()
    to.end()
  }
}
