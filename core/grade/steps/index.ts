// The registry of step kinds: a new kind is one file here and one line in kinds.ts.
import { stations } from '../stations'
import type { StepKind } from '../step-kind'
import * as declared from './kinds'

const placeOf = ({ station }: StepKind): number => stations.findIndex((s) => s.id === station)

/** In the order in which they act: by their stations, then by the order they declare. */
export const stepKinds: readonly StepKind[] = Object.values(declared).sort(
  (a, b) => placeOf(a) - placeOf(b) || a.order - b.order || a.id.localeCompare(b.id),
)

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
