import { displayById, lumaWeights } from '../colour'
import { addRegion, buildChain, defaultGrade, setParameter } from '../grade'
import type { Frame } from '../image'
import { meridianShares, measureMeridian } from './meridian'
import { countScopes, levelHigh, levelLow, lumaPercentile, vectorSpan } from './scopes'
import { defaultInstruments } from './settings'
import { instrumentImage } from './trace-image'

const weights = lumaWeights('bt709')
const sizes = { columns: 32, levels: 110, vectorCells: 240 }

function frameOf(
  width: number,
  height: number,
  colour: (x: number, y: number) => readonly [number, number, number],
): Frame {
  const data = new Uint16Array(width * height * 3)
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++) for (const v of colour(x, y)) data[i++] = Math.round(v * 65535)
  return { width, height, data, low: 0, high: 1 }
}

describe('scopes', () => {
  test('every pixel is counted once: the sum of a column is the number of pixels in it', () => {
    const width = 101
    const height = 37
    const counts = countScopes(
      frameOf(width, height, (x, y) => [x / width, y / height, ((x * y) % 7) / 7]),
      weights,
      sizes,
    )
    const inColumn = new Uint32Array(sizes.columns)
    for (let x = 0; x < width; x++) inColumn[Math.floor((x * sizes.columns) / width)]! += height
    for (const trace of [counts.waveform, counts.red, counts.green, counts.blue])
      for (let c = 0; c < sizes.columns; c++) {
        let sum = 0
        for (let level = 0; level < sizes.levels; level++) sum += trace[c * sizes.levels + level]!
        expect(sum).toBe(inColumn[c])
      }
    expect(counts.vector.reduce((a, b) => a + b, 0)).toBe(width * height)
    expect(counts.luma.reduce((a, b) => a + b, 0)).toBe(width * height)
  })

  test('a level lands in its row', () => {
    const counts = countScopes(
      frameOf(8, 8, () => [0.5, 0.5, 0.5]),
      weights,
      sizes,
    )
    const level = counts.waveform.findIndex((n) => n > 0) % sizes.levels
    expect(level).toBe(Math.floor(((0.5 - levelLow) / (levelHigh - levelLow)) * sizes.levels))
  })

  test('clip and crush shares are exact', () => {
    const counts = countScopes(
      frameOf(10, 10, (x, y) => {
        if (y === 0) return [1, 0.2, 0.3]
        if (y === 1 && x < 5) return [0, 0, 0]
        return [0.5, 0.5, 0]
      }),
      weights,
      sizes,
    )
    expect(counts.clipped).toBe(10)
    expect(counts.crushed).toBe(5)
  })

  test('percentiles of a ramp interpolate', () => {
    const counts = countScopes(
      frameOf(1000, 10, (x) => [x / 999, x / 999, x / 999]),
      weights,
      sizes,
    )
    for (const share of [0.001, 0.1, 0.5, 0.9, 0.999])
      expect(Math.abs(lumaPercentile(counts, share) - share)).toBeLessThan(0.0015)
  })

  test.each([
    ['red', [0.75, 0, 0]],
    ['green', [0, 0.75, 0]],
    ['blue', [0, 0, 0.75]],
    ['yellow', [0.75, 0.75, 0]],
    ['cyan', [0, 0.75, 0.75]],
    ['magenta', [0.75, 0, 0.75]],
  ] as const)('the 75 %% bar of %s lands where its Cb and Cr say', (_, rgb) => {
    const counts = countScopes(
      frameOf(4, 4, () => rgb),
      weights,
      sizes,
    )
    const cell = counts.vector.findIndex((n) => n === 16)
    const toValue = (i: number): number => ((i + 0.5) / sizes.vectorCells - 0.5) * 2 * vectorSpan
    const luma = weights.red * rgb[0] + weights.green * rgb[1] + weights.blue * rgb[2]
    const half = vectorSpan / sizes.vectorCells
    expect(Math.abs(toValue(cell % sizes.vectorCells) - (rgb[2] - luma) / weights.cbDivisor)).toBeLessThanOrEqual(
      half + 1e-4,
    )
    expect(
      Math.abs(toValue(Math.floor(cell / sizes.vectorCells)) - (rgb[0] - luma) / weights.crDivisor),
    ).toBeLessThanOrEqual(half + 1e-4)
  })

  test('traces are painted with bright at the top', () => {
    const counts = countScopes(
      frameOf(32, 4, () => [1, 1, 1]),
      weights,
      sizes,
    )
    const layers = { whole: { scopes: counts, chromaticity: null }, part: null, reference: null }
    const image = instrumentImage('waveform', layers, defaultInstruments)
    const lit = image.rgba.findIndex((v, i) => i % 4 === 3 && v > 0)
    expect(Math.floor(lit / 4 / image.width)).toBeLessThan(sizes.levels * 0.06)
    expect(instrumentImage('parade', layers, defaultInstruments).width).toBe(sizes.columns * 3)
  })
})

describe('the Meridian', () => {
  const encode = (stops: number): number => Math.min(1, Math.max(0, 0.410557 + stops * 0.07))
  const frame = frameOf(64, 64, (x) => [encode((x - 32) / 8), encode((x - 32) / 8), encode((x - 32) / 8)])
  const none = (): undefined => undefined

  test('runs in order and unchanged through stations that do nothing', () => {
    const { stations } = measureMeridian(buildChain(defaultGrade('log-420-95'), none), frame)
    for (const { levels } of stations) {
      expect(levels).toHaveLength(meridianShares.length)
      levels.slice(1).forEach((level, i) => expect(level).toBeGreaterThanOrEqual(levels[i]!))
    }
    const level = (id: string): readonly number[] => stations.find((s) => s.station === id)!.levels
    expect(level('look')).toEqual(level('read'))
  })

  test('a stop of exposure lifts every line after Level by one stop of working log', () => {
    const grade = setParameter(defaultGrade('log-420-95'), 'exposure', 'exposureStops', 1)
    const { stations } = measureMeridian(buildChain(grade, none), frame)
    const at = (id: string): number => stations.find((s) => s.station === id)!.levels[3]!
    expect(at('level') - at('read')).toBeCloseTo(1 / 17.52, 6)
  })

  test('ends where the display signal is', () => {
    const chain = buildChain(defaultGrade('log-420-95'), none)
    const grey = frameOf(16, 16, () => [0.410557, 0.410557, 0.410557])
    const last = measureMeridian(chain, grey).stations.at(-1)!.levels
    expect(last[3]).toBeCloseTo(displayById('bt709-2.4').eotf.encode(0.18), 3)
  })

  test('a region acts on its own part only', () => {
    const { grade, regionId } = addRegion(defaultGrade('log-420-95'))
    const lifted = setParameter(grade, `${regionId}-exposure`, 'exposureStops', 2)
    const flat = frameOf(64, 64, () => [0.410557, 0.410557, 0.410557])
    const levels = measureMeridian(buildChain(lifted, none), flat, 4096).stations.find(
      (s) => s.station === 'regions',
    )!.levels
    expect(levels[0]).toBeCloseTo(0.413588, 4)
    expect(levels[6]).toBeCloseTo(0.413588 + 2 / 17.52, 4)
  })
})
