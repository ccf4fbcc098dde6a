import { shoot, type Take } from '../../tests/guess/camera'
import { madeUpScene, randomSource, type Light } from '../../tests/guess/scenes'
import { encodingById } from '../colour'
import type { Frame } from '../image'
import {
  blocksInPlace,
  blocksInTime,
  candidatesFor,
  fitNoise,
  measureStatistics,
  noiseBands,
  noiseColour,
  pictureMotion,
  placesToLook,
} from '.'

const take: Take = {
  encodingId: 'log-420-95',
  exposureStops: 0,
  noiseBlack: 0.0006,
  noiseGrey: 0.003,
  noiseTrouble: 0,
  troublePhase: 0,
  troubleRate: 0,
  range: 'full',
  flagged: 'full',
  bits: 10,
}
const scene = madeUpScene(7)

/** A part of the picture, so many pixels to the right. */
function part({ width, height, data }: Light, right: number): Light {
  const w = width - 16
  const out = new Float64Array(w * height * 3)
  for (let y = 0; y < height; y++)
    out.set(data.subarray((y * width + right) * 3, (y * width + right + w) * 3), y * w * 3)
  return { width: w, height, data: out }
}
const pair = (right: number, t: Take = take): readonly [Frame, Frame] => [
  shoot(part(scene, 0), t, randomSource(1)),
  shoot(part(scene, right), t, randomSource(2)),
]

/** The variance that the camera's noise has in codes, at a code. */
function variance(code: number, { noiseBlack, noiseGrey, encodingId }: Take): number {
  const { decode, encode } = encodingById(encodingId).curve
  const x = decode(code)
  const slope = (encode(x + 1e-5) - encode(x - 1e-5)) / 2e-5
  return (
    slope ** 2 * (noiseBlack ** 2 + ((noiseGrey ** 2 - noiseBlack ** 2) / 0.18) * Math.max(0, x)) + 1 / 12 / 1023 ** 2
  )
}
/** Each pixel the mean of itself and its right neighbour, as a hard compression may leave it. */
const softened = (frame: Frame): Frame => ({
  ...frame,
  data: frame.data.map((v, i) => Math.round((v + (frame.data[i + 3] ?? v)) / 2)),
})
const middle = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[list.length >> 1]!

describe('noise by tone', () => {
  test.each([
    ['standing still', 0],
    ['moving by 5 pixels', 5],
  ])('between frames of a textured scene, %s: within 12 %% in the middle of the bands', (_, right) => {
    const bands = noiseBands(blocksInTime(...pair(right)), 'time')
    expect(bands.length).toBeGreaterThan(10)
    const off = bands.map((b) => Math.abs(Math.log(b.variance / variance(b.code, take))))
    expect(middle(off)).toBeLessThan(0.12)
  })

  test('is white as a sensor leaves it; once its finest part is gone, nothing is made of it', () => {
    const [a, b] = pair(5)
    expect(Math.abs(noiseColour(blocksInTime(a, b)) - 1)).toBeLessThan(0.25)
    expect(measureStatistics([{ frame: a, next: b }])).toMatchObject({ noiseTold: 'time' })
    const [soft, softNext] = [softened(a), softened(b)]
    expect(noiseColour(blocksInTime(soft, softNext))).toBeGreaterThan(1.8)
    expect(measureStatistics([{ frame: soft, next: softNext }])).toMatchObject({ noiseTold: 'spoilt', noise: [] })
  })

  test('a single frame tells it less well, but by its size', () => {
    const bands = noiseBands(blocksInPlace(pair(0)[0]), 'place')
    const off = bands.map((b) => Math.log(b.variance / variance(b.code, take)))
    expect(middle(off)).toBeGreaterThan(-0.5)
    expect(middle(off)).toBeLessThan(1)
  })

  test('frames of two sizes are refused', () => {
    expect(() => blocksInTime(pair(0)[0], shoot(scene, take, randomSource(1)))).toThrow('one size')
  })
})

test('the move of a whole picture is found to a tenth of a pixel, and none in a flat one', () => {
  const [x, y] = [2, 5].map((i) => pictureMotion(...pair(5))[i]!)
  expect(x).toBeCloseTo(-5, 0)
  expect(Math.abs(x! + 5)).toBeLessThan(0.3)
  expect(Math.abs(y!)).toBeLessThan(0.3)
  const flat: Frame = { width: 64, height: 64, data: new Uint16Array(64 * 64 * 3).fill(9000), low: -0.25, high: 1.25 }
  expect(pictureMotion(flat, flat)).toEqual([1, 0, 0, 0, 1, 0, 0, 0, 1])
})

describe('a sensor explains the noise', () => {
  const of = (id: string, t: Take = take): number =>
    fitNoise(
      noiseBands(blocksInTime(...pair(0, t)), 'time'),
      candidatesFor('full').find((c) => c.encoding.id === id && c.range === 'full')!,
      'full',
    ).misfit

  test.each(['log-420-95', 'log-351-128', 'gamma-2.4'])(
    'through the right curve (%s) far better than through one of another kind',
    (id) => {
      const wrong = id.startsWith('log') ? 'gamma-2.4' : 'log-420-95'
      const t = { ...take, encodingId: id }
      expect(of(id, t)).toBeLessThan(0.02)
      expect(of(wrong, t)).toBeGreaterThan(2 * of(id, t))
    },
  )

  test('and tells how much there was', () => {
    const fit = fitNoise(
      noiseBands(blocksInTime(...pair(0)), 'time'),
      candidatesFor('full').find((c) => c.encoding.id === 'log-420-95')!,
      'full',
    )
    expect(fit.atGrey / 0.003).toBeGreaterThan(0.9)
    expect(fit.atGrey / 0.003).toBeLessThan(1.15)
  })

  test('too few bands say nothing', () => {
    expect(fitNoise([], candidatesFor('full')[0]!, 'full').misfit).toBeNaN()
  })
})

describe('where a clip is looked at', () => {
  const hd = { width: 1920, height: 1080 }
  test('three places, each with its next frame', () =>
    expect(placesToLook({ ...hd, frameCount: 72 })).toEqual([
      { index: 12, count: 2 },
      { index: 35, count: 2 },
      { index: 58, count: 2 },
    ]))
  test('the chosen frame in place of the nearest', () =>
    expect(placesToLook({ ...hd, frameCount: 72 }, 71)).toEqual([
      { index: 12, count: 2 },
      { index: 35, count: 2 },
      { index: 71, count: 1 },
    ]))
  test('one place where pictures are large', () =>
    expect(placesToLook({ width: 8192, height: 4320, frameCount: 500 })).toHaveLength(1))
  test.each([
    [1, [{ index: 0, count: 1 }]],
    [2, [{ index: 0, count: 2 }]],
    [
      3,
      [
        { index: 0, count: 2 },
        { index: 1, count: 2 },
      ],
    ],
  ])('%i frames', (frameCount, places) => expect(placesToLook({ ...hd, frameCount })).toEqual(places))
  test('an absurd choice stays inside', () =>
    expect(placesToLook({ ...hd, frameCount: 5 }, 900).every(({ index, count }) => index + count <= 5)).toBe(true))
})
