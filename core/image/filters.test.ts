import fc from 'fast-check'
import {
  blur,
  boxMean,
  finer,
  guided,
  stretched,
  matteStep,
  plainExtremes,
  plainFiner,
  plainGuided,
  plainStretched,
  plainMeans,
  dilate,
  type Plane,
} from '.'
import { extremesByKernel, finerByKernel, guidedByKernel, stretchedByKernel, meansByKernel } from './kernel'

const plane = (width: number, height: number, at: (x: number, y: number) => number): Plane => ({
  width,
  height,
  values: Float32Array.from({ length: width * height }, (_, i) => at(i % width, Math.floor(i / width))),
})
const random = (seed: number) => (): number => {
  seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0
  return seed / 2 ** 32
}
const noise = (width: number, height: number, seed = 7): Plane => {
  const next = random(seed)
  return plane(width, height, () => next())
}
const worst = (a: Plane, b: Plane): number =>
  a.values.reduce((most, v, i) => Math.max(most, Math.abs(v - b.values[i]!)), 0)
const held = (v: number, most: number): number => Math.min(most, Math.max(0, v))

test('a mean is that of every pixel in its square, the outermost in part, edges repeated', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 17 }),
      fc.integer({ min: 2, max: 13 }),
      fc.double({ min: 0.1, max: 3, noNaN: true }),
      (width, height, wanted) => {
        const p = noise(width, height)
        const rx = Math.min(wanted, width - 1)
        const ry = Math.min(wanted, height - 1)
        const found = boxMean(p, wanted)
        const weights = (r: number): [number, number][] => {
          const whole = Math.floor(r)
          return Array.from({ length: 2 * whole + 3 }, (_, i) => [
            i - whole - 1,
            Math.abs(i - whole - 1) > whole ? r - whole : 1,
          ])
        }
        const slow = plane(width, height, (x, y) => {
          let sum = 0
          for (const [dy, wy] of weights(ry))
            for (const [dx, wx] of weights(rx))
              sum += wx * wy * p.values[held(y + dy, height - 1) * width + held(x + dx, width - 1)]!
          return sum / ((2 * rx + 1) * (2 * ry + 1))
        })
        return worst(found, slow) < 1e-5
      },
    ),
    { numRuns: 60 },
  )
})

test('a blur keeps a flat picture and the sum, and spreads a point as a Gaussian of that deviation', () => {
  expect(
    worst(
      blur(
        plane(40, 30, () => 0.3),
        3.3,
      ),
      plane(40, 30, () => 0.3),
    ),
  ).toBeLessThan(1e-6)
  for (const deviation of [1.5, 2.7, 5]) {
    const spot = blur(
      plane(81, 81, (x, y) => (x === 40 && y === 40 ? 1 : 0)),
      deviation,
    )
    const sum = spot.values.reduce((a, b) => a + b, 0)
    const variance = spot.values.reduce((s, v, i) => s + v * ((i % 81) - 40) ** 2, 0)
    expect(sum).toBeCloseTo(1, 5)
    expect(Math.sqrt(variance)).toBeGreaterThan(deviation * 0.93)
    expect(Math.sqrt(variance)).toBeLessThan(deviation * 1.07)
  }
})

test('the largest and smallest about every pixel, whatever the radius', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 19 }),
      fc.integer({ min: 1, max: 15 }),
      fc.integer({ min: -4, max: 4 }),
      (width, height, radius) => {
        const p = noise(width, height, width * 31 + height)
        const r = Math.abs(radius)
        const slow = plane(width, height, (x, y) => {
          const about: number[] = []
          for (let v = Math.max(0, y - r); v <= Math.min(height - 1, y + r); v++)
            for (let u = Math.max(0, x - r); u <= Math.min(width - 1, x + r); u++) about.push(p.values[v * width + u]!)
          return radius < 0 ? Math.min(...about) : Math.max(...about)
        })
        return worst(dilate(p, radius), slow) === 0
      },
    ),
    { numRuns: 80 },
  )
  const disc = plane(60, 60, (x, y) => (Math.hypot(x - 30, y - 30) < 10 ? 1 : 0))
  const half = dilate(disc, 2.5)
  const area = (p: Plane): number => p.values.reduce((a, b) => a + b, 0)
  expect(area(half)).toBeCloseTo((area(dilate(disc, 2)) + area(dilate(disc, 3))) / 2, 3)
  expect(worst(dilate(dilate(disc, 3), -3), disc)).toBeLessThanOrEqual(1)
})

test('edge-aware smoothing keeps a step that the guide has and flattens noise that it has not', () => {
  const step = plane(60, 40, (x) => (x < 30 ? 0.2 : 0.8))
  const rough = noise(60, 40)
  const noisy = plane(60, 40, (x, y) => step.values[y * 60 + x]! + (rough.values[y * 60 + x]! - 0.5) * 0.2)
  const found = guided(noisy, step, 5, 1e-4)
  expect(worst(found, step)).toBeLessThan(0.06)
  expect(found.values[20 * 60 + 29]! < 0.3 && found.values[20 * 60 + 30]! > 0.7).toBe(true)
})

test('the kernel does what the plain functions do, whatever the size and the radius', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 70 }),
      fc.integer({ min: 1, max: 50 }),
      fc.double({ min: 0.1, max: 20, noNaN: true }),
      fc.integer({ min: 1, max: 3 }),
      (width, height, radius, times) => {
        const p = noise(width, height, width * 71 + height)
        const whole = Math.ceil(radius)
        expect(worst(meansByKernel(p, radius, times)!, plainMeans(p, radius, times))).toBeLessThan(2e-5)
        const guide = plane(width, height, (x) => (x < width / 2 ? 0.2 : 0.7))
        expect(worst(guidedByKernel(p, guide, radius, 1e-3)!, plainGuided(p, guide, radius, 1e-3))).toBeLessThan(2e-3)
        for (const most of [true, false])
          expect(extremesByKernel(p, whole, most)).toEqual(plainExtremes(p, whole, most))
      },
    ),
    { numRuns: 80 },
  )
})

test('a guide that was filtered by before serves again, and only with the same radius', () => {
  const guide = noise(40, 30, 3)
  for (const [seed, radius] of [
    [1, 4],
    [2, 4],
    [3, 2.5],
    [4, 4],
  ] as const) {
    const p = noise(40, 30, seed)
    expect(worst(guidedByKernel(p, guide, radius, 4e-4)!, plainGuided(p, guide, radius, 4e-4))).toBeLessThan(2e-3)
  }
})

test('what is held between two ends lies on whole steps, in the kernel as in the plain function', () => {
  const p = plane(33, 5, (x, y) => (x - 3) / 25 + y * 0.01)
  const found = stretched(p, 0.1, 0.9)
  expect(worst(stretchedByKernel(p, 0.1, 0.9)!, plainStretched(p, 0.1, 0.9))).toBeLessThanOrEqual(matteStep)
  expect([found.values[0], found.values[32]]).toEqual([0, 1])
  for (const v of found.values) expect(v * 65536).toBe(Math.round(v * 65536))
})

test('a grid twice as fine is straight between the coarse pixels, for any rows of it', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 41 }),
      fc.integer({ min: 2, max: 20 }),
      fc.boolean(),
      fc.nat(),
      (width, height, odd, seed) => {
        const p = noise(width, height, seed)
        const fineWidth = width * 2 + (odd ? 1 : 0)
        const fineHeight = height * 2
        const from = seed % fineHeight
        const to = from + 1 + (seed % (fineHeight - from))
        // Only the coarse rows that are looked at are given.
        const top = Math.max(0, Math.floor((from - 1) / 2))
        const bottom = Math.min(height, Math.floor(to / 2) + 1)
        const given: Plane = { width, height: bottom - top, values: p.values.slice(top * width, bottom * width) }
        const found = finer(given, top, fineWidth, from, to)
        const plain = plainFiner(given, top, fineWidth, from, to)
        const whole = plainFiner(p, 0, fineWidth, 0, fineHeight).subarray(from * fineWidth, to * fineWidth)
        expect(found).toHaveLength(plain.length)
        for (let i = 0; i < plain.length; i++) {
          expect(Math.abs(found[i]! - plain[i]!)).toBeLessThanOrEqual(matteStep)
          expect(plain[i]).toBe(whole[i])
        }
        expect(finerByKernel(given, top, fineWidth, from, to) === null).toBe(odd)
      },
    ),
    { numRuns: 60 },
  )
  const slope = plane(20, 20, (x) => x / 20)
  for (let x = 2; x < 38; x++) expect(finer(slope, 0, 40, 10, 11)[x]).toBeCloseTo((x - 0.5) / 40, 4)
})
