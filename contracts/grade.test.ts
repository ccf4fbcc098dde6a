import { addRegion, currentSchema, defaultGrade, setParameter } from '@core/index'
import { checked, ContractError, checkedGrade, HeadMove, NewProject, NewRevision } from '.'

const good = addRegion(setParameter(defaultGrade('log-420-95'), 'exposure', 'exposureStops', 0.5)).grade
type Json = Record<string, unknown>
const copy = (): Json & { steps: Json[]; regions: (Json & { shape: Json })[]; read: Json; show: Json } => JSON.parse(JSON.stringify(good))

function faultOf(data: unknown): ContractError {
  try {
    checkedGrade(data)
  } catch (error) {
    if (error instanceof ContractError) return error
    throw error
  }
  throw new Error('The document was accepted.')
}

test('a grade as the program makes it is accepted unchanged', () => {
  expect(checkedGrade(copy())).toEqual(good)
})

test.each<[string, (g: ReturnType<typeof copy>) => void, string]>([
  ['a schema of the future', (g) => { g['schema'] = currentSchema + 1 }, 'schema'],
  ['no schema', (g) => { delete g['schema'] }, 'schema'],
  ['an own encoding that is not carried', (g) => { g.read['encodingId'] = 'own-kiln' }, 'read.own'],
  ['an own encoding that falls', (g) => { g.read['encodingId'] = 'own-kiln'; g.read['own'] = { id: 'own-kiln', name: 'Kiln', gamutId: 'bt709', source: '', curve: { family: 'table', entries: [{ code: 0, linear: 0 }, { code: 0.5, linear: -1 }] } } }, 'read.own.curve'],
  ['a knee beyond its range', (g) => { (g.show['params'] as Json)['kneeStops'] = 50 }, 'show.params'],
  ['a show LUT that is no hash', (g) => { g.show['lutHash'] = 'x' }, 'show.lutHash'],
  ['an unknown encoding', (g) => { g.read['encodingId'] = 'log-9-9' }, 'read.encodingId'],
  ['an unknown gamut', (g) => { g.read['gamutId'] = 'all' }, 'read.gamutId'],
  ['an unknown display', (g) => { g.show['displayId'] = 'wall' }, 'show.displayId'],
  ['an unknown step kind', (g) => { g.steps[0]!['kind'] = 'blur' }, 'steps.0.kind'],
  ['a parameter out of range', (g) => { g.steps[0]!['params'] = { exposureStops: 99 } }, 'steps.0.params'],
  ['a parameter of another kind', (g) => { g.steps[0]!['params'] = { exposureStops: 0, extra: 1 } }, 'steps.0.params'],
  ['a missing parameter', (g) => { g.steps[0]!['params'] = {} }, 'steps.0.params'],
  ['a strength over 1', (g) => { g.steps[0]!['strength'] = 1.5 }, 'steps.0.strength'],
  ['a strange field', (g) => { g['notes'] = 'x' }, 'notes'],
  ['a strange field inside a step', (g) => { g.steps[1]!['onclick'] = 'x' }, 'steps.1.onclick'],
  ['two steps of one id', (g) => { g.steps[1]!['id'] = g.steps[0]!['id'] }, 'steps'],
  ['a step of a region that is not there', (g) => { g.steps[0]!['regionId'] = 'nowhere' }, 'steps.0.regionId'],
  ['a LUT carried by a region', (g) => { g.steps.find((s) => s['kind'] === 'lut')!['regionId'] = 'region-1' }, 'steps.9.regionId'],
  ['a region without size', (g) => { g.regions[0]!.shape['radiusX'] = 0 }, 'regions.0.shape.radiusX'],
  ['a region of text', (g) => { g.regions[0]!.shape['centreX'] = '0.5' }, 'regions.0.shape.centreX'],
  ['a name that is too long', (g) => { g.regions[0]!['name'] = 'x'.repeat(81) }, 'regions.0.name'],
  ['too many steps', (g) => { g.steps = Array.from({ length: 201 }, (_, i) => ({ ...g.steps[0]!, id: `s${i}` })) }, 'steps'],
  ['marks of a step that is not there', (g) => { g['along'] = [{ stepId: 'nowhere', key: 'exposureStops', path: 'smooth', marks: [{ frame: 1, value: 1 }] }] }, 'along.0'],
  ['marks of a curve', (g) => { g['along'] = [{ stepId: 'tone-curve', key: 'points', path: 'smooth', marks: [{ frame: 1, value: 1 }] }] }, 'along.0'],
  ['a mark beyond the control', (g) => { g['along'] = [{ stepId: 'exposure', key: 'exposureStops', path: 'smooth', marks: [{ frame: 1, value: 99 }] }] }, 'along.0.marks.0'],
  ['marks whose frames do not rise', (g) => { g['along'] = [{ stepId: 'exposure', key: 'exposureStops', path: 'linear', marks: [{ frame: 4, value: 1 }, { frame: 4, value: 2 }] }] }, 'along.0.marks.1'],
  ['no marks', (g) => { g['along'] = [{ stepId: 'exposure', key: 'exposureStops', path: 'linear', marks: [] }] }, 'along.0.marks'],
  ['steps that are no list', (g) => { (g as Json)['steps'] = {} }, 'steps.id'],
])('%s is refused at its field', (_, spoil, field) => {
  const grade = copy()
  spoil(grade)
  const fault = faultOf(grade)
  expect(fault.field).toBe(field)
  expect(fault.message).toMatch(/^[A-Z].*\.$/)
})

test.each([[null], [[]], ['grade'], [7], [undefined]])('%j is not a document', (data) => {
  expect(faultOf(data).message).toBe('An object was expected.')
})

test('a prototype cannot be smuggled in', () => {
  const grade = JSON.parse(JSON.stringify(good).replace('"params":{', '"params":{"__proto__":{"exposureStops":1},')) as unknown
  expect(faultOf(grade).field).toBe('__proto__')
  expect(({} as Json)['exposureStops']).toBeUndefined()
})

test('a document of the first schema is brought to the present one', () => {
  const { working: _, ...old } = copy()
  const later = ['black-offset', 'balance-by-tone', 'ends', 'colour-curves']
  const fresh: Readonly<Record<string, readonly string[]>> = { saturation: ['quiet'], lut: ['takes'], 'tone-curve': ['red', 'green', 'blue', 'redStrength', 'greenStrength', 'blueStrength'] }
  const steps = old.steps.filter((s) => !later.includes(String(s['kind']))).map(({ params, ...s }) => ({ ...s, params: Object.fromEntries(Object.entries(params as Json).filter(([key]) => !fresh[String(s['kind'])]?.includes(key))) }))
  const first = { ...old, steps, schema: 1, read: { encodingId: 'log-420-95', gamutId: 'w766', range: 'full' }, show: { method: 'straight', displayId: 'bt709-2.4' } }
  const present = checkedGrade(first)
  expect(present.schema).toBe(currentSchema)
  expect(present).toEqual({ ...good, read: { ...good.read, gamutId: 'w766' } })
})

test('requests are checked the same way', () => {
  expect(checked(NewProject, { name: 'Kiln' }).name).toBe('Kiln')
  expect(() => checked(NewProject, { name: '' })).toThrow(ContractError)
  expect(() => checked(NewProject, { name: 'a\u0000b' })).toThrow(ContractError)
  expect(() => checked(HeadMove, { expectedId: "1'; DROP TABLE shots" })).toThrow(ContractError)
  expect(() => checked(NewRevision, { parentId: '00000000-0000-4000-8000-000000000000', summary: '', grade: {} })).toThrow(ContractError)
})
