import fc from 'fast-check'
import { matteAt, renderMatte, type Region } from './region'

const region: Region = { id: 'r', name: 'r', enabled: true, shape: { kind: 'ellipse', centreX: 0.5, centreY: 0.5, radiusX: 0.3, radiusY: 0.2, rotationDegrees: 0 }, feather: 0.4, invert: false }
const share = fc.double({ min: 0, max: 1, noNaN: true })

test('is 1 at the centre, a half on the line and 0 outside', () => {
  const at = matteAt(region, 16 / 9, 540)
  expect(at(0.5, 0.5)).toBe(1)
  expect(at(0.5, 0.7)).toBeCloseTo(0.5, 9)
  expect(at(0.5 + 0.3 / (16 / 9), 0.5)).toBeCloseTo(0.5, 9)
  expect(at(0.02, 0.02)).toBe(0)
})

test('inverse and region sum to one everywhere', () => {
  const at = matteAt(region, 16 / 9, 540), inverse = matteAt({ ...region, invert: true }, 16 / 9, 540)
  fc.assert(fc.property(share, share, (x, y) => at(x, y) + inverse(x, y) === 1))
})

test('turning by a right angle exchanges the radii, whatever the shape of the frame', () => {
  const turned = { ...region, shape: { ...region.shape, rotationDegrees: 90 } }, exchanged = { ...region, shape: { ...region.shape, radiusX: 0.2, radiusY: 0.3 } }
  const a = matteAt(turned, 2.4, 400), b = matteAt(exchanged, 2.4, 400)
  fc.assert(fc.property(share, share, (x, y) => Math.abs(a(x, y) - b(x, y)) < 1e-9))
})

test('a hard edge is one pixel wide', () => {
  const hard = renderMatte({ ...region, feather: 0 }, 200, 100)
  const row = [...hard.subarray(50 * 200, 51 * 200)]
  expect(row.filter((v) => v > 0 && v < 1).length).toBeLessThanOrEqual(4)
})

test('is the same at two resolutions', () => {
  const small = renderMatte(region, 96, 54), large = renderMatte(region, 192, 108)
  const worst = Math.max(...small.map((v, i) => {
    const x = (i % 96) * 2, y = Math.floor(i / 96) * 2
    const mean = (large[y * 192 + x]! + large[y * 192 + x + 1]! + large[(y + 1) * 192 + x]! + large[(y + 1) * 192 + x + 1]!) / 4
    return Math.abs(v - mean)
  }))
  expect(worst).toBeLessThan(0.02)
})
