// What is measured on a picture or clip once, before any encoding is tried: smoothed samples, shaded pairs, noise by
// tone, and a count of codes.
import { middleOf, type Frame } from '../image'
import { clamp } from '../numbers'
import { countCode, noCodes } from './ceiling'
import { blocksInPlace, blocksInTime, noiseBands, noiseColour, type NoiseBand } from './noise'
import type { Sight } from './sights'

export interface FrameStatistics {
  /** RGB triples of code values of 0..1 as read, averaged over 3×3 pixels, spread over the frames. */
  readonly samples: Float64Array
  /**
   * Pairs of near places that differ in tone and little in code colour: six values each. Likely one surface in two
   * lights.
   */
  readonly pairs: Float64Array
  readonly noise: readonly NoiseBand[]
  /**
   * Whether the noise was told between frames, or by the detail of single ones; spoilt where compression has changed
   * it, so that none is given.
   */
  readonly noiseTold: 'time' | 'place' | 'spoilt'
  /** How white the noise is, 0..1: the whiter, the less compression has changed it. 1 where that cannot be told. */
  readonly noiseWhite: number
  /** Shares of raw pixels with a channel under the legal black, or over the legal white, of a full-range reading. */
  readonly codesLow: number
  readonly codesHigh: number
  /** The lowest channel of the darkest samples: two in a thousand are darker. */
  readonly darkestCode: number
  /** Shares of all raw channel values by 10-bit code, from `countLow` in steps of a code. */
  readonly codeShares: Float64Array
}

/**
 * White noise has a colour of 1 (1.05 to 1.2 with a moving camera); a compressed clip has the more the less of its
 * noise is left. Noise is weighed by this, and none is given where it says more of the encoder than of the curve.
 */
const mostColour = 2.2
const whiteOf = (colour: number): number =>
  Number.isNaN(colour) ? 1 : clamp((mostColour - colour) / (mostColour - 1.1), 0, 1)

const samplesWanted = 3600
const pairsWanted = 3000
/** Pixels whose codes are counted, evenly over all places. */
const countedPixels = 1e6

/** Throws RangeError for no picture at all, and for pictures too small to say anything. */
export function measureStatistics(sights: readonly Sight[]): FrameStatistics {
  if (sights.length === 0) throw new RangeError('At least one picture is needed.')
  for (const {
    frame: { width, height },
  } of sights)
    if (width < 24 || height < 24)
      throw new RangeError(`A picture of at least 24×24 pixels is needed; this one is ${width}×${height}.`)
  const samples: number[] = []
  const pairs: number[] = []
  const codeShares = noCodes()
  let codesLow = 0
  let codesHigh = 0
  let pixels = 0
  for (const { frame } of sights) {
    const { width, height, data, low, high } = frame
    const perCode = (high - low) / 65535
    const stride = Math.max(1, Math.sqrt(((width - 2) * (height - 2)) / (samplesWanted / sights.length)))
    for (let y = 1; y < height - 1; y += stride)
      for (let x = 1; x < width - 1; x += stride)
        for (let c = 0; c < 3; c++) samples.push(mean3(frame, Math.floor(x), Math.floor(y), c))
    shadedPairs(frame, pairsWanted / sights.length, pairs)
    const step = 3 * Math.max(1, Math.floor((width * height * sights.length) / countedPixels))
    for (let i = 0; i < data.length; i += step) {
      pixels++
      const r = low + data[i] * perCode
      const g = low + data[i + 1] * perCode
      const b = low + data[i + 2] * perCode
      if (Math.min(r, g, b) < 60 / 1023) codesLow++
      if (Math.max(r, g, b) > 944 / 1023) codesHigh++
      for (const v of [r, g, b]) countCode(codeShares, v)
    }
  }
  const told = sights.some((s) => s.next) ? 'time' : 'place'
  const blocks = sights.flatMap(({ frame, next }) => {
    const wanted = blocksWanted / sights.length
    if (told === 'place') return blocksInPlace(heart(frame), wanted)
    if (next) return blocksInTime(heart(frame), heart(next), wanted)
    return []
  })
  const noiseWhite = whiteOf(noiseColour(blocks))
  const spoilt = noiseWhite === 0
  return {
    samples: Float64Array.from(samples),
    pairs: Float64Array.from(pairs),
    noise: spoilt ? [] : noiseBands(blocks, told),
    noiseTold: spoilt ? 'spoilt' : told,
    noiseWhite,
    darkestCode: darkestOf(samples),
    codesLow: codesLow / pixels,
    codesHigh: codesHigh / pixels,
    codeShares: codeShares.map((n) => n / (pixels * 3)),
  }
}

/** Noise is the same all over a picture: of large ones the middle says as much. */
const heart = (frame: Frame): Frame => {
  const width = Math.min(frame.width, heartSize.width)
  const height = Math.min(frame.height, heartSize.height)
  return middleOf(frame, width, height)
}
/** Of the frame that follows another no more is needed. */
export const heartSize = { width: 1600, height: 900 } as const
const blocksWanted = 12_000

function darkestOf(samples: readonly number[]): number {
  const least = Float64Array.from({ length: samples.length / 3 }, (_, p) =>
    Math.min(samples[p * 3], samples[p * 3 + 1], samples[p * 3 + 2]),
  ).sort()
  return least[Math.floor(0.002 * least.length)] ?? 0
}

/** Mean code of 3×3 pixels. */
function mean3({ width, data, low, high }: Frame, x: number, y: number, c: number): number {
  let sum = 0
  for (let dy = -1; dy <= 1; dy++) for (let dx = -1; dx <= 1; dx++) sum += data[((y + dy) * width + x + dx) * 3 + c]
  return low + (sum / 9) * ((high - low) / 65535)
}

function shadedPairs(frame: Frame, wanted: number, out: number[]): void {
  const { width, height } = frame
  const reach = Math.max(3, Math.round(width / 80))
  const stride = Math.max(1, Math.sqrt((width * height) / wanted / 2))
  const a = [0, 0, 0]
  const b = [0, 0, 0]
  for (let y = 1; y < height - 1 - reach; y += stride)
    for (let x = 1; x < width - 1 - reach; x += stride)
      for (const [dx, dy] of [
        [reach, 0],
        [0, reach],
      ] as const) {
        const px = Math.floor(x)
        const py = Math.floor(y)
        let sum = 0
        let most = -Infinity
        let least = Infinity
        for (let c = 0; c < 3; c++) {
          a[c] = mean3(frame, px, py, c)
          b[c] = mean3(frame, px + dx, py + dy, c)
          const moved = b[c] - a[c]
          sum += moved
          most = Math.max(most, moved)
          least = Math.min(least, moved)
        }
        const step = Math.abs(sum) / 3
        // Neutral surfaces look neutral through any curve; only coloured ones tell.
        if (step > 0.012 && step < 0.15 && most - least < step && (spreadOf(a) > 0.03 || spreadOf(b) > 0.03))
          out.push(...a, ...b)
      }
}

const spreadOf = ([r = 0, g = 0, b = 0]: readonly number[]): number => Math.max(r, g, b) - Math.min(r, g, b)
