// Encodes graded frames to an H.264 file with the colour tags of their display.
import { once } from 'node:events'
import type { MediaFacts } from '@contracts/index'
import { displayById } from '@core/colour'
import { startBounded } from './child'

export interface Encoder {
  /** Takes one frame of 16-bit little-endian R'G'B' (display signal). Resolves when more may be sent. */
  readonly write: (frame: Buffer) => Promise<void>
  /** Ends the file. Rejects with what the encoder said when it failed. */
  readonly finish: () => Promise<void>
  readonly stop: () => void
}

// Colour tags and depth by display: primaries, transfer, matrix (ISO/IEC 23091-2 code points by ffmpeg's names).
interface Delivery {
  readonly primaries: string
  readonly transfer: string
  readonly matrix: 'bt709' | 'bt2020nc'
  readonly pixelFormat: 'yuv420p' | 'yuv420p10le'
}

// Tags that are not BT.709's own.
const primariesTags: Readonly<Record<string, Delivery['primaries']>> = { 'p3-d65': 'smpte432', 'p3-dci': 'smpte431' }
const transferTags: Readonly<Record<string, Delivery['transfer']>> = { srgb: 'iec61966-2-1', 'bt709-2.2': 'gamma22' }

function deliveryFor(displayId: string): Delivery {
  const { gamutId, range, systemGamma } = displayById(displayId)
  if (range === 'high')
    return {
      primaries: 'bt2020',
      transfer: systemGamma === undefined ? 'smpte2084' : 'arib-std-b67',
      matrix: 'bt2020nc',
      pixelFormat: 'yuv420p10le',
    }
  return {
    primaries: primariesTags[gamutId] ?? 'bt709',
    transfer: transferTags[displayId] ?? 'bt709',
    matrix: 'bt709',
    pixelFormat: 'yuv420p',
  }
}

export function startEncoder(outputPath: string, facts: MediaFacts, displayId: string): Encoder {
  const { primaries, transfer, matrix, pixelFormat } = deliveryFor(displayId)
  const size = `${facts.width}x${facts.height}`
  // 4:2:0 needs even sides: an odd last row or column is repeated.
  const right = facts.width % 2
  const bottom = facts.height % 2
  const evenSides =
    right + bottom > 0
      ? ['pad=ceil(iw/2)*2:ceil(ih/2)*2:0:0', `fillborders=right=${right}:bottom=${bottom}:mode=smear`]
      : []
  const outMatrix = matrix === 'bt709' ? '709' : '2020_ncl'
  const filters = [
    'format=gbrp16le',
    ...evenSides,
    // The plain scaler makes white 236 of 235; this one is exact.
    `zscale=matrixin=gbr:matrix=${outMatrix}:rangein=full:range=limited:filter=bicubic:dither=ordered`,
    `format=${pixelFormat}`,
    `setsar=${facts.pixelAspect.join('/')}`,
  ]
  const child = startBounded('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-f',
    'rawvideo',
    '-pix_fmt',
    'rgb48le',
    '-s',
    size,
    '-r',
    `${facts.rateNumerator}/${facts.rateDenominator}`,
    '-i',
    'pipe:0',
    '-vf',
    filters.join(','),
    '-c:v',
    'libx264',
    '-preset',
    'medium',
    '-crf',
    '16',
    '-color_primaries',
    primaries,
    '-color_trc',
    transfer,
    '-colorspace',
    matrix,
    '-color_range',
    'tv',
    '-movflags',
    '+faststart',
    '-f',
    'mp4',
    outputPath,
  ])
  let complaint = ''
  child.stderr.on('data', (chunk: Buffer) => {
    if (complaint.length < 4096) complaint += chunk.toString('utf8')
  })
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
