// What is measured on a frame once, before any encoding is tried: smoothed samples, shaded pairs, and noise by tone.
import type { Frame } from '../image'

export interface FrameStatistics {
  /** RGB triples of code values of 0..1 as read, averaged over 3×3 pixels, spread over the frame. */
  readonly samples: Float64Array
  /** Pairs of near places that differ in tone and little in code colour: six values each. Likely one surface in two lights. */
  readonly pairs: Float64Array
  readonly noise: readonly NoiseBin[]
  /** Shares of raw pixels with a channel under the legal black, or over the legal white, of a full-range reading. */
  readonly codesLow: number
  readonly codesHigh: number
}

/** Noise of a band of tones: median code, standard deviation, and the number of flat places it was measured on. */
export interface NoiseBin { readonly code: number; readonly deviation: number; readonly places: number }

const samplesWanted = 5000
const pairsWanted = 8000

/** Throws RangeError for pictures too small to say anything. */
export function measureStatistics(frame: Frame): FrameStatistics {
  const { width, height, data, low, high } = frame
  if (width < 24 || height < 24) throw new RangeError(`A picture of at least 24×24 pixels is needed; this one is ${width}×${height}.`)
  const perCode = (high - low) / 65535
  const mean3 = (x: number, y: number, c: number): number => {
    let sum = 0
    for (let dy = -1; dy <= 1; dy++) for (let dx = -1; dx <= 1; dx++) sum += data[((y + dy) * width + x + dx) * 3 + c]!
    return low + (sum / 9) * perCode
  }
  const stride = Math.max(1, Math.sqrt(((width - 2) * (height - 2)) / samplesWanted))
  const samples: number[] = []
  for (let y = 1; y < height - 1; y += stride)
    for (let x = 1; x < width - 1; x += stride) for (let c = 0; c < 3; c++) samples.push(mean3(Math.floor(x), Math.floor(y), c))
  let codesLow = 0, codesHigh = 0
  for (let i = 0; i < data.length; i += 3) {
    const least = low + Math.min(data[i]!, data[i + 1]!, data[i + 2]!) * perCode, most = low + Math.max(data[i]!, data[i + 1]!, data[i + 2]!) * perCode
    if (least < 60 / 1023) codesLow++
    if (most > 944 / 1023) codesHigh++
  }
  const pixels = width * height
  return { samples: Float64Array.from(samples), pairs: shadedPairs(frame, mean3), noise: noiseByTone(frame), codesLow: codesLow / pixels, codesHigh: codesHigh / pixels }
}

function shadedPairs({ width, height }: Frame, mean3: (x: number, y: number, c: number) => number): Float64Array {
  const reach = Math.max(3, Math.round(width / 80))
  const stride = Math.max(1, Math.sqrt((width * height) / pairsWanted / 2))
  const out: number[] = []
  for (let y = 1; y < height - 1 - reach; y += stride)
    for (let x = 1; x < width - 1 - reach; x += stride)
      for (const [dx, dy] of [[reach, 0], [0, reach]] as const) {
        const px = Math.floor(x), py = Math.floor(y)
        const a = [0, 1, 2].map((c) => mean3(px, py, c)), b = [0, 1, 2].map((c) => mean3(px + dx, py + dy, c))
        const moved = a.map((v, c) => b[c]! - v)
        const step = Math.abs(moved[0]! + moved[1]! + moved[2]!) / 3
        const twist = Math.max(...moved) - Math.min(...moved)
        // Neutral surfaces look neutral through any curve; only coloured ones tell.
        const coloured = Math.max(...a) - Math.min(...a) > 0.03 || Math.max(...b) - Math.min(...b) > 0.03
        if (coloured && step > 0.012 && step < 0.15 && twist < step) out.push(...a, ...b)
      }
  return Float64Array.from(out)
}

const blockSide = 8
const bands = 24
const blocksWanted = 9000
const calmShare = 0.06

/**
 * Deviation of the green channel by the diagonal second difference (Immerkær 1996), per block; in each band of tones the
 * calmest few of the blocks stand for the noise, as texture only ever adds.
 */
function noiseByTone({ width, height, data, low, high }: Frame): readonly NoiseBin[] {
  const perCode = (high - low) / 65535
  const blocks: { code: number; deviation: number }[] = []
  const green = (x: number, y: number): number => data[(y * width + x) * 3 + 1]!
  const stride = Math.max(blockSide / 2, Math.ceil(Math.sqrt((width * height) / blocksWanted)))
  for (let top = 0; top + blockSide <= height; top += stride)
    for (let left = 0; left + blockSide <= width; left += stride) {
      let sum = 0, squares = 0, clipped = false
      for (let y = top + 1; y < top + blockSide - 1; y++)
        for (let x = left + 1; x < left + blockSide - 1; x++) {
          const here = green(x, y)
          clipped ||= here === 0 || here === 65535
          sum += here
          const bend = green(x - 1, y - 1) + green(x + 1, y - 1) + green(x - 1, y + 1) + green(x + 1, y + 1) - 2 * (green(x, y - 1) + green(x, y + 1) + green(x - 1, y) + green(x + 1, y)) + 4 * here
          squares += bend * bend
        }
      const count = (blockSide - 2) ** 2
      if (!clipped) blocks.push({ code: low + (sum / count) * perCode, deviation: (Math.sqrt(squares / count) / 6) * perCode })
    }
  blocks.sort((a, b) => a.code - b.code)
  const perBand = Math.max(24, Math.floor(blocks.length / bands))
  const out: NoiseBin[] = []
  for (let from = 0; from + perBand <= blocks.length; from += perBand) {
    const band = blocks.slice(from, from + perBand)
    const calm = band.slice().sort((a, b) => a.deviation - b.deviation).slice(0, Math.max(3, Math.floor(perBand * calmShare)))
    const deviation = calm.reduce((s, b) => s + b.deviation, 0) / calm.length
    const code = calm.reduce((s, b) => s + b.code, 0) / calm.length
    if (deviation > 0) out.push({ code, deviation, places: perBand })
  }
  return out
}
