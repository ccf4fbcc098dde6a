// What the instruments room offers.
export * from './clip-trace'
export { noLoss, totalLoss, type StationLoss } from './losses'
export * from './meridian'
export { addCounts, countScopes, histogramBins, levelHigh, levelLow, lumaPercentile, vectorSpan, type ScopeCounts, type ScopeSizes } from './scopes'
export * from './trace-image'
