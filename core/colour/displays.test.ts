import Color from 'colorjs.io'
import fc from 'fast-check'
import { deltaEItp, differenceMeasure, displayToItp } from './delta-e'
import { displayById, displays, lightOfSignal } from './displays'
import { gamutById, gamutToGamut } from './gamuts'
import { transform } from './matrix'
import { acesCc, filmDensity, pqNits } from './standard-curves'
import { lifted, linLog, tableCurve, tangentToe } from './transfer'

describe('displays', () => {
  test.each(displays.map((d) => [d.id, d] as const))(
    '%s: the signal carries light there and back, rising, up to its peak',
    (_, { eotf, carriedPeak }) => {
      const top = eotf.encode(carriedPeak)
      expect(top).toBeLessThanOrEqual(1 + 1e-9)
      let before = -1
      for (let i = 0; i <= 1000; i++) {
        const signal = (top * i) / 1000
        const light = eotf.decode(signal)
        expect(Math.abs(eotf.encode(light) - signal)).toBeLessThan(1e-6)
        expect(light).toBeGreaterThan(before)
        before = light
      }
    },
  )

  test('diffuse white of 203 cd/m² sits at 58 % PQ and 75 % HLG (BT.2408)', () => {
    expect(displayById('pq-1000').eotf.encode(1)).toBeCloseTo(0.5807, 3)
    const white = lightOfSignal(displayById('hlg'))(0.75, 0.75, 0.75)
    white.forEach((v) => expect(v * 203).toBeCloseTo(203, 0))
  })

  test('PQ: anchors of the standard', () => {
    expect(pqNits.encode(100)).toBeCloseTo(0.5081, 4)
    expect(pqNits.encode(1000)).toBeCloseTo(0.7518, 4)
    expect(pqNits.encode(10_000)).toBeCloseTo(1, 5)
    expect(pqNits.decode(0.5081)).toBeCloseTo(100, 0)
  })

  test.each([0.01, 0.1, 0.3, 0.58, 0.75, 1])('PQ and HLG signals of %p agree with an independent library', (v) => {
    const linear = Number(new Color('rec2100pq', [v, v, v]).to('rec2020-linear').coords[0])
    expect(displayById('pq-1000').eotf.decode(v) / linear).toBeCloseTo(1, 3)
  })

  test.each([[[0.7, 0.2, 0.05]], [[0.02, 0.9, 0.3]], [[1, 1, 1]]] as const)(
    'P3 light of %p agrees with an independent library in BT.2020',
    ([red, green, blue]) => {
      const theirs = new Color('p3-linear', [red, green, blue]).to('rec2020-linear').coords.map(Number)
      transform(gamutToGamut(gamutById('p3-d65'), gamutById('bt2020')), [red, green, blue]).forEach((v, c) =>
        expect(v).toBeCloseTo(theirs[c]!, 4),
      )
    },
  )

  test('HLG: the peak signal shows the peak, and any finite signal gives a number', () => {
    const hlg = displayById('hlg')
    const light = lightOfSignal(hlg)
    light(1, 1, 1).forEach((v) => expect(v).toBeCloseTo(hlg.peak, 6))
    fc.assert(
      fc.property(fc.array(fc.double({ min: -2, max: 3, noNaN: true }), { minLength: 3, maxLength: 3 }), (rgb) =>
        light(rgb[0]!, rgb[1]!, rgb[2]!).every(Number.isFinite),
      ),
    )
  })
})

describe('ΔE ITP', () => {
  test('agrees with an independent library', () => {
    const toItp = displayToItp('pq-1000')
    const pairs = [
      [
        [0.5, 0.5, 0.5],
        [0.52, 0.5, 0.49],
      ],
      [
        [0.3, 0.6, 0.2],
        [0.31, 0.58, 0.22],
      ],
    ] as const
    for (const [a, b] of pairs) {
      const theirs = new Color('rec2100pq', [...a]).deltaE(new Color('rec2100pq', [...b]), 'ITP')
      expect(deltaEItp(toItp(a[0], a[1], a[2]), toItp(b[0], b[1], b[2])) / theirs).toBeCloseTo(1, 1)
    }
  })

  test('is used for high range and named, CIEDE2000 for standard range', () => {
    expect(differenceMeasure('hlg').name).toBe('ΔE ITP')
    expect(differenceMeasure('p3-d65').name).toBe('ΔE 2000')
  })
})

describe('families of curves', () => {
  test('a tangent toe meets its power at equal value and slope', () => {
    const { encode } = tangentToe(2.6, 0.099)
    const xs = Array.from({ length: 400 }, (_, i) => i / 10_000)
    const slopes = xs.slice(1).map((x, i) => (encode(x) - encode(xs[i]!)) / 1e-4)
    slopes.slice(1).forEach((s, i) => expect(s).toBeLessThanOrEqual(slopes[i]! + 1e-6))
    expect(lifted({ encode: (x) => x, decode: (y) => y }, 0.1, 0.5).encode(0)).toBe(0.1)
  })

  test('film density: black at 95, white at 685', () => {
    expect(filmDensity.encode(0) * 1023).toBeCloseTo(95, 6)
    expect(filmDensity.encode(1) * 1023).toBeCloseTo(685, 6)
    expect(acesCc.encode(0.18)).toBeCloseTo((Math.log2(0.18) + 9.72) / 17.52, 12)
  })

  test('tables are followed, continued at both ends, and refused when they fall', () => {
    const { decode, encode } = tableCurve([
      { code: 0.1, linear: 0 },
      { code: 0.4, linear: 0.18 },
      { code: 0.7, linear: 1 },
    ])
    expect(decode(0.4)).toBe(0.18)
    expect(decode(0.55)).toBeCloseTo(0.59, 12)
    expect(decode(0)).toBeCloseTo(-0.06, 12)
    expect(encode(decode(1.3))).toBeCloseTo(1.3, 12)
    expect(() =>
      tableCurve([
        { code: 0, linear: 1 },
        { code: 1, linear: 0 },
      ]),
    ).toThrow('Pair 2 does not rise')
    expect(() =>
      tableCurve([
        { code: 0, linear: 0 },
        { code: NaN, linear: 1 },
      ]),
    ).toThrow('not a number')
    expect(() => tableCurve([{ code: 0, linear: 0 }])).toThrow('2 to 4096')
  })

  test('a curve without a straight part is finite everywhere', () => {
    const curve = linLog({ a: 0.25, b: 5, c: 0.05, d: 0.4, e: null, f: null, cut: -Infinity })
    for (const x of [-1e6, -0.01, 0, 1e6])
      expect(Number.isFinite(curve.encode(x)) && Number.isFinite(curve.decode(x))).toBe(true)
  })
})
