import { amountAt, quickColours, setPush, setQuickColour, tears } from './colour-push'
import { defaultParameters, parameterFault } from './step-kind'
import { colourCurve, colourCurves, colourCurvesStep } from './steps/colour-curves'
import type { CurvePoint } from './document'

const fresh = defaultParameters(colourCurvesStep) as unknown as Record<keyof typeof colourCurves, readonly CurvePoint[]>

test('a push is full at its hue, gone at its width, and nothing elsewhere, across 360° as well', () => {
  for (const degrees of [5, 100, 355]) {
    const points = setPush('saturationByHue', fresh.saturationByHue, {
      degrees,
      widthDegrees: 40,
      softness: 1,
      amount: 0.5,
    })
    expect(parameterFault(colourCurves.saturationByHue, points)).toBeNull()
    expect(amountAt('saturationByHue', points, degrees)).toBeCloseTo(0.5, 2)
    for (const off of [-40, 40, 90, 180]) expect(amountAt('saturationByHue', points, degrees + off)).toBeCloseTo(0, 2)
  }
})

test('softness makes a plateau of a point, and the same push again replaces itself', () => {
  const push = { degrees: 200, widthDegrees: 60, softness: 0.4, amount: -1 }
  const once = setPush('lightnessByHue', fresh.lightnessByHue, push)
  const again = setPush('lightnessByHue', once, { ...push, amount: 0.5 })
  for (const off of [-30, 0, 30]) expect(amountAt('lightnessByHue', once, 200 + off)).toBeCloseTo(-1, 2)
  expect(again).toHaveLength(once.length)
  expect(amountAt('lightnessByHue', again, 200)).toBeCloseTo(0.5, 2)
})

test('a second push leaves the first one alone', () => {
  const one = setPush('hueByHue', fresh.hueByHue, { degrees: 30, widthDegrees: 30, softness: 1, amount: 12 })
  const two = setPush('hueByHue', one, { degrees: 200, widthDegrees: 40, softness: 1, amount: -20 })
  expect(amountAt('hueByHue', two, 30)).toBeCloseTo(12, 1)
  expect(amountAt('hueByHue', two, 200)).toBeCloseTo(-20, 1)
})

test('each quick colour is its own, set on the same curves', () => {
  let points: readonly CurvePoint[] = fresh.saturationByHue
  quickColours.forEach(({ id }, i) => {
    points = setQuickColour('saturationByHue', points, id, (i - 2) / 10)
  })
  expect(parameterFault(colourCurves.saturationByHue, points)).toBeNull()
  quickColours.forEach(({ degrees }, i) =>
    expect(colourCurve('saturationByHue', points)!(degrees)).toBeCloseTo(1 + (i - 2) / 10, 2),
  )
  // Put back to nothing, the curve changes nothing.
  for (const { id } of quickColours) points = setQuickColour('saturationByHue', points, id, 0)
  expect(quickColours.every(({ degrees }) => Math.abs(amountAt('saturationByHue', points, degrees)) < 1e-9)).toBe(true)
})

test('a gentle curve tears nothing; a narrow hard one does, where it is steep', () => {
  expect(tears('hueByHue', fresh.hueByHue)).toEqual([])
  expect(
    tears('hueByHue', setPush('hueByHue', fresh.hueByHue, { degrees: 120, widthDegrees: 60, softness: 1, amount: 15 })),
  ).toEqual([])
  const found = tears(
    'hueByHue',
    setPush('hueByHue', fresh.hueByHue, { degrees: 120, widthDegrees: 15, softness: 1, amount: 40 }),
  )
  expect(found.length).toBeGreaterThan(0)
  for (const { from, to } of found) expect(from >= 104 && to <= 136).toBe(true)
  // Strong colours made weaker than weak ones.
  expect(
    tears('saturationBySaturation', [
      { x: 0, y: 1 },
      { x: 0.3, y: 1 },
      { x: 0.4, y: 0.2 },
    ]),
  ).not.toEqual([])
})
