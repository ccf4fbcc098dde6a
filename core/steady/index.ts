// Keeping a surface as it is along the clip: followed, measured, and solved into marks.
export { followSurface, type NumberedFrame, type SurfaceLoss, type SurfaceSample } from './follow-surface'
export { keepSteady, steadyUnits, withSteadied, type Steadied, type SteadyKind, type Unsteady } from './keep-steady'
