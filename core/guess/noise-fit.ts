// How well a sensor's noise explains what was measured, once a curve is taken for granted: variance in light is a
// constant (read-out) and a part that grows with light (photons), EMVA 1288 release 4.0 section 2; the curve's slope
// carries it into codes.
import { middleGrey } from '../colour'
import type { CodeRange } from '../image'
import { rereadCode, type Candidate } from './candidates'
import type { NoiseBand } from './noise'

export interface NoiseFit {
  /**
   * Mean squared deviation of measured from explained noise, natural log of variance, each bounded, the worst bands
   * left out; NaN with too few bands.
   */
  readonly misfit: number
  /** Standard deviation of the light at middle grey, and how many times its variance is that at black. */
  readonly atGrey: number
  readonly growth: number
}

const unknown: NoiseFit = { misfit: NaN, atGrey: NaN, growth: NaN }
const fewestBands = 6
/** Variance that rounding to whole codes of 10 or 8 bits adds. */
const roundings = [10, 8].map((bits) => 1 / 12 / (2 ** bits - 1) ** 2)
/** Ratios of growing to constant noise that are tried: thirds of a stop. */
const ratios = [0, ...Array.from({ length: 55 }, (_, i) => 2 ** (-2 + i / 3))]
/** Deviations much over this one count no more than a few times: texture and noise reduction spoil some bands. */
const usual = 0.4
const bounded = (off: number): number => off ** 2 / (1 + (off / usual) ** 2)
/** Share of the bands that count: a flickering lamp or a moving hand spoils a few, through any curve. */
const countedShare = 0.85
/** How far the estimate of a band is off by itself, beside its counting error. */
const ownError = 0.06

export function fitNoise(noise: readonly NoiseBand[], { encoding, range }: Candidate, flagged: CodeRange): NoiseFit {
  if (noise.length < fewestBands) return unknown
  const { decode, encode } = encoding.curve
  const gain = rereadCode(1, range, flagged) - rereadCode(0, range, flagged)
  const n = noise.length
  const light = new Float64Array(n)
  const weight = new Float64Array(n)
  const raw = new Float64Array(n)
  const slopes = new Float64Array(n)
  noise.forEach(({ code, variance, pixels }, i) => {
    const x = decode(rereadCode(code, flagged, range))
    const h = Math.max(1e-4, Math.abs(x) * 0.01)
    slopes[i] = 2 * Math.log(Math.max(((encode(x + h) - encode(x - h)) / (2 * h)) * gain, 1e-6))
    light[i] = Math.max(x, 0)
    weight[i] = 1 / (2 / pixels + ownError ** 2)
    raw[i] = variance
  })
  let best = unknown
  const left = new Float64Array(n)
  const inLight = new Float64Array(n)
  const off = new Float64Array(n)
  const counted = Math.ceil(n * countedShare)
  const meanWeight = weight.reduce((a, b) => a + b, 0) / n
  for (const rounding of roundings) {
    for (let i = 0; i < n; i++) inLight[i] = Math.log(Math.max(raw[i] - rounding, raw[i] * 0.15)) - slopes[i]
    for (const ratio of ratios) {
      for (let i = 0; i < n; i++) left[i] = inLight[i] - Math.log(1 + ratio * light[i])
      const level = robustMean(left, weight)
      for (let i = 0; i < n; i++) off[i] = weight[i] * bounded(left[i] - level)
      off.sort()
      let cost = 0
      for (let i = 0; i < counted; i++) cost += off[i]
      const misfit = cost / counted / meanWeight
      if (!(misfit >= best.misfit))
        best = {
          misfit,
          atGrey: Math.exp(level / 2) * Math.sqrt(1 + ratio * middleGrey),
          growth: 1 + ratio * middleGrey,
        }
    }
  }
  return best
}

/** Weighted mean that far values sway little: from the median, by weights of a bounded loss, a few times. */
function robustMean(values: Float64Array, weight: Float64Array): number {
  let mean = values.slice().sort()[values.length >> 1]
  for (let round = 0; round < 4; round++) {
    let sum = 0
    let total = 0
    for (let i = 0; i < values.length; i++) {
      const w = weight[i] / (1 + ((values[i] - mean) / usual) ** 2) ** 2
      sum += w * values[i]
      total += w
    }
    mean = sum / total
  }
  return mean
}
