// Decodes media to their frames' own planes, exactly as stored: no conversion happens outside the core.
import type { MediaFacts } from '@contracts/index'
import { planeBytes, type CodeRange, type DecodedPicture, type PlaneLayout } from '@core/image'
import { decoderLimits, fileArgument, filesOnly, startDecoder } from './child'
import { planarFor } from './formats'
import { mostKeyFrames } from './probe'

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
const fieldsOf = ({ interlaced }: MediaFacts): string[] =>
  interlaced ? [`estdif=mode=frame:parity=${interlaced === 'top first' ? 'tff' : 'bff'}:deint=all`] : []

export const planesOut = (facts: MediaFacts, leaveOut: readonly string[] = [], pipe = 1): string[] => [
  ...filterOption([...leaveOut, ...fieldsOf(facts)]),
  '-f',
  'rawvideo',
  '-pix_fmt',
  facts.pixelFormat,
  `pipe:${pipe}`,
]

const filterOption = (filters: readonly string[]): string[] => (filters.length > 0 ? ['-vf', filters.join(',')] : [])

interface Seek {
  /** Stands before the input: where decoding begins. */
  readonly input: readonly string[]
  /** Stands after it. */
  readonly output: readonly string[]
  /** Leaves out what comes before the frame. */
  readonly filters: readonly string[]
}
export const fromTheStart: Seek = { input: [], output: [], filters: [] }

/**
 * Finds a frame by its time. From a frame that is known to stand alone decoding begins right there. Otherwise half a
 * frame early, so that rounding in the container cannot skip it, and earlier still where frames are stored in another
 * order than they are shown: which, at a frame that stands alone, decodes all from the one before it.
 */
export function seekTo(time: number, spacing: number, { seekMarginSeconds }: MediaFacts, keySeconds?: number): Seek {
  const wanted = time - spacing / 2
  if (spacing === 0 || wanted <= 0) return fromTheStart
  if (keySeconds !== undefined) {
    const begin = keySeconds + spacing / 4
    return {
      input: ['-noaccurate_seek', '-ss', begin.toFixed(6)],
      output: [],
      filters: [`select=gte(t\\,${(wanted - begin).toFixed(6)})`],
    }
  }
  const begin = Math.max(0, wanted - seekMarginSeconds)
  return {
    input: begin > 0 ? ['-ss', begin.toFixed(6)] : [],
    output: wanted > begin ? ['-ss', (wanted - begin).toFixed(6)] : [],
    filters: [],
  }
}

/** Further from a frame that stands alone, others may do so too that are not known. */
const nearKey = 24
/** Where a margin of a second or more is kept, the container finds frames by time alone, and not these. */
const exactMargin = 1

/** When the frame is shown that stands alone and from which this one is best decoded; undefined where none is known. */
export function keySecondsFor(index: number, facts: MediaFacts, frameTimes: readonly number[]): number | undefined {
  const { keyFrames = [], seekMarginSeconds, kind } = facts
  const key = keyFrames.findLast((k) => k <= index)
  if (kind !== 'film' || key === undefined || key === 0 || seekMarginSeconds >= exactMargin) return undefined
  return keyFrames.length < mostKeyFrames || index - key <= nearKey ? frameTimes[key] : undefined
}

/**
 * What a decoder is given to read a medium from a range's first frame on; `output` stands after it, `folder` is where
 * it must run.
 */
export function inputOf(
  path: string,
  facts: MediaFacts,
  { first, time, keySeconds }: Pick<FrameRange, 'first' | 'time' | 'keySeconds'> = { first: 0, time: 0 },
): {
  readonly args: readonly string[]
  readonly output: readonly string[]
  readonly filters: readonly string[]
  readonly folder?: string
} {
  if (facts.kind !== 'pictures') {
    const spacing = first > 0 ? facts.rateDenominator / facts.rateNumerator : 0
    const { input, output, filters } = seekTo(time, spacing, facts, keySeconds)
    return { args: ['-noautorotate', ...input, '-i', fileArgument(path)], output, filters }
  }
  return {
    output: [],
    filters: [],
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
  /** When the frame is shown that stands alone and that decoding begins with, where it is known. */
  readonly keySeconds?: number
}

/** All frames of a medium, or of a range, in order as plane buffers. `stop` ends the decoder early. */
export function decodeAll(
  path: string,
  facts: MediaFacts,
  range?: FrameRange,
): { frames: AsyncGenerator<Buffer>; stop: () => void } {
  const { args, output, filters, folder } = inputOf(path, facts, range)
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
      ...planesOut(facts, filters),
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
