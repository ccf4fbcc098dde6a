// Noise by tone, before any encoding is tried. Between two frames that follow each other what differs in calm places is
// noise alone; a single frame only tells it by its finest detail, where texture mixes in.
import type { Frame } from '../image'
import { moved } from '../regions/homography'
import { pictureMotion } from './picture-motion'

/**
 * Noise of a band of tones: middle code, variance of the green channel in codes of 0..1, and the number of pixels it
 * was measured on.
 */
export interface NoiseBand {
  readonly code: number
  readonly variance: number
  readonly pixels: number
}

/**
 * One small square: its mean code, its noise, and how much structure it shows by a measure that noise itself does not
 * sway.
 */
export interface NoiseBlock {
  readonly code: number
  readonly variance: number
  readonly structure: number
  /**
   * Between frames: the whole variance of the difference over that of its finest detail. 1 is white noise, as a
   * sensor's is.
   */
  readonly colour?: number
}

const side = 8
const blocksWanted = 9000
/** Share of the blocks of a band that are calm enough to be measured, by how the noise is told. */
const calmShare = { time: 0.2, place: 0.3 } as const

const strideOf = ({ width, height }: Frame): number =>
  Math.max(side / 2, Math.ceil(Math.sqrt((width * height) / blocksWanted)))

/**
 * From the difference of two frames that follow each other, by its second difference along both axes (Immerkær 1996):
 * light that changes and edges that move by less than a pixel are smooth in it, noise is not. Structure is the variance
 * of the frames' sum, which is independent of their difference: choosing by it does not make the noise look small.
 * Blocks are taken along with the camera's move, by whole pixels.
 */
export function blocksInTime(a: Frame, b: Frame): readonly NoiseBlock[] {
  if (a.width !== b.width || a.height !== b.height)
    throw new RangeError(`Two frames of one size are needed, not ${a.width}×${a.height} and ${b.width}×${b.height}.`)
  const { width, height, low, high } = a
  const perCode = (high - low) / 65535
  const count = side * side
  const one = a.data
  const two = b.data
  const ends = endsOf(a)
  const out: NoiseBlock[] = []
  const moves = new Float64Array(count)
  const stride = strideOf(a)
  const motion = pictureMotion(a, b)
  for (let top = 0; top + side <= height; top += stride)
    for (let left = 0; left + side <= width; left += stride) {
      const [movedX, movedY] = moved(motion, left + side / 2, top + side / 2)
      const right = Math.round(movedX - left - side / 2)
      const down = Math.round(movedY - top - side / 2)
      if (left + right < 0 || top + down < 0 || left + right + side > width || top + down + side > height) continue
      const away = (down * width + right) * 3
      let sums = 0
      let sumSquares = 0
      let inside = true
      for (let y = 0, k = 0; y < side; y++)
        for (let i = ((top + y) * width + left) * 3 + 1, end = i + side * 3; i < end; i += 3, k++) {
          const v = one[i]
          const w = two[i + away]
          const sum = v + w
          inside &&= v > ends.low && v < ends.high && w > ends.low && w < ends.high
          sums += sum
          sumSquares += sum * sum
          moves[k] = v - w
        }
      if (!inside) continue
      let bends = 0
      let moveSum = 0
      let moveSquares = 0
      for (const move of moves) {
        moveSum += move
        moveSquares += move * move
      }
      for (let y = 1; y < side - 1; y++)
        for (let x = 1, k = y * side + 1; x < side - 1; x++, k++) {
          const bend =
            moves[k - side - 1] +
            moves[k - side + 1] +
            moves[k + side - 1] +
            moves[k + side + 1] -
            2 * (moves[k - side] + moves[k + side] + moves[k - 1] + moves[k + 1]) +
            4 * moves[k]
          bends += bend * bend
        }
      const fine = bends / (side - 2) ** 2 / 36
      out.push({
        code: low + (sums / 2 / count) * perCode,
        variance: (fine / 2) * perCode ** 2,
        structure: sumSquares - (sums * sums) / count,
        colour: fine > 0 ? (moveSquares - (moveSum * moveSum) / count) / (count - 1) / fine : Infinity,
      })
    }
  return out
}

/**
 * The second difference along both axes (Immerkær 1996), which straight shading passes untouched. Structure is what the
 * means of sixteen parts leave beside a plane: coarse detail, to which that difference is blind.
 */
export function blocksInPlace(frame: Frame): readonly NoiseBlock[] {
  const { width, height, data, low, high } = frame
  const perCode = (high - low) / 65535
  const green = (x: number, y: number): number => data[(y * width + x) * 3 + 1]
  const ends = endsOf(frame)
  const out: NoiseBlock[] = []
  const stride = strideOf(frame)
  const parts = new Float64Array(16)
  for (let top = 0; top + side <= height; top += stride)
    for (let left = 0; left + side <= width; left += stride) {
      let sum = 0
      let bends = 0
      let inside = true
      parts.fill(0)
      for (let y = 0; y < side; y++)
        for (let x = 0; x < side; x++) {
          const px = left + x
          const py = top + y
          const here = green(px, py)
          inside &&= here > ends.low && here < ends.high
          sum += here
          parts[(y >> 1) * 4 + (x >> 1)] += here / 4
          if (x === 0 || y === 0 || x === side - 1 || y === side - 1) continue
          const bend =
            green(px - 1, py - 1) +
            green(px + 1, py - 1) +
            green(px - 1, py + 1) +
            green(px + 1, py + 1) -
            2 * (green(px, py - 1) + green(px, py + 1) + green(px - 1, py) + green(px + 1, py)) +
            4 * here
          bends += bend * bend
        }
      if (!inside) continue
      const mean = sum / (side * side)
      let across = 0
      let down = 0
      let rest = 0
      for (let i = 0; i < 16; i++) {
        across += ((i & 3) - 1.5) * parts[i]
        down += ((i >> 2) - 1.5) * parts[i]
      }
      for (let i = 0; i < 16; i++)
        rest += (parts[i] - mean - (((i & 3) - 1.5) * across + ((i >> 2) - 1.5) * down) / 20) ** 2
      out.push({
        code: low + mean * perCode,
        variance: (bends / (side - 2) ** 2 / 36) * perCode ** 2,
        structure: rest + (across ** 2 + down ** 2) / 40,
      })
    }
  return out
}

/** Codes at the very ends of what the channel holds: pixels there may be clipped, and clipped noise is no noise. */
function endsOf({ data, low, high }: Frame): { low: number; high: number } {
  let least = 65535
  let most = 0
  for (let i = 1; i < data.length; i += 3) {
    const v = data[i]
    if (v < least) least = v
    if (v > most) most = v
  }
  const half = (0.5 / 1023 / (high - low)) * 65535
  return { low: least + half, high: most - half }
}

/**
 * The middle of the blocks' noise colour, over the calmer ones: compression takes the finest noise away first, and
 * leaves the more of it the more it had to spare, so that its noise tells of the encoder and not of the curve. NaN
 * where nothing was told between frames.
 */
export function noiseColour(blocks: readonly NoiseBlock[]): number {
  const calm = blocks
    .filter((b) => b.colour !== undefined)
    .sort((a, b) => a.structure - b.structure)
    .slice(0, Math.ceil(blocks.length / 2))
  return calm.map((b) => b.colour ?? NaN).sort((a, b) => a - b)[calm.length >> 1] ?? NaN
}

const bands = 24
const blocksPerBand = 10

/**
 * Blocks gathered in bands of tones, half by their number and half by their distance; in each band the calm ones are
 * averaged, the wildest left out.
 */
export function noiseBands(blocks: readonly NoiseBlock[], told: 'time' | 'place'): readonly NoiseBand[] {
  const sorted = blocks.slice().sort((a, b) => a.code - b.code)
  const first = sorted[0]?.code ?? 0
  const span = Math.max(1e-9, (sorted.at(-1)?.code ?? 0) - first)
  const out: NoiseBand[] = []
  let band: NoiseBlock[] = []
  sorted.forEach((block, i) => {
    band.push(block)
    const share = ((i + 1) / sorted.length + ((sorted[i + 1]?.code ?? first + span) - first) / span) / 2
    if (share * bands < out.length + 1 || band.length < blocksPerBand) return
    const measured = measureBand(band, told)
    if (measured) out.push(measured)
    band = []
  })
  return out
}

function measureBand(band: readonly NoiseBlock[], told: 'time' | 'place'): NoiseBand | undefined {
  const calm = band
    .slice()
    .sort((a, b) => a.structure - b.structure)
    .slice(0, Math.max(4, Math.floor(band.length * calmShare[told])))
  const kept = calm
    .slice()
    .sort((a, b) => a.variance - b.variance)
    .slice(0, Math.max(3, Math.ceil(calm.length * (told === 'time' ? 0.95 : 0.7))))
  const mean = (pick: (b: NoiseBlock) => number): number => kept.reduce((sum, b) => sum + pick(b), 0) / kept.length
  const variance = mean((b) => b.variance)
  return variance > 0 ? { code: mean((b) => b.code), variance, pixels: kept.length * side * side } : undefined
}
