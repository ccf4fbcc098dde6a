// The registry of step kinds: a new kind is one file here and one line below.
import type { StepKind } from '../step-kind'
import { balanceByTone } from './balance-by-tone'
import { blackOffset } from './black-offset'
import { cdl } from './cdl'
import { colourCurvesStep } from './colour-curves'
import { contrast } from './contrast'
import { ends } from './ends'
import { exposure } from './exposure'
import { localContrastStep } from './local-contrast'
import { lut } from './lut'
import { saturation } from './saturation'
import { sharpnessStep } from './sharpness'
import { toneCurve } from './tone-curve'
import { whiteBalance } from './white-balance'
import { zone } from './zone'

export const stepKinds: readonly StepKind[] = [
  exposure,
  whiteBalance,
  blackOffset,
  balanceByTone,
  contrast,
  ends,
  localContrastStep,
  toneCurve,
  zone,
  sharpnessStep,
  saturation,
  colourCurvesStep,
  cdl,
  lut,
]

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
