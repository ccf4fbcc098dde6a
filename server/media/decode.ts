// Decodes frames to their own Y'CbCr planes, exactly as stored: no conversion happens outside the core.
import type { MediaFacts } from '@contracts/index'
import { chromaHeight, chromaWidth, type PlaneLayout } from '@core/index'
import { Problem } from '../problem'
import { fileArgument, filesOnly, runChild, startChild } from './child'

export function layoutOf(facts: MediaFacts): PlaneLayout {
  return {
    width: facts.width,
    height: facts.height,
    bitDepth: facts.bitDepth,
    chromaShiftX: facts.chroma === '4:4:4' ? 0 : 1,
    chromaShiftY: facts.chroma === '4:2:0' ? 1 : 0,
  }
}

export function planeBytes(layout: PlaneLayout): number {
  const samples = layout.width * layout.height + 2 * chromaWidth(layout) * chromaHeight(layout)
  return samples * (layout.bitDepth > 8 ? 2 : 1)
}

/** The planes of frame `index`, found by its own presentation time. Throws a Problem when it cannot be decoded. */
export async function decodeFrame(path: string, facts: MediaFacts, frameTimes: readonly number[], index: number): Promise<Buffer> {
  const time = frameTimes[index]
  if (time === undefined) throw new Problem(404, 'no_such_frame', `The clip has frames 0 to ${frameTimes.length - 1}; there is no frame ${index}.`)
  const spacing = index > 0 ? time - (frameTimes[index - 1] ?? 0) : facts.rateDenominator / facts.rateNumerator
  // Half a frame early, so that rounding in the container cannot skip it.
  const seek = index === 0 ? [] : ['-ss', Math.max(0, time - spacing / 2).toFixed(6)]
  const expected = planeBytes(layoutOf(facts))
  const result = await runChild('ffmpeg', [
    '-v', 'error', '-nostdin', '-threads', '1', ...filesOnly, ...seek, '-i', fileArgument(path), '-map', '0:v:0', '-frames:v', '1',
    '-f', 'rawvideo', '-pix_fmt', facts.pixelFormat, 'pipe:1',
  ], { seconds: 30, maxOutputBytes: expected })
  if (result.code !== 0 || result.stdout.length !== expected) throw new Problem(422, 'undecodable_frame', `Frame ${index} cannot be decoded.`, { hint: 'The file may have changed since it was imported.' })
  return result.stdout
}

/** All frames in order as plane buffers. `stop` ends the decoder early. */
export function decodeAll(path: string, facts: MediaFacts): { frames: AsyncGenerator<Buffer>; stop: () => void } {
  const child = startChild('ffmpeg', [
    '-v', 'error', '-nostdin', ...filesOnly, '-i', fileArgument(path), '-map', '0:v:0', '-fps_mode', 'passthrough',
    '-f', 'rawvideo', '-pix_fmt', facts.pixelFormat, 'pipe:1',
  ])
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
