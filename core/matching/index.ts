// Matching: shots brought together by what they both show.
export {
  applyMatch,
  matchChoiceIds,
  matchChoices,
  type MatchAnswer,
  type MatchChoice,
  type MatchChoiceId,
  type MatchEvidence,
} from './choices'
export { lightPicture, type LightPicture } from './light'
export { sameView, type SameView } from './same-view'
export { matchPictures, type Matchable } from './match'
export { solveMatch } from './solve'
export { applySwatches, matchSwatches, type Swatch, type SwatchAnswer } from './swatches'
export type { Match, MatchedSurface } from './toward'
export { surfacesOfSameView, type Light, type SharedSurface } from './surfaces'
export {
  carriedArea,
  carriedPlaces,
  carriedRegion,
  type CarriedArea,
  type CarriedPlaces,
  type CarriedRegion,
} from './carried-places'
