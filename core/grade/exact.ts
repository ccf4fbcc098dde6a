// A frame through a plan, exactly: the compiled plan where it is near enough to direct evaluation, else direct
// evaluation.
import type { Frame } from '../image'
import type { Plan } from './compile'
import { executeDirectRows } from './direct'
import { execute } from './execute'
import { planError, withinBound } from './plan-error'
import { rastersOf } from './rasters'

/**
 * The display signal of every pixel as codes of 0..1. `compiled`: the plan was judged on this kind of picture before.
 */
export function executeExactly(plan: Plan, frame: Frame, compiled = withinBound(planError(plan, frame))): Frame {
  if (compiled) return execute(plan, frame)
  const data = new Uint16Array(frame.data.length)
  executeDirectRows(plan.chain, frame, data, 0, frame.height, rastersOf(plan.chain, frame, true))
  return { width: frame.width, height: frame.height, data, low: 0, high: 1 }
}
