// The model of the guess and its fitting: a linear score plus a few bent ones, softmax over the candidates of a frame.
import { randomSource } from './scenes'

export interface Model {
  readonly linear: readonly number[]
  /** Per hidden unit: its bias, its weight in the score, and its weights on the features. */
  readonly units: readonly { readonly bias: number; readonly out: number; readonly weights: readonly number[] }[]
}

const hidden = 24
const rounds = 50
const batch = 64
const decay = 1e-3
/** Share of the examples that are shown without the features of noise: compressed clips have none. */
const blindShare = 0.3

/**
 * Examples in one row of numbers: features of each candidate of each example, and a mark for each candidate: `absent`
 * where the file cannot hold it, `right` where it is the answer; finished pictures have several.
 */
export interface ExampleSet {
  readonly features: number
  readonly candidates: number
  readonly rows: Float32Array
  readonly marks: Uint8Array
}
export const mark = { absent: 0, wrong: 1, right: 2 } as const

/** Smaller steps toward the end of teaching. */
function rateAt(share: number): number {
  if (share < 0.5) return 1
  return share < 0.8 ? 0.3 : 0.08
}

/**
 * Cross-entropy of the right candidate, by Adam in small batches; the seed makes it repeatable. `blindFeatures` are
 * those that some examples are shown without.
 */
export function fitModel(set: ExampleSet, among: readonly number[], blindFeatures: readonly number[]): Model {
  const { features, candidates, marks } = set
  const random = randomSource(1)
  const size = features + hidden * (features + 2)
  const unitAt = (k: number): number => features + k * (features + 2)
  const theta = new Float64Array(size)
  const first = new Float64Array(size)
  const second = new Float64Array(size)
  const gradient = new Float64Array(size)
  for (let k = 0; k < hidden; k++) {
    theta[unitAt(k) + 1] = (random() - 0.5) * 0.5
    for (let d = 0; d < features; d++) theta[unitAt(k) + 2 + d] = ((random() - 0.5) * 2) / Math.sqrt(features)
  }
  const bents = new Float64Array(candidates * hidden)
  const scores = new Float64Array(candidates)
  const blinded = new Float32Array(candidates * features)
  const addExample = (example: number, blind: boolean): void => {
    let rows = set.rows
    let start = example * candidates * features
    if (blind) {
      blinded.set(rows.subarray(start, start + blinded.length))
      for (let c = 0; c < candidates; c++) for (const d of blindFeatures) blinded[c * features + d] = 0
      rows = blinded
      start = 0
    }
    for (let c = 0; c < candidates; c++) {
      if (marks[example * candidates + c] === mark.absent) {
        scores[c] = -Infinity
        continue
      }
      const row = start + c * features
      let sum = 0
      for (let d = 0; d < features; d++) sum += theta[d]! * rows[row + d]!
      for (let k = 0; k < hidden; k++) {
        const at = unitAt(k)
        let a = theta[at]!
        for (let d = 0; d < features; d++) a += theta[at + 2 + d]! * rows[row + d]!
        const bent = Math.tanh(a)
        bents[c * hidden + k] = bent
        sum += theta[at + 1]! * bent
      }
      scores[c] = sum
    }
    const shares = softmax(scores)
    const all = rightShare(shares, set, example)
    for (let c = 0; c < candidates; c++) {
      const isRight = marks[example * candidates + c] === mark.right
      const push = shares[c]! - (isRight ? shares[c]! / all : 0)
      const row = start + c * features
      if (Math.abs(push) < 1e-4) continue
      for (let d = 0; d < features; d++) gradient[d]! += push * rows[row + d]!
      for (let k = 0; k < hidden; k++) {
        const at = unitAt(k)
        const bent = bents[c * hidden + k]!
        const inner = push * theta[at + 1]! * (1 - bent * bent)
        gradient[at]! += inner
        gradient[at + 1]! += push * bent
        for (let d = 0; d < features; d++) gradient[at + 2 + d]! += inner * rows[row + d]!
      }
    }
  }
  let step = 0
  for (let round = 0; round < rounds; round++) {
    const order = among.map((example) => ({ example, key: random() })).sort((a, b) => a.key - b.key)
    const rate = 0.006 * rateAt(round / rounds)
    for (let from = 0; from < order.length; from += batch) {
      const part = order.slice(from, from + batch)
      gradient.fill(0)
      for (const { example } of part) addExample(example, random() < blindShare)
      step++
      for (let i = 0; i < size; i++) {
        const g = gradient[i]! / part.length + decay * theta[i]!
        first[i] = 0.9 * first[i]! + 0.1 * g
        second[i] = 0.999 * second[i]! + 0.001 * g * g
        theta[i]! -= (rate * (first[i]! / (1 - 0.9 ** step))) / (Math.sqrt(second[i]! / (1 - 0.999 ** step)) + 1e-8)
      }
    }
  }
  const round5 = (v: number): number => Number(v.toFixed(5))
  return {
    linear: [...theta.subarray(0, features)].map(round5),
    units: Array.from({ length: hidden }, (_, k) => ({
      bias: round5(theta[unitAt(k)]!),
      out: round5(theta[unitAt(k) + 1]!),
      weights: [...theta.subarray(unitAt(k) + 2, unitAt(k) + 2 + features)].map(round5),
    })),
  }
}

export function softmax(scores: Float64Array): Float64Array {
  let most = -Infinity
  let total = 0
  for (const s of scores) if (s > most) most = s
  const shares = scores.map((s) => Math.exp(s - most))
  for (const s of shares) total += s
  return shares.map((s) => s / total)
}

/** What the right candidates have together. */
export function rightShare(shares: Float64Array, { candidates, marks }: ExampleSet, example: number): number {
  let sum = 1e-12
  for (let c = 0; c < candidates; c++) if (marks[example * candidates + c] === mark.right) sum += shares[c]!
  return sum
}

/** The scores of all candidates of one example; −∞ for those that the file cannot hold. */
export function scoresBy(
  { linear, units }: Model,
  { features, candidates, rows, marks }: ExampleSet,
  example: number,
): Float64Array {
  return Float64Array.from({ length: candidates }, (_, c) => {
    if (marks[example * candidates + c] === mark.absent) return -Infinity
    const row = rows.subarray((example * candidates + c) * features, (example * candidates + c + 1) * features)
    return (
      linear.reduce((sum, w, d) => sum + w * row[d]!, 0) +
      units.reduce((sum, u) => sum + u.out * Math.tanh(u.weights.reduce((a, w, d) => a + w * row[d]!, u.bias)), 0)
    )
  })
}

/**
 * The divisor of the scores under which held-back answers are as sure as they are right: least cross-entropy on a fine
 * grid.
 */
export function fitTemperature(
  model: Model,
  set: ExampleSet,
  heldBack: readonly number[],
): { temperature: number; loss: number } {
  const scored = heldBack.map((example) => ({ example, scores: scoresBy(model, set, example) }))
  let best = { temperature: 1, loss: Infinity }
  for (let temperature = 0.6; temperature <= 3; temperature += 0.02) {
    const loss =
      scored.reduce(
        (sum, { example, scores }) =>
          sum - Math.log(rightShare(softmax(scores.map((s) => s / temperature)), set, example)),
        0,
      ) / scored.length
    if (loss < best.loss) best = { temperature: Number(temperature.toFixed(2)), loss }
  }
  return best
}
