// Old grades stay readable: every schema that ever was has a stored document, and means today what it meant then.
import { readFileSync } from 'node:fs'
import { defaultGrade, newStep } from '../defaults'
import { currentSchema, type GradeDocument } from '../document'
import { presentGrade } from './index'
import type { Json } from './json'
import { toSchema2 } from './to-2'
import { toSchema3 } from './to-3'
import { toSchema4 } from './to-4'
import { toSchema5 } from './to-5'
import { toSchema6 } from './to-6'
import { toSchema7 } from './to-7'
import { toSchema8 } from './to-8'

const example = (schema: number): Json =>
  JSON.parse(readFileSync(`core/grade/migrations/examples/schema-${schema}.json`, 'utf8')) as Json

/** What hands changed between two examples: the later ones use what was new then. */
function asStoredBefore(schema: number, later: Json): Json {
  const steps = later['steps'] as readonly Json[]
  if (schema === 3)
    return {
      ...later,
      steps: steps.map((s) => (s['id'] === 'ends' ? { ...s, params: { highlightStops: 0, shadowStops: 0 } } : s)),
    }
  return schema === 4 ? { ...later, along: [] } : later
}

const migrations = [toSchema2, toSchema3, toSchema4, toSchema5, toSchema6, toSchema7, toSchema8]

test.each(migrations.map((to, i) => [i + 1, to] as const))(
  'schema %i becomes the next, to the letter',
  (schema, to) => {
    const next = asStoredBefore(schema + 1, example(schema + 1))
    expect({ ...to(example(schema)), schema: schema + 1 }).toEqual(next)
  },
)

test('there is an example and a migration for every schema', () => {
  expect(migrations).toHaveLength(currentSchema - 1)
  for (let schema = 1; schema <= currentSchema; schema++) expect(example(schema)['schema']).toBe(schema)
})

test.each(Array.from({ length: currentSchema }, (_, i) => i + 1))('schema %i keeps what its steps were set to', (n) => {
  const present = presentGrade(example(n))
  expect(present.schema).toBe(currentSchema)
  const step = (id: string): GradeDocument['steps'][number] => present.steps.find((s) => s.id === id)!
  expect(step('exposure').params).toEqual({ exposureStops: 0.75 })
  expect(step('zone-1')).toMatchObject({ kind: 'zone', params: { exposureStops: 0.2 } })
  expect(step('lut')).toMatchObject({ side: 'display', strength: 0.8 })
  expect(step('region-1-exposure')).toMatchObject({ regionId: 'region-1', params: { exposureStops: 0.4 } })
  expect(present.regions[0]?.components[0]?.source).toMatchObject({ kind: 'shape', inner: 0.025, outer: 0.025 })
})

test('kinds and parameters that came since are put in, neutral and in their place, and nothing else changes', () => {
  const whole = defaultGrade('log-420-95')
  expect(presentGrade(whole)).toBe(whole)
  const without = {
    ...whole,
    steps: whole.steps
      .filter((s) => s.kind !== 'local-contrast')
      .map((s) => (s.kind === 'saturation' ? { ...s, params: { saturation: 1.3 } } : s)),
  }
  const present = presentGrade(without)
  expect(present.steps.map((s) => s.kind)).toEqual(whole.steps.map((s) => s.kind))
  expect(present.steps.find((s) => s.kind === 'local-contrast')).toEqual(
    newStep('local-contrast', 'local-contrast', 'scene'),
  )
  expect(present.steps.find((s) => s.kind === 'saturation')?.params).toEqual({ saturation: 1.3, vibrance: 1 })
})
