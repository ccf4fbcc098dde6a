import Color from 'colorjs.io'
import fc from 'fast-check'
import { deltaE2000, displayToLab } from './delta-e'
import { displayById } from './displays'
import { acesWhite } from './gamuts'
import { acesCct, bt709Camera, hlg, srgb } from './standard-curves'
import { whiteChromaticity, whitePointOf } from './white-point'
import { fromWorkingLog, logAtStops, middleGreyLog, stopsAtLog, toWorkingLog } from './working-space'

describe('standard curves', () => {
  test.each([0, 0.001, 0.01, 0.0179, 0.02, 0.18, 0.5, 0.9, 1])(
    'sRGB and ACEScct of %p agree with an independent library',
    (x) => {
      expect(srgb.encode(x)).toBeCloseTo(Number(new Color('srgb-linear', [x, x, x]).to('srgb').coords[0]), 6)
      expect(acesCct.encode(x)).toBeCloseTo(
        x <= 0.0078125 ? 10.5402377416545 * x + 0.0729055341958355 : (Math.log2(x) + 9.72) / 17.52,
        12,
      )
    },
  )

  test('BT.709 camera curve: anchors of the standard', () => {
    expect(bt709Camera.encode(0.018)).toBeCloseTo(0.081, 4)
    expect(bt709Camera.encode(1)).toBeCloseTo(1, 10)
    expect(bt709Camera.encode(0.18)).toBeCloseTo(0.409, 3)
  })

  test('HLG: 38 % is middle grey, 75 % is the reference white of BT.2408', () => {
    expect(hlg.decode(0.38)).toBeCloseTo(0.18, 10)
    expect(hlg.decode(0.75) / hlg.decode(0.5)).toBeCloseTo(0.26497 / (1 / 12), 3)
  })

  test('displays decode what they encode', () => {
    const { encode, decode } = displayById('bt709-2.4').eotf
    for (let i = 0; i <= 100; i++) expect(encode(decode(i / 100))).toBeCloseTo(i / 100, 12)
  })
})

describe('working log', () => {
  test('puts middle grey at 0.413588 and a stop at 1/17.52', () => {
    expect(middleGreyLog).toBeCloseTo(0.413588, 6)
    expect(toWorkingLog(0.36) - toWorkingLog(0.18)).toBeCloseTo(1 / 17.52, 12)
    expect(fromWorkingLog(logAtStops(3))).toBeCloseTo(0.18 * 8, 10)
    expect(stopsAtLog(logAtStops(-2.5))).toBeCloseTo(-2.5, 12)
  })

  test('is odd about zero light and undone exactly', () => {
    fc.assert(
      fc.property(fc.double({ min: -100, max: 1000, noNaN: true }), (x) => {
        const zero = toWorkingLog(0)
        return (
          Math.abs(fromWorkingLog(toWorkingLog(x)) - x) <= 1e-9 * Math.max(1, Math.abs(x)) &&
          Math.abs(toWorkingLog(x) + toWorkingLog(-x) - 2 * zero) < 1e-12
        )
      }),
    )
  })
})

describe('whites', () => {
  test('mired and Duv of a white lead back to it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 90, max: 400, noNaN: true }),
        fc.double({ min: -0.02, max: 0.02, noNaN: true }),
        (mired, duv) => {
          const found = whitePointOf(whiteChromaticity({ mired, duv }))
          return Math.abs(found.mired - mired) < 0.05 && Math.abs(found.duv - duv) < 1e-5
        },
      ),
    )
  })

  test('illuminant A is near 2856 K and on the locus; D65 is near 6504 K and green of it', () => {
    const a = whitePointOf({ x: 0.44758, y: 0.40745 })
    const d65 = whitePointOf({ x: 0.3127, y: 0.329 })
    expect(Math.abs(1e6 / a.mired - 2856)).toBeLessThan(10)
    expect(Math.abs(a.duv)).toBeLessThan(3e-4)
    expect(Math.abs(1e6 / d65.mired - 6504)).toBeLessThan(20)
    expect(d65.duv).toBeCloseTo(0.0032, 3)
    expect(Math.abs(1e6 / whitePointOf(acesWhite).mired - 6000)).toBeLessThan(15)
  })
})

describe('colour difference', () => {
  // Sharma, Wu and Dalal (2005), table 1: pairs 1, 4, 7, 9, 17, 24, 25 and 34.
  test.each([
    [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
    [[50, -1.3802, -84.2814], [50, 0, -82.7485], 1.0],
    [[50, 0, 0], [50, -1, 2], 2.3669],
    [[50, 2.49, -0.001], [50, -2.49, 0.0009], 7.1792],
    [[50, 2.5, 0], [73, 25, -18], 27.1492],
    [[50, 2.5, 0], [50, 3.2592, 0.335], 1.0],
    [[60.2574, -34.0099, 36.2677], [60.4626, -34.1751, 39.4387], 1.2644],
    [[2.0776, 0.0795, -1.135], [0.9033, -0.0636, -0.5514], 0.9082],
  ] as const)('%p to %p is %p', (a, b, expected) => {
    expect(deltaE2000(a, b)).toBeCloseTo(expected, 4)
    expect(deltaE2000(b, a)).toBeCloseTo(expected, 4)
  })

  test('display white is L* 100 without colour', () => {
    const [l, a, b] = displayToLab('bt709-2.4')(1, 1, 1)
    expect(l).toBeCloseTo(100, 8)
    expect(Math.hypot(a, b)).toBeLessThan(1e-8)
  })
})
