// Encodes graded frames to an H.264 file with the colour tags of BT.709.
import { once } from 'node:events'
import type { MediaFacts } from '@contracts/index'
import { startChild } from './child'

export interface Encoder {
  /** Takes one frame of 16-bit little-endian R'G'B' (display signal). Resolves when more may be sent. */
  readonly write: (frame: Buffer) => Promise<void>
  /** Ends the file. Rejects with what the encoder said when it failed. */
  readonly finish: () => Promise<void>
  readonly stop: () => void
}

export function startEncoder(outputPath: string, facts: MediaFacts): Encoder {
  const size = `${facts.width}x${facts.height}`
  // 4:2:0 needs even sides: an odd last row or column is repeated.
  const evenSides = facts.width % 2 || facts.height % 2 ? ',pad=ceil(iw/2)*2:ceil(ih/2)*2:0:0' : ''
  const child = startChild('ffmpeg', [
    '-v', 'error', '-y', '-f', 'rawvideo', '-pix_fmt', 'rgb48le', '-s', size, '-r', `${facts.rateNumerator}/${facts.rateDenominator}`, '-i', 'pipe:0',
    '-vf', `scale=out_color_matrix=bt709:out_range=tv:flags=accurate_rnd+full_chroma_int+bicubic${evenSides},format=yuv420p`,
    '-c:v', 'libx264', '-preset', 'medium', '-crf', '16',
    '-color_primaries', 'bt709', '-color_trc', 'bt709', '-colorspace', 'bt709', '-color_range', 'tv',
    '-movflags', '+faststart', '-f', 'mp4', outputPath,
  ])
  let complaint = ''
  child.stderr.on('data', (chunk: Buffer) => { if (complaint.length < 4096) complaint += chunk.toString('utf8') })
  child.stdout.resume()
  // A write after the encoder died is reported by finish(), with the encoder's own words.
  child.stdin.on('error', () => undefined)
  const closed = once(child, 'close') as Promise<[number | null]>
  closed.catch(() => undefined)
  return {
    write: async (frame) => {
      if (child.exitCode !== null) throw encoderFailure(complaint)
      if (!child.stdin.write(frame)) await Promise.race([once(child.stdin, 'drain'), closed])
    },
    finish: async () => {
      child.stdin.end()
      const [code] = await closed
      if (code !== 0) throw encoderFailure(complaint)
    },
    stop: () => child.kill('SIGKILL'),
  }
}

function encoderFailure(complaint: string): Error {
  if (/No space left/i.test(complaint)) return new Error('The disk is full.')
  return new Error(`The encoder stopped: ${complaint.trim().split('\n').at(-1) ?? 'without a reason'}`)
}
