// Test clips with known content: a frame counter in blocks at the top, 75 % colour bars below, as exact codes.
import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { lumaWeights, type MatrixId } from '@core/colour'

export const bars = [
  [0.75, 0.75, 0.75],
  [0.75, 0.75, 0],
  [0, 0.75, 0.75],
  [0, 0.75, 0],
  [0.75, 0, 0.75],
  [0.75, 0, 0],
  [0, 0, 0.75],
  [0.1, 0.1, 0.1],
] as const
export const counterBits = 8

/** R'G'B' of a place, x and y in 0..1, of frame n: the counter's blocks (most significant first), then the bars. */
function colourAt(x: number, y: number, n: number): readonly [number, number, number] {
  if (y < 0.5) {
    const bit = (n >> (counterBits - 1 - Math.floor(x * counterBits))) & 1
    return bit ? [0.8, 0.8, 0.8] : [0.2, 0.2, 0.2]
  }
  return bars[Math.min(bars.length - 1, Math.floor(x * bars.length))]!
}

export interface Master {
  readonly width: number
  readonly height: number
  readonly frames: number
  readonly range: 'full' | 'legal'
  readonly matrix: MatrixId
  readonly bitDepth: 8 | 10
  readonly rgb?: boolean
}

/** Raw frames of 4:4:4 Y'CbCr (ffmpeg's yuv444p or yuv444p10le), or of 16-bit R'G'B' (rgb48le). */
export function masterFrames({ width, height, frames, range, matrix, bitDepth, rgb }: Master): Buffer {
  const w = lumaWeights(matrix)
  const pixels = width * height
  const out = rgb || bitDepth > 8 ? new Uint16Array(pixels * 3 * frames) : new Uint8Array(pixels * 3 * frames)
  const unit = 2 ** (bitDepth - 8)
  const top = 2 ** bitDepth - 1
  const legal = range === 'legal'
  const lumaOf = (v: number): number => Math.round(legal ? unit * (16 + v * 219) : v * top)
  const chromaOf = (v: number): number => Math.round(128 * unit + v * (legal ? 224 * unit : top))
  /** The three samples of a colour as they are stored. */
  const samplesOf = ([r, g, b]: readonly [number, number, number]): readonly number[] => {
    if (rgb) return [r, g, b].map((v) => Math.round(v * 65535))
    const luma = w.red * r + w.green * g + w.blue * b
    return [lumaOf(luma), chromaOf((b - luma) / w.cbDivisor), chromaOf((r - luma) / w.crDivisor)]
  }
  for (let n = 0; n < frames; n++) {
    // All rows of the counter are alike, and all rows of the bars.
    const halves = [0.25, 0.75].map((y) =>
      Array.from({ length: width }, (_, x) => samplesOf(colourAt((x + 0.5) / width, y, n))),
    )
    for (let y = 0, i = 0; y < height; y++) {
      const row = halves[(y + 0.5) / height < 0.5 ? 0 : 1]!
      for (let x = 0; x < width; x++, i++)
        for (let c = 0; c < 3; c++) out[n * pixels * 3 + (rgb ? i * 3 + c : i + c * pixels)] = row[x]![c]!
    }
  }
  return Buffer.from(out.buffer)
}

/** Encodes a master with ffmpeg as a camera or an editor would, without any conversion of range or matrix. */
export function encodeMaster(
  folder: string,
  name: string,
  master: Master,
  args: readonly string[],
  rate = '25',
): Buffer {
  const code = master.range === 'full' ? 'pc' : 'tv'
  const path = join(folder, name)
  execFileSync(
    'ffmpeg',
    [
      '-v',
      'error',
      '-y',
      '-f',
      'rawvideo',
      '-pix_fmt',
      master.rgb ? 'rgb48le' : `yuv444p${master.bitDepth === 8 ? '' : '10le'}`,
      '-s',
      `${master.width}x${master.height}`,
      '-r',
      rate,
      '-i',
      'pipe:0',
      ...(master.rgb
        ? []
        : [
            '-vf',
            `scale=in_range=${code}:out_range=${code}:flags=accurate_rnd+full_chroma_int+full_chroma_inp+area`,
            '-color_range',
            code,
          ]),
      ...args,
      path,
    ],
    { input: masterFrames(master), maxBuffer: 1 << 28, env: { ...process.env, SVT_LOG: '1' } },
  )
  return readFileSync(path)
}

export interface RgbFrame {
  readonly width: number
  readonly height: number
  readonly at: (x: number, y: number) => readonly [number, number, number]
}

/** The number in the counter's blocks, read at their middles. */
export const counterOf = ({ at }: RgbFrame): number =>
  Array.from({ length: counterBits }, (_, i) => (at((i + 0.5) / counterBits, 0.25)[1] > 0.5 ? 1 : 0)).reduce<number>(
    (n, bit) => n * 2 + bit,
    0,
  )

/** What the bars are once they were rounded to Y'CbCr codes of a depth (ITU-R BT.709-6, items 3.3 to 4.6). */
export function barsInCodes(
  bitDepth: number,
  range: 'full' | 'legal',
  matrix: MatrixId,
): readonly (readonly [number, number, number])[] {
  const w = lumaWeights(matrix)
  const unit = 2 ** (bitDepth - 8)
  const top = 2 ** bitDepth - 1
  const [lumaSpan, chromaSpan] = range === 'legal' ? [219 * unit, 224 * unit] : [top, top]
  return bars.map(([r, g, b]) => {
    const luma = w.red * r + w.green * g + w.blue * b
    const y = Math.round(luma * lumaSpan) / lumaSpan
    const cb = Math.round(((b - luma) / w.cbDivisor) * chromaSpan) / chromaSpan
    const cr = Math.round(((r - luma) / w.crDivisor) * chromaSpan) / chromaSpan
    const red = y + w.crDivisor * cr
    const blue = y + w.cbDivisor * cb
    return [red, (y - w.red * red - w.blue * blue) / w.green, blue] as const
  })
}

/** The largest distance of any bar's middle from what it should be, in 10-bit codes. */
export const barError = ({ at }: RgbFrame, expected: readonly (readonly [number, number, number])[] = bars): number =>
  Math.max(
    ...expected.flatMap((bar, i) => at((i + 0.5) / bars.length, 0.75).map((v, c) => Math.abs(v - bar[c]!) * 1023)),
  )
