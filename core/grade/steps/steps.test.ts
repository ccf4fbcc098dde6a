import fc from 'fast-check'
import {
  cat16,
  gamutById,
  luminanceWeights,
  fromWorkingLog,
  middleGreyLog,
  toWorkingLog,
  workingGamut,
  xyzOf,
  rgbToXyz,
  transform,
} from '../../colour'
import { operate } from '../operation'
import { defaultParameters, parameterFault, type StepSurroundings } from '../step-kind'
import { stepKindById, stepKinds } from '.'
import { softContrast } from './contrast'
import { whiteBalanceMatrix } from './white-balance'

const surroundings: StepSurroundings = {
  gamut: workingGamut,
  greyEncoded: middleGreyLog,
  stopEncoded: 1 / 17.52,
  encode: toWorkingLog,
  decode: fromWorkingLog,
  lut: () => undefined,
}
const light = fc.double({ min: -10, max: 1000, noNaN: true })

function run(kind: string, params: Record<string, unknown>, pixels: number[]): number[] {
  const out = Float64Array.from(pixels)
  const declared = stepKindById(kind)
  const effect = declared.prepare({ ...defaultParameters(declared), ...params } as never, surroundings)
  const found = typeof effect === 'function' ? effect('workingLog') : effect
  for (const operation of 'kind' in found ? [found] : found) operate(operation, out)
  return [...out]
}

describe('every step kind', () => {
  test.each(stepKinds.map((k) => [k.id, k] as const))('%s: its defaults are allowed and change nothing', (_, kind) => {
    const defaults = defaultParameters(kind)
    for (const [key, parameter] of Object.entries(kind.parameters))
      expect(parameterFault(parameter, defaults[key])).toBeNull()
    expect(kind.isNeutral(defaults)).toBe(true)
  })

  test.each(stepKinds.filter((k) => k.id !== 'lut').map((k) => k.id))(
    '%s: never makes a NaN of numbers, at either end of its range',
    (id) => {
      const kind = stepKindById(id)
      const ends = ['min', 'max'] as const
      fc.assert(
        fc.property(fc.array(light, { minLength: 3, maxLength: 3 }), fc.constantFrom(...ends), (rgb, end) => {
          const params = Object.fromEntries(
            Object.entries(kind.parameters).map(([k, p]) => [k, p.type === 'number' ? p[end] : p.default]),
          )
          return run(id, params, rgb).every(Number.isFinite)
        }),
      )
    },
  )
})

test('one stop of exposure doubles the light', () => {
  expect(run('exposure', { exposureStops: 1 }, [0.18, -0.02, 3])).toEqual([0.36, -0.04, 6])
})

describe('white balance', () => {
  test('neutral at zero to the last bits', () => {
    whiteBalanceMatrix(workingGamut, 0, 0).forEach((v, i) => expect(v).toBeCloseTo(i % 4 === 0 ? 1 : 0, 12))
  })

  test('positive mired warms, positive tint goes to magenta, the luminance of white stays', () => {
    const warm = transform(whiteBalanceMatrix(workingGamut, 20, 0), [1, 1, 1])
    const magenta = transform(whiteBalanceMatrix(workingGamut, 0, 10), [1, 1, 1])
    expect(warm[0]).toBeGreaterThan(warm[2])
    expect(magenta[1]).toBeLessThan(Math.min(magenta[0], magenta[2]))
  })

  test('is CAT16 of the white it takes away: that white becomes neutral', () => {
    const gamut = gamutById('bt709')
    const source = { x: 0.3457, y: 0.3585 }
    const adapted = transform(cat16(xyzOf(source), xyzOf(gamut.white)), xyzOf(source))
    xyzOf(gamut.white).forEach((v, i) => expect(adapted[i]).toBeCloseTo(v, 12))
    // The step's own matrix maps some white exactly on the working white: its inverse image is that white.
    const m = whiteBalanceMatrix(gamut, -18, 4)
    const back = transform(m, [1, 1, 1])
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
    [
      [
        { x: 0, y: 0 },
        { x: 0, y: 1 },
      ],
      /x rises/,
    ],
    [
      [
        { x: 0.5, y: 0 },
        { x: 0.2, y: 1 },
      ],
      /x rises/,
    ],
    [
      [
        { x: 0, y: NaN },
        { x: 1, y: 1 },
      ],
      /finite/,
    ],
    [
      [
        { x: 0, y: 0 },
        { x: 9, y: 1 },
      ],
      /takes points from/,
    ],
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

const curve = (kind: string, params: Record<string, unknown>, value: number): number =>
  run(kind, params, [value, value, value])[0]!
const atStops = (stops: number): number => 0.18 * 2 ** stops

test('black offset moves black, keeps middle grey, and is undone by the offset that takes its black away', () => {
  for (const offset of [-0.02, 0.05]) {
    expect(curve('black-offset', { blackOffset: offset }, 0.18)).toBeCloseTo(0.18, 12)
    const black = curve('black-offset', { blackOffset: offset }, 0)
    expect(Math.sign(black)).toBe(Math.sign(offset))
    for (const v of [0, 0.01, 1])
      expect(
        curve('black-offset', { blackOffset: -black }, curve('black-offset', { blackOffset: offset }, v)),
      ).toBeCloseTo(v, 12)
  }
})

test('highlights and shadows touch only their end, in stops, and never fold', () => {
  const log = (stops: number): number => middleGreyLog + stops / 17.52
  const stopsOf = (y: number): number => (y - middleGreyLog) * 17.52
  for (const stops of [-6, -2, 0, 0.4])
    expect(curve('ends', { highlightStops: 1.5 }, log(stops))).toBeCloseTo(log(stops), 12)
  expect(stopsOf(curve('ends', { highlightStops: -1.5 }, log(5)))).toBeCloseTo(3.5, 9)
  expect(stopsOf(curve('ends', { shadowStops: 2 }, log(-6)))).toBeCloseTo(-4, 9)
  for (const [highlightStops, shadowStops] of [
    [-2.5, 2.5],
    [2.5, -2.5],
  ]) {
    let before = -Infinity
    for (let s = -10; s < 10; s += 0.05) {
      const now = curve('ends', { highlightStops, shadowStops }, log(s))
      expect(now).toBeGreaterThan(before)
      before = now
    }
  }
})

describe('a zone', () => {
  test('acts at its centre in full, a width away not at all, and beyond where it reaches', () => {
    const push = { centreStops: -2, widthStops: 2, exposureStops: 0.5 }
    expect(curve('zone', push, atStops(-2))).toBeCloseTo(atStops(-1.5), 9)
    for (const stops of [-4, -5, 0, 3]) expect(curve('zone', push, atStops(stops))).toBeCloseTo(atStops(stops), 9)
    expect(curve('zone', { ...push, reach: 'below' }, atStops(-7))).toBeCloseTo(atStops(-6.5), 9)
    expect(curve('zone', { ...push, reach: 'above' }, atStops(4))).toBeCloseTo(atStops(4.5), 9)
  })
  test('never folds tones, however hard it is pushed', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 8, noNaN: true }),
        fc.double({ min: -4, max: 4, noNaN: true }),
        fc.constantFrom('around', 'below', 'above'),
        (widthStops, exposureStops, reach) => {
          let before = 0
          for (let s = -9; s < 9; s += 0.1) {
            const now = curve('zone', { widthStops, exposureStops, reach }, atStops(s))
            if (now <= before) return false
            before = now
          }
          return true
        },
      ),
    )
  })
  test('a tint colours greys toward its hue and keeps their luminance; its saturation leaves greys alone', () => {
    const weights = luminanceWeights(workingGamut)
    const [r, g, b] = run('zone', { tintDegrees: 240, tintAmount: 0.4 }, [0.18, 0.18, 0.18]) as [number, number, number]
    expect(b).toBeGreaterThan(Math.max(r, g))
    expect(weights[0] * r + weights[1] * g + weights[2] * b).toBeCloseTo(0.18, 12)
    run('zone', { saturation: 0 }, [0.18, 0.18, 0.18]).forEach((v) => expect(v).toBeCloseTo(0.18, 12))
    const grey = run('zone', { saturation: 0 }, [0.3, 0.15, 0.1])
    expect(Math.max(...grey) - Math.min(...grey)).toBeLessThan(0.01)
  })
})

test('balance by tone warms the end that is asked and leaves grey and the other end', () => {
  const [r, , b] = run('balance-by-tone', { shadowsMired: 30 }, [atStops(-4), atStops(-4), atStops(-4)]) as [
    number,
    number,
    number,
  ]
  expect(r).toBeGreaterThan(b * 1.05)
  for (const stops of [0, 4])
    run('balance-by-tone', { shadowsMired: 30 }, [atStops(stops), atStops(stops), atStops(stops)]).forEach((v) =>
      expect(v).toBeCloseTo(atStops(stops), 12),
    )
  // Three stops out, it is the white balance itself.
  const whole = transform(whiteBalanceMatrix(workingGamut, 0, -6), [2, 1.8, 1.6])
  run('balance-by-tone', { highlightsTint: -6 }, [2, 1.8, 1.6]).forEach((v, i) => expect(v).toBeCloseTo(whole[i]!, 12))
})

test('vibrance: near grey they follow, strong ones hardly move, luminance stays', () => {
  const chroma = (rgb: number[]): number => Math.max(...rgb) - Math.min(...rgb)
  const weak = [0.2, 0.19, 0.18]
  const strong = [0.8, 0.02, 0.02]
  expect(chroma(run('saturation', { vibrance: 1.5 }, weak)) / chroma(weak)).toBeCloseTo(1.5, 1)
  expect(chroma(run('saturation', { vibrance: 1.5 }, strong)) / chroma(strong)).toBeLessThan(1.06)
  const w = luminanceWeights(workingGamut)
  const luminance = ([r, g, b]: number[]): number => w[0] * r! + w[1] * g! + w[2] * b!
  expect(luminance(run('saturation', { vibrance: 0.3 }, strong))).toBeCloseTo(luminance(strong), 12)
})

test("slope, offset, power and saturation are the standard's arithmetic, held to 0..1", () => {
  const [r, g, b] = run('cdl', { slopeRed: 1.2, offsetRed: 0.05, powerRed: 1.1, saturation: 0.5 }, [0.4, 0.5, 0.6]) as [
    number,
    number,
    number,
  ]
  const red = (0.4 * 1.2 + 0.05) ** 1.1
  const luma = 0.2126 * red + 0.7152 * 0.5 + 0.0722 * 0.6
  ;[
    [r, red],
    [g, 0.5],
    [b, 0.6],
  ].forEach(([is, was]) => expect(is).toBeCloseTo(luma + 0.5 * (was! - luma), 12))
  expect(run('cdl', { slopeGreen: 3, offsetBlue: -1 }, [0.5, 0.5, 0.5])).toEqual([0.5, 1, 0])
})
