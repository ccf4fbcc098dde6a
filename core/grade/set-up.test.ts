import { addKeyframe, keyframesOf } from './animation'
import { defaultGrade } from './defaults'
import type { GradeDocument } from './document'
import { addStep, removeStep, setParameter, setRead, setShow, setStep } from './edits'
import { addRegion } from './region-edits'
import { followChange } from './set-up'

const plain = defaultGrade('linear')
const exposed = (g: GradeDocument, stops: number): GradeDocument => setParameter(g, 'exposure', 'exposureStops', stops)
const stops = (g: GradeDocument): unknown => g.steps.find((s) => s.id === 'exposure')!.params['exposureStops']

test('a number moves by as much, so an offset stays; at the end of its control it is held', () => {
  expect(stops(followChange(exposed(plain, 0.3), plain, exposed(plain, 1)))).toBe(1.3)
  expect(stops(followChange(exposed(plain, 7.5), plain, exposed(plain, 1)))).toBe(8)
})

test('there and back is where it was', () => {
  const member = exposed(plain, 0.3)
  const there = followChange(member, plain, exposed(plain, 1))
  expect(followChange(there, exposed(plain, 1), plain)).toEqual(member)
})

test('steps that come and go follow, and what is no number is as it is there', () => {
  const zoned = addStep(plain, 'zone', 'Darks', { exposureStops: 1 })
  const member = exposed(plain, 0.5)
  const followed = followChange(member, plain, zoned)
  expect(followed.steps.map((s) => s.id)).toEqual(zoned.steps.map((s) => s.id))
  expect(followChange(followed, zoned, removeStep(zoned, 'zone-1'))).toEqual(member)
  const curve = [
    { x: 0, y: 0.1 },
    { x: 1, y: 1 },
  ]
  expect(
    followChange(member, plain, setParameter(plain, 'tone-curve', 'points', curve)).steps.find(
      (s) => s.id === 'tone-curve',
    )!.params['points'],
  ).toEqual(curve)
  expect(
    followChange(member, plain, setStep(plain, 'contrast', { enabled: false })).steps.find((s) => s.id === 'contrast')!
      .enabled,
  ).toBe(false)
})

test('how a shot is read and shown, its regions and its marks are its own', () => {
  const member = addKeyframe(exposed(plain, 1), 'exposure', 'exposureStops', 5)
  for (const change of [
    setRead(plain, { range: 'legal' }),
    setShow(plain, { displayId: 'srgb' }),
    addRegion(plain).grade,
    addKeyframe(plain, 'exposure', 'exposureStops', 9),
  ])
    expect(followChange(member, plain, change)).toBe(member)
  // What is marked moves as a whole.
  expect(keyframesOf(followChange(member, plain, exposed(plain, 0.5)), 'exposure', 'exposureStops')!.keyframes).toEqual(
    [{ frame: 5, value: 1.5 }],
  )
})
