// Clips as cameras and their codecs leave them: light or finished pictures, noise, a curve, a codec, a file.
import { execFileSync } from 'node:child_process'
import { gamutById, gamutToGamut, transformPixels, type TransferCurve } from '@core/colour'
import type { CodeRange } from '@core/image'
import { gaussian, randomSource, type Light } from './scenes'

export type Codec = 'H.264 8 bit' | 'H.264 10 bit' | 'HEVC 8 bit' | 'HEVC 10 bit' | 'all-intra 10 bit'
export const codecs: readonly Codec[] = ['H.264 8 bit', 'H.264 10 bit', 'HEVC 8 bit', 'HEVC 10 bit', 'all-intra 10 bit']

export interface Recording {
  readonly codec: Codec
  /** 0 is the best a camera of its kind writes, 1 the worst. */
  readonly coarseness: number
  readonly range: CodeRange
  /** What the file says of its range; left out where it says nothing. */
  readonly flagged?: CodeRange
  readonly transfer?: string
  readonly primaries?: string
}

const eightBit = (codec: Codec): boolean => codec.endsWith('8 bit')

function encoderOf({ codec, coarseness }: Recording): readonly string[] {
  const rate = Math.round(15 + 12 * coarseness)
  if (codec === 'all-intra 10 bit')
    return ['-c:v', 'prores_ks', '-profile:v', coarseness > 0.5 ? '2' : '3', '-pix_fmt', 'yuv422p10le']
  const tenBit = codec.startsWith('H.264') ? 'yuv422p10le' : 'yuv420p10le'
  const pixels = eightBit(codec) ? 'yuv420p' : tenBit
  return codec.startsWith('H.264')
    ? ['-c:v', 'libx264', '-preset', 'veryfast', '-crf', String(rate), '-pix_fmt', pixels]
    : [
        '-c:v',
        'libx265',
        '-preset',
        'superfast',
        '-crf',
        String(rate),
        '-x265-params',
        'log-level=none',
        '-pix_fmt',
        pixels,
      ]
}

/**
 * Writes frames of signal (RGB triples, 0 and 1 the ends of the range they are written in) as a video file. Values
 * beyond are kept as far as the range has room for them.
 */
export function writeClip(path: string, frames: readonly Light[], recording: Recording): void {
  const [first] = frames
  if (!first) throw new RangeError('A clip needs a frame.')
  const { width, height } = first
  const raw = Buffer.concat(frames.map((frame) => planesOf(frame, recording.range)))
  const { flagged, transfer, primaries } = recording
  // Small pictures that say nothing are taken for standard definition, which has another matrix.
  const said = { full: 'pc', legal: 'tv', nothing: 'unknown' }[flagged ?? 'nothing']
  const tags = [
    ...(transfer ? [`:color_trc=${transfer}`] : []),
    ...(primaries ? [`:color_primaries=${primaries}`] : []),
  ].join('')
  const scale = 'scale=flags=area+accurate_rnd:in_range=pc:out_range=pc'
  const filters = `${scale},setparams=colorspace=bt709:range=${said}${tags}`
  execFileSync(
    'ffmpeg',
    [
      ...['-v', 'error', '-y', '-f', 'rawvideo', '-pix_fmt', 'yuv444p16le', '-s', `${width}x${height}`],
      ...['-r', '24', '-i', 'pipe:0', '-vf', filters],
      ...encoderOf(recording),
      ...(flagged ? ['-color_range', flagged === 'full' ? 'pc' : 'tv'] : []),
      ...(transfer ? ['-color_trc', transfer] : []),
      ...(primaries ? ['-color_primaries', primaries] : []),
      path,
    ],
    { input: raw, maxBuffer: 1 << 28, stdio: ['pipe', 'pipe', 'pipe'] },
  )
}

/** Y'CbCr of BT.709 in 16 bits, as the codes of the range (BT.709-6, items 3.2 to 3.4 and 4.6). */
function planesOf({ width, height, data }: Light, range: CodeRange): Buffer {
  const count = width * height
  const out = new Uint16Array(count * 3)
  const [black, luma, chroma] = range === 'legal' ? [64 / 1023, 876 / 1023, 896 / 1023] : [0, 1, 1]
  const code = (v: number): number => Math.min(65535, Math.max(0, Math.round(v * 65535)))
  for (let p = 0, i = 0; p < count; p++, i += 3) {
    const r = data[i]!
    const g = data[i + 1]!
    const b = data[i + 2]!
    const y = 0.2126 * r + 0.7152 * g + 0.0722 * b
    out[p] = code(black + luma * y)
    out[count + p] = code(512 / 1023 + (chroma * (b - y)) / 1.8556)
    out[2 * count + p] = code(512 / 1023 + (chroma * (r - y)) / 1.5748)
  }
  return Buffer.from(out.buffer)
}

/** A long row of normal deviates, made once: drawing each anew would take most of the time. */
const normals = ((): Float32Array => {
  const random = randomSource(99)
  return Float32Array.from({ length: 2 ** 20 }, () => gaussian(random))
})()

export interface Sensor {
  readonly exposureStops: number
  /** Standard deviation of light at black and at middle grey. */
  readonly noiseBlack: number
  readonly noiseGrey: number
}

/** What a camera makes of light through a curve in a gamut: noisy signal, cut at the ends of what its codes hold. */
export function signalOf(
  { width, height, data: scene }: Light,
  { exposureStops, noiseBlack, noiseGrey }: Sensor,
  { encode }: Pick<TransferCurve, 'encode'>,
  gamutId: string,
  random: () => number,
): Light {
  const data = scene.slice()
  transformPixels(gamutToGamut(gamutById('bt709'), gamutById(gamutId)), data)
  const gain = 2 ** exposureStops
  const black = noiseBlack ** 2
  const perLight = Math.max(0, noiseGrey ** 2 - black) / 0.18
  const start = Math.floor(random() * normals.length)
  for (let i = 0; i < data.length; i++) {
    const x = data[i]! * gain
    const noise = normals[(start + i) & (normals.length - 1)]! * Math.sqrt(black + perLight * Math.max(x, 0))
    data[i] = Math.min(1, Math.max(0, encode(x + noise)))
  }
  return { width, height, data }
}

/** A finished picture as video: its codes as they are, with a little noise of their own. */
export function finishedSignal({ width, height, data }: Light, noise: number, random: () => number): Light {
  const start = Math.floor(random() * normals.length)
  return {
    width,
    height,
    data: data.map((v, i) => Math.min(1, Math.max(0, v + normals[(start + i) & (normals.length - 1)]! * noise))),
  }
}
