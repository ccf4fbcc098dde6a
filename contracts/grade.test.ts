// Long: every rule that a grade document must keep has its own case here.
import {
  addComponent,
  addRegion,
  currentSchema,
  defaultGrade,
  isNeutralStep,
  keyComponent,
  regionStart,
  regionStarts,
  setParameter,
  shapeComponent,
  type GradeDocument,
} from '@core/grade'
import { freshKey, noCleaning, shapeKinds, withKeyframe } from '@core/regions'
import { checked, ContractError, checkedGrade, HeadMove, NewProject, NewRevision } from '.'

const good = addRegion(setParameter(defaultGrade('log-420-95'), 'exposure', 'exposureStops', 0.5)).grade
type Json = Record<string, unknown>
const copy = (): Json & {
  steps: Json[]
  regions: (Json & { components: (Json & { source: Json & { shape: Json } })[] })[]
  read: Json
  show: Json
} => JSON.parse(JSON.stringify(good))

const shapeOf = (g: ReturnType<typeof copy>): Json => g.regions[0]!.components[0]!.source.shape
const sourceOf = (g: ReturnType<typeof copy>): Json => g.regions[0]!.components[0]!.source
const keySource = { kind: 'key', key: freshKey, cleaning: noCleaning }
const motion = { track: null, keys: [], path: 'smooth', roll: false, shown: [], fadeFrames: 0, aspect: 1.7 }

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
  const shapes = shapeKinds.reduce(
    (g, { fresh }) => addComponent(g, 'region-1', shapeComponent('', fresh, { inner: 0.1, outer: 0 })).grade,
    good,
  )
  const track = { kind: 'position', reference: 2, first: 2, values: [0, 0, 0.1, 0], quality: [1, 0, 0.9, 0.4] } as const
  const moving = {
    ...shapes,
    regions: shapes.regions.map((r) => ({
      ...r,
      components: r.components.map((p) =>
        p.source.kind === 'shape'
          ? {
              ...p,
              source: {
                ...withKeyframe(p.source, 5, 1.6),
                motion: { ...withKeyframe(p.source, 5, 1.6).motion!, track },
              },
            }
          : p,
      ),
    })),
  }
  const all = addComponent(moving, 'region-1', keyComponent('', { mode: 'intersect' })).grade
  expect(checkedGrade(JSON.parse(JSON.stringify(all)))).toEqual(all)
})

test('every starting point for a region is a grade that may be kept, and does what it says', () => {
  const base = addRegion(defaultGrade('log-420-95')).grade
  const sample = {
    mode: 'add' as const,
    colours: [
      [0.5, 0.05, 0.05],
      [0.52, 0.05, 0.06],
    ] as const,
  }
  for (const { id } of regionStarts) {
    const start = regionStart(id, 16 / 9, {
      chosen: base.regions[0]!,
      subject: { left: 0.4, top: 0.3, right: 0.5, bottom: 0.5, sample },
    })!
    const { grade, regionId } = addRegion(base, start)
    expect(checkedGrade(JSON.parse(JSON.stringify(grade)))).toEqual(grade)
    const active = grade.steps.filter((s) => s.regionId === regionId && !isNeutralStep(s)).map((s) => s.kind)
    expect(active.length > 0).toBe(['edges', 'side', 'mist', 'shadows'].includes(id))
  }
  expect(regionStart('surroundings', 1.5)).toBeNull()
})

test.each<[string, (g: ReturnType<typeof copy>) => void, string]>([
  [
    'a schema of the future',
    (g) => {
      g['schema'] = currentSchema + 1
    },
    'schema',
  ],
  [
    'no schema',
    (g) => {
      delete g['schema']
    },
    'schema',
  ],
  [
    'an own encoding that is not carried',
    (g) => {
      g.read['encodingId'] = 'own-kiln'
    },
    'read.own',
  ],
  [
    'an own encoding that falls',
    (g) => {
      g.read['encodingId'] = 'own-kiln'
      g.read['own'] = {
        id: 'own-kiln',
        name: 'Kiln',
        gamutId: 'bt709',
        source: '',
        curve: {
          family: 'table',
          entries: [
            { code: 0, linear: 0 },
            { code: 0.5, linear: -1 },
          ],
        },
      }
    },
    'read.own.curve',
  ],
  [
    'a knee beyond its range',
    (g) => {
      ;(g.show['params'] as Json)['kneeStops'] = 50
    },
    'show.params',
  ],
  [
    'a show LUT that is no hash',
    (g) => {
      g.show['lutHash'] = 'x'
    },
    'show.lutHash',
  ],
  [
    'an unknown encoding',
    (g) => {
      g.read['encodingId'] = 'log-9-9'
    },
    'read.encodingId',
  ],
  [
    'an unknown gamut',
    (g) => {
      g.read['gamutId'] = 'all'
    },
    'read.gamutId',
  ],
  [
    'an unknown display',
    (g) => {
      g.show['displayId'] = 'wall'
    },
    'show.displayId',
  ],
  [
    'an unknown step kind',
    (g) => {
      g.steps[0]!['kind'] = 'blur'
    },
    'steps.0.kind',
  ],
  [
    'a parameter out of range',
    (g) => {
      g.steps[0]!['params'] = { exposureStops: 99 }
    },
    'steps.0.params',
  ],
  [
    'a parameter of another kind',
    (g) => {
      g.steps[0]!['params'] = { exposureStops: 0, extra: 1 }
    },
    'steps.0.params',
  ],
  [
    'a strength over 1',
    (g) => {
      g.steps[0]!['strength'] = 1.5
    },
    'steps.0.strength',
  ],
  [
    'a strange field',
    (g) => {
      g['notes'] = 'x'
    },
    'notes',
  ],
  [
    'a strange field inside a step',
    (g) => {
      g.steps[1]!['onclick'] = 'x'
    },
    'steps.1.onclick',
  ],
  [
    'two steps of one id',
    (g) => {
      g.steps[1]!['id'] = g.steps[0]!['id']
    },
    'steps',
  ],
  [
    'a step of a region that is not there',
    (g) => {
      g.steps[0]!['regionId'] = 'nowhere'
    },
    'steps.0.regionId',
  ],
  [
    'a LUT carried by a region',
    (g) => {
      g.steps.find((s) => s['kind'] === 'lut')!['regionId'] = 'region-1'
    },
    'steps.10.regionId',
  ],
  [
    'a shape without size',
    (g) => {
      shapeOf(g)['radiusX'] = 0
    },
    'regions.0.components.0.source.shape.radiusX',
  ],
  [
    'a shape of text',
    (g) => {
      shapeOf(g)['centreX'] = '0.5'
    },
    'regions.0.components.0.source.shape.centreX',
  ],
  [
    'a shape of no kind',
    (g) => {
      shapeOf(g)['kind'] = 'blob'
    },
    'regions.0.components.0.source.shape.kind',
  ],
  [
    'a polygon of two points',
    (g) => {
      sourceOf(g)['shape'] = {
        kind: 'polygon',
        points: [
          { x: 0, y: 0 },
          { x: 1, y: 1 },
        ],
      }
    },
    'regions.0.components.0.source.shape.points',
  ],
  [
    'a component of no kind',
    (g) => {
      sourceOf(g)['kind'] = 'wish'
    },
    'regions.0.components.0.source.kind',
  ],
  [
    'a key with a range of text',
    (g) => {
      ;(g.regions[0]!.components[0] as Json)['source'] = {
        ...keySource,
        key: {
          ...keySource.key,
          groups: [{ hue: { centre: 'red', half: 1, soft: 1 }, chroma: null, lightness: null }],
        },
      }
    },
    'regions.0.components.0.source.key.groups.0.hue.centre',
  ],
  [
    'a key that reads the look',
    (g) => {
      ;(g.regions[0]!.components[0] as Json)['source'] = { ...keySource, key: { ...keySource.key, tap: 'look' } }
    },
    'regions.0.components.0.source.key.tap',
  ],
  [
    'a sample of no colours',
    (g) => {
      ;(g.regions[0]!.components[0] as Json)['source'] = {
        ...keySource,
        key: { ...keySource.key, samples: [{ mode: 'add', colours: [[1, 2]] }] },
      }
    },
    'regions.0.components.0.source.key.samples.0.colours',
  ],
  [
    'an absurd blur',
    (g) => {
      ;(g.regions[0]!.components[0] as Json)['source'] = { ...keySource, cleaning: { ...noCleaning, blur: 9 } }
    },
    'regions.0.components.0.source.cleaning.blur',
  ],
  [
    'a region built from itself',
    (g) => {
      ;(g.regions[0]!.components[0] as Json)['source'] = { kind: 'region', regionId: 'region-1' }
    },
    'regions.0.components',
  ],
  [
    'a region built from none',
    (g) => {
      ;(g.regions[0]!.components[0] as Json)['source'] = { kind: 'region', regionId: 'nowhere' }
    },
    'regions.0.components.0.source.regionId',
  ],
  [
    'a track of half a frame',
    (g) => {
      sourceOf(g)['motion'] = {
        ...motion,
        track: { kind: 'similarity', reference: 0, first: 0, values: [1, 0, 0], quality: [1, 0] },
      }
    },
    'regions.0.components.0.source.motion.track',
  ],
  [
    'keyframes that do not rise',
    (g) => {
      sourceOf(g)['motion'] = { ...motion, keys: [4, 4].map((frame) => ({ frame, shape: shapeOf(g) })) }
    },
    'regions.0.components.0.source.motion.keys',
  ],
  [
    'a keyframe of another shape',
    (g) => {
      sourceOf(g)['motion'] = {
        ...motion,
        keys: [{ frame: 1, shape: { kind: 'linear', fromX: 0, fromY: 0, toX: 1, toY: 1 } }],
      }
    },
    'regions.0.components.0.source.motion.keys',
  ],
  [
    'a shape that was placed already',
    (g) => {
      sourceOf(g)['placed'] = [1, 0, 0, 0, 1, 0, 0, 0, 1]
    },
    'regions.0.components.0.source.placed',
  ],
  [
    'a name that is too long',
    (g) => {
      g.regions[0]!['name'] = 'x'.repeat(81)
    },
    'regions.0.name',
  ],
  [
    'too many steps',
    (g) => {
      g.steps = Array.from({ length: 601 }, (_, i) => ({ ...g.steps[0]!, id: `s${i}` }))
    },
    'steps',
  ],
  [
    'keyframes of a step that is not there',
    (g) => {
      g['animation'] = [
        { stepId: 'nowhere', key: 'exposureStops', path: 'smooth', keyframes: [{ frame: 1, value: 1 }] },
      ]
    },
    'animation.0',
  ],
  [
    'keyframes of a curve',
    (g) => {
      g['animation'] = [{ stepId: 'tone-curve', key: 'points', path: 'smooth', keyframes: [{ frame: 1, value: 1 }] }]
    },
    'animation.0',
  ],
  [
    'a keyframe beyond the control',
    (g) => {
      g['animation'] = [
        { stepId: 'exposure', key: 'exposureStops', path: 'smooth', keyframes: [{ frame: 1, value: 99 }] },
      ]
    },
    'animation.0.keyframes.0',
  ],
  [
    'keyframes that do not rise',
    (g) => {
      g['animation'] = [
        {
          stepId: 'exposure',
          key: 'exposureStops',
          path: 'linear',
          keyframes: [
            { frame: 4, value: 1 },
            { frame: 4, value: 2 },
          ],
        },
      ]
    },
    'animation.0.keyframes.1',
  ],
  [
    'no keyframes',
    (g) => {
      g['animation'] = [{ stepId: 'exposure', key: 'exposureStops', path: 'linear', keyframes: [] }]
    },
    'animation.0.keyframes',
  ],
  [
    'steps that are no list',
    (g) => {
      ;(g as Json)['steps'] = {}
    },
    'steps.id',
  ],
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
  const grade = JSON.parse(
    JSON.stringify(good).replace('"params":{', '"params":{"__proto__":{"exposureStops":1},'),
  ) as unknown
  expect(faultOf(grade).field).toBe('__proto__')
  expect(({} as Json)['exposureStops']).toBeUndefined()
})

test('a parameter that came since a grade was stored stands at its default', () => {
  const grade = copy()
  const { vibrance: _, ...older } = grade.steps.find((s) => s['kind'] === 'saturation')!['params'] as Json
  grade.steps.find((s) => s['kind'] === 'saturation')!['params'] = older
  expect(checkedGrade(grade)).toEqual(good)
})

test('a document of the first schema is brought to the present one', () => {
  const { working: _, ...old } = copy()
  const later = ['black-offset', 'balance-by-tone', 'ends', 'colour-curves', 'local-contrast']
  const fresh: Readonly<Record<string, readonly string[]>> = {
    saturation: ['vibrance'],
    lut: ['takes'],
    'tone-curve': ['red', 'green', 'blue', 'redStrength', 'greenStrength', 'blueStrength'],
  }
  const steps = old.steps
    .filter((s) =>
      s['regionId'] === undefined
        ? !later.includes(String(s['kind']))
        : ['exposure', 'saturation'].includes(String(s['kind'])),
    )
    .map(({ params, ...s }) => ({
      ...s,
      params: Object.fromEntries(
        Object.entries(params as Json).filter(([key]) => !fresh[String(s['kind'])]?.includes(key)),
      ),
    }))
  const regions = [
    { id: 'region-1', name: 'Region 1', enabled: true, shape: shapeOf(copy()), feather: 0.4, invert: false },
  ]
  const first = {
    ...old,
    steps,
    regions,
    schema: 1,
    read: { encodingId: 'log-420-95', gamutId: 'w766', range: 'full' },
    show: { method: 'straight', displayId: 'bt709-2.4' },
  }
  const present = checkedGrade(first)
  expect(present.schema).toBe(currentSchema)
  const byId = (g: GradeDocument) => ({ ...g, steps: [...g.steps].sort((a, b) => a.id.localeCompare(b.id)) })
  const regionsThen = good.regions.map((r) => ({
    ...r,
    components: r.components.map((c) => ({ ...c, id: 'piece-1' })),
  }))
  expect(byId(present)).toEqual(byId({ ...good, regions: regionsThen, read: { ...good.read, gamutId: 'w766' } }))
})

test('requests are checked the same way', () => {
  expect(checked(NewProject, { name: 'Kiln' }).name).toBe('Kiln')
  expect(() => checked(NewProject, { name: '' })).toThrow(ContractError)
  expect(() => checked(NewProject, { name: 'a\u0000b' })).toThrow(ContractError)
  expect(() => checked(HeadMove, { expectedId: "1'; DROP TABLE shots" })).toThrow(ContractError)
  expect(() =>
    checked(NewRevision, { parentId: '00000000-0000-4000-8000-000000000000', summary: '', grade: {} }),
  ).toThrow(ContractError)
})
