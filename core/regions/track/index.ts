// Following motion: what the tracker offers.
export { corners, type Point } from './features'
export { fitMotion, type Fit, type Pair } from './fit'
export { follow } from './lucas-kanade'
export { pyramidOf, type Level } from './pyramid'
export {
  startTracker,
  trackNumbers,
  type TrackedFrame,
  type Tracker,
  type TrackLoss,
  type TrackSettings,
} from './tracker'
