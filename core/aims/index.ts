// What the aims room offers: aims, the solver, and Balance for me.
export { aimWords, goalsOf, printQuantity, tolerances, type Aim, type Goal, type Quantity, type Want } from './aim'
export { balanceLines, isSure, type BalanceLine } from './balance'
export { carriedAims, carriedStations, carryGrade, lossFirst, withOwnBalance, type CarriedStation } from './carry'
export {
  controlIds,
  controlOf,
  controlsFor,
  printControl,
  tidy,
  withControlsAt,
  type Control,
  type ControlId,
} from './controls'
export { aimOfReading, proposalWords } from './from-reading'
export { wholeClipAims } from './whole-clip'
export { freeControls, solveAims } from './solve'
export type { AimProblem, AimResult, GoalResult, Move, Solution } from './problem'
export { lookFromPicture, type LookShot, type TakenLook } from './look-from-picture'
