import fc from 'fast-check'
import {
  fromOklab,
  fromWorkingLog,
  middleGrey,
  middleGreyLog,
  oklabOf,
  toOklab,
  toWorkingLog,
  workingGamut,
} from '../../colour'
import type { CurvePoint } from '../document'
import { operate } from '../operation'
import { periodicCurve } from '../periodic-curve'
import { defaultParameters, parameterFault, type StepSurroundings } from '../step-kind'
import { colourCurve, colourCurves, colourCurvesStep, hueShare } from './colour-curves'

const surroundings: StepSurroundings = {
  gamut: workingGamut,
  greyEncoded: middleGreyLog,
  stopEncoded: 1 / 17.52,
  encode: toWorkingLog,
  decode: fromWorkingLog,
  lut: () => undefined,
}
const space = oklabOf(workingGamut)

function run(params: Record<string, unknown>, pixels: readonly number[]): number[] {
  const out = Float64Array.from(pixels)
  const effect = colourCurvesStep.prepare({ ...defaultParameters(colourCurvesStep), ...params } as never, surroundings)
  const found = typeof effect === 'function' ? effect('sceneLinear') : effect
  for (const operation of 'kind' in found ? [found] : found) operate(operation, out)
  return [...out]
}
/** A colour by tone (stops from grey), purity and hue. */
function colour(stops: number, purity: number, degrees: number): [number, number, number] {
  const lightness = Math.cbrt(middleGrey * 2 ** stops)
  const a = (degrees * Math.PI) / 180
  return fromOklab(space, lightness, lightness * purity * Math.cos(a), lightness * purity * Math.sin(a))
}
function read(rgb: readonly number[]): { stops: number; purity: number; degrees: number } {
  const [l, a, b] = toOklab(space, rgb[0]!, rgb[1]!, rgb[2]!)
  return {
    stops: 3 * Math.log2(l) - Math.log2(middleGrey),
    purity: Math.hypot(a, b) / l,
    degrees: ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360,
  }
}
const trio = (at: number, y: number, neutral: number): CurvePoint[] => [
  { x: at - 40, y: neutral },
  { x: at, y },
  { x: at + 40, y: neutral },
]
const everything = {
  hueByHue: trio(260, 30, 0),
  saturationByHue: trio(110, 1.8, 1),
  lightnessByHue: trio(200, -1, 0),
  saturationByLightness: [
    { x: -6, y: 0.4 },
    { x: 0, y: 1.2 },
    { x: 4, y: 0.5 },
  ],
  saturationBySaturation: [
    { x: 0, y: 1.4 },
    { x: 0.6, y: 0.8 },
  ],
  cleanEnds: 'on',
  quietNoise: 0.7,
}

describe('each curve does what it says, there and nowhere else', () => {
  const lit = colour(0, 0.25, 260)
  const other = colour(0, 0.25, 100)
  test('hue by hue turns one hue', () => {
    expect(read(run({ hueByHue: trio(260, 25, 0) }, lit)).degrees).toBeCloseTo(285, 3)
    run({ hueByHue: trio(260, 25, 0) }, other).forEach((v, i) => expect(v).toBeCloseTo(other[i]!, 12))
  })
  test('saturation by hue scales its purity, lightness by hue its light; hue stays', () => {
    const strong = read(run({ saturationByHue: trio(260, 1.5, 1) }, lit))
    const light = read(run({ lightnessByHue: trio(260, 0.75, 0) }, lit))
    expect(strong.purity / 0.25).toBeCloseTo(1.5, 6)
    expect(strong.degrees).toBeCloseTo(260, 6)
    expect(light).toMatchObject({
      stops: expect.closeTo(0.75, 6),
      purity: expect.closeTo(0.25, 6),
      degrees: expect.closeTo(260, 6),
    })
  })
  test('saturation by lightness and by saturation go by the tone and by the purity', () => {
    const byLight = {
      saturationByLightness: [
        { x: -4, y: 0 },
        { x: 0, y: 1 },
      ],
    }
    const bySaturation = {
      saturationBySaturation: [
        { x: 0, y: 1 },
        { x: 0.1, y: 1 },
        { x: 0.2, y: 2 },
        { x: 0.3, y: 2 },
      ],
    }
    expect(read(run(byLight, colour(-4, 0.2, 50))).purity).toBeLessThan(1e-4)
    expect(read(run(byLight, colour(0, 0.2, 50))).purity).toBeCloseTo(0.2, 6)
    expect(read(run(bySaturation, colour(0, 0.05, 50))).purity).toBeCloseTo(0.05, 6)
    expect(read(run(bySaturation, colour(0, 0.25, 50))).purity).toBeCloseTo(0.5, 6)
  })
  test('clean ends and quiet noise take colour only where they should', () => {
    expect(read(run({ cleanEnds: 'on' }, colour(-8, 0.3, 50))).purity).toBeLessThan(1e-6)
    expect(read(run({ cleanEnds: 'on' }, colour(4, 0.3, 50))).purity).toBeLessThan(1e-6)
    expect(read(run({ cleanEnds: 'on' }, colour(0, 0.3, 50))).purity).toBeCloseTo(0.3, 9)
    expect(read(run({ quietNoise: 1 }, colour(-6, 0.3, 285))).purity).toBeLessThan(1e-6)
    expect(read(run({ quietNoise: 1 }, colour(-6, 0.3, 60))).purity).toBeCloseTo(0.3, 9)
    expect(read(run({ quietNoise: 1 }, colour(0, 0.3, 285))).purity).toBeCloseTo(0.3, 9)
  })
})

test('no hue is invented: neutrals of every tone stay exactly as they are, whatever the curves', () => {
  fc.assert(
    fc.property(fc.double({ min: -1, max: 1000, noNaN: true }), (v) =>
      expect(run(everything, [v, v, v])).toEqual([v, v, v]),
    ),
  )
  // Just off neutral and nearly black: hue means nothing there, and hardly anything moves.
  expect(hueShare(0.003, 0)).toBe(0)
  expect(hueShare(0.2, -9)).toBe(0)
})

test('never a NaN, for any finite light', () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: -20, max: 1000, noNaN: true }), { minLength: 3, maxLength: 3 }), (rgb) =>
      run(everything, rgb).every(Number.isFinite),
    ),
  )
})

/** The largest second difference along a row of colours, in Oklab: as the eye sees steps. */
function seam(params: Record<string, unknown>, row: readonly (readonly number[])[]): number {
  const flat = run(params, row.flat())
  const out = row.flatMap((_, i) => toOklab(space, flat[i * 3]!, flat[i * 3 + 1]!, flat[i * 3 + 2]!))
  let most = 0
  for (let i = 3; i < out.length - 3; i++) most = Math.max(most, Math.abs(out[i - 3]! - 2 * out[i]! + out[i + 3]!))
  return most
}

describe('no visible seam', () => {
  const steps = 4096
  // A ramp of 8-bit footage moves by 1/255 a step; a bend that cannot be seen is far below that.
  const invisible = 1 / 255 / 16
  test('a grey ramp comes through as it was', () => {
    const row = Array.from({ length: steps }, (_, i) => {
      const v = fromWorkingLog(0.06 + (0.8 * i) / steps)
      return [v, v, v]
    })
    expect(run(everything, row.flat())).toEqual(row.flat())
  })
  test.each([0, 60, 110, 200, 260, 300])('from black to a colour of hue %d', (degrees) => {
    const row = Array.from({ length: steps }, (_, i) => colour(-10 + (13 * i) / steps, 0.25, degrees))
    expect(seam(everything, row)).toBeLessThan(invisible)
  })
  test('from grey to a colour, and once round the wheel', () => {
    expect(
      seam(
        everything,
        Array.from({ length: steps }, (_, i) => colour(0, (0.3 * i) / steps, 110)),
      ),
    ).toBeLessThan(invisible)
    expect(
      seam(
        everything,
        Array.from({ length: steps }, (_, i) => colour(0, 0.2, (360 * i) / steps)),
      ),
    ).toBeLessThan(invisible)
  })
})

describe('goes round', () => {
  const points = [
    { x: 10, y: 12 },
    { x: 120, y: -30 },
    { x: 340, y: 25 },
  ]
  test('value and slope agree across 360° exactly', () => {
    const curve = periodicCurve(points, 360)
    for (const x of [0, 3.7, 10, 200.25, 359.9]) expect(curve(x + 360)).toBe(curve(x))
    const h = 1e-6
    const before = (curve(360) - curve(360 - h)) / h
    const after = (curve(h) - curve(0)) / h
    expect(after).toBeCloseTo(before, 3)
    expect(colourCurve('hueByHue', points)!(0)).toBeCloseTo(colourCurve('hueByHue', points)!(360), 12)
  })
  test('passes through its points and never beyond them', () => {
    const curve = periodicCurve(points, 360)
    for (const { x, y } of points) expect(curve(x)).toBeCloseTo(y, 12)
    for (let x = 0; x < 360; x++) expect(Math.abs(curve(x))).toBeLessThanOrEqual(30)
  })
  test('points must lie inside one turn', () => {
    expect(parameterFault(colourCurves.hueByHue, points)).toBeNull()
    expect(
      parameterFault(colourCurves.hueByHue, [
        { x: 0, y: 0 },
        { x: 360, y: 0 },
      ]),
    ).toContain('goes round')
    expect(
      parameterFault(colourCurves.hueByHue, [
        { x: 0, y: 99 },
        { x: 60, y: 0 },
      ]),
    ).toContain('from -60 to 60')
  })
})
