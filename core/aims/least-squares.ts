// Bounded least squares for a handful of variables, with a pull toward where one began: Levenberg–Marquardt with an
// active set.
import { CholeskyDecomposition, Matrix } from 'ml-matrix'

export interface Variable {
  readonly start: number
  /** Where the search begins: near the solution, where one is known. */ readonly from?: number
  readonly least: number
  readonly most: number
  /** Changes of this size weigh the same. */ readonly scale: number
}

/**
 * The pull toward the start, against residuals in units of their tolerance: decides only what the residuals leave open.
 */
const pull = 0.01
/** A round that gains less than this, in squared tolerances, is the last. */
const leastGain = 1e-3
/** Cost below which all is as good as met, the pull aside. */
const nearlyMet = 0.1
/** No value moves further than this in one round, in scaled units: slopes say nothing of what lies far away. */
const stride = 1
const probe = 1e-3
const mostRounds = 40

/**
 * The values nearest to their starts, in scaled units, among those that make the residuals least; within their bounds.
 * Deterministic.
 * @param residuals of a list of values; the same length each time
 * @param bounded some residuals are bounds: once inside, only the pull says how far is far enough, so it is followed to
 * its end
 */
export function leastSquares(
  variables: readonly Variable[],
  residuals: (values: readonly number[]) => readonly number[],
  rounds = mostRounds,
  bounded = false,
): readonly number[] {
  if (variables.length === 0) return []
  const clamped = (x: readonly number[]): number[] =>
    x.map((v, j) => Math.min(variables[j].most, Math.max(variables[j].least, v)))
  const cost = (r: readonly number[], x: readonly number[]): number =>
    r.reduce((s, v) => s + v * v, 0) +
    pull * x.reduce((s, v, j) => s + ((v - variables[j].start) / variables[j].scale) ** 2, 0)
  let x = clamped(variables.map((v) => v.from ?? v.start))
  let r = residuals(x)
  let now = cost(r, x)
  let damping = 1e-3
  let columns: readonly (readonly number[])[] = []
  let fresh = false
  for (let round = 0; round < rounds; round++) {
    // The slopes are measured at the start and wherever a step on carried ones failed; else carried along.
    if (columns.length === 0) {
      columns = slopes(x, r)
      fresh = true
    }
    const gradient = columns.map(
      (column, j) =>
        column.reduce((s, v, i) => s + v * r[i], 0) + (pull * (x[j] - variables[j].start)) / variables[j].scale,
    )
    // What stands at a bound and would go beyond it is left where it is.
    const free = variables.flatMap((v, j) =>
      (x[j] <= v.least && gradient[j] > 0) || (x[j] >= v.most && gradient[j] < 0) ? [] : [j],
    )
    if (free.length === 0) break
    const normal = new Matrix(
      free.map((a) => free.map((b) => columns[a].reduce((s, v, i) => s + v * columns[b][i], 0) + (a === b ? pull : 0))),
    )
    for (let k = 0; k < free.length; k++) normal.set(k, k, normal.get(k, k) * (1 + damping) + 1e-9)
    const step = new CholeskyDecomposition(normal).solve(Matrix.columnVector(free.map((j) => -gradient[j])))
    const shorter = Math.min(1, stride / Math.max(1e-12, ...free.map((_, k) => Math.abs(step.get(k, 0)))))
    const next = clamped(
      x.map((v, j) => {
        const k = free.indexOf(j)
        return k < 0 ? v : v + shorter * step.get(k, 0) * variables[j].scale
      }),
    )
    const nextResiduals = residuals(next)
    const then = cost(nextResiduals, next)
    const gain = now - then
    if (gain > 0) {
      columns = carried(
        columns,
        variables.map((v, j) => (next[j] - x[j]) / v.scale),
        nextResiduals.map((v, i) => v - r[i]),
      )
      const done = gain < Math.max(leastGain, 1e-4 * now)
      ;[x, r, now] = [next, nextResiduals, then]
      damping = Math.max(1e-9, damping / 8)
      // With hardly anything left to gain, carried slopes are good enough to end on.
      if (done && (fresh || (now < nearlyMet && !bounded))) break
      if (done) columns = []
      fresh = false
    } else if (fresh) {
      damping *= 10
      if (damping > 1e6) break
    } else columns = []
  }
  return x

  /** Forward differences, in scaled units; backward at an upper bound. */
  function slopes(at: readonly number[], is: readonly number[]): readonly (readonly number[])[] {
    return variables.map(({ most, scale }, j) => {
      const by = at[j] + probe * scale > most ? -probe : probe
      return residuals(at.map((v, k) => (k === j ? v + by * scale : v))).map((v, i) => (v - is[i]) / by)
    })
  }
}

/** Slopes carried along a step (Broyden 1965, the first method): they agree with the step that was just made. */
function carried(
  columns: readonly (readonly number[])[],
  step: readonly number[],
  change: readonly number[],
): readonly (readonly number[])[] {
  const length = step.reduce((s, v) => s + v * v, 0)
  if (length < 1e-24) return columns
  const missed = change.map((v, i) => v - columns.reduce((s, column, j) => s + column[i] * step[j], 0))
  return columns.map((column, j) => column.map((v, i) => v + (missed[i] * step[j]) / length))
}
