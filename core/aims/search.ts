// The search for values: what is left of each aim, and how controls are moved to lessen it.
import { setParameterAt } from '../grade'
import { goalsOf, type Aim } from './aim'
import { type Control, type ControlId } from './controls'
import { leastSquares } from './least-squares'
import { rankWeights, unmeasured, gapOf, type Offsets, shifted } from './gaps'
import { type Samples, measureAll } from './measure-all'
import type { AimProblem } from './problem'

/** Few pixels and many say the same when they differ by less than this, in tolerances. */
export const agreeing = 0.3

/** Rounds of the solver where it is only to be seen whether an aim could be met without another. */
export const reasonRounds = 20

interface Search {
  readonly from?: readonly number[]
  readonly rounds?: number
  readonly aims?: readonly Aim[]
  /** On all pixels that a solution is checked on: slow, and right where few pixels mislead. */
  readonly fine?: true | undefined
  /** Stays where the search begins. */
  readonly still?: ControlId
}

function residualsOf(
  { grade, lut, aims: all, frameIndex = 0 }: AimProblem,
  sample: Samples,
  controls: readonly Control[],
  offsets: Offsets,
  aims = all,
  fine?: true,
): (values: readonly number[]) => readonly number[] {
  const wanted = aims.map((a) => ({ aim: a, goals: goalsOf(a.want), weight: rankWeights[a.rank] }))
  return (values) => {
    const tried = controls.reduce(
      (next, control, i) => setParameterAt(next, control.stepId, control.key, values[i], frameIndex, control.parameter),
      grade,
    )
    const measured = fine
      ? measureAll(tried, lut, sample, frameIndex, aims, 'fine')
      : shifted(measureAll(tried, lut, sample, frameIndex, aims), offsets)
    return wanted.flatMap(({ aim, goals, weight }) =>
      goals.map((goal, i) => {
        const is = measured.get(aim.id)?.[i]
        return weight * (is === null || is === undefined ? unmeasured : gapOf(goal, is))
      }),
    )
  }
}

export function solveOn(
  problem: AimProblem,
  sample: Samples,
  controls: readonly Control[],
  offsets: Offsets,
  { from, rounds, aims, still, fine }: Search = {},
): readonly number[] {
  const variables = controls.map(({ id, value, parameter: { min, max }, scale }, i) => {
    const begin = from?.[i] ?? value
    return { start: value, from: begin, least: id === still ? begin : min, most: id === still ? begin : max, scale }
  })
  return leastSquares(
    variables,
    residualsOf(problem, sample, controls, offsets, aims, fine),
    rounds,
    (aims ?? problem.aims).some(({ want }) => want.kind === 'level' && want.bound),
  )
}

/** Bounds alone ask for no more than to be kept: the way back toward the start is gone as far as they are. */
export function noFurther(
  problem: AimProblem,
  sample: Samples,
  controls: readonly Control[],
  offsets: Offsets,
  found: readonly number[],
): readonly number[] {
  if (problem.aims.length === 0 || !problem.aims.every(({ want }) => want.kind === 'level' && want.bound)) return found
  const residuals = residualsOf(problem, sample, controls, offsets)
  const at = (share: number): readonly number[] => controls.map((c, i) => c.value + (found[i] - c.value) * share)
  const gap = (values: readonly number[]): number => residuals(values).reduce((s, r) => s + r * r, 0)
  const least = gap(found) + 1e-6
  let kept = 1
  let lost = 0
  for (let round = 0; round < 10; round++) {
    const middle = (kept + lost) / 2
    if (gap(at(middle)) <= least) kept = middle
    else lost = middle
  }
  return at(kept)
}

/**
 * In working order: what Level alone decides, exposure and white, first, and everything together from there. Black
 * offset and contrast can stand in for one another far from the picture's own tones; where that led astray, contrast is
 * looked for first.
 */
export function firstTry(
  problem: AimProblem,
  sample: Samples,
  controls: readonly Control[],
  offsets: Offsets,
): readonly number[] {
  const level = problem.aims.filter(({ want }) => want.kind === 'light' || want.kind === 'neutral')
  const residuals = residualsOf(problem, sample, controls, offsets)
  const from =
    level.length > 0 && level.length < problem.aims.length
      ? solveOn(problem, sample, controls, offsets, { aims: level, still: 'blackOffset' })
      : controls.map((c) => c.value)
  const all = solveOn(problem, sample, controls, offsets, { from })
  const gap = (values: readonly number[]): number => residuals(values).reduce((s, r) => s + r * r, 0)
  if (gap(all) < 1 || !controls.some((c) => c.id === 'blackOffset')) return all
  const other = solveOn(problem, sample, controls, offsets, {
    from: solveOn(problem, sample, controls, offsets, { from, still: 'blackOffset' }),
  })
  return gap(other) < gap(all) ? other : all
}
