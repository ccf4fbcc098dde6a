// What the cards room offers: grey cards found in a picture, and charts that are laid on; offered and never silently
// used.
export { meanOf, patchMiddles, readChart, type ChartReading, type PatchReading } from './chart'
export { balancedByChart, matchedByChart, matrixStep } from './chart-grade'
export { chartColumns, chartPatches, chartRows } from './chart-patches'
export { findCards, type FoundCard } from './find-cards'
export { placesOn, type Corners, type Point } from './four-corners'
