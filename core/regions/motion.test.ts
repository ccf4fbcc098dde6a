import fc from 'fast-check'
import {
  between,
  changedShape,
  centreOf,
  outlineOf,
  presenceAt,
  regionAt,
  settledAt,
  shapeAt,
  shapeKinds,
  smoothPath,
  stilled,
  trackAt,
  withKeyframe,
  withoutKeyframe,
  withShapeAt,
  withShown,
  type Motion,
  type Region,
  type Shape,
  type ShapeSource,
  type Track,
} from '.'

const ellipse = { kind: 'ellipse', centreX: 0.4, centreY: 0.5, radiusX: 0.2, radiusY: 0.1, rotationDegrees: 0 } as const
const still: ShapeSource = { kind: 'shape', shape: ellipse, inner: 0.02, outer: 0.03 }
const motion = (more: Partial<Motion>): Motion => ({
  track: null,
  keys: [],
  path: 'linear',
  roll: false,
  shown: [],
  fadeFrames: 0,
  aspect: 16 / 9,
  ...more,
})
const track: Track = {
  kind: 'position',
  reference: 10,
  first: 8,
  values: [-0.2, 0, -0.1, 0, 0, 0, 0.1, 0.05],
  quality: [1, 0, 1, 0, 1, 0, 1, 0],
}
const moved = { ...ellipse, centreX: 0.6, rotationDegrees: 90 }

describe('keyframes', () => {
  test(
    'hold before the first and after the last; between them middles go straight, turns are turns and ' +
      'sizes are factors',
    () => {
      const source = {
        ...still,
        motion: motion({
          keys: [
            { frame: 10, shape: ellipse },
            { frame: 20, shape: { ...moved, radiusX: 0.8 } },
          ],
        }),
      }
      expect(shapeAt(source, 0).shape).toEqual(ellipse)
      expect(shapeAt(source, 99).shape).toEqual({ ...moved, radiusX: 0.8 })
      expect(shapeAt(source, 15).shape).toMatchObject({ rotationDegrees: 45 })
      expect((shapeAt(source, 15).shape as typeof ellipse).centreX).toBeCloseTo(0.5, 9)
      expect((shapeAt(source, 15).shape as typeof ellipse).radiusX).toBeCloseTo(0.4, 9)
    },
  )
  test('a smooth way rests at both ends', () => {
    const source = {
      ...still,
      motion: motion({
        path: 'smooth',
        keys: [
          { frame: 0, shape: ellipse },
          { frame: 100, shape: moved },
        ],
      }),
    }
    const x = (frame: number): number => centreOf(shapeAt(source, frame).shape).x
    expect(x(1) - x(0)).toBeLessThan((x(51) - x(50)) * 0.1)
    expect(x(50)).toBeCloseTo(0.5, 9)
  })
  test('with the frame rolling, first and last are enough: every place stays on its circle', () => {
    const aspect = 1.5
    const centre = [0.75, 0.5] as const
    const at = (degrees: number): Shape => {
      const r = (degrees * Math.PI) / 180
      const dx = 0.3
      const dy = 0.1
      return {
        ...ellipse,
        centreX: (centre[0] + dx * Math.cos(r) - dy * Math.sin(r)) / aspect,
        centreY: centre[1] + dx * Math.sin(r) + dy * Math.cos(r),
        rotationDegrees: degrees,
      }
    }
    for (const t of [0.2, 0.5, 0.9]) {
      const found = between(at(0), at(80), t, true, aspect)
      const wanted = at(80 * t)
      expect(centreOf(found).x).toBeCloseTo(centreOf(wanted).x, 9)
      expect(centreOf(found).y).toBeCloseTo(centreOf(wanted).y, 9)
    }
    // Without rolling it cuts the corner.
    expect(Math.abs(centreOf(between(at(0), at(80), 0.5, false, aspect)).y - centreOf(at(40)).y)).toBeGreaterThan(0.01)
  })
  test('an outline that turns half round keeps its size on the way', () => {
    const path = smoothPath([
      { x: 0.4, y: 0.3 },
      { x: 0.6, y: 0.35 },
      { x: 0.65, y: 0.6 },
      { x: 0.35, y: 0.65 },
    ])
    const turned = changedShape(path, 1.6, { degrees: 170 })
    const width = (shape: Shape): number => {
      const places = outlineOf(shape, 1.6)
      const [cu, cv] = [0, 1].map((k) => places.reduce((s, p) => s + p[k as 0 | 1], 0) / places.length)
      return Math.max(...places.map(([u, v]) => Math.hypot(u - cu!, v - cv!)))
    }
    for (const t of [0.25, 0.5, 0.75]) expect(width(between(path, turned, t, false, 1.6))).toBeCloseTo(width(path), 3)
  })
  test('every kind is itself at both ends, and one that does not fit stays', () => {
    for (const { fresh } of shapeKinds) {
      const other = changedShape(fresh, 1.7, { x: 0.1, y: -0.05, size: 1.4, degrees: 25 })
      const end = between(fresh, other, 1, false, 1.7)
      const start = between(fresh, other, 0, true, 1.7)
      outlineOf(end, 1.7).forEach(([u, v], i) =>
        expect(Math.hypot(u - outlineOf(other, 1.7)[i]![0], v - outlineOf(other, 1.7)[i]![1])).toBeLessThan(1e-9),
      )
      outlineOf(start, 1.7).forEach(([u, v], i) =>
        expect(Math.hypot(u - outlineOf(fresh, 1.7)[i]![0], v - outlineOf(fresh, 1.7)[i]![1])).toBeLessThan(1e-9),
      )
    }
    expect(between(ellipse, shapeKinds[2]!.fresh, 0.5, false, 1.7)).toBe(ellipse)
  })
  test('are added as the shape lies, and taken away again; with the last the shape keeps its form', () => {
    const one = withKeyframe(still, 5, 1.7)
    const two = withShapeAt(one, moved, 25)
    expect(two.motion!.keys.map((k) => k.frame)).toEqual([5, 25])
    expect(withKeyframe(two, 5, 1.7)).toBe(two)
    expect(withoutKeyframe(withoutKeyframe(two, 5), 25)).toEqual({ ...still, shape: moved })
  })
})

describe('a track', () => {
  test('moves the shape at each of its frames, and holds beyond', () => {
    expect(trackAt(track, 11)).toEqual([1, 0, 0.1, 0, 1, 0.05, 0, 0, 1])
    expect(trackAt(track, 500)).toEqual(trackAt(track, 11))
    expect(trackAt(track, 0)).toEqual(trackAt(track, 8))
  })
  test('corrected at a frame it is bent from where it was drawn to there, and not lost', () => {
    const followed = { ...still, motion: motion({ track }) }
    const corrected = withShapeAt(followed, { ...ellipse, centreY: 0.6 }, 12)
    expect(corrected.motion!.track).toBe(track)
    expect(corrected.motion!.keys.map((k) => k.frame)).toEqual([10, 12])
    expect(shapeAt(corrected, 10).shape).toEqual(ellipse)
    expect(centreOf(shapeAt(corrected, 11).shape).y).toBeCloseTo(0.55, 9)
    // Changed where it was drawn, it is changed everywhere.
    expect(withShapeAt(followed, moved, 10)).toEqual({ ...followed, shape: moved })
  })
  test('left, the shape stays as it lies', () => {
    const followed = {
      ...still,
      motion: motion({
        track: {
          ...track,
          kind: 'similarity',
          first: 10,
          values: [1, 0, 0, 0, 0, 2, 0.5, -0.2],
          quality: [1, 0, 1, 0],
        },
      }),
    }
    const left = settledAt(followed, 11)
    expect(left).toMatchObject({ inner: 0.04, outer: 0.06, shape: { radiusX: 0.4, radiusY: 0.2 } })
    expect((left.shape as typeof ellipse).rotationDegrees).toBeCloseTo(90, 3)
    expect(left.motion).toBeUndefined()
  })
})

test('hidden and seen again, at once or fading', () => {
  const shown = [
    { frame: 10, on: false },
    { frame: 20, on: true },
  ]
  expect([9, 10, 19, 20, 30].map((f) => presenceAt({ shown, fadeFrames: 0 }, f))).toEqual([1, 0, 0, 1, 1])
  expect([9, 10, 11, 12, 13].map((f) => Math.round(presenceAt({ shown, fadeFrames: 3 }, f) * 100))).toEqual([
    100, 75, 50, 25, 0,
  ])
  const hidden = withShown(still, 10, 1.7)
  const back = withShown(hidden, 20, 1.7)
  expect(back.motion!.shown).toEqual(shown)
  expect(withShown(withShown(back, 20, 1.7), 10, 1.7)).toEqual(still)
  expect(stilled({ ...still, motion: motion({}) })).toEqual(still)
})

test('a region without motion is the same object at every frame', () => {
  const region: Region = {
    id: 'r',
    name: 'r',
    enabled: true,
    invert: false,
    strength: 1,
    components: [{ id: 'p', mode: 'add', invert: false, opacity: 1, source: still }],
  }
  expect(regionAt(region, 7)).toBe(region)
  expect(
    regionAt(
      { ...region, components: [{ ...region.components[0]!, source: { ...still, motion: motion({ track }) } }] },
      11,
    ).components[0]!.source,
  ).toMatchObject({ placed: [1, 0, 0.1, 0, 1, 0.05, 0, 0, 1] })
})

test('moving, sizing and turning lead back', () => {
  const number = fc.double({ min: -0.4, max: 0.4, noNaN: true })
  fc.assert(
    fc.property(fc.constantFrom(...shapeKinds.map((k) => k.fresh)), number, number, (shape, a, b) => {
      const by = { x: a, y: b, size: 2 ** a, degrees: 100 * b }
      const there = changedShape(shape, 1.8, by)
      const back = changedShape(
        changedShape(changedShape(there, 1.8, { degrees: -by.degrees }), 1.8, { size: 1 / by.size }),
        1.8,
        { x: -a, y: -b },
      )
      outlineOf(back, 1.8).forEach(([u, v], i) =>
        expect(Math.hypot(u - outlineOf(shape, 1.8)[i]![0], v - outlineOf(shape, 1.8)[i]![1])).toBeLessThan(1e-9),
      )
    }),
  )
})
