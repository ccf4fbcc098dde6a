// The model of the guess and its fitting: a linear score plus a few bent ones, softmax over the candidates of a frame.
import type { Example } from './dataset'
import { randomSource } from './scenes'

export interface Model {
  readonly linear: readonly number[]
  /** Per hidden unit: its bias, its weight in the score, and its weights on the features. */
  readonly units: readonly { readonly bias: number; readonly out: number; readonly weights: readonly number[] }[]
}

const hidden = 12
const rounds = 45
const batch = 48
const decay = 2e-3

/** Cross-entropy of the right candidate, by Adam in small batches; the seed makes it repeatable. */
export function fitModel(examples: readonly Example[], features: number): Model {
  const random = randomSource(1)
  const size = features + hidden * (features + 2)
  const unitAt = (k: number): number => features + k * (features + 2)
  const theta = new Float64Array(size), first = new Float64Array(size), second = new Float64Array(size)
  for (let k = 0; k < hidden; k++) {
    theta[unitAt(k) + 1] = (random() - 0.5) * 0.5
    for (let d = 0; d < features; d++) theta[unitAt(k) + 2 + d] = ((random() - 0.5) * 2) / Math.sqrt(features)
  }
  const score = (row: Float64Array, bent: Float64Array): number => {
    let sum = 0
    for (let d = 0; d < features; d++) sum += theta[d]! * row[d]!
    for (let k = 0; k < hidden; k++) {
      const at = unitAt(k)
      let a = theta[at]!
      for (let d = 0; d < features; d++) a += theta[at + 2 + d]! * row[d]!
      bent[k] = Math.tanh(a)
      sum += theta[at + 1]! * bent[k]!
    }
    return sum
  }
  let step = 0
  for (let round = 0; round < rounds; round++) {
    const order = examples.map((example) => ({ example, key: random() })).sort((a, b) => a.key - b.key)
    const rate = 0.01 * (round < rounds * 0.6 ? 1 : round < rounds * 0.85 ? 0.3 : 0.1)
    for (let from = 0; from < order.length; from += batch) {
      const gradient = new Float64Array(size), part = order.slice(from, from + batch)
      for (const { example: { rows, right } } of part) {
        const bents = rows.map(() => new Float64Array(hidden))
        const shares = softmax(rows.map((r, i) => score(r, bents[i]!)))
        rows.forEach((row, i) => {
          const push = shares[i]! - (i === right ? 1 : 0)
          if (Math.abs(push) < 1e-5) return
          for (let d = 0; d < features; d++) gradient[d]! += push * row[d]!
          for (let k = 0; k < hidden; k++) {
            const at = unitAt(k), bent = bents[i]![k]!, inner = push * theta[at + 1]! * (1 - bent * bent)
            gradient[at]! += inner
            gradient[at + 1]! += push * bent
            for (let d = 0; d < features; d++) gradient[at + 2 + d]! += inner * row[d]!
          }
        })
      }
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
    units: Array.from({ length: hidden }, (_, k) => ({ bias: round5(theta[unitAt(k)]!), out: round5(theta[unitAt(k) + 1]!), weights: [...theta.subarray(unitAt(k) + 2, unitAt(k) + 2 + features)].map(round5) })),
  }
}

export function softmax(scores: readonly number[]): readonly number[] {
  const most = Math.max(...scores), shares = scores.map((s) => Math.exp(s - most)), total = shares.reduce((a, b) => a + b, 0)
  return shares.map((s) => s / total)
}

export const scoreBy = ({ linear, units }: Model, row: Float64Array): number =>
  linear.reduce((sum, w, d) => sum + w * row[d]!, 0) + units.reduce((sum, u) => sum + u.out * Math.tanh(u.weights.reduce((a, w, d) => a + w * row[d]!, u.bias)), 0)

/** The divisor of the scores under which held-back answers are as sure as they are right: least cross-entropy on a fine grid. */
export function fitTemperature(model: Model, heldBack: readonly Example[]): number {
  const scored = heldBack.map(({ rows, right }) => ({ right, scores: rows.map((r) => scoreBy(model, r)) }))
  let best = { temperature: 1, loss: Infinity }
  for (let temperature = 0.6; temperature <= 3; temperature += 0.02) {
    const loss = scored.reduce((sum, { right, scores }) => sum - Math.log(softmax(scores.map((s) => s / temperature))[right]!), 0)
    if (loss < best.loss) best = { temperature, loss }
  }
  return Number(best.temperature.toFixed(2))
}
