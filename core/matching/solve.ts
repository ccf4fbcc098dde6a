// One shot moved toward another: exposure, white balance, contrast and saturation beneath the look, so that the
// surfaces which both show are shown alike.
import { controlOf, printControl, tidy, type Control, type ControlId } from '../aims/controls'
import { leastSquares } from '../aims/least-squares'
import { differenceMeasure, displayById, type Vector3 } from '../colour'
import { applyLink, buildChain, setParameter, type GradeDocument, type LutFinder } from '../grade'
import { agreeing } from './agreeing'
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
/** A surface this far out, after all were brought together, is left out. */
const strikeAt = (median: number): number => Math.max(3, 3.5 * median)
/** Fewer than this agree by chance. */
const leastSurfaces = 3
const robustRounds = 3

export interface MatchWishes {
  /** What may be moved; everything that matching may move without it. */
  readonly moving?: readonly ControlId[]
  /** The surfaces are known to be one thing, so that even a single one is enough. */
  readonly known?: boolean
}

/**
 * @param surfaces `here` of the reference, `there` of the shot that is moved, as scene light after Read
 * @returns null where too few surfaces are left that agree
 */
export function solveMatch(
  surfaces: readonly SharedSurface[],
  reference: GradeDocument,
  unmatched: GradeDocument,
  lut: LutFinder,
  { moving = matchControls, known = false }: MatchWishes = {},
): Match | null {
  const shot = renderedAlike(unmatched, reference)
  const least = known ? 1 : leastSurfaces
  if (surfaces.length < least) return null
  const measure = differenceMeasure(reference.show.displayId)
  const here = shownAs(
    reference,
    lut,
    surfaces.map((s) => s.here),
  )
  const wanted = here.map((shown) => measure.place(...shown))
  const there = surfaces.map((s) => s.there)
  const differences = (grade: GradeDocument): readonly number[] =>
    shownAs(grade, lut, there).map((shown, i) => measure.difference(measure.place(...shown), wanted[i]))
  const controls = moving.flatMap((id) => controlOf(shot, id) ?? [])
  const before = differences(unmatched)
  const agree = agreeing(surfaces)
  const places = surfaces.map((s, i) => (agree[i] ? Math.min(2, Math.sqrt(s.places) / 2) : 0))
  let values = controls.map((c) => c.value)
  let weights = places
  // What agrees with most is believed more from round to round (Cauchy's weights), before anything is left out.
  for (let round = 0; round < robustRounds; round++) {
    values = solveOn(values, weights)
    const now = differences(withValues(shot, controls, values))
    const usual = Math.max(0.5, median(now.filter((_, i) => agree[i])))
    weights = places.map((w, i) => w / (1 + (now[i] / (2.5 * usual)) ** 2))
  }
  const settled = differences(withValues(shot, controls, values))
  const limit = strikeAt(median(settled.filter((_, i) => agree[i])))
  const used = settled.map((d) => d <= limit)
  if (used.filter(Boolean).length < least) return null
  values = solveOn(
    values,
    surfaces.map((s, i) => (used[i] ? Math.min(2, Math.sqrt(s.places) / 2) : 0)),
  )
  const tidied = controls.map((c, i) => tidy(c, values[i]))
  const grade = withValues(shot, controls, tidied)
  const after = differences(grade)
  const shownBefore = shownAs(unmatched, lut, there)
  const shownAfter = shownAs(grade, lut, there)
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

  function solveOn(from: readonly number[], weights: readonly number[]): number[] {
    const variables = controls.map((c, i) => {
      const [least, most] = bounds(c)
      return { start: c.value, from: from[i], least, most, scale: c.scale }
    })
    const found = leastSquares(variables, (tried) =>
      shownAs(withValues(shot, controls, tried), lut, there).flatMap((shown, i) => {
        const [l, a, b] = measure.place(...shown)
        const [wl, wa, wb] = wanted[i]
        // Where colours are strong their difference is less to see (CIE 116-1995).
        const strong = 1 + 0.045 * Math.hypot(wa, wb)
        return [(l - wl) * weights[i], ((a - wa) / strong) * weights[i], ((b - wb) / strong) * weights[i]]
      }),
    )
    return [...found]
  }
}

/** Where both are rendered, to the same brightest light: what one rolls off the other does too. */
function renderedAlike(grade: GradeDocument, { show: { method, params } }: GradeDocument): GradeDocument {
  if (grade.show.method !== method) return grade
  const { sceneMaximumStops } = params
  return { ...grade, show: { ...grade.show, params: { ...grade.show.params, sceneMaximumStops } } }
}

function bounds({ id, value, parameter }: Control): readonly [number, number] {
  const far = reach[id] ?? 0
  return [Math.max(parameter.min, value - far), Math.min(parameter.max, value + far)]
}

const withValues = (grade: GradeDocument, controls: readonly Control[], values: readonly number[]): GradeDocument =>
  controls.reduce((next, c, i) => setParameter(next, c.stepId, c.key, values[i]), grade)

/** Display signal of scene light that was read already; what acts in regions or looks about is left out. */
function shownAs(grade: GradeDocument, lut: LutFinder, lights: readonly Light[]): readonly Vector3[] {
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

const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted.length === 0 ? 0 : ((sorted[(sorted.length - 1) >> 1] ?? 0) + (sorted[sorted.length >> 1] ?? 0)) / 2
}
