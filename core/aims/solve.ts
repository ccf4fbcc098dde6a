// The solver: the smallest change of the controls that may move which meets all aims of a shot together, through the
// exact Passage.
import { gradeAt, type GradeDocument } from '../grade'
import { aimWords, goalsOf, type Aim } from './aim'
import { controlOf, controlsFor, printControl, tidy, type Control } from './controls'
import { type Measured } from './measure'
import { metWithin, asShown, gapOf, apartBy, type Offsets, offsetsOf, shifted } from './gaps'
import { type Samples, prepareAll, measureAll, withValues } from './measure-all'
import { agreeing, reasonRounds, solveOn, noFurther, firstTry } from './search'
import type { AimProblem, Move, GoalResult, AimResult, Solution } from './problem'

/** So often the sample is brought nearer to the frame. */
const coarseTries = 2

export function solveAims(problem: AimProblem): Solution {
  const { grade, lut, aims, frameIndex: here = 0 } = problem
  const sample = prepareAll(problem)
  const controls = freeControls(problem)
  const checked = (of: GradeDocument): Measured => measureAll(of, lut, sample, here, aims, 'fine')
  const before = measureAll(grade, lut, sample, here, aims, 'fine', true)
  let offsets = offsetsOf(aims, before, measureAll(grade, lut, sample, here, aims))
  let values = noFurther(problem, sample, controls, offsets, firstTry(problem, sample, controls, offsets))
  let solved = withValues(problem, controls, values)
  let after = checked(solved)
  // A few hundred pixels are not the frame: how far they are off is measured where the solution lies, and taken out.
  // Where that leads nowhere, as at an end of a steep curve, all are asked.
  for (let again = 0; again <= coarseTries; again++) {
    const said = shifted(measureAll(solved, lut, sample, here, aims), offsets)
    if (apartBy(aims, said, after) < agreeing) break
    const fine = again === coarseTries || undefined
    offsets = offsetsOf(aims, after, measureAll(solved, lut, sample, here, aims))
    values = noFurther(
      problem,
      sample,
      controls,
      offsets,
      solveOn(problem, sample, controls, offsets, { from: values, rounds: 5, fine }),
    )
    solved = withValues(problem, controls, values)
    after = checked(solved)
  }
  const results = aims.map((aim): AimResult => {
    const goals = goalsOf(aim.want).map((goal, i): GoalResult => {
      const is = after.get(aim.id)?.[i] ?? null
      return {
        quantity: goal.quantity,
        wanted: goal.value,
        before: asShown(goal.quantity, before.get(aim.id)?.[i] ?? null),
        after: asShown(goal.quantity, is),
        met: is !== null && Math.abs(gapOf(goal, is)) <= metWithin,
      }
    })
    return { aim, goals, met: goals.every((g) => g.met), why: '' }
  })
  const unmet = results.filter((r) => !r.met).map((r) => r.aim)
  const said =
    unmet.length > 0 ? reasons(problem, sample, controls, offsets, values, unmet, after) : new Map<string, string>()
  return {
    grade: solved,
    moves: controls.flatMap((control, i): Move[] => {
      const to = tidy(control, values[i])
      return to === control.value
        ? []
        : [
            {
              control: control.id,
              label: control.parameter.label,
              from: control.value,
              to,
              words:
                `${control.parameter.label} ${printControl(control, control.value)} → ` +
                `${printControl(control, to)}`,
            },
          ]
    }),
    aims: results.map((r) => ({ ...r, why: said.get(r.aim.id) ?? '' })),
    met: unmet.length === 0,
  }
}

/** The controls that the aims ask for and that are not locked. */
export function freeControls({
  grade,
  aims,
  locked,
  frameIndex = 0,
}: Pick<AimProblem, 'grade' | 'aims' | 'locked' | 'frameIndex'>): readonly Control[] {
  const now = gradeAt(grade, frameIndex)
  const wanted = new Set(aims.flatMap((a) => controlsFor(a.want)))
  return [...wanted].filter((id) => !locked.has(id)).flatMap((id) => controlOf(now, id) ?? [])
}

/** For each aim that is not met: what stands in its way. */
function reasons(
  problem: AimProblem,
  sample: Samples,
  controls: readonly Control[],
  offsets: Offsets,
  values: readonly number[],
  unmet: readonly Aim[],
  after: Measured,
): ReadonlyMap<string, string> {
  const { aims, lut } = problem
  const ids = new Set(unmet.map((a) => a.id))
  const met = (tried: readonly number[], aim: Aim): boolean => {
    const measured = shifted(
      measureAll(withValues(problem, controls, tried), lut, sample, problem.frameIndex ?? 0, [aim]),
      offsets,
    )
    return goalsOf(aim.want).every((g, i) => {
      const is = measured.get(aim.id)?.[i]
      return is !== null && is !== undefined && Math.abs(gapOf(g, is)) <= metWithin
    })
  }
  /** Without each other aim in turn: those whose absence lets the unmet ones be met. */
  const without = aims
    .filter((a) => unmet.length > 1 || !ids.has(a.id))
    .map((left) => ({
      left,
      tried: solveOn(problem, sample, controls, offsets, {
        from: values,
        rounds: reasonRounds,
        aims: aims.filter((a) => a !== left),
      }),
    }))
  return new Map(
    unmet.map((aim) => {
      if (after.get(aim.id)?.some((v) => v === null)) return [aim.id, `${aim.name}: nothing there can be measured.`]
      const own = controls.filter((c) => controlsFor(aim.want).includes(c.id))
      if (own.length === 0) return [aim.id, `${aimWords(aim)}: the controls that reach it are locked or switched off.`]
      const single = without.find(({ left, tried }) => left !== aim && met(tried, aim))
      const alone =
        single || aims.length === 1
          ? null
          : solveOn(problem, sample, controls, offsets, { from: values, rounds: reasonRounds, aims: [aim] })
      let other: { readonly tried: readonly number[]; readonly allows: string } | null = null
      if (single) other = { tried: single.tried, allows: `${aimWords(single.left)} allows` }
      else if (alone && met(alone, aim))
        other = { tried: alone, allows: aims.length > 2 ? 'the other aims allow' : 'the other aim allows' }
      if (other) {
        const apart = controls
          .map((c, i) => ({ control: c, by: other.tried[i] - values[i] }))
          .sort((a, b) => Math.abs(b.by) / b.control.scale - Math.abs(a.by) / a.control.scale)[0]
        const amount = printControl(
          { ...apart.control, parameter: { ...apart.control.parameter, signed: false } },
          Math.abs(apart.by),
        )
        return [
          aim.id,
          `${aimWords(aim)} needs ${amount} ${apart.by < 0 ? 'less' : 'more'} ` +
            `${apart.control.parameter.label.toLowerCase()} than ${other.allows}.`,
        ]
      }
      const atEnd = own.find((c) => {
        const v = tidy(c, values[controls.indexOf(c)])
        return v === c.parameter.min || v === c.parameter.max
      })
      if (atEnd)
        return [
          aim.id,
          `${aimWords(aim)}: ${atEnd.parameter.label.toLowerCase()} is at its end, ` +
            `${printControl(atEnd, tidy(atEnd, values[controls.indexOf(atEnd)]))}.`,
        ]
      return [
        aim.id,
        `${aimWords(aim)}: ${own.map((c) => c.parameter.label.toLowerCase()).join(' and ')} cannot reach ` +
          'it on this picture.',
      ]
    }),
  )
}
