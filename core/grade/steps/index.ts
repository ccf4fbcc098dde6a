// The registry of step kinds: a new kind is one file here and one line below.
import type { StepKind } from '../step-kind'
import { contrast } from './contrast'
import { exposure } from './exposure'
import { lut } from './lut'
import { saturation } from './saturation'
import { toneCurve } from './tone-curve'
import { whiteBalance } from './white-balance'

export const stepKinds: readonly StepKind[] = [exposure, whiteBalance, contrast, toneCurve, saturation, lut]

const byId = new Map(stepKinds.map((k) => [k.id, k]))

export function isStepKindId(id: unknown): id is string {
  return typeof id === 'string' && byId.has(id)
}

/** Throws RangeError for an unknown id. */
export function stepKindById(id: string): StepKind {
  const found = byId.get(id)
  if (!found) throw new RangeError(`There is no step kind "${id}".`)
  return found
}
