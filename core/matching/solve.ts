// One shot moved toward another: exposure, white balance, contrast and saturation beneath the look, so that the
// surfaces which both show are shown alike.
import type { ControlId } from '../aims/controls'
import type { GradeDocument, LutFinder } from '../grade'
import { middleGrey } from '../colour'
import { agreeing, type Change } from './agreeing'
import type { SharedSurface } from './surfaces'
import { matchControls, median, outcomeOf, shownAs, toward, type Match, type Toward } from './toward'

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
  const least = known ? 1 : leastSurfaces
  if (surfaces.length < least) return null
  const here = shownAs(
    reference,
    lut,
    surfaces.map((s) => s.here),
  )
  const shot = toward(
    { displayId: reference.show.displayId, signal: here },
    surfaces.map((s) => s.there),
    renderedAlike(unmatched, reference),
    lut,
    moving,
  )
  const { agree, change } = agreeing(surfaces)
  const places = surfaces.map((s) => Math.min(2, Math.sqrt(s.places) / 2))
  let weights = places.map((w, i) => (agree[i] ? w : 0))
  const believed = weights
  let values = shot.from(change ? guessed(shot, change) : shot.start, weights)
  // What agrees with most is believed more from round to round (Cauchy's weights), before anything is left out.
  for (let round = 0; round < robustRounds; round++) {
    values = shot.solve(values, weights)
    const now = shot.differences(shot.gradeAt(values))
    const usual = Math.max(0.5, median(now.filter((_, i) => agree[i])))
    weights = believed.map((w, i) => w / (1 + (now[i] / (2.5 * usual)) ** 2))
  }
  const settled = shot.differences(shot.gradeAt(values))
  const limit = strikeAt(median(settled.filter((_, i) => agree[i])))
  const used = settled.map((d) => d <= limit)
  if (used.filter(Boolean).length < least) return null
  values = shot.solve(
    values,
    places.map((w, i) => (used[i] ? w : 0)),
  )
  return outcomeOf(shot, surfaces, here, used, values, unmatched)
}

/** Where the search may begin as well: exposure and contrast by what the surfaces' light tells (pivot at grey). */
function guessed({ controls, start }: Toward, { slope, offsets }: Change): readonly number[] {
  const grey = Math.log2(middleGrey)
  const offset = offsets.reduce((s, o) => s + o, 0) / offsets.length
  const stops = (offset - grey * (1 - slope)) / slope
  return controls.map(({ id }, i) => {
    if (id === 'exposure') return start[i] + stops
    return id === 'contrast' ? start[i] * slope : start[i]
  })
}

/** Where both are rendered, to the same brightest light: what one rolls off the other does too. */
function renderedAlike(grade: GradeDocument, { show: { method, params } }: GradeDocument): GradeDocument {
  if (grade.show.method !== method) return grade
  const { sceneMaximumStops } = params
  return { ...grade, show: { ...grade.show, params: { ...grade.show.params, sceneMaximumStops } } }
}
