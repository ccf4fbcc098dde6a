// Decodes frames to their own planes, exactly as stored: no conversion happens outside the core.
import { join } from 'node:path'
import type { MediaFacts } from '@contracts/index'
import { planeBytes, type CodeRange, type DecodedPicture, type PlaneLayout } from '@core/index'
import { Problem } from '../problem'
import { decoderLimits, fileArgument, filesOnly, runDecoder, startDecoder } from './child'
import { planarFor } from './formats'

/** The planes as decoded, before the turn that the file asks for. */
export function layoutOf(facts: MediaFacts): PlaneLayout {
  const planar = planarFor(facts.pixelFormat)
  if (!planar) throw new RangeError(`Planes of ${facts.pixelFormat} are not known.`)
  const { model, bitDepth, chromaShiftX, chromaShiftY } = planar, sideways = facts.rotation % 180 !== 0
  return { model, bitDepth, chromaShiftX, chromaShiftY, width: sideways ? facts.height : facts.width, height: sideways ? facts.width : facts.height }
}

/** Decoded planes with all that is needed to understand them; `range` overrides the file's. */
export const decodedPicture = (planes: Uint8Array, facts: MediaFacts, range: CodeRange = facts.range): DecodedPicture => ({ planes, layout: layoutOf(facts), matrix: facts.matrix, range, rotation: facts.rotation })

/** The name of picture `index` of a stored sequence. */
export const pictureName = (index: number, extension: string): string => `${String(index).padStart(8, '0')}.${extension}`

// Fields are taken apart within the frame, so that one frame needs no neighbours.
const filtersFor = ({ interlaced }: MediaFacts): string[] => (interlaced ? ['-vf', `estdif=mode=frame:parity=${interlaced === 'top first' ? 'tff' : 'bff'}:deint=all`] : [])

const planesOut = (facts: MediaFacts): string[] => [...filtersFor(facts), '-f', 'rawvideo', '-pix_fmt', facts.pixelFormat, 'pipe:1']

/** The planes of frame `index`, found by its own presentation time. Throws a Problem when it cannot be decoded. */
export async function decodeFrame(path: string, facts: MediaFacts, frameTimes: readonly number[], index: number): Promise<Buffer> {
  const time = frameTimes[index]
  if (time === undefined) throw new Problem(404, 'no_such_frame', `The clip has frames 0 to ${frameTimes.length - 1}; there is no frame ${index}.`)
  const inPictures = facts.kind === 'pictures'
  const spacing = index > 0 ? time - (frameTimes[index - 1] ?? 0) : facts.rateDenominator / facts.rateNumerator
  // Half a frame early, so that rounding in the container cannot skip it.
  const seek = index === 0 || inPictures ? [] : ['-ss', Math.max(0, time - spacing / 2).toFixed(6)]
  const expected = planeBytes(layoutOf(facts))
  const result = await runDecoder('ffmpeg', [
    '-v', 'error', '-nostdin', '-threads', '1', ...filesOnly, ...decoderLimits, '-noautorotate', ...seek,
    '-i', fileArgument(inPictures ? join(path, pictureName(index, facts.container)) : path), '-map', '0:v:0', '-frames:v', '1', ...planesOut(facts),
  ], { seconds: 60, maxOutputBytes: expected })
  if (result.code !== 0 || result.stdout.length !== expected) throw new Problem(422, 'undecodable_frame', `Frame ${index} cannot be decoded.`, { hint: 'The file may have moved or changed since it was imported.' })
  return result.stdout
}

/** What a decoder is given to read a medium from frame `first` (at `time` seconds) on; `folder` is where it must run. */
export function inputOf(path: string, facts: MediaFacts, first = 0, time = 0): { readonly args: readonly string[]; readonly folder?: string } {
  // Half a frame early, so that rounding in the container cannot skip one.
  const seek = first > 0 ? ['-ss', Math.max(0, time - facts.rateDenominator / facts.rateNumerator / 2).toFixed(6)] : []
  if (facts.kind !== 'pictures') return { args: ['-noautorotate', ...seek, '-i', fileArgument(path)] }
  return { args: ['-f', 'image2', '-framerate', `${facts.rateNumerator}/${facts.rateDenominator}`, '-start_number', String(first), '-i', `%08d.${facts.container}`], folder: path }
}

/** A piece of a medium: its first frame, when that is shown, and how many there are. */
export interface Piece { readonly first: number; readonly time: number; readonly count: number }

/** All frames of a medium, or of a piece, in order as plane buffers. `stop` ends the decoder early. */
export function decodeAll(path: string, facts: MediaFacts, piece?: Piece): { frames: AsyncGenerator<Buffer>; stop: () => void } {
  const { args, folder } = inputOf(path, facts, piece?.first, piece?.time)
  const limit = piece ? ['-frames:v', String(piece.count)] : []
  const child = startDecoder(['-v', 'error', '-nostdin', ...filesOnly, ...decoderLimits, ...args, '-map', '0:v:0', '-fps_mode', 'passthrough', ...limit, ...planesOut(facts)], folder)
  child.stdin.end()
  child.stderr.resume()
  const size = planeBytes(layoutOf(facts))
  async function* frames(): AsyncGenerator<Buffer> {
    let pending: Buffer[] = [], have = 0
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
