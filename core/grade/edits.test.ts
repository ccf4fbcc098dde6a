import { regionKinds } from './defaults'
import { defaultGrade } from './defaults'
import {
  addCurvePoint,
  curveSpacing,
  moveCurvePoint,
  removeCurvePoint,
  setParameter,
  setRead,
  setShow,
  setStationStrength,
  setStep,
  stationStrength,
  withoutStation,
} from './edits'
import { addRegion, removeRegion, setRegion } from './region-edits'

const grade = defaultGrade('log-420-95')
const straight = [
  { x: 0, y: 0 },
  { x: 1, y: 1 },
]

test('an edit makes a new document and leaves the old one alone', () => {
  const before = JSON.stringify(grade)
  const after = setParameter(grade, 'exposure', 'exposureStops', 1)
  expect(after.steps.find((s) => s.id === 'exposure')!.params).toEqual({ exposureStops: 1 })
  expect(JSON.stringify(grade)).toBe(before)
})

test('an edit that changes nothing returns the same document', () => {
  expect(setParameter(grade, 'exposure', 'exposureStops', 0)).toBe(grade)
  expect(setParameter(grade, 'nobody', 'exposureStops', 3)).toBe(grade)
})

test('read, show and step settings are replaced in part', () => {
  expect(setRead(grade, { range: 'legal' }).read).toEqual({ ...grade.read, range: 'legal' })
  expect(setShow(grade, { displayId: 'srgb' }).show.method).toBe('straight')
  expect(setStep(grade, 'lut', { side: 'scene', strength: 0.3 }).steps.at(-1)).toMatchObject({
    side: 'scene',
    strength: 0.3,
  })
})

test('regions come with steps of their own and go with them', () => {
  const first = addRegion(grade)
  const second = addRegion(first.grade)
  expect(second.regionId).not.toBe(first.regionId)
  expect(second.grade.steps.filter((s) => s.regionId === second.regionId).map((s) => s.kind)).toEqual([...regionKinds])
  const moved = setRegion(second.grade, second.regionId, { strength: 0.4, invert: true })
  expect(moved.regions[1]).toMatchObject({ strength: 0.4, invert: true, name: 'Region 2' })
  const back = removeRegion(removeRegion(moved, first.regionId), second.regionId)
  expect(back).toEqual(grade)
})

describe('curve points', () => {
  test('are added in order, but not on top of each other', () => {
    expect(addCurvePoint(straight, { x: 0.5, y: 0.4 }).map((p) => p.x)).toEqual([0, 0.5, 1])
    expect(addCurvePoint(straight, { x: curveSpacing / 2, y: 0.4 })).toBe(straight)
  })
  test('stay between their neighbours and inside the range', () => {
    const three = addCurvePoint(straight, { x: 0.5, y: 0.5 })
    expect(moveCurvePoint(three, 1, { x: 3, y: 3 }, 0, 1)[1]).toEqual({ x: 1 - curveSpacing, y: 1 })
    expect(moveCurvePoint(three, 0, { x: -3, y: -3 }, 0, 1)[0]).toEqual({ x: 0, y: 0 })
  })
  test('always remain two', () => {
    expect(removeCurvePoint(straight, 0)).toBe(straight)
    expect(removeCurvePoint(addCurvePoint(straight, { x: 0.5, y: 0.5 }), 1)).toEqual(straight)
  })
})

describe('a station as a whole', () => {
  const plain = defaultGrade('log-420-95')
  const worked = setParameter(setParameter(plain, 'exposure', 'exposureStops', 1), 'contrast', 'contrast', 1.2)
  test('its strength is that of the steps that do something; none where none does', () => {
    expect(stationStrength(plain, 'level')).toBeNull()
    expect(stationStrength(worked, 'level')).toBe(1)
    const half = setStationStrength(worked, 'level', 0.5)
    expect([stationStrength(half, 'level'), stationStrength(half, 'shape')]).toEqual([0.5, 1])
    expect(half.steps.find((s) => s.kind === 'white-balance')?.strength).toBe(1)
    expect(setStationStrength(plain, 'level', 0.5)).toBe(plain)
  })
  test('left out, it does nothing; what it held is still there', () => {
    const out = withoutStation(worked, 'level')
    expect(stationStrength(out, 'level')).toBeNull()
    expect(out.steps.find((s) => s.kind === 'exposure')?.params).toEqual(
      worked.steps.find((s) => s.kind === 'exposure')?.params,
    )
    expect(stationStrength(out, 'shape')).toBe(1)
    expect(withoutStation(plain, 'finish')).toBe(plain)
  })
})
