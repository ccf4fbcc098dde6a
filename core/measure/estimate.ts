// A curve that nobody can name, estimated from what a clip itself shows: how curves usually run, and then one fact
// after another that bends the estimate and narrows its band. The maths is Gaussian regression (Rasmussen and Williams
// 2006, section 2.7): the mean and the covariance of known curves stand for what is usual, each fact is one linear
// equation.
import { encodings, middleGrey, type Encoding, type TableEntry } from '../colour'

/** One fact about the curve: codes of 0..1 of full range, stops over middle grey; `unsure` is one deviation. */
export type Fact =
  /** A tone whose light is known: a grey card, a white wall, a tone of a shot by a known camera. */
  | { readonly kind: 'tone'; readonly code: number; readonly stops: number; readonly unsure: number }
  /** Two codes that lie so many stops apart: one surface in two exposures. */
  | {
      readonly kind: 'apart'
      readonly from: number
      readonly to: number
      readonly stops: number
      readonly unsure: number
    }

/** Noise of a band of tones: code, and its variance in codes of 0..1. */
export interface NoiseAt {
  readonly code: number
  readonly variance: number
}

export interface CurveEstimate {
  /** The curve as a rising table of code and scene-linear light, middle grey at 0.18. */
  readonly entries: readonly TableEntry[]
  /** For every entry: half the width of the band that holds the true light nine times in ten, in stops. */
  readonly bandStops: readonly number[]
  /** Whether there was enough noise to go by. */
  readonly noiseUsed: boolean
}

const nodes = 65
const codeOf = (node: number): number => node / (nodes - 1)
/** Stops are counted so that no light at all is a number: log2(light over grey + 2^-floor). */
const floorStops = 8
const floor = 2 ** -floorStops
const heightOf = (lightOverGrey: number): number => Math.log2(Math.max(lightOverGrey, 0) + floor)

/** What known curves leave open: a smooth bend of so many stops, over such a part of the codes. */
const ownBend = 0.8
const ownReach = 0.22
/** Nine in ten of a normal distribution. */
const nineInTen = 1.645

interface State {
  readonly mean: Float64Array
  /** nodes × nodes. */
  readonly covariance: Float64Array
  /** Log of how likely the facts taken in were. */
  evidence: number
}

/** Curves that cameras write flat: logs and low gammas. */
const known = encodings.filter((e) => e.group === 'log' || e.group === 'flat')

/** How curves usually run: the mean and the covariance of `curves`, and a smooth bend of one's own. */
function usual(curves: readonly Encoding[]): State {
  const heights = curves.map(({ curve }) =>
    Float64Array.from({ length: nodes }, (_, k) => heightOf(curve.decode(codeOf(k)) / middleGrey)),
  )
  const mean = Float64Array.from(
    { length: nodes },
    (_, k) => heights.reduce((sum, h) => sum + h[k], 0) / heights.length,
  )
  const covariance = new Float64Array(nodes * nodes)
  for (let a = 0; a < nodes; a++)
    for (let b = 0; b < nodes; b++) {
      const together = heights.reduce((sum, h) => sum + (h[a] - mean[a]) * (h[b] - mean[b]), 0) / (heights.length - 1)
      const bend = ownBend ** 2 * Math.exp(-0.5 * ((codeOf(a) - codeOf(b)) / ownReach) ** 2)
      covariance[a * nodes + b] = together + bend + (a === b ? 1e-6 : 0)
    }
  return { mean, covariance, evidence: 0 }
}

/** Takes in one equation: Σ weight · height(code) = value, give or take `unsure`. */
function learn(state: State, terms: readonly { code: number; weight: number }[], value: number, unsure: number): void {
  const { mean, covariance } = state
  const row = new Float64Array(nodes)
  for (const { code, weight } of terms) {
    const at = Math.min(Math.max(code, 0), 1) * (nodes - 1)
    const k = Math.min(nodes - 2, Math.floor(at))
    row[k] += weight * (1 - (at - k))
    row[k + 1] += weight * (at - k)
  }
  const reach = new Float64Array(nodes)
  let expected = 0
  let spread = unsure ** 2
  for (let a = 0; a < nodes; a++) {
    expected += row[a] * mean[a]
    for (let b = 0; b < nodes; b++) if (row[b] !== 0) reach[a] += covariance[a * nodes + b] * row[b]
  }
  for (let a = 0; a < nodes; a++) spread += row[a] * reach[a]
  const off = value - expected
  for (let a = 0; a < nodes; a++) mean[a] += (reach[a] / spread) * off
  for (let a = 0; a < nodes; a++)
    for (let b = 0; b < nodes; b++) covariance[a * nodes + b] -= (reach[a] * reach[b]) / spread
  state.evidence -= 0.5 * (Math.log(spread) + off ** 2 / spread)
}

function learnFacts(state: State, facts: readonly Fact[]): void {
  for (const fact of facts) {
    if (fact.kind === 'tone') {
      learn(state, [{ code: fact.code, weight: 1 }], heightOf(2 ** fact.stops), fact.unsure)
      continue
    }
    // Near black the floor stands in the way of a difference: what is known there says little.
    const dark = Math.max(0, -4 - heightAt(state, fact.from))
    learn(
      state,
      [
        { code: fact.to, weight: 1 },
        { code: fact.from, weight: -1 },
      ],
      fact.stops,
      fact.unsure + dark * 0.3,
    )
  }
}
function heightAt({ mean }: State, code: number): number {
  const at = Math.min(Math.max(code, 0), 1) * (nodes - 1)
  const k = Math.min(nodes - 2, Math.floor(at))
  return mean[k] + (at - k) * (mean[k + 1] - mean[k])
}

/**
 * Noise in light grows with the root of light and a constant (EMVA 1288 release 4.0, section 2.2), and the curve's
 * slope carries it into codes: so code over noise, summed up from the darkest band, is the root of light and constant,
 * up to a factor and a start. Both are tried; each gives light, and how far it lies apart from band to band.
 */
function noiseWays(noise: readonly NoiseAt[]): readonly (readonly Fact[])[] {
  const sorted = [...noise].sort((a, b) => a.code - b.code).filter((n) => n.variance > 0)
  if (sorted.length < fewestBands) return []
  const sums = [0]
  sorted.slice(1).forEach(({ code, variance }, i) => {
    const before = sorted[i]
    const perCode = 2 / (Math.sqrt(variance) + Math.sqrt(before.variance))
    sums.push(sums[i] + (code - before.code) * perCode)
  })
  const whole = sums.at(-1) ?? 0
  return starts.flatMap((start) =>
    constants.map((constant) => {
      const first = start * whole
      const light = sums.map((s) => (first + s) ** 2 - constant * first ** 2)
      return light.slice(1).map((now, i): Fact => {
        const stops = Math.log2(now / light[i])
        return { kind: 'apart', from: sorted[i].code, to: sorted[i + 1].code, stops, unsure: 0.05 + 0.06 * stops }
      })
    }),
  )
}
const fewestBands = 6
const starts = [0.01, 0.02, 0.04, 0.08, 0.15, 0.3, 0.6, 1.2]
const constants = [0, 0.5, 0.8, 0.9, 0.96, 0.985]

/**
 * Estimates the curve between code and light from facts and from how noise grows over code.
 * @param curves the curves that stand for what is usual
 */
export function estimateCurve(
  facts: readonly Fact[],
  noise: readonly NoiseAt[],
  curves: readonly Encoding[] = known,
): CurveEstimate {
  const given = usual(curves)
  learnFacts(given, facts)
  const ways = noiseWays(noise).map((way) => {
    const state = { mean: given.mean.slice(), covariance: given.covariance.slice(), evidence: 0 }
    learnFacts(state, way)
    return state
  })
  const states = ways.length > 0 ? ways : [given]
  const best = Math.max(...states.map((s) => s.evidence))
  const shares = states.map((s) => Math.exp(s.evidence - best))
  const all = shares.reduce((a, b) => a + b, 0)
  const mean = new Float64Array(nodes)
  const second = new Float64Array(nodes)
  states.forEach((state, i) => {
    const share = shares[i] / all
    for (let k = 0; k < nodes; k++) {
      mean[k] += share * state.mean[k]
      second[k] += share * (state.covariance[k * nodes + k] + state.mean[k] ** 2)
    }
  })
  const rising = risen(mean)
  return {
    entries: rising.map((height, k) => ({ code: codeOf(k), linear: middleGrey * (2 ** height - floor) })),
    bandStops: rising.map((height, k) => {
      const deviation = Math.sqrt(Math.max(0, second[k] - mean[k] ** 2))
      // A stop of height is more stops of light the nearer the floor.
      return nineInTen * deviation * (2 ** height / Math.max(2 ** height - floor, floor / 4))
    }),
    noiseUsed: ways.length > 0,
  }
}

/** The nearest heights that rise: neighbours that fall are put together at their mean, then drawn apart by a hair. */
function risen(heights: Float64Array): number[] {
  const runs: { sum: number; count: number }[] = []
  for (const height of heights) {
    runs.push({ sum: height, count: 1 })
    for (let last = runs.length - 1; last > 0; last = runs.length - 1) {
      const [before, here] = [runs[last - 1], runs[last]]
      if (before.sum / before.count < here.sum / here.count) break
      runs.splice(last - 1, 2, { sum: before.sum + here.sum, count: before.count + here.count })
    }
  }
  return runs.flatMap(({ sum, count }) => Array<number>(count).fill(sum / count)).map((h, k) => h + k * 1e-5)
}

/** Codes of one scene at the same shares of its pixels, in two takes: what lies at an end of either is left out. */
export function matchedTones(
  ours: readonly number[],
  theirs: readonly number[],
): readonly { readonly ours: number; readonly theirs: number }[] {
  if (ours.length !== theirs.length)
    throw new RangeError(`Two takes are told by as many tones, not by ${ours.length} and ${theirs.length}.`)
  const [first, last] = [ours[0] ?? 0, ours.at(-1) ?? 1]
  const inside = (code: number, low: number, high: number): boolean =>
    code > low + 0.02 * (high - low) && code < high - 0.02 * (high - low)
  const [theirFirst, theirLast] = [theirs[0] ?? 0, theirs.at(-1) ?? 1]
  return ours.flatMap((code, i) =>
    inside(code, first, last) && inside(theirs[i], theirFirst, theirLast) ? [{ ours: code, theirs: theirs[i] }] : [],
  )
}

/** Shares of a picture's pixels at which its tones are taken, from dark to bright. */
const toneShares = 33

/** The codes that the shares of a picture lie under. @param codes of any order, at least one */
export function tonesOf(codes: ArrayLike<number>): readonly number[] {
  const sorted = Float64Array.from(codes).sort()
  return Array.from(
    { length: toneShares },
    (_, i) => sorted[Math.round(((i + 0.5) / toneShares) * (sorted.length - 1))] ?? 0,
  )
}
