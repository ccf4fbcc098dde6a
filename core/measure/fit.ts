// A measured encoding: the lin-log curve that best explains pairs of code and light, by least squares.
import { linLog, middleGrey, type LinLogParameters } from '../colour'

/** One patch: the mean code (0..1 full range), and the scene-linear light it stands for. */
export interface Patch {
  readonly code: number
  readonly linear: number
}

export interface FitResult {
  /** y = a·log10(b·x + c) + d from `cut` up, e·x + f below, joined with equal value and slope. */
  readonly curve: LinLogParameters
  /** Per patch: decoded light over stated light, in stops; code difference where the stated light is not above zero. */
  readonly residualStops: readonly number[]
  readonly rmsStops: number
}

const ln10 = Math.LN10

/** The curve's rise with x in units of a: log above the cut, its tangent below. */
function shape(x: number, offset: number, cut: number): number {
  return x >= cut ? Math.log10(x + offset) : Math.log10(cut + offset) + (x - cut) / ((cut + offset) * ln10)
}

/** Best a and d for a given offset and cut, weighted; and the sum of squares that remains. */
function solveLinear(
  patches: readonly Patch[],
  weights: readonly number[],
  offset: number,
  cut: number,
): { a: number; d: number; squares: number } {
  let w = 0
  let ws = 0
  let wy = 0
  let wss = 0
  let wsy = 0
  patches.forEach(({ code, linear }, i) => {
    const s = shape(linear, offset, cut)
    const weight = weights[i]
    w += weight
    ws += weight * s
    wy += weight * code
    wss += weight * s * s
    wsy += weight * s * code
  })
  const variance = w * wss - ws * ws
  const a = variance > 1e-18 ? (w * wsy - ws * wy) / variance : 0
  const d = (wy - a * ws) / w
  let squares = 0
  patches.forEach(({ code, linear }, i) => {
    squares += weights[i] * (a * shape(linear, offset, cut) + d - code) ** 2
  })
  return { a, d, squares: a > 0 ? squares : Infinity }
}

/**
 * Fits the seven numbers to at least four patches of rising code and light. For each offset and cut the rest is linear
 * least squares, so two numbers are searched on a grid that is made finer around its best: no start value, no local
 * minimum to fall into. Noise is taken as even in code; patches near middle grey weigh more, so that a curve of another
 * family still fits there. Throws RangeError with a sentence for too few, equal, impossible or falling patches.
 */
export function fitLinLog(patches: readonly Patch[]): FitResult {
  const sorted = checkedPatches(patches)
  const weights = sorted.map(({ linear }) => 1 / (1 + (Math.log2(Math.max(linear, 1e-4) / middleGrey) / 2) ** 2))
  const largest = sorted[sorted.length - 1].linear
  const smallest = Math.max(sorted.find((p) => p.linear > 0)?.linear ?? 1e-3, 1e-5)
  // Logs of offset and cut: offsets from far under the darkest patch to a third of the brightest.
  let offsets = { low: Math.log(Math.min(smallest / 50, 1e-3)), high: Math.log(largest / 3) }
  let cuts = { low: Math.log(smallest / 4), high: Math.log(Math.max(largest / 8, smallest)) }
  let best = { offset: 0, cut: 0, a: 0, d: 0, squares: Infinity }
  const steps = 24
  for (let round = 0; round < 7; round++) {
    for (let i = 0; i <= steps; i++)
      for (let j = 0; j <= steps; j++) {
        const offset = Math.exp(offsets.low + ((offsets.high - offsets.low) * i) / steps)
        const cut = Math.exp(cuts.low + ((cuts.high - cuts.low) * j) / steps)
        const { a, d, squares } = solveLinear(sorted, weights, offset, cut)
        if (squares < best.squares) best = { offset, cut, a, d, squares }
      }
    const narrow = (range: { low: number; high: number }, at: number): { low: number; high: number } => {
      const half = (range.high - range.low) / 5
      return { low: at - half, high: at + half }
    }
    offsets = narrow(offsets, Math.log(best.offset))
    cuts = narrow(cuts, Math.log(best.cut))
  }
  if (!Number.isFinite(best.squares)) throw new RangeError('No rising curve explains these patches.')
  const curve = withTangent(best)
  return { curve, ...residuals(curve, patches) }
}

/** The lin-log numbers whose straight part is the tangent at the cut. */
function withTangent({ offset, cut, a, d }: { offset: number; cut: number; a: number; d: number }): LinLogParameters {
  const e = a / ((cut + offset) * ln10)
  return { a, b: 1, c: offset, d, e, f: a * Math.log10(cut + offset) + d - e * cut, cut }
}

function residuals(curve: LinLogParameters, patches: readonly Patch[]): Pick<FitResult, 'residualStops' | 'rmsStops'> {
  const { decode } = linLog(curve)
  const residualStops = patches.map(({ code, linear }) =>
    linear > 0 && decode(code) > 0 ? Math.log2(decode(code) / linear) : decode(code) - linear,
  )
  return { residualStops, rmsStops: Math.sqrt(residualStops.reduce((s, r) => s + r * r, 0) / residualStops.length) }
}

function checkedPatches(patches: readonly Patch[]): readonly Patch[] {
  if (patches.length < 4)
    throw new RangeError(
      `A fit needs at least four patches; ${patches.length} ${patches.length === 1 ? 'is' : 'are'} given.`,
    )
  if (patches.length > 4096) throw new RangeError('A fit takes at most 4096 patches.')
  patches.forEach(({ code, linear }, i) => {
    if (!Number.isFinite(code) || !Number.isFinite(linear))
      throw new RangeError(`Patch ${i + 1} holds something that is not a number.`)
    if (code < -0.2 || code > 1.2)
      throw new RangeError(`Patch ${i + 1} has a code of ${code}; codes are written 0 to 1 of full range.`)
    if (linear < -1 || linear > 1e4)
      throw new RangeError(`Patch ${i + 1} has a light of ${linear}; middle grey is 0.18.`)
  })
  const sorted = [...patches].sort((a, b) => a.linear - b.linear)
  sorted.forEach((p, i) => {
    const before = sorted[i - 1]
    if (!before) return
    if (p.linear === before.linear) throw new RangeError(`Two patches have the same light of ${p.linear}.`)
    // A little noise may turn two near patches round; a curve that falls is another matter.
    if (p.code < before.code - 0.02)
      throw new RangeError(
        `The code falls from ${before.code.toFixed(4)} to ${p.code.toFixed(4)} while the light rises: ` +
          'check the order of the patches.',
      )
  })
  return sorted
}

/**
 * The lin-log curve through black (0), grey (0.18) and white (0.9), straight below a hundredth; null where none goes
 * through them.
 */
export function linLogThrough(black: number, grey: number, white90: number): LinLogParameters | null {
  const cut = 0.01
  // (white − grey) / (grey − black) falls as the offset falls: one offset fits, found by halving.
  const wanted = (white90 - grey) / (grey - black)
  const ratio = (offset: number): number =>
    (shape(0.9, offset, cut) - shape(0.18, offset, cut)) / (shape(0.18, offset, cut) - shape(0, offset, cut))
  let low = 1e-5
  let high = 1e3
  if (!(wanted > ratio(low) && wanted < ratio(high))) return null
  for (let i = 0; i < 200; i++) {
    const middle = Math.sqrt(low * high)
    if (ratio(middle) < wanted) low = middle
    else high = middle
  }
  const a = (white90 - grey) / (shape(0.9, low, cut) - shape(0.18, low, cut))
  return withTangent({ offset: low, cut, a, d: grey - a * shape(0.18, low, cut) })
}
