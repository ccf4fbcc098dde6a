// Decodes single frames, each found by its own presentation time. To start a decoder takes about as long as to decode a
// small frame with it, so that several are decoded by one where they are asked for at the same time.
import { join } from 'node:path'
import type { MediaFacts } from '@contracts/index'
import { planeBytes } from '@core/image'
import { decoderLimits, fileArgument, filesOnly, runDecoder, type ChildLimits } from './child'
import { fromTheStart, keySecondsFor, layoutOf, pictureName, planesOut, seekTo } from './decode'
import { MediaFault } from './fault'

/** One frame of a medium. */
export interface FrameAsked {
  readonly path: string
  readonly facts: MediaFacts
  readonly frameTimes: readonly number[]
  readonly index: number
}

const largePicture = 4e6
/** Whether it may be decoded together with others: large pictures take all cores for themselves. */
export const isSmall = ({ facts }: FrameAsked): boolean => facts.width * facts.height <= largePicture

export interface FrameLimits extends Pick<ChildLimits, 'signal' | 'yields'> {
  /** Told of each frame as soon as it is there, while others are still being decoded. */
  readonly onFrame?: (n: number, planes: Buffer) => void
}

/**
 * The planes of each frame. A frame that cannot be decoded is a MediaFault in its place. Throws the signal's reason
 * when it is given up.
 */
export async function decodeFrames(
  asked: readonly FrameAsked[],
  limits: FrameLimits = {},
): Promise<readonly (Buffer | MediaFault)[]> {
  const frames: (Buffer | MediaFault)[] = asked.map(faultOf)
  const decode = async (which: readonly number[]): Promise<void> => {
    const together = which.flatMap((n) => asked[n] ?? [])
    await decodeTogether(together, limits, (i, planes) => {
      const n = which[i] ?? NaN
      frames[n] = planes
      limits.onFrame?.(n, planes)
    })
  }
  const known = [...asked.keys()].filter((n) => asked[n]?.frameTimes[asked[n].index] !== undefined)
  if (known.length > 0) await decode(known)
  // A file that broke off the decoder took others along: each of those has one more try, by itself.
  if (known.length > 1) for (const n of known.filter((one) => frames[one] instanceof MediaFault)) await decode([n])
  return frames
}

/** The planes of one frame. Throws a MediaFault when it cannot be decoded, and the signal's reason if given up. */
export async function decodeFrame(
  path: string,
  facts: MediaFacts,
  frameTimes: readonly number[],
  index: number,
  limits?: Pick<FrameLimits, 'signal' | 'yields'>,
): Promise<Buffer> {
  const frame = { path, facts, frameTimes, index }
  const [planes = faultOf(frame)] = await decodeFrames([frame], limits)
  if (planes instanceof MediaFault) throw planes
  return planes
}

const faultOf = ({ frameTimes, index }: FrameAsked): MediaFault =>
  frameTimes[index] === undefined
    ? new MediaFault('no_such_frame', `The clip has frames 0 to ${frameTimes.length - 1}; there is no frame ${index}.`)
    : new MediaFault(
        'undecodable_frame',
        `Frame ${index} cannot be decoded.`,
        'The file may have moved or changed since it was imported.',
      )

/** Decodes all of them by one decoder, and tells of those that come whole. */
async function decodeTogether(
  asked: readonly FrameAsked[],
  { signal, yields = false }: FrameLimits,
  tell: (n: number, planes: Buffer) => void,
): Promise<void> {
  const parts = asked.map(argumentsFor)
  const bytes = asked.map(({ facts }) => planeBytes(layoutOf(facts)))
  const args = [...parts.flatMap(({ input }) => input), ...parts.flatMap(({ output }) => output)]
  await runDecoder('ffmpeg', ['-v', 'error', '-nostdin', ...args], {
    seconds: 60,
    maxOutputBytes: bytes.reduce((sum, count) => sum + count, 0),
    moreOutputs: asked.length - 1,
    whole: { bytes, tell },
    yields,
    ...(signal ? { signal } : {}),
  })
}

/** What a decoder is given for the frame that is its input and output `n`. */
function argumentsFor(
  { path, facts, frameTimes, index }: FrameAsked,
  n: number,
): { readonly input: readonly string[]; readonly output: readonly string[] } {
  const time = frameTimes[index] ?? 0
  const inPictures = facts.kind === 'pictures'
  const spacing = index > 0 ? time - (frameTimes[index - 1] ?? 0) : 0
  const { input, output, filters } = inPictures
    ? fromTheStart
    : seekTo(time, spacing, facts, keySecondsFor(index, facts, frameTimes))
  return {
    input: [
      // Large pictures take all cores, so that one is there soon; of small ones many are asked for at once.
      '-threads',
      facts.width * facts.height > largePicture ? '0' : '1',
      ...filesOnly,
      ...decoderLimits,
      '-noautorotate',
      ...input,
      '-i',
      fileArgument(inPictures ? join(path, pictureName(index, facts.container)) : path),
    ],
    output: [
      '-map',
      `${n}:v:0`,
      ...output,
      '-fps_mode',
      'passthrough',
      '-frames:v',
      '1',
      // The standard output, then the pipes behind the three standard ones.
      ...planesOut(facts, filters, n === 0 ? 1 : 2 + n),
    ],
  }
}
