// Match to a reference: what both pictures show is found, and the shot is moved until it is shown alike.
import type { GradeDocument, LutFinder } from '../grade'
import type { Pointed } from '../readings'
import type { LightPicture } from './light'
import { sameView } from './same-view'
import { solveMatch } from './solve'
import { surfacesOfSameView } from './surfaces'
import type { Match } from './toward'

export interface Matchable {
  readonly light: LightPicture
  readonly grade: GradeDocument
  /** What a person pointed out in this very picture. */
  readonly pointed?: Pointed
}

/**
 * Null where the two have nothing in common that could be told.
 *
 * @param without ids of surfaces that a person struck
 */
export function matchPictures(
  reference: Matchable,
  shot: Matchable,
  lut: LutFinder,
  without: readonly number[] = [],
): Match | null {
  const view = sameView(reference.light, shot.light)
  if (!view) return null
  const surfaces = surfacesOfSameView(reference.light, shot.light, view.motion)
  return solveMatch(
    surfaces.filter((s) => !without.includes(s.id)),
    reference.grade,
    shot.grade,
    lut,
  )
}
