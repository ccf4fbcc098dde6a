import { bakeLut } from '../bake/bake'
import { defaultGrade, setParameter, setStep } from '../grade'
import type { Lut1d, Lut3d } from '../luts'
import { inspectLut, lookFacts } from './inspect'

const noLut = (): undefined => undefined
function cube(size: number, colour: (r: number, g: number, b: number) => readonly [number, number, number]): Lut3d {
  const data = new Float32Array(size ** 3 * 3)
  const at = (i: number): number => i / (size - 1)
  for (let b = 0, o = 0; b < size; b++)
    for (let g = 0; g < size; g++) for (let r = 0; r < size; r++, o += 3) data.set(colour(at(r), at(g), at(b)), o)
  return { dimensions: 3, title: '', size, data, domainMin: [0, 0, 0], domainMax: [1, 1, 1] }
}

test('a table that changes nothing: nothing is found', () => {
  const found = inspectLut(cube(17, (r, g, b) => [r, g, b]))
  expect(found).toMatchObject({
    size: 17,
    folds: [],
    banding: [],
    range: { low: 0, high: 1 },
    expects: { kind: 'look' },
  })
  expect(found.middleGrey.slope).toBeCloseTo(1, 5)
  expect(found.drift.deltaE).toBeLessThan(0.01)
  for (const { hueDegrees, lumaPercent, chromaGain } of found.colours)
    expect([hueDegrees, lumaPercent, chromaGain]).toEqual([
      expect.closeTo(0, 3),
      expect.closeTo(0, 3),
      expect.closeTo(1, 3),
    ])
  for (const { turnDegrees, chromaGain } of found.hues)
    expect([turnDegrees, chromaGain]).toEqual([expect.closeTo(0, 2), expect.closeTo(1, 3)])
  // Every entry on the cube's outside sits at an end.
  expect(found.clippedShare).toBeCloseTo(1 - 15 ** 3 / 17 ** 3, 6)
})

test(
  'what is wrong is found where it is: a fold, a coloured grey, a steep stretch, a bend, values out ' + 'of range',
  () => {
    const fold = inspectLut(cube(33, (r, g, b) => [r, g, b].map((v) => (v > 0.5 && v < 0.6 ? 1 - v : v)) as never))
    const tinted = inspectLut(cube(17, (r, g, b) => [r, g * 0.9, b]))
    expect(fold.folds[0]!.from).toBeGreaterThan(0.45)
    expect(fold.folds.at(-1)!.to).toBeLessThan(0.65)
    expect(tinted.drift).toMatchObject({ at: 1, deltaE: expect.closeTo(12, -1) })
    const steep: Lut1d = {
      dimensions: 1,
      title: '',
      size: 65,
      domainMin: [0, 0, 0],
      domainMax: [1, 1, 1],
      data: Float32Array.from({ length: 195 }, (_, i) =>
        Math.min(1.2, Math.max(0, (Math.floor(i / 3) / 64 - 0.4) * 4)),
      ),
    }
    const found = inspectLut(steep)
    expect(found.banding).toEqual([{ from: expect.closeTo(0.4, 1), to: expect.closeTo(0.7, 1) }])
    expect(found.bend.percent).toBeGreaterThan(5)
    expect(found.range.high).toBeCloseTo(1.2, 5)
  },
)

test('hue turns and saturation gains are those of the look: half the saturation is half of it, for every skin', () => {
  const grade = setStep(
    setParameter(defaultGrade('gamma-2.4', 'bt709'), 'saturation', 'saturation', 0.5),
    'saturation',
    { side: 'display' },
  )
  const found = inspectLut(bakeLut(grade, noLut, 33, ''))
  for (const skin of found.colours.filter((c) => c.kind === 'skin')) {
    expect(skin.chromaGain).toBeGreaterThan(0.4)
    expect(skin.chromaGain).toBeLessThan(0.6)
    expect(Math.abs(skin.hueDegrees)).toBeLessThan(8)
  }
  expect(found.colours.map((c) => c.name)).toEqual([
    'very light',
    'light',
    'light brown',
    'brown',
    'dark brown',
    'deep',
    'very deep',
    'foliage',
    'sky',
    'red',
  ])
})

test('a conversion is given camera codes, and its skins come out where a plain conversion has them', () => {
  const found = inspectLut(bakeLut(defaultGrade('log-420-95'), noLut, 65, ''))
  expect(found.middleGrey.in).toBeCloseTo(420 / 1023, 2)
  expect(found.middleGrey.out).toBeCloseTo(0.18 ** (1 / 2.4), 2)
  for (const { lumaPercent, hueDegrees } of found.colours.filter((c) => c.kind === 'skin')) {
    expect(Math.abs(lumaPercent)).toBeLessThan(1)
    expect(Math.abs(hueDegrees)).toBeLessThan(3)
  }
})

test('facts for sorting: warmer, flatter, paler are what they say', () => {
  const picture = (scale: (r: number, g: number, b: number) => number[]): Uint16Array =>
    Uint16Array.from({ length: 3000 }, (_, i) => i).map((_, i, all) => {
      const p = Math.floor(i / 3)
      const v = (p / (all.length / 3)) * 0.8 + 0.1
      return Math.round(scale(v, v * 0.9, v * 0.8)[i % 3]! * 65535)
    })
  const plain = lookFacts(picture((r, g, b) => [r, g, b]))
  const warm = lookFacts(picture((r, g, b) => [r, g, b * 0.7]))
  const flat = lookFacts(picture((r, g, b) => [0.3 + r * 0.4, 0.3 + g * 0.4, 0.3 + b * 0.4]))
  const grey = lookFacts(picture((r) => [r, r, r]))
  expect(warm.warmthStops).toBeGreaterThan(plain.warmthStops + 0.5)
  expect(flat.contrastPercent / plain.contrastPercent).toBeCloseTo(0.4, 1)
  expect(grey.saturation).toBeLessThan(0.01)
  expect(plain.saturation).toBeGreaterThan(2)
})
