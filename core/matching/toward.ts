// The problem of bringing one shot's places to colours that are wanted: which controls may move and how far, how far
// off they are, and what came of it, in words.
import { controlOf, printControl, tidy, type Control, type ControlId } from '../aims/controls'
import { leastSquares } from '../aims/least-squares'
import { differenceMeasure, displayById, type Vector3 } from '../colour'
import { applyLink, buildChain, setParameter, type GradeDocument, type LutFinder } from '../grade'
import type { Light, SharedSurface } from './surfaces'

export interface MatchedSurface extends SharedSurface {
  /** How differently both are shown, before and after: ΔE 2000, in high range ΔE ITP. */
  readonly before: number
  readonly after: number
  /** It moved out of agreement with the others and was left out: another light, or another thing. */
  readonly struck: boolean
  /** Display signal, 0..1: as the reference shows it, as the shot does, and as it does when it is matched. */
  readonly shown: { readonly here: Vector3; readonly before: Vector3; readonly after: Vector3 }
}

export interface MatchMove {
  readonly control: ControlId
  readonly from: number
  readonly to: number
  /** "Exposure +0.00 stops → +0.70 stops". */
  readonly words: string
}

export interface Match {
  readonly grade: GradeDocument
  readonly moved: readonly MatchMove[]
  readonly surfaces: readonly MatchedSurface[]
  /** The middle difference of those that count, before and after. */
  readonly medianBefore: number
  readonly medianAfter: number
  /** Controls that stand at the end of what matching may move them to. */
  readonly limited: readonly ControlId[]
}

/** What matching may move, and how far from where it stands. */
const reach: Readonly<Partial<Record<ControlId, number>>> = {
  exposure: 4,
  temperature: 120,
  tint: 40,
  contrast: 0.8,
  saturation: 1,
}
/** Everything that matching may move. */
export const matchControls = Object.keys(reach) as readonly ControlId[]
/** The problem of one shot: which controls may move, and how far it is from what is wanted. */
export interface Toward {
  readonly controls: readonly Control[]
  readonly start: readonly number[]
  readonly gradeAt: (values: readonly number[]) => GradeDocument
  readonly shownAt: (grade: GradeDocument) => readonly Vector3[]
  readonly differences: (grade: GradeDocument) => readonly number[]
  /** What each place is off by in lightness and two colours, strong colours less. */
  readonly off: (grade: GradeDocument) => readonly (readonly [number, number, number])[]
  readonly solve: (from: readonly number[], weights: readonly number[]) => readonly number[]
  /**
   * The better of what is found from the start and from elsewhere: where lights clip on the display nothing says which
   * way to go, and a search can end beside the answer.
   */
  readonly from: (elsewhere: readonly number[], weights: readonly number[]) => readonly number[]
}

export function toward(
  target: { readonly displayId: string; readonly signal: readonly Vector3[] },
  lights: readonly Light[],
  shot: GradeDocument,
  lut: LutFinder,
  moving: readonly ControlId[],
): Toward {
  const measure = differenceMeasure(target.displayId)
  const wanted = target.signal.map((shown) => measure.place(...shown))
  const controls = moving.flatMap((id) => controlOf(shot, id) ?? [])
  const gradeAt = (values: readonly number[]): GradeDocument => withValues(shot, controls, values)
  const shownAt = (grade: GradeDocument): readonly Vector3[] => shownAs(grade, lut, lights)
  const off = (grade: GradeDocument): readonly (readonly [number, number, number])[] =>
    shownAt(grade).map((shown, i) => {
      const [l, a, b] = measure.place(...shown)
      const [wl, wa, wb] = wanted[i]
      // Where colours are strong their difference is less to see (CIE 116-1995).
      const strong = 1 + 0.045 * Math.hypot(wa, wb)
      return [l - wl, (a - wa) / strong, (b - wb) / strong]
    })
  const start = controls.map((c) => c.value)
  const solve: Toward['solve'] = (from, weights) => {
    const variables = controls.map((c, i) => {
      const [least, most] = bounds(c)
      return { start: c.value, from: from[i], least, most, scale: c.scale }
    })
    return leastSquares(variables, (tried) => off(gradeAt(tried)).flatMap((o, i) => o.map((v) => v * weights[i])))
  }
  const cost = (values: readonly number[], weights: readonly number[]): number =>
    off(gradeAt(values)).reduce((sum, o, i) => sum + Math.hypot(...o.map((v) => v * weights[i])) ** 2, 0)
  return {
    controls,
    start,
    gradeAt,
    shownAt,
    differences: (grade) => shownAt(grade).map((shown, i) => measure.difference(measure.place(...shown), wanted[i])),
    off,
    solve,
    from: (elsewhere, weights) => {
      const [first, second] = [solve(start, weights), solve(elsewhere, weights)]
      return cost(second, weights) < cost(first, weights) - 1e-3 ? second : first
    },
  }
}

export function outcomeOf(
  { controls, gradeAt, shownAt, differences }: Toward,
  surfaces: readonly SharedSurface[],
  here: readonly Vector3[],
  used: readonly boolean[],
  values: readonly number[],
  unmatched: GradeDocument,
): Match {
  const tidied = controls.map((c, i) => tidy(c, values[i]))
  const grade = gradeAt(tidied)
  const [before, after] = [differences(unmatched), differences(grade)]
  const [shownBefore, shownAfter] = [shownAt(unmatched), shownAt(grade)]
  const counting = (all: readonly number[]): number[] => all.filter((_, i) => used[i])
  return {
    grade,
    moved: controls.flatMap((control, i) => {
      const { id, value: from, parameter } = control
      const [was, is] = [printControl(control, from), printControl(control, tidied[i])]
      return was === is ? [] : [{ control: id, from, to: tidied[i], words: `${parameter.label} ${was} → ${is}` }]
    }),
    surfaces: surfaces.map((s, i) => ({
      ...s,
      before: before[i],
      after: after[i],
      struck: !used[i],
      shown: { here: here[i], before: shownBefore[i], after: shownAfter[i] },
    })),
    medianBefore: median(counting(before)),
    medianAfter: median(counting(after)),
    limited: controls.flatMap((c, i) => {
      const [least, most] = bounds(c)
      return tidied[i] <= least + 1e-6 || tidied[i] >= most - 1e-6 ? [c.id] : []
    }),
  }
}

function bounds({ id, value, parameter }: Control): readonly [number, number] {
  const far = reach[id] ?? 0
  return [Math.max(parameter.min, value - far), Math.min(parameter.max, value + far)]
}

const withValues = (grade: GradeDocument, controls: readonly Control[], values: readonly number[]): GradeDocument =>
  controls.reduce((next, c, i) => setParameter(next, c.stepId, c.key, values[i]), grade)

/** Display signal of scene light that was read already; what acts in regions or looks about is left out. */
export function shownAs(grade: GradeDocument, lut: LutFinder, lights: readonly Light[]): readonly Vector3[] {
  const chain = buildChain({ ...grade, regions: [], steps: grade.steps.filter((s) => s.regionId === undefined) }, lut)
  const pixels = Float64Array.from(lights.flat())
  for (const link of chain.links) if (link.station !== 'read') applyLink(link, pixels)
  const { eotf, carriedPeak } = displayById(chain.displayId)
  const shown =
    chain.leaves === 'displayLinear'
      ? (v: number): number => eotf.encode(Math.min(Math.max(v, 0), carriedPeak))
      : (v: number): number => Math.max(v, 0)
  return lights.map((_, i) => [shown(pixels[i * 3]), shown(pixels[i * 3 + 1]), shown(pixels[i * 3 + 2])])
}

export const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted.length === 0 ? 0 : ((sorted[(sorted.length - 1) >> 1] ?? 0) + (sorted[sorted.length >> 1] ?? 0)) / 2
}
