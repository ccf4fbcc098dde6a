import { regionKinds } from './defaults'
import { addStep, setParameter, setStep } from './edits'
import { addComponent, addRegion, changeShapeSource, setRegion, setShapeAt } from './region-edits'
import { isNeutralStep } from './chain'
import { defaultGrade } from './defaults'
import { differences } from './differences'
import { applyRecipe, recipeContent } from './recipes'

const base = defaultGrade('log-420-95')
const look = setStep(
  addStep(
    setParameter(setParameter(base, 'contrast', 'contrast', 1.2), 'exposure', 'exposureStops', 1),
    'zone',
    'Darks',
    { centreStops: -3, tintAmount: 0.2 },
  ),
  'contrast',
  { strength: 0.6 },
)

const ellipse = {
  kind: 'ellipse',
  centreX: 0.3,
  centreY: 0.5,
  radiusX: 0.2,
  radiusY: 0.2,
  rotationDegrees: 20,
} as const
const lit = setRegion(
  setShapeAt(
    setParameter(addRegion(look).grade, 'region-1-exposure', 'exposureStops', 0.5),
    'region-1',
    'component-1',
    ellipse,
    0,
  ),
  'region-1',
  { name: 'Face' },
)

test('holds what does something in the chosen stations, and the regions that carry it', () => {
  expect(recipeContent(look, ['shape', 'look']).steps.map((s) => s.name)).toEqual(['Contrast', 'Darks'])
  expect(recipeContent(lit, ['shape']).regions).toEqual([])
  const { steps, regions } = recipeContent(lit, ['regions'])
  expect(steps).toEqual([
    {
      kind: 'exposure',
      name: 'Exposure',
      strength: 1,
      side: 'scene',
      params: { exposureStops: 0.5 },
      regionId: 'region-1',
    },
  ])
  expect(regions).toMatchObject([{ id: 'region-1', name: 'Face', components: [{ source: { shape: ellipse } }] }])
  // A region that is off, or whose steps do nothing, is not part of it.
  expect(recipeContent(setRegion(lit, 'region-1', { enabled: false }), ['regions'])).toEqual({ steps: [], regions: [] })
  expect(recipeContent(addRegion(base).grade, ['regions'])).toEqual({ steps: [], regions: [] })
})

test('a region comes in beside those that are there, with its steps and what a region always offers', () => {
  const there = addRegion(defaultGrade('hlg')).grade
  const twice = [1, 2].reduce((g) => applyRecipe(g, recipeContent(lit, ['regions'])), there)
  expect(twice.regions.map((r) => [r.id, r.name, r.enabled])).toEqual([
    ['region-1', 'Region 1', true],
    ['region-2', 'Face', true],
    ['region-3', 'Face', true],
  ])
  const own = twice.steps.filter((s) => s.regionId === 'region-3')
  expect(new Set(own.map((s) => s.kind))).toEqual(new Set(regionKinds))
  expect(own.filter((s) => !isNeutralStep(s)).map((s) => [s.id, s.params])).toEqual([
    ['region-3-exposure', { exposureStops: 0.5 }],
  ])
  expect(new Set(twice.steps.map((s) => s.id)).size).toBe(twice.steps.length)
})

test('comes into another grade as ordinary steps: into neutral ones of its kind, else beside what is there', () => {
  const other = defaultGrade('hlg')
  expect(differences(other, applyRecipe(other, recipeContent(look, ['shape']))).map((d) => d.words)).toEqual([
    'Contrast 1.00 × → 1.20 ×',
    'Contrast, strength 100 % → 60 %',
    'Darks added: centre −3.0 stops, tint 0.20 stops',
  ])
  const worked = setParameter(other, 'contrast', 'contrast', 0.9)
  const both = applyRecipe(worked, recipeContent(look, ['shape']))
  expect(both.steps.filter((s) => s.kind === 'contrast').map((s) => s.params['contrast'])).toEqual([0.9, 1.2])
  expect(new Set(both.steps.map((s) => s.id)).size).toBe(both.steps.length)
})

test(
  'a region that is built from another brings it along, under ids of their own; how a shape ' +
    'followed its clip stays behind',
  () => {
    const around = addComponent(addRegion(lit).grade, 'region-2', {
      id: '',
      mode: 'subtract',
      invert: false,
      opacity: 1,
      source: { kind: 'region', regionId: 'region-1' },
    }).grade
    const moving = changeShapeSource(
      setParameter(around, 'region-2-exposure', 'exposureStops', -1),
      'region-1',
      'component-1',
      (source) => ({
        ...source,
        motion: {
          track: null,
          keys: [{ frame: 3, shape: ellipse }],
          path: 'smooth',
          roll: false,
          shown: [],
          fadeFrames: 0,
          aspect: 1.6,
        },
      }),
    )
    const content = recipeContent(
      setRegion(setParameter(moving, 'region-1-exposure', 'exposureStops', 0), 'region-1', { enabled: false }),
      ['regions'],
    )
    expect(content.regions.map((r) => r.id)).toEqual(['region-1', 'region-2'])
    expect(content.regions[0]!.components[0]!.source).not.toHaveProperty('motion')
    const there = applyRecipe(addRegion(addRegion(base).grade).grade, content)
    expect(there.regions.map((r) => r.id)).toEqual(['region-1', 'region-2', 'region-3', 'region-4'])
    expect(there.regions[3]!.components[1]!.source).toEqual({ kind: 'region', regionId: 'region-3' })
  },
)
