// Match to a reference: what both pictures show is found, and the shot is moved until it is shown alike.
import type { GradeDocument, LutFinder } from '../grade'
import type { LightPicture } from './light'
import { sameView } from './same-view'
import { solveMatch, type Match } from './solve'
import { surfacesOfSameView } from './surfaces'

export interface Matchable {
  readonly light: LightPicture
  readonly grade: GradeDocument
}

/** Null where the two have nothing in common that could be told. */
export function matchPictures(reference: Matchable, shot: Matchable, lut: LutFinder): Match | null {
  const view = sameView(reference.light, shot.light)
  if (!view) return null
  return solveMatch(surfacesOfSameView(reference.light, shot.light, view.motion), reference.grade, shot.grade, lut)
}
