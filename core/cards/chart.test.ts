import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { decode } from 'fast-png'
import { buildChain, defaultGrade, sceneLight, type CameraMatrix } from '../grade'
import { chartFrame, noMatrix, upright, type ChartShot } from '../../tests/support/chart-frame'
import { meanOf, patchMiddles, readChart } from './chart'
import { balancedByChart, matchedByChart } from './chart-grade'
import { chartPatches, labOfLight, lightOfLab } from './chart-patches'
import { placesOn, type Corners } from './four-corners'

const leaning: Corners = [
  { x: 0.2, y: 0.3 },
  { x: 0.7, y: 0.15 },
  { x: 0.8, y: 0.75 },
  { x: 0.3, y: 0.7 },
]

const read = (made: ChartShot, corners = made.corners ?? upright) => {
  const encodingId = made.encodingId ?? 'log-420-95'
  return readChart({ source: chartFrame(made), chain: buildChain(defaultGrade(encodingId), () => undefined) }, corners)
}

test('the published colours go to light and back; the greys are near neutral and in order', () => {
  for (const { lab } of chartPatches) labOfLight(lightOfLab(lab)).forEach((v, i) => expect(v).toBeCloseTo(lab[i]!, 6))
  // Neutral 5 reflects 19.1 %: its L* of 50.867 (CIE 15:2018, 8.2.1).
  const [r, g, b] = lightOfLab(chartPatches[21]!.lab)
  expect((r + g + b) / 3).toBeCloseTo(0.192, 2)
})

test('a chart that is rightly exposed, balanced and coloured asks for nothing', () => {
  const reading = read({})
  expect(reading.exposureStops).toBeCloseTo(0, 1)
  expect(meanOf(reading, 'asRead')).toBeLessThan(1)
  expect(Math.max(...Object.values(reading.matrix).map(Math.abs))).toBeLessThan(0.02)
  expect(reading).toMatchObject({ turned: 0, doubt: '' })
})

test('exposure, white and matrix of a made camera are found, through perspective and noise', () => {
  const camera = {
    redOfGreen: 0.12,
    redOfBlue: -0.05,
    greenOfRed: -0.04,
    greenOfBlue: 0.08,
    blueOfRed: 0.03,
    blueOfGreen: -0.1,
  }
  const made = { stops: 0.8, mired: 35, tint: -6, camera, corners: leaning, noise: 0.004 }
  const reading = read(made)
  // What the chart itself asks for, as its greys are not quite neutral.
  const plain = read({ corners: leaning })
  expect(reading.exposureStops - plain.exposureStops).toBeCloseTo(0.8, 1)
  expect(reading.temperatureMired - plain.temperatureMired).toBeCloseTo(35, -0.5)
  expect(Math.abs(reading.tint - plain.tint + 6)).toBeLessThan(1)
  for (const key of Object.keys(camera) as (keyof CameraMatrix)[])
    expect(Math.abs(reading.matrix[key] - camera[key])).toBeLessThan(0.03)
  expect(meanOf(reading, 'balanced')).toBeGreaterThan(2)
  expect(meanOf(reading, 'matched')).toBeLessThan(1)
  expect(reading.doubt).toBe('')
})

test('put into a grade, the chart is seen as it is known', () => {
  const camera = { ...noMatrix, redOfGreen: 0.15, blueOfGreen: -0.12 }
  const made = { stops: -0.6, mired: -40, tint: 5, camera }
  const reading = read(made)
  const grade = matchedByChart(balancedByChart(defaultGrade('log-420-95'), reading), reading)
  const frame = chartFrame(made)
  const place = (i: number): Float64Array => {
    const { x, y } = placesOn(upright)(patchMiddles[i]!.x, patchMiddles[i]!.y)
    const from = (Math.floor(y * frame.height) * frame.width + Math.floor(x * frame.width)) * 3
    return Float64Array.from(frame.data.subarray(from, from + 3), (v) => v / 65535)
  }
  chartPatches.forEach(({ lab }, i) => {
    const [r = 0, g = 0, b = 0] = sceneLight(
      buildChain(grade, () => undefined),
      'level',
      place(i),
    )
    const seen = labOfLight([r, g, b])
    seen.forEach((v, c) => expect(Math.abs(v - lab[c]!)).toBeLessThan(4))
  })
  // Once more replaces what stands.
  expect(matchedByChart(grade, reading).steps).toHaveLength(grade.steps.length)
})

test.each([0, 1, 2, 3] as const)('corners that begin %i quarter turns on find the same chart', (turns) => {
  const corners = [0, 1, 2, 3].map((i) => upright[(i + 4 - turns) % 4]) as unknown as Corners
  const reading = read({ stops: 0.5 }, corners)
  expect(reading.turned).toBe(turns)
  expect(meanOf(reading, 'matched')).toBeLessThan(1)
})

test('what is cut off at the top does not count', () => {
  const reading = read({ encodingId: 'gamma-2.4', stops: -0.5 })
  expect(reading.patches.filter((p) => p.clipped).map((p) => p.name)).toContain('white')
  expect(reading.exposureStops).toBeCloseTo(-0.5, 1)
  expect(() => read({ encodingId: 'gamma-2.4', stops: -4 })).toThrow(/Too many patches/)
})

test('something else is doubted; corners that cross and a chart of a few pixels are refused', () => {
  const source = chartFrame({})
  source.data.forEach((_, i) => (source.data[i] = 20_000 + ((i * 7919) % 9000)))
  const chain = buildChain(defaultGrade('log-420-95'), () => undefined)
  expect(readChart({ source, chain }, upright).doubt).toMatch(/not the chart/)
  const [a, b, c, d] = upright
  expect(() => readChart({ source, chain }, [a, c, b, d])).toThrow(/cross/)
  const tiny = upright.map(({ x, y }) => ({ x: 0.5 + x / 100, y: 0.5 + y / 100 })) as unknown as Corners
  expect(() => readChart({ source, chain }, tiny)).toThrow(/too small/)
})

test('places on a four-sided thing: its corners are its corners, and its straight lines stay straight', () => {
  const near = fc.double({ min: 0, max: 0.3, noNaN: true })
  fc.assert(
    fc.property(fc.tuple(near, near, near, near, near, near, near, near), ([a, b, c, d, e, f, g, h]) => {
      const corners: Corners = [
        { x: a, y: b },
        { x: 1 - c, y: d },
        { x: 1 - e, y: 1 - f },
        { x: g, y: 1 - h },
      ]
      const at = placesOn(corners)
      for (const [i, [u, v]] of (
        [
          [0, 0],
          [1, 0],
          [1, 1],
          [0, 1],
        ] as const
      ).entries()) {
        expect(at(u, v).x).toBeCloseTo(corners[i]!.x, 9)
        expect(at(u, v).y).toBeCloseTo(corners[i]!.y, 9)
      }
      const [p, q, r] = [at(0.1, 0.4), at(0.5, 0.4), at(0.8, 0.4)]
      expect((q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x)).toBeCloseTo(0, 9)
    }),
  )
})

test('the picture that the page is tested with is such a chart', () => {
  const camera = { ...noMatrix, redOfGreen: 0.15, blueOfGreen: -0.1 }
  const made = chartFrame({ stops: 0.7, mired: 30, tint: 4, camera })
  const stored = decode(readFileSync('tests/fixtures/chart.png'))
  expect([stored.width, stored.height, stored.depth]).toEqual([made.width, made.height, 16])
  const same = Buffer.from(Uint16Array.from(stored.data).buffer).equals(Buffer.from(made.data.buffer))
  expect(same).toBe(true)
})
