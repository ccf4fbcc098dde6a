import fc from 'fast-check'
import { commonRates, rateName, speedOf } from './conform'
import { findCuts } from './cuts'
import { proposeLead } from './lead'
import { brightestFrames } from './lights'
import { sketch, sketchColumns, sketchRows, type Sketch } from './sketch'
import { countingRate, framesOfTimecode, timecodeAt, timecodeOfFrames } from './timecode'

const width = 32
const height = 18
const random = (seed: number) => (): number => (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 4294967296

/**
 * A picture of soft blobs, different for every seed, moved sideways by `shift` and brightened by `gain`; as 8-bit
 * planes.
 */
function scene(seed: number, shift = 0, gain = 0): Float64Array {
  const next = random(seed)
  const blobs = Array.from({ length: 9 }, () => ({
    x: next() * width,
    y: next() * height,
    size: 2 + 5 * next(),
    y0: 40 + 170 * next(),
    cb: 90 + 76 * next(),
    cr: 90 + 76 * next(),
  }))
  const out = new Float64Array(width * height * 3)
  const base = 60 + 90 * next()
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let luma = base
      let cb = 128
      let cr = 128
      for (const b of blobs) {
        const near = Math.exp(-((x + shift - b.x) ** 2 + (y - b.y) ** 2) / b.size ** 2)
        luma += near * (b.y0 - luma)
        cb += near * (b.cb - cb)
        cr += near * (b.cr - cr)
      }
      out[y * width + x] = luma + gain
      out[width * height + y * width + x] = cb
      out[2 * width * height + y * width + x] = cr
    }
  return out
}
const noise = random(7)
const sketched = (planes: Float64Array): Sketch =>
  sketch(
    Uint8Array.from(planes, (v) => Math.min(255, Math.max(0, v + (noise() - 0.5) * 6))),
    width,
    height,
  )
const mix = (a: Float64Array, b: Float64Array, t: number): Float64Array => a.map((v, i) => v * (1 - t) + b[i]! * t)
const take = (seed: number, frames: number, pan = 0.3, ramp = 0): Float64Array[] =>
  Array.from({ length: frames }, (_, i) => scene(seed, i * pan, i * ramp))

describe('cuts', () => {
  test('hard cuts are found at their frame, and only there', () => {
    const clip = [...take(1, 30), ...take(2, 25), ...take(3, 40)].map(sketched)
    expect(findCuts(clip).map(({ frame, kind }) => [frame, kind])).toEqual([
      [30, 'cut'],
      [55, 'cut'],
    ])
  })

  test.each([8, 16, 24, 36])('a dissolve of %p frames is flagged near its middle', (length) => {
    const a = take(4, 40 + length, 0.04)
    const b = take(5, 40 + length, 0.04)
    const frames = [
      ...a.slice(0, 40),
      ...Array.from({ length }, (_, i) => mix(a[40 + i]!, b[i]!, (i + 1) / (length + 1))),
      ...b.slice(length),
    ]
    const found = findCuts(frames.map(sketched))
    expect(found).toHaveLength(1)
    expect(found[0]!.kind).toBe('dissolve')
    expect(Math.abs(found[0]!.frame - (40 + length / 2))).toBeLessThanOrEqual(4)
  })

  test('a pan, a roll into the sun and a flash are no cuts', () => {
    expect(findCuts(take(6, 80, 1.2).map(sketched))).toEqual([])
    expect(findCuts(take(7, 80, 0.2, 0.9).map(sketched))).toEqual([])
    const flash = take(8, 40).map((f, i) => (i === 20 ? f.map((v, k) => (k < width * height ? v + 90 : v)) : f))
    expect(findCuts(flash.map(sketched))).toEqual([])
  })

  test('short clips hold none', () => {
    expect(findCuts([])).toEqual([])
    expect(findCuts(take(9, 1).map(sketched))).toEqual([])
  })
})

describe('a sketch', () => {
  test('knows mean luma, sharpness and colours by place', () => {
    const flat = sketch(new Uint8Array(width * height * 3).fill(128), width, height)
    expect(flat.luma).toBeCloseTo(128 / 255, 6)
    expect(flat.sharpness).toBe(0)
    expect(flat.colours).toHaveLength(sketchColumns * sketchRows * 3)
    expect(flat.histogram.reduce((a, b) => a + b, 0)).toBeCloseTo(3, 3)
    const striped = new Uint8Array(width * height * 3).fill(128).map((v, i) => (i < width * height ? (i % 2) * 200 : v))
    expect(sketch(striped, width, height).sharpness).toBeGreaterThan(0.3)
  })
})

test('a sketch knows how bright the lights of its frame are, single pixels aside', () => {
  const planes = new Uint8Array(width * height * 3).fill(60)
  planes[5] = 255
  expect(sketch(planes, width, height).lights).toBeCloseTo(60 / 255, 6)
  planes.fill(240, 0, Math.ceil(width * height * 0.02))
  expect(sketch(planes, width, height).lights).toBeCloseTo(240 / 255, 6)
})

test('a clip’s brightest frames are spread, so that one long flash is not looked at thrice', () => {
  const lights = new Array<number>(60).fill(0.3).fill(0.9, 20, 26).fill(0.8, 50, 51)
  expect(brightestFrames(lights, 3)).toEqual([20, 50, 0])
  expect(brightestFrames([0.5], 3)).toEqual([0])
  expect(brightestFrames([], 3)).toEqual([])
})

describe('the proposed lead frame', () => {
  const luma = [0.9, 0.5, 0.5, 0.5, 0.5, 0.5, 0.5, 0.2]
  const sharpness = [0.9, 0.1, 0.1, 0.3, 0.1, 0.1, 0.1, 0.9]
  test('is sharp and typically exposed', () => {
    expect(proposeLead({ luma, sharpness }, 0, 8)).toBe(3)
  })
  test('lies within the shot', () => {
    expect(proposeLead({ luma, sharpness }, 4, 3)).toBeGreaterThanOrEqual(4)
    expect(proposeLead({ luma, sharpness }, 7, 1)).toBe(7)
    expect(() => proposeLead({ luma, sharpness }, 7, 2)).toThrow(RangeError)
    expect(() => proposeLead({ luma, sharpness }, 0, 0)).toThrow(RangeError)
  })
})

describe('timecode', () => {
  const film = { rateNumerator: 24, rateDenominator: 1 }
  const ntsc = { rateNumerator: 30000, rateDenominator: 1001 }

  test.each([
    [0, '00:00:00:00'],
    [23, '00:00:00:23'],
    [24, '00:00:01:00'],
    [86400, '01:00:00:00'],
  ])('frame %p is %p at 24', (frame, text) => {
    expect(timecodeOfFrames(frame, film)).toBe(text)
    expect(framesOfTimecode(text, film)).toBe(frame)
  })
  // SMPTE ST 12-1: two numbers are left out at each minute but every tenth.
  test.each([
    [1799, '00:00:59;29'],
    [1800, '00:01:00;02'],
    [17981, '00:09:59;29'],
    [17982, '00:10:00;00'],
    [107892, '01:00:00;00'],
  ])('frame %p is %p in drop-frame', (frame, text) => {
    expect(timecodeOfFrames(frame, ntsc, true)).toBe(text)
    expect(framesOfTimecode(text, ntsc)).toBe(frame)
  })
  test('every frame comes back, dropping or not', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 2_000_000 }),
        fc.boolean(),
        (frame, drop) => framesOfTimecode(timecodeOfFrames(frame, ntsc, drop), ntsc) === frame,
      ),
    )
  })
  test.each(['1:00:00:00', '00:61:00:00', '00:00:00:24', '00:01:00;00', 'now', ''])('%j is refused', (text) => {
    expect(() => framesOfTimecode(text, text.includes(';') ? ntsc : film)).toThrow(RangeError)
  })
  test('a clip counts from its own start; a start that its rate does not allow counts from zero', () => {
    expect(timecodeAt(5, ntsc, '01:00:59;28')).toBe('01:01:00;05')
    expect(timecodeAt(5, film, '00:00:00:29')).toBe('00:00:00:05')
    expect(timecodeAt(30, film, null)).toBe('00:00:01:06')
    expect(countingRate({ rateNumerator: 24000, rateDenominator: 1001 })).toBe(24)
  })
})

test('sixty frames a second played at 23.976 move at 40 %', () => {
  expect(speedOf({ numerator: 60, denominator: 1 }, { numerator: 24000, denominator: 1001 })).toBeCloseTo(0.3996, 4)
  expect(commonRates.map(rateName)).toEqual(['23.976', '24', '25', '29.97', '30', '48', '50', '59.94', '60'])
})
