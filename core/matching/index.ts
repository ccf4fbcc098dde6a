// Matching: shots brought together by what they both show.
export { applyMatch, matchChoices, type MatchAnswer, type MatchChoice, type MatchChoiceId } from './choices'
export { lightPicture, type LightPicture } from './light'
export { sameView, type SameView } from './same-view'
export { matchPictures, type Matchable } from './match'
export { solveMatch, type Match, type MatchedSurface } from './solve'
export { surfacesOfSameView, type Light, type SharedSurface } from './surfaces'
