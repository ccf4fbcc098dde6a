// Fitting a table's entries to real colours: straight lines between exact entries cut every bend short; entries moved
// to where the lines lie nearest the curve, over the colours that a picture holds, err less. Nearness is measured as
// the eye sees it, and an entry may lie beyond black or white, so that a line reaches the bound where the picture does
// and not at the next entry.
import { differenceMeasure } from '../colour'
import type { Lut3d } from '../luts'

/**
 * Adds neighbours of each colour: what other frames of the clip will hold. The sequence is fixed, so that the same
 * picture gives the same table.
 */
export function withNeighbours(colours: Float64Array, reach: number): Float64Array {
  const out = new Float64Array(colours.length * 2)
  out.set(colours)
  let state = 1
  for (let i = 0; i < colours.length; i++) {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    out[colours.length + i] = colours[i] + (state / 2147483648 - 1) * reach
  }
  return out
}

/** The four entries and weights of tetrahedral interpolation at each colour. */
interface Corners {
  readonly entries: Uint32Array
  readonly weights: Float32Array
}

function cornersOf({ size, domainMin, domainMax }: Lut3d, colours: Float64Array): Corners {
  const count = colours.length / 3
  const last = size - 1
  const strides = [1, size, size * size]
  const entries = new Uint32Array(count * 4)
  const weights = new Float32Array(count * 4)
  for (let p = 0; p < count; p++) {
    const at = [0, 1, 2].map((c) =>
      Math.min(Math.max(((colours[p * 3 + c] - domainMin[c]) / (domainMax[c] - domainMin[c])) * last, 0), last),
    )
    const cell = at.map((v) => Math.min(Math.floor(v), last - 1))
    const part = at.map((v, c) => v - cell[c])
    const order = [0, 1, 2].sort((a, b) => part[b] - part[a])
    let entry = cell[0] + cell[1] * size + cell[2] * size * size
    let before = 1
    order.forEach((c, k) => {
      entries[p * 4 + k] = entry
      weights[p * 4 + k] = before - part[c]
      before = part[c]
      entry += strides[c]
    })
    entries[p * 4 + 3] = entry
    weights[p * 4 + 3] = before
  }
  return { entries, weights }
}

/**
 * Squared visible difference about each signal as a quadratic form: rr, gg, bb, rg, rb, gb. By finite differences of
 * the measure.
 */
function visibleMetric(wanted: Float64Array, displayId: string): Float32Array {
  const { place, difference } = differenceMeasure(displayId)
  const step = 0.004
  const metric = new Float32Array(wanted.length * 2)
  for (let i = 0; i < wanted.length; i += 3) {
    const colour = [wanted[i], wanted[i + 1], wanted[i + 2]] as const
    const inward = colour.map((v) => (v > 0.5 ? -step : step))
    const from = place(...colour)
    const squared = (...channels: number[]): number => {
      const [r, g, b] = colour.map((v, c) => (channels.includes(c) ? v + inward[c] : v)) as [number, number, number]
      return difference(from, place(r, g, b)) ** 2 / step ** 2
    }
    const rr = squared(0)
    const gg = squared(1)
    const bb = squared(2)
    const cross = (a: number, b: number, aa: number, cc: number): number =>
      ((squared(a, b) - aa - cc) / 2) * Math.sign(inward[a] * inward[b])
    metric.set([rr, gg, bb, cross(0, 1, rr, gg), cross(0, 2, rr, bb), cross(1, 2, gg, bb)], i * 2)
  }
  return metric
}

/** Rounds of weighing anew, and steps of conjugate gradients in each. */
const rounds = 5
const steps = 40
/** What a neighbour counts for beside a colour that is really there. */
const neighbourShare = 0.25
/** How far beyond black and white an entry may lie. */
const beyond = 0.5
/** What holds an entry where it is, against the pull of one colour: entries that few colours touch move little. */
const inertia = 0.02

/**
 * Moves the entries of a table toward the least visible error at `colours`, whose exact results are `wanted` (both RGB
 * triples, the latter display signal 0..1). The second half of the colours are neighbours, which count less. Entries
 * that no colour touches stay. Each round weighs a colour by how wrong it still is, so that the worst are served too
 * (iteratively reweighted least squares; Björck 1996, 4.5.2), and solves by conjugate gradients (Hestenes and Stiefel
 * 1952).
 */
export function fitLut(lut: Lut3d, colours: Float64Array, wanted: Float64Array, displayId: string): Lut3d {
  const corners = cornersOf(lut, colours)
  const metric = visibleMetric(wanted, displayId)
  const data = Float64Array.from(lut.data)
  const values = new Float64Array(wanted.length)
  const weights = new Float64Array(wanted.length / 3).fill(1)
  const free = new Uint8Array(wanted.length)
  for (let round = 0; round < rounds; round++) {
    interpolate(corners, data, values)
    const error = residual(values, wanted, metric, weights, free)
    const pull = new Float64Array(data.length)
    scatter(corners, error, pull)
    solve(corners, metric, weights, free, pull, data)
  }
  return { ...lut, data: Float32Array.from(data, (v) => Math.min(Math.max(v, -beyond), 1 + beyond)) }
}

/**
 * Weighted error of each colour, and which channels are free: one that lies beyond a bound where the bound is wanted is
 * right already.
 */
function residual(
  values: Float64Array,
  wanted: Float64Array,
  metric: Float32Array,
  weights: Float64Array,
  free: Uint8Array,
): Float64Array {
  const error = new Float64Array(values.length)
  for (let i = 0; i < values.length; i++) {
    const right = (wanted[i] <= 0 && values[i] <= 0) || (wanted[i] >= 1 && values[i] >= 1)
    free[i] = right ? 0 : 1
    error[i] = right ? 0 : wanted[i] - values[i]
  }
  for (let p = 0; p < weights.length; p++) {
    const squared = weigh(metric, p, error, 1)
    weights[p] = (p < weights.length / 2 ? 1 : neighbourShare) * (1 + Math.min(squared * 4, 60))
    for (let c = 0; c < 3; c++) error[p * 3 + c] *= weights[p] * free[p * 3 + c]
  }
  return error
}

/** Replaces the colour's three values by metric × values × weight; returns their quadratic form before weighing. */
function weigh(metric: Float32Array, p: number, values: Float64Array, weight: number): number {
  const i = p * 3
  const m = p * 6
  const r = values[i]
  const g = values[i + 1]
  const b = values[i + 2]
  const wr = metric[m] * r + metric[m + 3] * g + metric[m + 4] * b
  const wg = metric[m + 3] * r + metric[m + 1] * g + metric[m + 5] * b
  const wb = metric[m + 4] * r + metric[m + 5] * g + metric[m + 2] * b
  values[i] = wr * weight
  values[i + 1] = wg * weight
  values[i + 2] = wb * weight
  return Math.max(r * wr + g * wg + b * wb, 0)
}

function interpolate({ entries, weights }: Corners, data: Float64Array, out: Float64Array): void {
  for (let p = 0, k = 0; k < entries.length; p += 3, k += 4)
    for (let c = 0; c < 3; c++)
      out[p + c] =
        weights[k] * data[entries[k] * 3 + c] +
        weights[k + 1] * data[entries[k + 1] * 3 + c] +
        weights[k + 2] * data[entries[k + 2] * 3 + c] +
        weights[k + 3] * data[entries[k + 3] * 3 + c]
}

/** The transpose of `interpolate`: adds each colour's values to the entries about it. */
function scatter({ entries, weights }: Corners, values: Float64Array, out: Float64Array): void {
  for (let p = 0, k = 0; k < entries.length; p += 3, k += 4)
    for (let n = k; n < k + 4; n++) for (let c = 0; c < 3; c++) out[entries[n] * 3 + c] += weights[n] * values[p + c]
}

/**
 * Adds the normal equations' product with `data` to `out`: interpolate, weigh what is free, scatter. Most of the time
 * of an export is spent here, so it is one pass without inner loops.
 */
function addNormal(
  { entries, weights: shares }: Corners,
  metric: Float32Array,
  weights: Float64Array,
  free: Uint8Array,
  data: Float64Array,
  out: Float64Array,
): void {
  for (let p = 0, i = 0, k = 0, m = 0; p < weights.length; p++, i += 3, k += 4, m += 6) {
    const a = entries[k] * 3
    const b = entries[k + 1] * 3
    const c = entries[k + 2] * 3
    const d = entries[k + 3] * 3
    const shareA = shares[k]
    const shareB = shares[k + 1]
    const shareC = shares[k + 2]
    const shareD = shares[k + 3]
    const red = free[i] * (shareA * data[a] + shareB * data[b] + shareC * data[c] + shareD * data[d])
    const green =
      free[i + 1] * (shareA * data[a + 1] + shareB * data[b + 1] + shareC * data[c + 1] + shareD * data[d + 1])
    const blue =
      free[i + 2] * (shareA * data[a + 2] + shareB * data[b + 2] + shareC * data[c + 2] + shareD * data[d + 2])
    const weight = weights[p]
    const toRed = free[i] * weight * (metric[m] * red + metric[m + 3] * green + metric[m + 4] * blue)
    const toGreen = free[i + 1] * weight * (metric[m + 3] * red + metric[m + 1] * green + metric[m + 5] * blue)
    const toBlue = free[i + 2] * weight * (metric[m + 4] * red + metric[m + 5] * green + metric[m + 2] * blue)
    out[a] += shareA * toRed
    out[a + 1] += shareA * toGreen
    out[a + 2] += shareA * toBlue
    out[b] += shareB * toRed
    out[b + 1] += shareB * toGreen
    out[b + 2] += shareB * toBlue
    out[c] += shareC * toRed
    out[c + 1] += shareC * toGreen
    out[c + 2] += shareC * toBlue
    out[d] += shareD * toRed
    out[d + 1] += shareD * toGreen
    out[d + 2] += shareD * toBlue
  }
}

/** Conjugate gradients on the normal equations; adds the solution to `data`. */
function solve(
  corners: Corners,
  metric: Float32Array,
  weights: Float64Array,
  free: Uint8Array,
  pull: Float64Array,
  data: Float64Array,
): void {
  const scale = metric.reduce((sum, m, i) => (i % 6 < 3 ? sum + m : sum), 0) / (metric.length / 2)
  const weight = inertia * scale
  const rest = pull
  const direction = pull.slice()
  const product = new Float64Array(data.length)
  let size = dot(rest, rest)
  const enough = size * 1e-8
  for (let step = 0; step < steps && size > enough; step++) {
    for (let i = 0; i < product.length; i++) product[i] = weight * direction[i]
    addNormal(corners, metric, weights, free, direction, product)
    const length = size / dot(direction, product)
    for (let i = 0; i < data.length; i++) {
      data[i] += length * direction[i]
      rest[i] -= length * product[i]
    }
    const next = dot(rest, rest)
    const turn = next / size
    for (let i = 0; i < direction.length; i++) direction[i] = rest[i] + turn * direction[i]
    size = next
  }
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i]
  return sum
}
