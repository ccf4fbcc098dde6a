// What the readings room offers: measurements of a frame, the kinds of reading, house standards and verdicts.
export { codeSteps, measureBanding, riskyStep } from './banding'
export { cardFindings, readCard, type CardReading } from './card'
export { measureCasts, type Casts } from './cast'
export { outOfRangeShare, rangeMisfit } from './delivery'
export { endFindings } from './ends'
export { hasPixels, pixelsBehind } from './evidence'
export * from './kinds'
export { lumaHistogram, percentileOf } from './levels'
export { patchesOf } from './patches'
export * from './measure'
export { measureNoise, type Noise } from './noise'
export * from './picture'
export {
  isSpared,
  judge,
  knownCast,
  outside,
  readingKey,
  waivableKey,
  waivedKeys,
  type Finding,
  type Reading,
} from './reading'
export { reasonToStay } from './reasons'
export { measureRestraint } from './restraint'
export { hueName, measureSaturation } from './saturation'
export * from './standards'
export * from './subject'
export { castOf, castOfRgb, castWords, uvOf, type Cast } from './white'
