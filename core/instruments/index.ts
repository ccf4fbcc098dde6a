// What the instruments room offers.
export { chromaticitySpan, countChromaticity, uvPrime } from './chromaticity'
export * from './clip-trace'
export * from './delivery-range'
export * from './distribution'
export { lostPixels, noLoss, totalLoss, type StationLoss } from './losses'
export * from './meridian'
export * from './overlays'
export * from './probe'
export {
  addCounts,
  copiedCounts,
  countedTraces,
  countScopes,
  histogramBins,
  levelHigh,
  levelLow,
  lumaPercentile,
  roomForCounts,
  vectorSpan,
  type CountArrays,
  type ScopeCounts,
  type ScopeSizes,
  type ScopeWishes,
} from './scopes'
export * from './selection'
export * from './settings'
export {
  chromaticityCells,
  instrumentImage,
  levelCounts,
  type Counted,
  type Layers,
  type TraceImage,
} from './trace-image'
