// What the continuity room offers: the course of a scene, its jumps, its odd one out, and which shots are one set-up.
export { jumpsOf, outlierOf, type Jump, type Outlier } from './jumps'
export { layoutOf, likeness, setupsOf, type Layout, type SetupShot } from './setups'
export { printLine, sceneLines, type LineId, type SceneLine } from './lines'
