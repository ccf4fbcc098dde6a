// Grade documents of earlier schemas, brought to the present one step by step. Each step is a literal snapshot in a
// file of its own, with a stored example in examples/: adding a kind or a parameter changes none of them.
import { completedGrade, withAllParameters } from '../defaults'
import { currentSchema, type GradeDocument, type Step } from '../document'
import { isObject, type Json } from './json'
import { toSchema2 } from './to-2'
import { toSchema3 } from './to-3'
import { toSchema4 } from './to-4'
import { toSchema5 } from './to-5'
import { inPieces, toSchema6 } from './to-6'
import { toSchema7 } from './to-7'
import { inComponents, toSchema8 } from './to-8'

/** A region as recipes keep it, whose shape is that of any schema. */
export const presentRegion = (stored: unknown): unknown => inComponents(inPieces(stored))

/** Index n brings schema n + 1 to n + 2. */
const migrations: readonly ((grade: Json) => Json)[] = [
  toSchema2,
  toSchema3,
  toSchema4,
  toSchema5,
  toSchema6,
  toSchema7,
  toSchema8,
]

/**
 * The data in the present schema, with parameters that came since at their defaults; still to be validated, and then to
 * be completed (see completedGrade). What is no document of a schema that is known is returned as it is.
 */
export function migrateGrade(data: unknown): unknown {
  if (!isObject(data) || typeof data['schema'] !== 'number') return data
  let grade = data
  for (let schema = data['schema']; schema >= 1 && schema < currentSchema; schema++)
    grade = { ...migrations[schema - 1]?.(grade), schema: schema + 1 }
  const { steps } = grade
  if (!Array.isArray(steps)) return grade
  const all = steps.map((step: unknown) => (isStep(step) ? withAllParameters(step) : step))
  return all.every((step, i) => step === steps[i]) ? grade : { ...grade, steps: all }
}

/** Has what filling its parameters in rests on; the contract says what is wrong with any other. */
const isStep = (step: unknown): step is Step =>
  isObject(step) && typeof step['kind'] === 'string' && isObject(step['params'])

/** A stored grade as the program has it now. What is stored was valid in its own schema: it is not checked again. */
export const presentGrade = (stored: unknown): GradeDocument => completedGrade(migrateGrade(stored) as GradeDocument)
