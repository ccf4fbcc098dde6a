import { encodingById, encodings, linLog } from '../colour'
import {
  fitLinLog,
  linLogThrough,
  lookUpEncoding,
  lutAsTable,
  matchPatches,
  parseSheetValue,
  parseTable,
  type Patch,
} from '.'
import type { Lut } from '../luts'

/** Even noise from a seed, −1…1. */
function noise(seed: number): () => number {
  let s = seed
  return () => {
    s = (Math.imul(s, 1664525) + 1013904223) >>> 0
    return s / 2147483648 - 1
  }
}
/** Gaussian enough: the sum of twelve, deviation 1. */
const normal = (r: () => number): number => Array.from({ length: 12 }, r).reduce((a, b) => a + b, 0) / 2
const scale = (id: string, noiseShare: number, seed: number): Patch[] => {
  const { encode } = encodingById(id).curve
  const r = noise(seed)
  return Array.from({ length: 12 }, (_, i) => {
    const linear = 0.18 * 2 ** (i * 0.75 - 5)
    return { code: encode(linear * (1 + noiseShare * normal(r))), linear }
  })
}

describe('fitting the seven numbers', () => {
  const logs = encodings.filter((e) => e.id.startsWith('log-')).map((e) => e.id)

  test.each(logs)('%s: twelve patches with 1 %% noise recover grey within 0.05 stop', (id) => {
    for (let seed = 1; seed <= 8; seed++) {
      const { curve } = fitLinLog(scale(id, 0.01, seed))
      expect(Math.abs(Math.log2(linLog(curve).decode(encodingById(id).curve.encode(0.18)) / 0.18))).toBeLessThan(0.05)
    }
  })

  test('is continuous at its cut, rises, and says what is left over', () => {
    const { curve, rmsStops, residualStops } = fitLinLog(scale('log-420-95', 0, 1))
    const { encode } = linLog(curve)
    expect(encode(curve.cut - 1e-9)).toBeCloseTo(encode(curve.cut + 1e-9), 6)
    expect(rmsStops).toBeLessThan(0.02)
    expect(residualStops).toHaveLength(12)
    let before = -Infinity
    for (let x = -0.05; x < 40; x += 0.01) {
      expect(encode(x)).toBeGreaterThan(before)
      before = encode(x)
    }
  })

  test.each<[string, Patch[], RegExp]>([
    ['too few', [{ code: 0, linear: 0 }], /at least four/],
    [
      'not numbers',
      [
        { code: 0, linear: 0 },
        { code: NaN, linear: 1 },
        { code: 0.5, linear: 2 },
        { code: 0.6, linear: 3 },
      ],
      /not a number/,
    ],
    [
      'falling',
      [
        { code: 0.9, linear: 0 },
        { code: 0.5, linear: 1 },
        { code: 0.3, linear: 2 },
        { code: 0.2, linear: 3 },
      ],
      /falls/,
    ],
    [
      'equal light',
      [
        { code: 0.1, linear: 1 },
        { code: 0.2, linear: 1 },
        { code: 0.3, linear: 2 },
        { code: 0.4, linear: 3 },
      ],
      /same light/,
    ],
    [
      'codes beyond all',
      [
        { code: 5, linear: 0 },
        { code: 6, linear: 1 },
        { code: 7, linear: 2 },
        { code: 8, linear: 3 },
      ],
      /0 to 1/,
    ],
  ])('%s is refused with a reason', (_, patches, reason) => {
    expect(() => fitLinLog(patches)).toThrow(reason)
  })
})

describe('matching a grey scale or a bracketed card', () => {
  test.each(encodings.filter((e) => e.id !== 'linear').map((e) => e.id))(
    '%s is found among all, whatever the exposure',
    (id) => {
      const { encode } = encodingById(id).curve
      for (const [seed, stops] of [
        [3, -1.5],
        [5, 0],
        [9, 1.5],
      ] as const) {
        const r = noise(seed)
        // A 12-step scale as a camera averages it: half a code of 10 bits of noise left in each mean.
        const patches = Array.from({ length: 12 }, (_, i) => ({
          linear: 0.9 * 2 ** (-i * 0.6),
          code: Math.min(1, encode(0.9 * 2 ** (-i * 0.6 + stops)) + normal(r) * 0.0005),
        }))
        // Two of the ACES logs differ in the toe only: above it they tie, to the last code.
        const [best, ...rest] = matchPatches(patches)
        expect(
          [best!, ...rest.filter((m) => m.errorCodes - best!.errorCodes < 1e-9)].map((m) => m.encoding.id),
        ).toContain(id)
      }
    },
  )

  test('says by how much the card was off', () => {
    const patches = [-2, -1, 0, 1, 2].map((s) => ({
      linear: 0.18 * 2 ** s,
      code: encodingById('log-351-128').curve.encode(0.18 * 2 ** (s - 0.7)),
    }))
    expect(matchPatches(patches)[0]!.exposureStops).toBeCloseTo(-0.7, 3)
  })
})

describe('looking up', () => {
  test('grey and black name the encoding', () => {
    const { matches, fitted } = lookUpEncoding({
      grey: parseSheetValue('41.1%', 'full'),
      black: parseSheetValue('95/1023', 'full'),
    })
    expect(matches[0]).toMatchObject({ encoding: { id: 'log-420-95' }, withinTolerance: true })
    expect(matches[1]!.withinTolerance).toBe(false)
    expect(fitted).toBeNull()
  })

  test.each([
    ['41.1%', 0.411],
    ['420', 420 / 1023],
    ['105/255', 105 / 255],
    ['1680/4095', 1680 / 4095],
    ['0.411', 0.411],
    ['41,1 %', 0.411],
  ])('%s is read as a level', (text, value) => {
    expect(parseSheetValue(text, 'full')).toBeCloseTo(value, 12)
  })

  test('percentages of legal range are carried to full-range codes', () => {
    expect(parseSheetValue('0%', 'legal') * 1023).toBeCloseTo(64, 9)
    expect(parseSheetValue('100%', 'legal') * 1023).toBeCloseTo(940, 9)
  })

  test.each(['', 'grey', '12/7', '2000/1023', '-5', '1e9', '5000', 'NaN', '<b>'])('%j is no level', (text) => {
    expect(() => parseSheetValue(text, 'full')).toThrow(RangeError)
  })

  test('what nobody published is fitted through its three values', () => {
    const { matches, fitted } = lookUpEncoding({ black: 0.07, grey: 0.44, white90: 0.6 })
    expect(matches[0]!.withinTolerance).toBe(false)
    const { encode } = linLog(fitted!)
    expect(encode(0)).toBeCloseTo(0.07, 9)
    expect(encode(0.18)).toBeCloseTo(0.44, 9)
    expect(encode(0.9)).toBeCloseTo(0.6, 9)
  })

  test('impossible sheets are refused', () => {
    expect(() => lookUpEncoding({})).toThrow('At least one')
    expect(() => lookUpEncoding({ black: 0.5, grey: 0.4 })).toThrow('grey must lie above black')
    expect(() => lookUpEncoding({ grey: NaN })).toThrow('outside')
    expect(linLogThrough(0, 0.1, 0.9)).toBeNull()
  })
})

describe('tables', () => {
  test('read with any separator, header and depth', () => {
    expect(parseTable('code;light\n95;0\n420;0.18\n# a note\n598;0.9\n')).toEqual([
      { code: 95 / 1023, linear: 0 },
      { code: 420 / 1023, linear: 0.18 },
      { code: 598 / 1023, linear: 0.9 },
    ])
    expect(parseTable('0.1 0\n0.4\t0.18')).toHaveLength(2)
    expect(parseTable('4095,1')[0]!.code).toBe(1)
  })
  test.each([
    ['1,2,3', /Line 1: Two numbers/],
    ['0.1,0\n0.2,x', /Line 2/],
    ['', /no pairs/],
    ['code,light', /no pairs/],
    ['99999999,1', /16 bits/],
  ])('%j is refused by line', (text, reason) => {
    expect(() => parseTable(text)).toThrow(reason)
  })

  test('a conversion LUT gives its curve back', () => {
    const { decode } = encodingById('log-400-95-a').curve
    const size = 33
    const data = new Float32Array(size ** 3 * 3)
    for (let i = 0; i < size ** 3; i++)
      [i % size, Math.floor(i / size) % size, Math.floor(i / size ** 2)].forEach((n, c) => {
        data[i * 3 + c] = Math.min(1, Math.max(0, decode(n / (size - 1)))) ** (1 / 2.4)
      })
    const lut: Lut = { dimensions: 3, size, title: '', data, domainMin: [0, 0, 0], domainMax: [1, 1, 1] }
    const patches = lutAsTable(lut, encodingById('gamma-2.4').curve, size).filter((p) => p.linear > 0.002)
    // The LUT clips at white, so only the tones under it can be told.
    expect(Math.max(...patches.map((p) => p.linear))).toBeLessThanOrEqual(1)
    const { curve } = fitLinLog(patches)
    expect(
      Math.abs(Math.log2(linLog(curve).decode(encodingById('log-400-95-a').curve.encode(0.18)) / 0.18)),
    ).toBeLessThan(0.02)
  })
})
