// Decodes frames to their own planes, exactly as stored: no conversion happens outside the core.
import { join } from 'node:path'
import type { MediaFacts } from '@contracts/index'
import { planeBytes, type CodeRange, type DecodedPicture, type PlaneLayout } from '@core/image'
import { decoderLimits, fileArgument, filesOnly, runDecoder, startDecoder } from './child'
import { MediaFault } from './fault'
import { planarFor } from './formats'

/** The planes as decoded, before the turn that the file asks for. */
export function layoutOf(facts: MediaFacts): PlaneLayout {
  const planar = planarFor(facts.pixelFormat)
  if (!planar) throw new RangeError(`Planes of ${facts.pixelFormat} are not known.`)
  const { model, bitDepth, chromaShiftX, chromaShiftY } = planar
  const sideways = facts.rotation % 180 !== 0
  return {
    model,
    bitDepth,
    chromaShiftX,
    chromaShiftY,
    width: sideways ? facts.height : facts.width,
    height: sideways ? facts.width : facts.height,
  }
}

/** Decoded planes with all that is needed to understand them; `range` overrides the file's. */
export const decodedPicture = (
  planes: Uint8Array,
  facts: MediaFacts,
  range: CodeRange = facts.range,
): DecodedPicture => ({ planes, layout: layoutOf(facts), matrix: facts.matrix, range, rotation: facts.rotation })

/** The name of picture `index` of a stored sequence. */
export const pictureName = (index: number, extension: string): string =>
  `${String(index).padStart(8, '0')}.${extension}`

// Fields are taken apart within the frame, so that one frame needs no neighbours.
const filtersFor = ({ interlaced }: MediaFacts): string[] =>
  interlaced ? ['-vf', `estdif=mode=frame:parity=${interlaced === 'top first' ? 'tff' : 'bff'}:deint=all`] : []

const planesOut = (facts: MediaFacts): string[] => [
  ...filtersFor(facts),
  '-f',
  'rawvideo',
  '-pix_fmt',
  facts.pixelFormat,
  'pipe:1',
]

/**
 * Options that find a frame by its time: before the input, where to begin decoding; after it, what to leave out. Half a
 * frame early, so that rounding in the container cannot skip it; earlier still where frames are stored in another order
 * than they are shown.
 */
function seekTo(
  time: number,
  spacing: number,
  { seekMarginSeconds }: MediaFacts,
): { readonly input: readonly string[]; readonly output: readonly string[] } {
  const wanted = time - spacing / 2
  if (spacing === 0 || wanted <= 0) return { input: [], output: [] }
  const begin = Math.max(0, wanted - seekMarginSeconds)
  return {
    input: begin > 0 ? ['-ss', begin.toFixed(6)] : [],
    output: wanted > begin ? ['-ss', (wanted - begin).toFixed(6)] : [],
  }
}

/** The planes of frame `index`, found by its own presentation time. Throws a MediaFault when it cannot be decoded. */
export async function decodeFrame(
  path: string,
  facts: MediaFacts,
  frameTimes: readonly number[],
  index: number,
): Promise<Buffer> {
  const time = frameTimes[index]
  if (time === undefined)
    throw new MediaFault(
      'no_such_frame',
      `The clip has frames 0 to ${frameTimes.length - 1}; there is no frame ${index}.`,
    )
  const inPictures = facts.kind === 'pictures'
  const spacing = index > 0 ? time - (frameTimes[index - 1] ?? 0) : 0
  const { input, output } = inPictures ? seekTo(0, 0, facts) : seekTo(time, spacing, facts)
  const expected = planeBytes(layoutOf(facts))
  const result = await runDecoder(
    'ffmpeg',
    [
      '-v',
      'error',
      '-nostdin',
      '-threads',
      '1',
      ...filesOnly,
      ...decoderLimits,
      '-noautorotate',
      ...input,
      '-i',
      fileArgument(inPictures ? join(path, pictureName(index, facts.container)) : path),
      '-map',
      '0:v:0',
      ...output,
      '-frames:v',
      '1',
      ...planesOut(facts),
    ],
    { seconds: 60, maxOutputBytes: expected },
  )
  if (result.code !== 0 || result.stdout.length !== expected)
    throw new MediaFault(
      'undecodable_frame',
      `Frame ${index} cannot be decoded.`,
      'The file may have moved or changed since it was imported.',
    )
  return result.stdout
}

/**
 * What a decoder is given to read a medium from a range's first frame on; `output` stands after it, `folder` is where
 * it must run.
 */
export function inputOf(
  path: string,
  facts: MediaFacts,
  { first, time }: Pick<FrameRange, 'first' | 'time'> = { first: 0, time: 0 },
): { readonly args: readonly string[]; readonly output: readonly string[]; readonly folder?: string } {
  if (facts.kind !== 'pictures') {
    const { input, output } = seekTo(time, first > 0 ? facts.rateDenominator / facts.rateNumerator : 0, facts)
    return { args: ['-noautorotate', ...input, '-i', fileArgument(path)], output }
  }
  return {
    output: [],
    args: [
      '-f',
      'image2',
      '-framerate',
      `${facts.rateNumerator}/${facts.rateDenominator}`,
      '-start_number',
      String(first),
      '-i',
      `%08d.${facts.container}`,
    ],
    folder: path,
  }
}

/** A range of frames of a medium: its first frame, when that is shown, and how many there are. */
export interface FrameRange {
  readonly first: number
  readonly time: number
  readonly count: number
}

/** All frames of a medium, or of a range, in order as plane buffers. `stop` ends the decoder early. */
export function decodeAll(
  path: string,
  facts: MediaFacts,
  range?: FrameRange,
): { frames: AsyncGenerator<Buffer>; stop: () => void } {
  const { args, output, folder } = inputOf(path, facts, range)
  const limit = range ? ['-frames:v', String(range.count)] : []
  const child = startDecoder(
    [
      '-v',
      'error',
      '-nostdin',
      ...filesOnly,
      ...decoderLimits,
      ...args,
      '-map',
      '0:v:0',
      ...output,
      '-fps_mode',
      'passthrough',
      ...limit,
      ...planesOut(facts),
    ],
    folder,
  )
  child.stdin.end()
  child.stderr.resume()
  const size = planeBytes(layoutOf(facts))
  async function* frames(): AsyncGenerator<Buffer> {
    let pending: Buffer[] = []
    let have = 0
    for await (const chunk of child.stdout as AsyncIterable<Buffer>) {
      pending.push(chunk)
      have += chunk.length
      if (have < size) continue
      let all = Buffer.concat(pending)
      while (all.length >= size) {
        yield Buffer.from(all.subarray(0, size))
        all = all.subarray(size)
      }
      pending = [all]
      have = all.length
    }
  }
  return { frames: frames(), stop: () => child.kill('SIGKILL') }
}
