import fc from 'fast-check'
import { monotoneCurve } from './monotone-curve'

const rising = fc
  .array(fc.tuple(fc.double({ min: 0.01, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true })), {
    minLength: 2,
    maxLength: 10,
  })
  .map((steps) =>
    steps.reduce<{ x: number; y: number }[]>((points, [dx, dy]) => {
      const last = points.at(-1) ?? { x: 0, y: 0 }
      return [...points, { x: last.x + dx, y: last.y + dy }]
    }, []),
  )

test('goes through its points', () => {
  fc.assert(fc.property(rising, (points) => points.every(({ x, y }) => Math.abs(monotoneCurve(points)(x) - y) < 1e-9)))
})

test('never falls where its points rise', () => {
  fc.assert(
    fc.property(rising, (points) => {
      const curve = monotoneCurve(points)
      const first = points[0]!.x - 0.5
      const last = points.at(-1)!.x + 0.5
      let before = -Infinity
      for (let i = 0; i <= 300; i++) {
        const y = curve(first + ((last - first) * i) / 300)
        if (y < before - 1e-9) return false
        before = y
      }
      return true
    }),
  )
})

test('has no corner: the slope on both sides of a point is the same', () => {
  const curve = monotoneCurve([
    { x: 0, y: 0 },
    { x: 0.3, y: 0.1 },
    { x: 0.5, y: 0.6 },
    { x: 1, y: 1 },
  ])
  const h = 1e-6
  for (const x of [0, 0.3, 0.5, 1]) expect((curve(x) - curve(x - h)) / h).toBeCloseTo((curve(x + h) - curve(x)) / h, 3)
})

test('two points are a straight line, and one is not enough', () => {
  expect(
    monotoneCurve([
      { x: 0, y: 0.1 },
      { x: 1, y: 0.9 },
    ])(2),
  ).toBeCloseTo(1.7, 12)
  expect(() => monotoneCurve([{ x: 0, y: 0 }])).toThrow(RangeError)
})
