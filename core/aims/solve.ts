// The solver: the smallest change of the controls that may move which meets all aims of a shot together, through the
// exact Passage.
import { gradeAt, setParameterAt, type GradeDocument, type LutFinder } from '../grade'
import type { Frame } from '../image'
import { turn } from '../readings'
import { aimWords, goalsOf, tolerances, type Aim, type Goal, type Quantity } from './aim'
import { controlOf, controlsFor, printControl, tidy, type Control, type ControlId } from './controls'
import { leastSquares } from './least-squares'
import { measureAims, type Measured } from './measure'
import { prepareSample, type AimSample } from './sample'

export interface AimProblem {
  readonly grade: GradeDocument
  readonly lut: LutFinder
  readonly frame: Frame
  /** Its number in the medium: what changes along the clip is moved there. 0 without it. */
  readonly frameIndex?: number
  /** The other frames that aims speak of. */
  readonly frames?: ReadonlyMap<number, Frame>
  readonly aims: readonly Aim[]
  /** Controls that stay where they are. */
  readonly locked: ReadonlySet<ControlId>
}

export interface Move {
  readonly control: ControlId
  readonly label: string
  readonly from: number
  readonly to: number
  readonly words: string
}
export interface GoalResult {
  readonly quantity: Quantity
  readonly wanted: number
  readonly before: number | null
  readonly after: number | null
  readonly met: boolean
}
export interface AimResult {
  readonly aim: Aim
  readonly goals: readonly GoalResult[]
  readonly met: boolean
  /** Why it could not be met; empty where it was. */
  readonly why: string
}
export interface Solution {
  readonly grade: GradeDocument
  readonly moves: readonly Move[]
  readonly aims: readonly AimResult[]
  /** All aims are met. */
  readonly met: boolean
}

/** A lower rank gives way almost wholly: what is known of the light is not bent for what a standard would like. */
const rankWeights = { 1: 1, 2: 0.15, 3: 0.04 } as const
/**
 * Goals within this many tolerances of what is wanted are met; a solver that stops just short of one has not failed.
 */
const metWithin = 1
/**
 * Tolerances that a place counts as being off where nothing can be measured in it: moves that make it so are no
 * solution.
 */
const unmeasured = 40
/** Few pixels and many say the same when they differ by less than this, in tolerances. */
const agreeing = 0.3
/** Rounds of the solver where it is only to be seen whether an aim could be met without another. */
const reasonRounds = 20

export function solveAims(problem: AimProblem): Solution {
  const { grade, lut, aims, frameIndex: here = 0 } = problem
  const sample = prepareAll(problem)
  const controls = freeControls(problem)
  const checked = (of: GradeDocument): Measured => measureAll(of, lut, sample, here, aims, 'check')
  const before = measureAll(grade, lut, sample, here, aims, 'check', true)
  let offsets = offsetsOf(aims, before, measureAll(grade, lut, sample, here, aims))
  let values = noFurther(problem, sample, controls, offsets, firstTry(problem, sample, controls, offsets))
  let solved = withValues(problem, controls, values)
  let after = checked(solved)
  // A few hundred pixels are not the frame: how far they are off is measured where the solution lies, and taken out.
  for (let again = 0; again < 2; again++) {
    const said = shifted(measureAll(solved, lut, sample, here, aims), offsets)
    if (apartBy(aims, said, after) < agreeing) break
    offsets = offsetsOf(aims, after, measureAll(solved, lut, sample, here, aims))
    values = noFurther(
      problem,
      sample,
      controls,
      offsets,
      solveOn(problem, sample, controls, offsets, { from: values, rounds: 5 }),
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

/** One sample per frame that aims speak of; a frame that is not at hand counts as the one that is looked at. */
type Samples = ReadonlyMap<number | undefined, AimSample>
const frameOf = ({ frame }: Aim, frames: { has: (key: number) => boolean } | undefined): number | undefined =>
  frame !== undefined && frames?.has(frame) ? frame : undefined

function prepareAll({ grade, lut, frame, frames, aims }: AimProblem): Samples {
  const keys = [...new Set(aims.map((a) => frameOf(a, frames)))]
  return new Map(
    keys.map((key) => [
      key,
      prepareSample(
        (key === undefined ? undefined : frames?.get(key)) ?? frame,
        grade,
        lut,
        aims.filter((a) => frameOf(a, frames) === key),
      ),
    ]),
  )
}

/** `here`: the number of the frame that is looked at. */
function measureAll(
  grade: GradeDocument,
  lut: LutFinder,
  samples: Samples,
  here: number,
  aims: readonly Aim[],
  strata: 'spread' | 'check' = 'spread',
  remember = false,
): Measured {
  return new Map(
    [...samples].flatMap(([key, sample]) => [
      ...measureAims(
        gradeAt(grade, key ?? here),
        lut,
        sample,
        aims.filter((a) => frameOf(a, samples) === key),
        sample[strata],
        remember,
      ),
    ]),
  )
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

const restsOnAll = ({ want }: Aim): boolean => want.kind === 'level' || want.kind === 'chroma'

function withValues(
  { grade, frameIndex = 0 }: AimProblem,
  controls: readonly Control[],
  values: readonly number[],
): GradeDocument {
  return controls.reduce(
    (next, control, i) =>
      setParameterAt(next, control.stepId, control.key, tidy(control, values[i]), frameIndex, control.parameter),
    grade,
  )
}

/** A solver looks beyond the ends of the signal; a display holds them. */
const asShown = (quantity: Quantity, v: number | null): number | null =>
  v !== null && (quantity === 'level' || quantity === 'luma') ? Math.min(1, Math.max(0, v)) : v

const top = 0.9995
const bottom = 0.0005
/** How far a measure lies from its goal, in tolerances. */
function gapOf({ quantity, value, bound }: Goal, is: number): number {
  const gap = (quantity === 'hue' ? turn(is - value) : is - value) / tolerances[quantity]
  if ((bound === 'most' && gap < 0) || (bound === 'least' && gap > 0)) return 0
  // At an end of the signal the wanted value is a bound: what lies further out is held there.
  if ((quantity === 'level' || quantity === 'luma') && ((value >= top && gap > 0) || (value <= bottom && gap < 0)))
    return 0
  return gap
}

/** Two measures of the same aims: the largest difference in tolerances. */
const apartBy = (aims: readonly Aim[], a: Measured, b: Measured): number =>
  Math.max(
    0,
    ...aims.flatMap(({ id, want }) =>
      goalsOf(want).map(({ quantity }, i) =>
        Math.abs(((a.get(id)?.[i] ?? 0) - (b.get(id)?.[i] ?? 0)) / tolerances[quantity]),
      ),
    ),
  )
type Offsets = ReadonlyMap<string, number>
/** What many pixels measure over what few do, for aims that rest on the whole frame. */
const offsetsOf = (aims: readonly Aim[], full: Measured, sampled: Measured): Offsets =>
  new Map(aims.filter(restsOnAll).map(({ id }) => [id, (full.get(id)?.[0] ?? 0) - (sampled.get(id)?.[0] ?? 0)]))
const shifted = (sampled: Measured, offsets: Offsets): Measured =>
  new Map([...sampled].map(([id, values]) => [id, values.map((v) => (v === null ? null : v + (offsets.get(id) ?? 0)))]))

interface Search {
  readonly from?: readonly number[]
  readonly rounds?: number
  readonly aims?: readonly Aim[]
  /** Stays where the search begins. */ readonly still?: ControlId
}

function residualsOf(
  { grade, lut, aims: all, frameIndex = 0 }: AimProblem,
  sample: Samples,
  controls: readonly Control[],
  offsets: Offsets,
  aims = all,
): (values: readonly number[]) => readonly number[] {
  const wanted = aims.map((a) => ({ aim: a, goals: goalsOf(a.want), weight: rankWeights[a.rank] }))
  return (values) => {
    const tried = controls.reduce(
      (next, control, i) => setParameterAt(next, control.stepId, control.key, values[i], frameIndex, control.parameter),
      grade,
    )
    const measured = shifted(measureAll(tried, lut, sample, frameIndex, aims), offsets)
    return wanted.flatMap(({ aim, goals, weight }) =>
      goals.map((goal, i) => {
        const is = measured.get(aim.id)?.[i]
        return weight * (is === null || is === undefined ? unmeasured : gapOf(goal, is))
      }),
    )
  }
}

function solveOn(
  problem: AimProblem,
  sample: Samples,
  controls: readonly Control[],
  offsets: Offsets,
  { from, rounds, aims, still }: Search = {},
): readonly number[] {
  const variables = controls.map(({ id, value, parameter: { min, max }, scale }, i) => {
    const begin = from?.[i] ?? value
    return { start: value, from: begin, least: id === still ? begin : min, most: id === still ? begin : max, scale }
  })
  return leastSquares(
    variables,
    residualsOf(problem, sample, controls, offsets, aims),
    rounds,
    (aims ?? problem.aims).some(({ want }) => want.kind === 'level' && want.bound),
  )
}

/** Bounds alone ask for no more than to be kept: the way back toward the start is gone as far as they are. */
function noFurther(
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
function firstTry(
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
