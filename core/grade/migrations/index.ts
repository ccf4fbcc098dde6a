// Grade documents of earlier schemas, brought to the present one step by step. Each step is a literal snapshot in a file
// of its own, with a stored example in examples/: adding a kind or a parameter changes none of them.
import { completedGrade } from '../defaults'
import { currentSchema, type GradeDocument } from '../document'
import { isObject, type Json } from './json'
import { toSchema2 } from './to-2'
import { toSchema3 } from './to-3'
import { toSchema4 } from './to-4'
import { toSchema5 } from './to-5'
import { toSchema6 } from './to-6'
import { toSchema7 } from './to-7'

export { inPieces } from './to-6'

/** Index n brings schema n + 1 to n + 2. */
const migrations: readonly ((grade: Json) => Json)[] = [
  toSchema2,
  toSchema3,
  toSchema4,
  toSchema5,
  toSchema6,
  toSchema7,
]

/**
 * The data in the present schema, with what was added since; still to be validated. What is no document of a schema that
 * is known is returned as it is.
 */
export function migrateGrade(data: unknown): unknown {
  if (!isObject(data) || typeof data['schema'] !== 'number') return data
  let grade = data
  for (let schema = data['schema']; schema >= 1 && schema < currentSchema; schema++)
    grade = { ...migrations[schema - 1]?.(grade), schema: schema + 1 }
  return isComplete(grade) ? completedGrade(grade) : grade
}

/** Has the shape that completing rests on; the contract says what is wrong with any other. */
function isComplete(grade: Json): grade is Json & GradeDocument {
  const { steps, regions } = grade
  return (
    grade['schema'] === currentSchema &&
    Array.isArray(steps) &&
    steps.every((s) => isObject(s) && typeof s['id'] === 'string' && isObject(s['params'])) &&
    Array.isArray(regions) &&
    regions.every((r) => isObject(r) && typeof r['id'] === 'string')
  )
}
