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
/** Share of the blocks of a band that are calm enough to be measured, by how the noise is told. */
const calmShare = { time: 0.2, place: 0.3 } as const

const usualBlocks = 9000
const strideOf = ({ width, height }: Frame, wanted: number): number =>
  Math.max(side / 2, Math.ceil(Math.sqrt((width * height) / wanted)))

/** Catmull and Rom's cubic: the weights of four neighbours for a place between the middle two. */
function cubicWeights(f: number): readonly [number, number, number, number] {
  return [
    ((-f + 2) * f - 1) * f * 0.5,
    ((3 * f - 5) * f * f + 2) * 0.5,
    ((-3 * f + 4) * f + 1) * f * 0.5,
    (f - 1) * f * f * 0.5,
  ]
}

/** What interpolating between pixels leaves of white noise, along one axis: its variance, and that of its bends. */
function energyOf(weights: readonly number[]): { readonly whole: number; readonly bends: number } {
  const square = (sum: number, v: number): number => sum + v * v
  const bent = [1, -2, 1].flatMap((k, i) => weights.map((w, j) => ({ at: i + j, value: k * w })))
  const sums = new Float64Array(weights.length + 2)
  for (const { at, value } of bent) sums[at] += value
  return { whole: weights.reduce(square, 0), bends: sums.reduce(square, 0) }
}

/** Shares of a pixel that moves are told apart by. */
const pixelShares = 32
const between = Array.from({ length: pixelShares }, (_, n) => {
  const weights = cubicWeights(n / pixelShares)
  return { weights, ...energyOf(weights) }
})

/**
 * From the difference of two frames that follow each other, by its second difference along both axes (Immerkær 1996):
 * light that changes is smooth in it, noise is not. Structure is the variance of the frames' sum, which is independent
 * of their difference: choosing by it does not make the noise look small. Blocks are taken along with the camera's
 * move, between whole pixels by a cubic; what that takes from the noise is known and made good.
 */
export function blocksInTime(a: Frame, b: Frame, wanted = usualBlocks): readonly NoiseBlock[] {
  if (a.width !== b.width || a.height !== b.height)
    throw new RangeError(`Two frames of one size are needed, not ${a.width}×${a.height} and ${b.width}×${b.height}.`)
  const { width, height, low, high } = a
  const perCode = (high - low) / 65535
  const count = side * side
  const one = a.data
  const ends = endsOf(a)
  const out: NoiseBlock[] = []
  const moves = new Float64Array(count)
  const after = new Float64Array(count)
  const across = new Float64Array(side * (side + 3))
  const stride = strideOf(a, wanted)
  const motion = pictureMotion(a, b)
  for (let top = 0; top + side <= height; top += stride)
    for (let left = 0; left + side <= width; left += stride) {
      const [movedX, movedY] = moved(motion, left + side / 2, top + side / 2)
      const x = Math.round((movedX - side / 2) * pixelShares)
      const y = Math.round((movedY - side / 2) * pixelShares)
      const right = between[((x % pixelShares) + pixelShares) % pixelShares]
      const down = between[((y % pixelShares) + pixelShares) % pixelShares]
      const x0 = Math.floor(x / pixelShares)
      const y0 = Math.floor(y / pixelShares)
      if (x0 < 1 || y0 < 1 || x0 + side + 2 > width || y0 + side + 2 > height) continue
      if (!takeBlock(b, x0, y0, right.weights, down.weights, ends, across, after)) continue
      let sums = 0
      let sumSquares = 0
      let inside = true
      for (let row = 0, k = 0; row < side; row++)
        for (let i = ((top + row) * width + left) * 3 + 1, end = i + side * 3; i < end; i += 3, k++) {
          const v = one[i]
          const w = after[k]
          const sum = v + w
          inside &&= v > ends.low && v < ends.high
          sums += sum
          sumSquares += sum * sum
          moves[k] = v - w
        }
      if (!inside) continue
      const { bends, variance } = measureMoves(moves)
      const fine = bends / (36 + right.bends * down.bends)
      out.push({
        code: low + (sums / 2 / count) * perCode,
        variance: fine * perCode ** 2,
        structure: sumSquares - (sums * sums) / count,
        colour: fine > 0 ? variance / (1 + right.whole * down.whole) / fine : Infinity,
      })
    }
  return out
}

/** A block of green between whole pixels; false where a pixel of it lies at the very ends of what is held. */
function takeBlock(
  { width, data }: Frame,
  x0: number,
  y0: number,
  right: readonly number[],
  down: readonly number[],
  ends: { readonly low: number; readonly high: number },
  across: Float64Array,
  out: Float64Array,
): boolean {
  const [r0, r1, r2, r3] = right as readonly [number, number, number, number]
  const [d0, d1, d2, d3] = down as readonly [number, number, number, number]
  let inside = true
  for (let row = 0, k = 0; row < side + 3; row++)
    for (let i = ((y0 - 1 + row) * width + x0) * 3 + 1, end = i + side * 3; i < end; i += 3, k++) {
      const v = data[i]
      inside &&= v > ends.low && v < ends.high
      across[k] = r0 * data[i - 3] + r1 * v + r2 * data[i + 3] + r3 * data[i + 6]
    }
  for (let k = 0; k < side * side; k++)
    out[k] = d0 * across[k] + d1 * across[k + side] + d2 * across[k + 2 * side] + d3 * across[k + 3 * side]
  return inside
}

/** The mean square of the bends of a block of differences, and the variance of these. */
function measureMoves(moves: Float64Array): { readonly bends: number; readonly variance: number } {
  const count = side * side
  let bends = 0
  let sum = 0
  let squares = 0
  for (const move of moves) {
    sum += move
    squares += move * move
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
  return { bends: bends / (side - 2) ** 2, variance: (squares - (sum * sum) / count) / (count - 1) }
}

/**
 * The second difference along both axes (Immerkær 1996), which straight shading passes untouched. Structure is what the
 * means of sixteen parts leave beside a plane: coarse detail, to which that difference is blind.
 */
export function blocksInPlace(frame: Frame, wanted = usualBlocks): readonly NoiseBlock[] {
  const { width, height, data, low, high } = frame
  const perCode = (high - low) / 65535
  const green = (x: number, y: number): number => data[(y * width + x) * 3 + 1]
  const ends = endsOf(frame)
  const out: NoiseBlock[] = []
  const stride = strideOf(frame, wanted)
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
