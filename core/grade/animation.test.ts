import fc from 'fast-check'
import { addKeyframe, gradeAt, keyframesOf, removeKeyframe, setParameterAt, setPath, valueAt } from './animation'
import { defaultGrade } from './defaults'
import { differences, mergeGrades } from './differences'
import type { GradeDocument } from './document'
import { removeStep, setParameter } from './edits'

const plain = setParameter(defaultGrade('linear'), 'exposure', 'exposureStops', 0.5)
const at = (grade: GradeDocument, frame: number): unknown =>
  gradeAt(grade, frame).steps.find((s) => s.id === 'exposure')?.params['exposureStops']
const set = (grade: GradeDocument, value: number, frame: number): GradeDocument =>
  setParameterAt(grade, 'exposure', 'exposureStops', value, frame, { min: -8, max: 8 })
const ramp = set(
  addKeyframe(addKeyframe(plain, 'exposure', 'exposureStops', 10), 'exposure', 'exposureStops', 30),
  1.5,
  30,
)

test('between two marks the value goes along its path, beyond them it is held', () => {
  expect([0, 10, 20, 30, 99].map((f) => at(ramp, f))).toEqual([0.5, 0.5, 1, 1.5, 1.5])
  const straight = setPath(ramp, 'exposure', 'exposureStops', 'linear')
  expect([15, 20, 25].map((f) => at(straight, f))).toEqual([0.75, 1, 1.25])
  expect(at(ramp, 15)).toBeCloseTo(0.5 + 3 / 16 - 2 / 64, 12)
})

test('a grade without marks is itself at every frame, and one with marks is the same object each time', () => {
  expect(gradeAt(plain, 7)).toBe(plain)
  expect(gradeAt(ramp, 7)).toBe(gradeAt(ramp, 7))
  expect(gradeAt(ramp, 7).animation).toEqual([])
})

test('set on a mark only that mark moves; set between, all move by as much and stay within the control', () => {
  expect([10, 30].map((f) => at(set(ramp, 2, 10), f))).toEqual([2, 1.5])
  expect([10, 20, 30].map((f) => at(set(ramp, 2, 20), f))).toEqual([1.5, 2, 2.5])
  expect([10, 30].map((f) => at(set(ramp, 8, 20), f))).toEqual([7.5, 8])
})

test('the last mark that goes leaves its value for the whole clip; a step that goes takes its marks along', () => {
  const one = removeKeyframe(ramp, 'exposure', 'exposureStops', 10)
  const none = removeKeyframe(one, 'exposure', 'exposureStops', 30)
  expect(at(one, 0)).toBe(1.5)
  expect(none.animation).toEqual([])
  expect(at(none, 0)).toBe(1.5)
  expect(removeStep(ramp, 'exposure').animation).toEqual([])
  expect(addKeyframe(ramp, 'exposure', 'exposureStops', 10)).toBe(ramp)
})

test('the record says a ramp in numbers, and two hands are put together', () => {
  expect(differences(plain, ramp).map((d) => d.words)).toEqual([
    'Exposure along the clip: +0.50 stops at frame 10, +1.50 stops at frame 30',
  ])
  expect(differences(ramp, plain).map((d) => d.words)).toEqual(['Exposure the same along the clip'])
  const theirs = setParameter(plain, 'contrast', 'contrast', 1.2)
  const merged = mergeGrades(plain, ramp, theirs).grade
  expect(keyframesOf(merged, 'exposure', 'exposureStops')).toEqual(keyframesOf(ramp, 'exposure', 'exposureStops'))
  expect(mergeGrades(plain, theirs, ramp).grade.animation).toEqual(ramp.animation)
})

test('any keyframes: never beyond the least and the greatest of them', () => {
  const keyframes = fc.uniqueArray(
    fc.record({ frame: fc.nat(200), value: fc.double({ min: -8, max: 8, noNaN: true }) }),
    {
      minLength: 1,
      maxLength: 6,
      selector: (m) => m.frame,
    },
  )
  fc.assert(
    fc.property(keyframes, fc.constantFrom('linear' as const, 'smooth' as const), fc.nat(250), (some, path, frame) => {
      const sorted = [...some].sort((a, b) => a.frame - b.frame)
      const value = valueAt({ stepId: 'exposure', key: 'exposureStops', path, keyframes: sorted }, frame)
      const values = sorted.map((m) => m.value)
      return value >= Math.min(...values) - 1e-12 && value <= Math.max(...values) + 1e-12
    }),
  )
})
