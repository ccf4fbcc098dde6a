// What the grade room offers: the document, its step kinds, the chain, the compiler and the executor.
export {
  addKeyframe,
  neighbourFrames,
  gradeAt,
  keyframesOf,
  removeKeyframe,
  restingAt,
  setKeyframes,
  setParameterAt,
  setPath,
  valueAt,
} from './animation'
export {
  applyLink,
  buildChain,
  encodingOf,
  isActive,
  isNeutralStep,
  lutsOf,
  missingLuts,
  shownAt,
  stationOf,
  type Chain,
  type Link,
  type LutFinder,
} from './chain'
export { lutSurroundingsOf } from './side-context'
export {
  amountAt,
  pushBounds,
  quickColours,
  setPush,
  setQuickColour,
  tears,
  type ColourPush,
  type QuickColourId,
  type Tear,
} from './colour-push'
export * from './compile'
export * from './condense'
export * from './defaults'
export * from './direct'
export * from './document'
export * from './edits'
export {
  animationWords,
  controlsInUse,
  differences,
  mergeGrades,
  printParameter,
  type Difference,
  type GradeMerge,
} from './differences'
export { executeExactly } from './exact'
export { execute, executeRows, drawMatte, planesAt, rowsRead, type Rows } from './execute'
export { matteCache, playedMatteCache } from './matte-cache'
export { chunkPixels, packSignal, runChunk, runPlain } from './kernel'
export { interpolationDifference } from './interpolation-difference'
export * from './lattice'
export { carriedShow, isSceneReferred, openingShow, sceneMaximumLimits, sceneMaximumOf } from './opening-show'
export * from './show-defaults'
export { intoDomain } from './lut-operation'
export { presentRegion, migrateGrade, presentGrade } from './migrations'
export { operate, type Light, type Operation } from './operation'
export * from './plan-error'
export * from './region-edits'
export * from './starting-points'
export { needsMapping, otherGamma, previewPasses } from './preview'
export { monotoneCurve } from './monotone-curve'
export { readsOtherPixels, positionsIn, rastersOf, withRasters, type Rasters } from './rasters'
export { sceneLight, sceneLinks } from './scene-light'
export {
  applyRecipe,
  recipeContent,
  regionContent,
  type Recipe,
  type RecipeContent,
  type RecipeRegion,
  type RecipeStep,
} from './recipes'
export { same } from './same'
export { followChange } from './set-up'
export { detachLook, lookAfter, lookSteps, ownLook, sharedSteps, withSharedLook, type CarriedLook } from './shared-look'
export { shippedRecipes } from './shipped-recipes'
export * from './show'
export * from './stations'
export { withTables, type Pass, type Passes, type Stage } from './stage'
export * from './step-kind'
export * from './tap'
export { isStepKindId, stepKindById, stepKinds } from './steps'
export { colourCurve, colourCurveIds, colourCurves, hueShare, type ColourCurveId } from './steps/colour-curves'
export { periodicCurve } from './periodic-curve'
export { cdlOf, cdlParameters, neutralCdl, type CdlNumbers } from './steps/cdl'
export { cameraMatrixOf, type CameraMatrix } from './steps/camera-matrix'
export { whiteBalanceMatrix } from './steps/white-balance'
export { mostExposure, zoneShare, type ZoneReach } from './steps/zone'
