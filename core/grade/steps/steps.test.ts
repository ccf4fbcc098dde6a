import fc from 'fast-check'
import { cat16, gamutById, luminanceWeights, middleGreyLog, workingGamut, xyzOf, rgbToXyz, transform } from '../../colour'
import { operate } from '../operation'
import { defaultParameters, parameterFault, type StepSurroundings } from '../step-kind'
import { stepKindById, stepKinds } from '.'
import { softContrast } from './contrast'
import { whiteBalanceMatrix } from './white-balance'

const surroundings: StepSurroundings = { gamut: workingGamut, greyEncoded: middleGreyLog, stopEncoded: 1 / 17.52, lut: () => undefined }
const light = fc.double({ min: -10, max: 1000, noNaN: true })

function run(kind: string, params: Record<string, unknown>, pixels: number[]): number[] {
  const out = Float64Array.from(pixels)
  const declared = stepKindById(kind)
  const effect = declared.prepare({ ...defaultParameters(declared), ...params } as never, surroundings)
  operate(typeof effect === 'function' ? effect('workingLog') : effect, out)
  return [...out]
}

describe('every step kind', () => {
  test.each(stepKinds.map((k) => [k.id, k] as const))('%s: its defaults are allowed and change nothing', (_, kind) => {
    const defaults = defaultParameters(kind)
    for (const [key, parameter] of Object.entries(kind.parameters)) expect(parameterFault(parameter, defaults[key])).toBeNull()
    expect(kind.isNeutral(defaults)).toBe(true)
  })

  test.each(['exposure', 'white-balance', 'contrast', 'saturation', 'tone-curve'])('%s: never makes a NaN of numbers, at either end of its range', (id) => {
    const kind = stepKindById(id)
    const ends = ['min', 'max'] as const
    fc.assert(fc.property(fc.array(light, { minLength: 3, maxLength: 3 }), fc.constantFrom(...ends), (rgb, end) => {
      const params = Object.fromEntries(Object.entries(kind.parameters).map(([k, p]) => [k, p.type === 'number' ? p[end] : p.default]))
      return run(id, params, rgb).every(Number.isFinite)
    }))
  })
})

test('one stop of exposure doubles the light', () => {
  expect(run('exposure', { exposureStops: 1 }, [0.18, -0.02, 3])).toEqual([0.36, -0.04, 6])
})

describe('white balance', () => {
  test('neutral at zero to the last bits', () => {
    whiteBalanceMatrix(workingGamut, 0, 0).forEach((v, i) => expect(v).toBeCloseTo(i % 4 === 0 ? 1 : 0, 12))
  })

  test('positive mired warms, positive tint goes to magenta, the luminance of white stays', () => {
    const warm = transform(whiteBalanceMatrix(workingGamut, 20, 0), [1, 1, 1]), magenta = transform(whiteBalanceMatrix(workingGamut, 0, 10), [1, 1, 1])
    expect(warm[0]).toBeGreaterThan(warm[2])
    expect(magenta[1]).toBeLessThan(Math.min(magenta[0], magenta[2]))
  })

  test('is CAT16 of the white it takes away: that white becomes neutral', () => {
    const gamut = gamutById('bt709')
    const source = { x: 0.3457, y: 0.3585 }
    const adapted = transform(cat16(xyzOf(source), xyzOf(gamut.white)), xyzOf(source))
    xyzOf(gamut.white).forEach((v, i) => expect(adapted[i]).toBeCloseTo(v, 12))
    // The step's own matrix maps some white exactly on the working white: its inverse image is that white.
    const m = whiteBalanceMatrix(gamut, -18, 4), back = transform(m, [1, 1, 1])
    expect(back.every((v) => v > 0.5 && v < 2)).toBe(true)
    expect(rgbToXyz(gamut)[4]).toBeGreaterThan(0.7)
  })
})

describe('contrast', () => {
  test('is exactly (y − p)·c + p within four stops of the pivot', () => {
    const curve = softContrast(1.4, middleGreyLog, 4 / 17.52)
    for (const stops of [-4, -2, 0, 1, 3.9]) {
      const y = middleGreyLog + stops / 17.52
      expect(curve(y)).toBeCloseTo((y - middleGreyLog) * 1.4 + middleGreyLog, 12)
    }
  })

  test('rises everywhere and ends with slope 1', () => {
    for (const c of [0.2, 0.7, 1.5, 3]) {
      const curve = softContrast(c, middleGreyLog, 4 / 17.52)
      const ys = Array.from({ length: 2001 }, (_, i) => curve(-2 + i / 400))
      expect(ys.slice(1).every((y, i) => y > ys[i]!)).toBe(true)
      expect((curve(2.5) - curve(2.4)) / 0.1).toBeCloseTo(1, 9)
    }
  })
})

describe('saturation', () => {
  test('keeps luminance, keeps greys, and is monochrome at zero', () => {
    const [wr, wg, wb] = luminanceWeights(workingGamut)
    const y = (p: number[]): number => wr * p[0]! + wg * p[1]! + wb * p[2]!
    const colour = [0.4, 0.1, 0.05]
    expect(y(run('saturation', { saturation: 1.7 }, colour))).toBeCloseTo(y(colour), 12)
    run('saturation', { saturation: 2 }, [0.18, 0.18, 0.18]).forEach((v) => expect(v).toBeCloseTo(0.18, 12))
    const grey = run('saturation', { saturation: 0 }, colour)
    expect(Math.max(...grey) - Math.min(...grey)).toBeLessThan(1e-12)
  })
})

describe('parameters are checked', () => {
  const { exposureStops } = stepKindById('exposure').parameters
  const { points } = stepKindById('tone-curve').parameters
  const { lutHash, interpolation } = stepKindById('lut').parameters

  test.each([[NaN], [9], ['1'], [null], [undefined], [Infinity]])('exposure of %p is refused', (value) => {
    expect(parameterFault(exposureStops!, value as never)).toMatch(/from -8 to 8/)
  })
  test.each([
    [[{ x: 0, y: 0 }], /2 to 32 points/],
    [[{ x: 0, y: 0 }, { x: 0, y: 1 }], /x rises/],
    [[{ x: 0.5, y: 0 }, { x: 0.2, y: 1 }], /x rises/],
    [[{ x: 0, y: NaN }, { x: 1, y: 1 }], /finite/],
    [[{ x: 0, y: 0 }, { x: 9, y: 1 }], /between/],
    ['curve', /finite/],
  ])('a curve of %j is refused', (value, reason) => {
    expect(parameterFault(points!, value as never)).toMatch(reason)
  })
  test('a LUT is named by its hash, a choice by its id', () => {
    expect(parameterFault(lutHash!, '../etc/passwd')).toMatch(/SHA-256/)
    expect(parameterFault(lutHash!, 'a'.repeat(64))).toBeNull()
    expect(parameterFault(interpolation!, 'cubic')).toMatch(/one of/)
  })
})

test('an unknown kind is refused by name', () => {
  expect(() => stepKindById('blur')).toThrow('There is no step kind "blur".')
})
