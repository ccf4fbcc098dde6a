// The axes of a lattice for each kind of light: where its entries lie closest.
import { fromWorkingLog, toWorkingLog } from '../colour'
import { type Curve, type Light } from './operation'

/** How values of one kind of light are laid along a lattice's axes, or held at its nodes. */
export interface Axis {
  readonly low: number
  readonly high: number
  readonly toAxis: Curve
  readonly fromAxis: Curve
}

/**
 * Working log from −0.3 (linear −0.26) to 1.3 (15.5 stops over grey), closer where pictures live: light below zero and
 * more than nine stops over grey takes fewer nodes.
 */
const denseLow = toWorkingLog(-0.003)
const denseHigh = 0.93
const sparsity = { below: 6, above: 3 } as const
const squeeze = (log: number): number => {
  if (log < denseLow) return denseLow - (denseLow - log) / sparsity.below
  return log > denseHigh ? denseHigh + (log - denseHigh) / sparsity.above : log
}

const stretch = (position: number): number => {
  if (position < denseLow) return denseLow - (denseLow - position) * sparsity.below
  return position > denseHigh ? denseHigh + (position - denseHigh) * sparsity.above : position
}

const logAxis: Axis = { low: squeeze(-0.3), high: squeeze(1.3), toAxis: squeeze, fromAxis: stretch }
const lightAxis: Axis = {
  ...logAxis,
  toAxis: (v) => squeeze(toWorkingLog(v)),
  fromAxis: (p) => fromWorkingLog(stretch(p)),
}

const identity: Curve = (v) => v
export const straightAxis = (low: number, high: number): Axis => ({ low, high, toAxis: identity, fromAxis: identity })
// Codes a camera can really write; those outside are held to the ends.
const codeAxis = straightAxis(-0.08, 1.1)
export const signalAxis = straightAxis(0, 1)

export function axisOf(light: Light): Axis {
  switch (light) {
    case 'code':
      return codeAxis
    case 'sceneLinear':
    case 'displayLinear':
      return lightAxis
    case 'workingLog':
      return logAxis
    case 'displaySignal':
      return signalAxis
  }
}
