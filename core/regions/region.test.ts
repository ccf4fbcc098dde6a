import fc from 'fast-check'
import {
  blankPicture,
  join,
  matteAt,
  renderMatte,
  shapeKinds,
  type MatteComponent,
  type Region,
  type Shape,
  type ShownShape,
} from '.'
import { rotate } from '../../tests/support/motions'

const ellipse = { kind: 'ellipse', centreX: 0.5, centreY: 0.5, radiusX: 0.3, radiusY: 0.2, rotationDegrees: 0 } as const
const component = (
  shape: Shape,
  more: Partial<MatteComponent> = {},
  source: Partial<ShownShape> = {},
): MatteComponent => ({
  id: 'p',
  mode: 'add',
  invert: false,
  opacity: 1,
  ...more,
  source: { kind: 'shape', shape, inner: 0.04, outer: 0.04, ...source },
})
const region = (components: readonly MatteComponent[], more: Partial<Region> = {}): Region => ({
  id: 'r',
  name: 'r',
  enabled: true,
  invert: false,
  strength: 1,
  components,
  ...more,
})
const draw = (r: Region, width = 96, height = 54, others: readonly Region[] = []): Float32Array =>
  renderMatte(r, [r, ...others], blankPicture(width, height))
const share = fc.double({ min: 0, max: 1, noNaN: true })
const matte = fc.integer({ min: 0, max: 65536 }).map((n) => n / 65536)
const anyShape = fc.constantFrom(...shapeKinds.map((k) => k.fresh))
const anyRegion = fc
  .array(
    fc.record({
      shape: anyShape,
      mode: fc.constantFrom('add', 'subtract', 'intersect' as const),
      invert: fc.boolean(),
      opacity: fc.constantFrom(1, 0.7, 0.3),
      inner: fc.double({ min: 0, max: 0.3, noNaN: true }),
    }),
    { minLength: 1, maxLength: 4 },
  )
  .map((list) =>
    region(
      list.map(({ shape, mode, invert, opacity, inner }) =>
        component(shape, { mode: mode, invert, opacity }, { inner }),
      ),
    ),
  )

test('is 1 at the centre, a half on the line and 0 outside', () => {
  const at = matteAt(region([component(ellipse)]), [], 16 / 9, 540)!
  expect(at(0.5, 0.5)).toBe(1)
  expect(at(0.5, 0.7)).toBeCloseTo(0.5, 4)
  expect(at(0.5 + 0.3 / (16 / 9), 0.5)).toBeCloseTo(0.5, 4)
  expect(at(0.02, 0.02)).toBe(0)
})

test('the inner edge reaches inside alone, the outer outside alone', () => {
  const inner = matteAt(region([component(ellipse, {}, { inner: 0.1, outer: 0 })]), [], 1, 1000)!
  const outer = matteAt(region([component(ellipse, {}, { inner: 0, outer: 0.1 })]), [], 1, 1000)!
  expect([inner(0.5, 0.5 + 0.2 - 0.101), inner(0.5, 0.702)]).toEqual([1, 0])
  expect([outer(0.5, 0.698), outer(0.5, 0.5 + 0.2 + 0.101)]).toEqual([1, 0])
  expect(inner(0.5, 0.65)).toBeCloseTo(0.5, 3)
  expect(outer(0.5, 0.75)).toBeCloseTo(0.5, 3)
})

test.each(shapeKinds.map((k) => [k.id, k.fresh] as const))(
  'a %s drawn row by row is what it is place by place',
  (_, shape) => {
    const r = region([component(shape, {}, { inner: 0.03, outer: 0.02 })])
    const drawn = draw(r)
    const at = matteAt(r, [r], 96 / 54, 54)!
    expect(
      drawn.reduce(
        (most, v, i) => Math.max(most, Math.abs(v - at(((i % 96) + 0.5) / 96, (Math.floor(i / 96) + 0.5) / 54))),
        0,
      ),
    ).toBeLessThan(2e-4)
    expect(Math.max(...drawn)).toBeGreaterThan(0.99)
    expect(Math.min(...drawn)).toBe(0)
  },
)

test('turning by a right angle exchanges the radii, whatever the shape of the frame', () => {
  const a = matteAt(region([component({ ...ellipse, rotationDegrees: 90 })]), [], 2.4, 400)!
  const b = matteAt(region([component({ ...ellipse, radiusX: 0.2, radiusY: 0.3 })]), [], 2.4, 400)!
  fc.assert(fc.property(share, share, (x, y) => Math.abs(a(x, y) - b(x, y)) < 1e-4))
})

test('a motion of the plane moves a shape as its own numbers would', () => {
  for (const kind of ['ellipse', 'rectangle'] as const) {
    const shape = { ...ellipse, kind, corner: 0.3 } as Shape
    const moved = draw(region([component(shape, {}, { placed: rotate(30, 1.5, 0.5 * (16 / 9), 0.5, 0.1, -0.05) })]))
    const numbers = draw(
      region([
        component(
          {
            ...shape,
            centreX: 0.5 + 0.1 / (16 / 9),
            centreY: 0.45,
            radiusX: 0.45,
            radiusY: 0.3,
            rotationDegrees: 30,
          } as Shape,
          {},
          { inner: 0.06, outer: 0.06 },
        ),
      ]),
    )
    expect(moved.reduce((most, v, i) => Math.max(most, Math.abs(v - numbers[i]!)), 0)).toBeLessThan(0.01)
  }
})

test('a hard edge is one pixel wide', () => {
  const hard = draw(region([component(ellipse, {}, { inner: 0, outer: 0 })]), 200, 100)
  const row = [...hard.subarray(50 * 200, 51 * 200)]
  expect(row.filter((v) => v > 0 && v < 1).length).toBeLessThanOrEqual(4)
})

test('is the same at 960 × 540 and at 1920 × 1080', () => {
  for (const { fresh } of shapeKinds) {
    // All kinds are drawn in the same way at every size.
    const r = region([component(fresh, {}, { inner: 0.02, outer: 0.03 })])
    const small = draw(r, 960, 540)
    const large = draw(r, 1920, 1080)
    let worst = 0
    for (let i = 0; i < small.length; i++) {
      const o = Math.floor(i / 960) * 2 * 1920 + (i % 960) * 2
      worst = Math.max(
        worst,
        Math.abs(small[i]! - (large[o]! + large[o + 1]! + large[o + 1920]! + large[o + 1921]!) / 4),
      )
    }
    expect(worst).toBeLessThan(0.02)
  }
})

describe('algebra, exact to the last bit', () => {
  test('the inverse of the inverse is the region; a region and its inverse sum to one everywhere', () => {
    fc.assert(
      fc.property(anyRegion, (r) => {
        const own = draw(r)
        const other = region(
          [{ id: 'o', mode: 'add', invert: true, opacity: 1, source: { kind: 'region', regionId: 'r' } }],
          { id: 'other' },
        )
        const inverse = draw(other, 96, 54, [r])
        expect(own.every((v, i) => v + inverse[i]! === 1)).toBe(true)
        expect(draw({ ...other, invert: true }, 96, 54, [r])).toEqual(own)
        expect(draw({ ...r, invert: !r.invert }).map((v) => 1 - v)).toEqual(own)
      }),
      { numRuns: 20 },
    )
  })
  test('less itself nothing is left; added to or met with itself it stays', () => {
    fc.assert(
      fc.property(
        matte,
        (m) => join('subtract', m, m) === 0 && join('add', m, m) === m && join('intersect', m, m) === m,
      ),
    )
    fc.assert(
      fc.property(anyRegion, (r) => {
        const self = (mode: MatteComponent['mode']): Region =>
          region(
            [
              { id: 'a', mode: 'add', invert: false, opacity: 1, source: { kind: 'region', regionId: 'r' } },
              { id: 'b', mode, invert: false, opacity: 1, source: { kind: 'region', regionId: 'r' } },
            ],
            { id: 'other' },
          )
        expect(draw(self('subtract'), 96, 54, [r]).every((v) => v === 0)).toBe(true)
        expect(draw(self('intersect'), 96, 54, [r])).toEqual(draw(r))
      }),
      { numRuns: 10 },
    )
  })
  test('adding and meeting do not ask for the order', () => {
    fc.assert(
      fc.property(matte, matte, matte, (a, b, c) =>
        (['add', 'intersect'] as const).every(
          (mode) =>
            join(mode, a, b) === join(mode, b, a) &&
            join(mode, join(mode, a, b), c) === join(mode, a, join(mode, b, c)),
        ),
      ),
    )
    fc.assert(
      fc.property(anyShape, anyShape, (a, b) => {
        const components = [component(a), component(b, { mode: 'intersect' })]
        const other = [component(b), component(a, { mode: 'intersect' })]
        expect(draw(region(components))).toEqual(draw(region(other)))
      }),
      { numRuns: 20 },
    )
  })
  test('taking away is meeting with what is not there', () => {
    fc.assert(
      fc.property(
        matte,
        matte,
        (a, b) =>
          join('subtract', a, b) + join('intersect', a, b) <= 1 && join('subtract', a, b) === Math.max(0, a - b),
      ),
    )
  })
})

test('a region that leads back to itself, or to none, stands for nothing and does not hang', () => {
  const a = region([{ id: 'p', mode: 'add', invert: false, opacity: 1, source: { kind: 'region', regionId: 'b' } }], {
    id: 'a',
  })
  const b = region([{ id: 'p', mode: 'add', invert: false, opacity: 1, source: { kind: 'region', regionId: 'a' } }], {
    id: 'b',
  })
  expect(renderMatte(a, [a, b], blankPicture(8, 8)).every((v) => v === 0)).toBe(true)
  expect(matteAt(a, [a], 1, 8)!(0.5, 0.5)).toBe(0)
})

test('drawn in parts it is what it is in one component', () => {
  fc.assert(
    fc.property(anyRegion, fc.integer({ min: 1, max: 53 }), (r, at) => {
      const whole = draw(r)
      const upper = renderMatte(r, [r], blankPicture(96, 54), 0, at)
      const lower = renderMatte(r, [r], blankPicture(96, 54), at, 54)
      expect(Float32Array.from([...upper, ...lower])).toEqual(whole)
    }),
    { numRuns: 20 },
  )
})
