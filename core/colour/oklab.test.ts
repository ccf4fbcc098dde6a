import Color from 'colorjs.io'
import fc from 'fast-check'
import { gamutById } from './gamuts'
import { fromOklab, oklabOf, toOklab } from './oklab'
import { workingGamut } from './working-space'

const bt709 = oklabOf(gamutById('bt709'))

test('agrees with an independent library', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 3, maxLength: 3 }), ([r, g, b]) => {
      const theirs = new Color('srgb-linear', [r!, g!, b!]).to('oklab').coords.map(Number)
      toOklab(bt709, r!, g!, b!).forEach((v, i) => expect(Math.abs(v - theirs[i]!)).toBeLessThan(2e-4))
    }),
    { numRuns: 300 },
  )
})

test('every finite colour comes back, neutral has no hue at all, in the working space too', () => {
  const space = oklabOf(workingGamut)
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: -2, max: 200, noNaN: true }), { minLength: 3, maxLength: 3 }),
      ([r, g, b]) => {
        const [l, a, c] = toOklab(space, r!, g!, b!)
        const scale = Math.max(1, Math.abs(r!), Math.abs(g!), Math.abs(b!))
        fromOklab(space, l, a, c).forEach((v, i) => expect(Math.abs(v - [r, g, b][i]!) / scale).toBeLessThan(1e-9))
      },
    ),
  )
  for (const v of [1e-4, 0.18, 1, 40]) {
    const [l, a, b] = toOklab(space, v, v, v)
    expect(l ** 3).toBeCloseTo(v, 10)
    expect(Math.hypot(a, b)).toBeLessThan(1e-12)
  }
})
