import fc from 'fast-check'
import { shapeBounds, type Shape } from '@core/regions'
import { boundedShape, boxOf, dragged, nearestSide, nudged, type Grip, type GripEdit } from './shape-grips'

const aspect = 16 / 9
const ellipse: Shape = { kind: 'ellipse', centreX: 0.5, centreY: 0.5, radiusX: 0.2, radiusY: 0.1, rotationDegrees: 0 }
const turned: Shape = { ...ellipse, rotationDegrees: 90 }
const slope: Shape = { kind: 'linear', fromX: 0.2, fromY: 0.3, toX: 0.2, toY: 0.7 }
const square: Shape = {
  kind: 'polygon',
  points: [
    { x: 0.2, y: 0.2 },
    { x: 0.6, y: 0.2 },
    { x: 0.6, y: 0.6 },
    { x: 0.2, y: 0.6 },
  ],
}
const shapeOf = (edit: GripEdit | null): Shape => {
  if (!edit || !('shape' in edit)) throw new Error('A shape was expected.')
  return edit.shape
}
const centre = [0.5 * aspect, 0.5] as const

test('moving takes a shape as far as the pointer goes, in shares of the width and the height', () => {
  const moved = shapeOf(dragged('move', ellipse, centre, [0.6 * aspect, 0.4], aspect))
  expect(moved).toMatchObject({ centreX: 0.6, centreY: 0.4, radiusX: 0.2 })
})

test('a side follows the pointer along the axis of the shape, turned or not', () => {
  const wider = shapeOf(dragged('right', ellipse, centre, [centre[0] + 0.35, 0.9], aspect))
  expect(wider).toMatchObject({ radiusX: 0.35, radiusY: 0.1 })
  const taller = shapeOf(dragged('right', turned, centre, [centre[0] + 0.9, centre[1] + 0.35], aspect))
  expect(taller).toMatchObject({ radiusX: 0.35, radiusY: 0.1 })
})

test('turning counts the angle about the middle, the short way round', () => {
  const right = [centre[0] + 0.3, centre[1]] as const
  const below = [centre[0], centre[1] + 0.3] as const
  expect(shapeOf(dragged('turn', ellipse, right, below, aspect))).toMatchObject({ rotationDegrees: 90 })
  expect(shapeOf(dragged('turn', ellipse, below, right, aspect))).toMatchObject({ rotationDegrees: -90 })
})

test('a soft edge is as wide as the pointer is away from the line', () => {
  const at = [centre[0] + 0.25, centre[1]] as const
  const edit = dragged('outer', { ...ellipse, kind: 'rectangle', corner: 0 }, centre, at, aspect)
  expect(edit).toEqual({ softness: { outer: expect.closeTo(0.05, 5) } })
  const radial: Shape = { ...ellipse, kind: 'radial', core: 0.5 }
  const inner = dragged('inner', radial, centre, [centre[0] + 0.1, centre[1]], aspect)
  expect(shapeOf(inner)).toMatchObject({ core: 0.5 })
})

test('both ends of a gradient move by themselves; grips that it has not do nothing to an outline', () => {
  expect(shapeOf(dragged('to', slope, [0, 0], [0, 0.1], aspect))).toMatchObject({ fromY: 0.3, toY: 0.8 })
  expect(shapeOf(dragged('from', slope, [0, 0], [0, 0.1], aspect))).toMatchObject({ fromY: 0.4, toY: 0.7 })
  expect(dragged('right', square, [0, 0], [0.1, 0], aspect)).toBeNull()
})

test('keys go by small steps, and by ten with Shift', () => {
  const right = { dx: 1, dy: 0 }
  const soft = { inner: 0.02, outer: 0.02 }
  expect(shapeOf(nudged('right', ellipse, soft, right, 1, aspect))).toMatchObject({ radiusX: 0.205 })
  expect(shapeOf(nudged('right', ellipse, soft, right, 10, aspect))).toMatchObject({ radiusX: 0.25 })
  expect(shapeOf(nudged('turn', ellipse, soft, right, 1, aspect))).toMatchObject({ rotationDegrees: 1 })
  expect(nudged('outer', ellipse, soft, right, 1, aspect)).toEqual({ softness: { outer: 0.025 } })
  expect(nudged('inner', ellipse, soft, right, 1, aspect)).toEqual({ softness: { inner: 0.015 } })
})

test('a point is added on the side that is nearest', () => {
  const { points } = square
  expect(nearestSide(points, 0.4, 0.19)).toBe(0)
  expect(nearestSide(points, 0.61, 0.4)).toBe(1)
  expect(nearestSide(points, 0.19, 0.4)).toBe(3)
})

test('the box of an outline goes round it', () => {
  expect(boxOf(square, aspect)).toEqual({
    left: expect.closeTo(0.2 * aspect, 6),
    right: expect.closeTo(0.6 * aspect, 6),
    top: 0.2,
    bottom: 0.6,
  })
})

test('wherever a hand goes, what comes of it lies within the bounds', () => {
  const place = fc.tuple(fc.double({ min: -50, max: 50, noNaN: true }), fc.double({ min: -50, max: 50, noNaN: true }))
  const grips: readonly Grip[] = ['move', 'right', 'top', 'turn', 'size', 'inner', 'outer', { point: 1, part: 'at' }]
  fc.assert(
    fc.property(
      fc.constantFrom(...grips),
      fc.constantFrom(ellipse, turned, slope, square),
      place,
      place,
      (grip, was, from, to) => {
        const edit = dragged(grip, was, from, to, aspect)
        if (!edit) return
        if ('softness' in edit) {
          for (const v of Object.values(edit.softness)) {
            expect(v).toBeGreaterThanOrEqual(shapeBounds.softness.min)
            expect(v).toBeLessThanOrEqual(shapeBounds.softness.max)
          }
          return
        }
        expect(edit.shape).toEqual(boundedShape(edit.shape))
      },
    ),
  )
})
