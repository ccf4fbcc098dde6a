import fc from 'fast-check'
import { encodingById } from '../colour'
import { carrierOfLinear, frameOfDecoded, middleOfDecoded, planesToFrame, type DecodedPicture } from './decoded'
import { sampleSignal, type Frame } from './frame'
import { fitWithin, middleOf, shrink } from './resample'
import { ycbcrRowsByKernel } from './kernel/yuv'
import { chromaHeight, chromaWidth, splitPlanes, type PlaneLayout } from './planes'
import { rotate } from './rotate'
import { plainRows } from './yuv'

const layout444: PlaneLayout = { model: 'ycbcr', width: 2, height: 1, bitDepth: 10, chromaShiftX: 0, chromaShiftY: 0 }

/** The signal of a frame of one colour given as Y'CbCr codes. */
function flat(y: number, cb: number, cr: number, layout: PlaneLayout, range: 'full' | 'legal'): number[] {
  const count = layout.width * layout.height
  const chroma =
    Math.ceil(layout.width / (1 << layout.chromaShiftX)) * Math.ceil(layout.height / (1 << layout.chromaShiftY))
  const frame = planesToFrame(
    { y: new Uint16Array(count).fill(y), cb: new Uint16Array(chroma).fill(cb), cr: new Uint16Array(chroma).fill(cr) },
    layout,
    range,
    'bt709',
  )
  return [...sampleSignal(frame, 1)]
}

describe("Y'CbCr to R'G'B'", () => {
  // 75 % bars of BT.709 in 10-bit legal range.
  test.each([
    ['white', [721, 512, 512], [0.75, 0.75, 0.75]],
    ['yellow', [674, 176, 543], [0.75, 0.75, 0]],
    ['cyan', [581, 589, 176], [0, 0.75, 0.75]],
    ['green', [534, 253, 207], [0, 0.75, 0]],
    ['magenta', [251, 771, 817], [0.75, 0, 0.75]],
    ['red', [204, 435, 848], [0.75, 0, 0]],
    ['blue', [111, 848, 481], [0, 0, 0.75]],
  ])('a legal-range 709 bar of %s decodes within one code of 10 bits', (_, [y, cb, cr], rgb) => {
    const out = flat(y!, cb!, cr!, layout444, 'legal')
    rgb.forEach((value, c) => expect(Math.abs(out[c]! - value) * 1023).toBeLessThanOrEqual(1.2))
  })

  test('full range: black, grey and white are neutral at their codes', () => {
    for (const code of [0, 430, 1023])
      flat(code, 512, 512, layout444, 'full').forEach((v) => expect(Math.abs(v - code / 1023)).toBeLessThan(3e-5))
  })

  test('overshoots of legal range survive', () => {
    expect(flat(1019, 512, 512, layout444, 'legal')[0]).toBeCloseTo((1019 - 64) / 876, 4)
    expect(flat(4, 512, 512, layout444, 'legal')[0]).toBeCloseTo((4 - 64) / 876, 4)
  })

  test.each([
    [1, 0],
    [1, 1],
  ] as const)('flat colour stays flat with chroma shifts %p and %p and odd sides', (sx, sy) => {
    const layout: PlaneLayout = { model: 'ycbcr', width: 5, height: 3, bitDepth: 8, chromaShiftX: sx, chromaShiftY: sy }
    const out = flat(120, 100, 160, layout, 'full')
    expect(new Set(out.filter((_, i) => i % 3 === 0).map((v) => v.toFixed(6))).size).toBe(1)
    expect(out).toHaveLength(45)
  })

  test('4:2:2 chroma is interpolated halfway between its samples', () => {
    const layout: PlaneLayout = { model: 'ycbcr', width: 4, height: 1, bitDepth: 10, chromaShiftX: 1, chromaShiftY: 0 }
    const out = sampleSignal(
      planesToFrame(
        { y: new Uint16Array(4).fill(512), cb: Uint16Array.of(512, 512), cr: Uint16Array.of(512, 612) },
        layout,
        'full',
        'bt709',
      ),
      1,
    )
    const red = [0, 3, 6, 9].map((i) => out[i]!)
    expect(red[1]! - red[0]!).toBeCloseTo((red[2]! - red[0]!) / 2, 4)
    expect(red[3]).toBeCloseTo(red[2]!, 6)
  })

  test('kernel and plain code agree to a code of 16 bits, at any depth, siting, width and rows', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(8, 10, 12, 16),
        fc.constantFrom<readonly [0 | 1, 0 | 1]>([0, 0], [1, 0], [1, 1]),
        fc.integer({ min: 1, max: 37 }),
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 0, max: 1e6 }),
        (bitDepth, [chromaShiftX, chromaShiftY], width, height, seed) => {
          const layout: PlaneLayout = { model: 'ycbcr', width, height, bitDepth, chromaShiftX, chromaShiftY }
          const top = 2 ** bitDepth
          let state = seed
          const noise = (count: number): Uint8Array | Uint16Array => {
            const of = bitDepth > 8 ? new Uint16Array(count) : new Uint8Array(count)
            return of.map(() => {
              state = (state * 1103515245 + 12345) % 2147483648
              return (state >> 8) % top
            })
          }
          const chroma = chromaWidth(layout) * chromaHeight(layout)
          const planes = { y: noise(width * height), cb: noise(chroma), cr: noise(chroma) }
          const numbers = {
            lumaGain: 43690.7 / (top - 1),
            offset: 10923.2,
            middle: top / 2,
            redFromCr: (1.5748 * 43690.7) / (top - 1),
            greenFromCb: (-0.1873 * 43690.7) / (top - 1),
            greenFromCr: (-0.4681 * 43690.7) / (top - 1),
            blueFromCb: (1.8556 * 43690.7) / (top - 1),
          }
          const fast = new Uint16Array(width * height * 3)
          const plain = fast.slice()
          const from = height > 2 ? 1 : 0
          expect(ycbcrRowsByKernel(planes, layout, numbers, fast, from, height)).toBe(true)
          plainRows(planes, layout, numbers, plain, from, height)
          fast.forEach((v, i) => expect(Math.abs(v - plain[i]!)).toBeLessThanOrEqual(1))
          // Nothing before the rows that were asked for.
          expect(fast.subarray(0, from * width * 3).every((v) => v === 0)).toBe(true)
        },
      ),
    )
  })

  test('planes are split from bytes at any alignment, and too few bytes are refused', () => {
    const bytes = new Uint8Array(13)
    bytes.set([1, 0, 2, 0, 3, 0, 4, 0, 5, 0, 6, 0], 1)
    const planes = splitPlanes(bytes.subarray(1), layout444)
    expect([...planes.y, ...planes.cb, ...planes.cr]).toEqual([1, 2, 3, 4, 5, 6])
    expect(() => splitPlanes(bytes.subarray(0, 8), layout444)).toThrow(/12 bytes was expected, 8 came/)
  })
})

describe('making frames smaller', () => {
  test('keeps the shape and never enlarges', () => {
    expect(fitWithin(1920, 1080, 960, 540)).toEqual({ width: 960, height: 540 })
    expect(fitWithin(853, 481, 960, 540)).toEqual({ width: 853, height: 481 })
    expect(fitWithin(100, 4000, 960, 540)).toEqual({ width: 14, height: 540 })
  })

  test('keeps the mean of the frame', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 24 }),
        fc.integer({ min: 2, max: 24 }),
        fc.integer({ min: 1, max: 1000 }),
        (width, height, seed) => {
          const data = Uint16Array.from({ length: width * height * 3 }, (_, i) => (i * 7919 * seed) % 65536)
          const frame = { width, height, data, low: 0, high: 1 }
          const small = shrink(frame, Math.ceil(width / 2), Math.ceil(height / 3))
          const mean = (d: Uint16Array): number => d.reduce((a, b) => a + b, 0) / d.length
          return Math.abs(mean(small.data) - mean(data)) < 1
        },
      ),
    )
  })

  test('refuses to enlarge', () => {
    expect(() => shrink({ width: 2, height: 2, data: new Uint16Array(12), low: 0, high: 1 }, 3, 2)).toThrow(RangeError)
  })
})

describe('RGB, grey and floating point', () => {
  const rgb: PlaneLayout = { model: 'rgb', width: 2, height: 1, bitDepth: 16, chromaShiftX: 0, chromaShiftY: 0 }

  test('planes of green, blue and red come out as red, green and blue, to the code', () => {
    const planes = splitPlanes(new Uint8Array(Uint16Array.of(1, 2, 30, 40, 500, 60000).buffer), rgb)
    expect([...planesToFrame(planes, rgb, 'full', 'bt709').data]).toEqual([500, 1, 30, 60000, 2, 40])
  })

  test('grey is neutral in both ranges, with room for what lies outside legal range', () => {
    const grey: PlaneLayout = { ...rgb, model: 'grey', bitDepth: 8 }
    const planes = splitPlanes(Uint8Array.of(16, 250), grey)
    expect([...sampleSignal(planesToFrame(planes, grey, 'full', 'bt709'), 1)].map((v) => v.toFixed(4))).toEqual([
      '0.0627',
      '0.0627',
      '0.0627',
      '0.9804',
      '0.9804',
      '0.9804',
    ])
    const legal = sampleSignal(planesToFrame(planes, grey, 'legal', 'bt709'), 1)
    expect(legal[0]).toBeCloseTo(0, 4)
    expect(legal[3]).toBeCloseTo(234 / 219, 4)
  })

  test('linear light is carried as ACEScct and comes back; nothing that is no number comes through', () => {
    const float: PlaneLayout = { ...rgb, model: 'grey', width: 6, bitDepth: 32 }
    const light = [0.18, 0.001, 40, NaN, Infinity, -Infinity]
    const out = sampleSignal(
      planesToFrame(splitPlanes(new Uint8Array(Float32Array.from(light).buffer), float), float, 'full', 'bt709'),
      1,
    )
    const { decode } = encodingById(carrierOfLinear).curve
    for (const i of [0, 1, 2]) expect(Math.abs(Math.log2(decode(out[i * 3]!) / light[i]!))).toBeLessThan(0.001)
    expect(out.every(Number.isFinite)).toBe(true)
    expect(decode(out[12]!)).toBeGreaterThan(4000)
    expect(out[15]).toBeCloseTo(-0.25, 3)
  })
})

describe('quarter turns', () => {
  // a b c
  // d e f
  const letters: Frame = {
    width: 3,
    height: 2,
    low: 0,
    high: 1,
    data: Uint16Array.from('abcdef', (l) => l.charCodeAt(0)).reduce((data, code, i) => {
      data.fill(code, i * 3, i * 3 + 3)
      return data
    }, new Uint16Array(18)),
  }
  const read = ({ data, width }: Frame): string =>
    String.fromCharCode(...data.filter((_, i) => i % 3 === 0))
      .replace(new RegExp(`.{${width}}`, 'g'), '$& ')
      .trim()

  test.each([
    [0, 'abc def'],
    [90, 'da eb fc'],
    [180, 'fed cba'],
    [270, 'cf be ad'],
  ] as const)('%d degrees clockwise', (degrees, expected) => {
    expect(read(rotate(letters, degrees))).toBe(expected)
  })
})

describe('the middle of a decoded picture', () => {
  const layout = {
    model: 'ycbcr',
    bitDepth: 10,
    chromaShiftX: 1,
    chromaShiftY: 1,
    width: 64,
    height: 36,
  } as const
  const samples = Uint16Array.from({ length: 64 * 36 * 1.5 }, (_, i) => 200 + ((i * 37) % 500))
  const picture = (rotation: 0 | 90): DecodedPicture => ({
    planes: new Uint8Array(samples.buffer),
    layout,
    range: 'legal',
    matrix: 'bt709',
    rotation,
  })

  test.each([0, 90] as const)(
    'is the same as the middle of the frame, but for the chroma at its edge; turned by %i°',
    (turn) => {
      const whole = frameOfDecoded(picture(turn))
      const [width, height] = turn === 0 ? [32, 16] : [16, 32]
      const part = frameOfDecoded(middleOfDecoded(picture(turn), width, height))
      const wanted = middleOf(whole, width, height)
      expect([part.width, part.height]).toEqual([width, height])
      for (let y = 2; y < height - 2; y++)
        for (let x = 2; x < width - 2; x++)
          for (let c = 0; c < 3; c++) {
            const i = (y * width + x) * 3 + c
            expect(Math.abs(part.data[i]! - wanted.data[i]!)).toBeLessThanOrEqual(1)
          }
    },
  )

  test('is the picture itself where it is no larger', () => {
    const small = picture(0)
    expect(middleOfDecoded(small, 64, 36)).toBe(small)
  })
})
