import fc from 'fast-check'
import { addStep, removeStep, setParameter, setRead, setShow, setShowParameter, setStep } from './edits'
import { addComponent, addRegion, keyComponent, removeRegion, setRegion, setShapeAt } from './region-edits'
import { defaultGrade } from './defaults'
import { differences, mergeGrades } from './differences'
import type { GradeDocument } from './document'

const base = defaultGrade('log-420-95')
const words = (after: GradeDocument, before = base): readonly string[] => differences(before, after).map((d) => d.words)

test.each<[string, (g: GradeDocument) => GradeDocument, string[]]>([
  ['a control', (g) => setParameter(g, 'exposure', 'exposureStops', 0.7), ['Exposure 0.00 stops → +0.70 stops']],
  ['a share', (g) => setParameter(g, 'saturation', 'saturation', 1.2), ['Saturation 100 % → 120 %']],
  ['a strength', (g) => setStep(g, 'contrast', { strength: 0.5 }), ['Contrast, strength 100 % → 50 %']],
  ['a switch', (g) => setStep(g, 'contrast', { enabled: false }), ['Contrast off']],
  ['a side', (g) => setStep(g, 'contrast', { side: 'display' }), ['Contrast moved after Show']],
  ['a range', (g) => setRead(g, { range: 'legal' }), ['Code range full → legal']],
  ['an encoding', (g) => setRead(g, { encodingId: 'log-400-95-a' }), ['Encoding Log 420/95 → Log 400/95 A']],
  ['a display', (g) => setShow(g, { displayId: 'srgb' }), ['Display BT.709, gamma 2.4 → sRGB']],
  ['a shoulder', (g) => setShowParameter(g, 'sceneMaximumStops', 7), ['Scene maximum +6.0 stops → +7.0 stops']],
  ['a zone', (g) => addStep(g, 'zone', 'Darks', { centreStops: -3 }), ['Darks added: centre −3.0 stops']],
  ['a region', (g) => addRegion(g).grade, ['Region 1 added']],
  ['nothing', (g) => g, []],
])('%s is said in words and numbers', (_, change, said) => {
  expect(words(change(base))).toEqual(said)
})

test('a zone and a region say whose control it is; a removed one that it is gone', () => {
  const zoned = addStep(base, 'zone', 'Darks', {})
  expect(words(setParameter(zoned, 'zone-1', 'saturation', 0.5), zoned)).toEqual(['Darks, saturation 100 % → 50 %'])
  expect(words(base, zoned)).toEqual(['Darks removed'])
  const { grade } = addRegion(base)
  expect(words(setRegion(grade, 'region-1', { strength: 0.9 }), grade)).toEqual(['Region 1, strength 100 % → 90 %'])
  expect(
    words(
      setShapeAt(grade, 'region-1', 'component-1', { kind: 'linear', fromX: 0, fromY: 0, toX: 1, toY: 1 }, 0),
      grade,
    ),
  ).toEqual(['Region 1: shape or edge'])
  expect(words(addComponent(grade, 'region-1', keyComponent('x')).grade, grade)).toEqual(['Region 1: 1 → 2 components'])
  expect(words(grade, removeRegion(grade, 'region-1'))).toEqual(['Region 1 added'])
  expect(words(removeRegion(grade, 'region-1'), grade)).toEqual(['Region 1 removed'])
})

describe('two hands', () => {
  test('that changed different things both have their way', () => {
    const ours = setParameter(addStep(base, 'zone', 'Darks', {}), 'exposure', 'exposureStops', 1)
    const theirs = setShow(setParameter(base, 'contrast', 'contrast', 1.3), { gamutMethod: 'compress' })
    const { grade, both } = mergeGrades(base, ours, theirs)
    expect(both).toEqual([])
    expect(new Set(words(grade))).toEqual(new Set([...words(ours), ...words(theirs)]))
  })
  test('that changed the same thing: ours stands, and it is said', () => {
    const { grade, both } = mergeGrades(
      base,
      setParameter(base, 'exposure', 'exposureStops', 1),
      setParameter(base, 'exposure', 'exposureStops', -1),
    )
    expect(both).toEqual(['Exposure 0.00 stops → +1.00 stops'])
    expect(words(grade)).toEqual(['Exposure 0.00 stops → +1.00 stops'])
  })
  test('what one removed and the other left is gone; a step of a removed region goes with it', () => {
    const zoned = addRegion(addStep(base, 'zone', 'Darks', {})).grade
    const { grade } = mergeGrades(
      zoned,
      { ...removeStep(zoned, 'zone-1'), regions: [] },
      setParameter(zoned, 'region-1-exposure', 'exposureStops', 1),
    )
    expect(grade.steps.some((s) => s.kind === 'zone' || s.regionId)).toBe(false)
    expect(grade.regions).toEqual([])
  })
  test('merging with oneself or with no change is no change', () => {
    const numbers = fc.double({ min: -2, max: 2, noNaN: true })
    fc.assert(
      fc.property(numbers, numbers, (a, b) => {
        const mine = setParameter(base, 'exposure', 'exposureStops', a)
        const other = setParameter(mine, 'ends', 'shadowStops', b)
        expect(mergeGrades(base, mine, base).grade).toEqual(mine)
        expect(mergeGrades(base, base, other).grade).toEqual(other)
        expect(mergeGrades(base, other, other).grade).toEqual(other)
      }),
    )
  })
})

test('the strength of a table in Read and in Show is told, and merged by itself', () => {
  const shown = setShow(base, { lutStrength: 0.6 })
  const readAs = setRead(base, { lutStrength: 0.25 })
  expect(words(shown)).toEqual(['Shown by its LUT 100 % → 60 %'])
  expect(words(readAs)).toEqual(['Read by its LUT 100 % → 25 %'])
  expect(mergeGrades(base, shown, readAs).grade).toMatchObject({
    read: { lutStrength: 0.25 },
    show: { lutStrength: 0.6 },
  })
})

test('the order of keys is no difference: the database does not keep it', () => {
  const reversed = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(reversed)
    if (typeof value !== 'object' || value === null) return value
    return Object.fromEntries(
      Object.entries(value)
        .toReversed()
        .map(([k, v]) => [k, reversed(v)]),
    )
  }
  const { grade, regionId } = addRegion(base)
  const mine = addComponent(grade, regionId, keyComponent('')).grade
  expect(JSON.stringify(reversed(mine))).not.toBe(JSON.stringify(mine))
  expect(words(reversed(mine) as GradeDocument, mine)).toEqual([])
})

test('the order of steps is told within a station, not across stations', () => {
  const grade = addStep(addStep(base, 'cdl', 'First', {}), 'cdl', 'Second', {})
  const [first, second] = grade.steps.slice(-2)
  const others = grade.steps.slice(0, -2)
  expect(words({ ...grade, steps: [...others, second!, first!] }, grade)).toEqual(['Order of steps'])
  const look = grade.steps.slice(-3)
  expect(words({ ...grade, steps: [...look, ...grade.steps.slice(0, -3)] }, grade)).toEqual([])
})
