import { encodingById } from '../colour'
import { buildChain, defaultGrade } from '../grade'
import { findCards, type FoundCard } from './find-cards'

const [width, height] = [480, 270]
interface Field {
  readonly box: readonly [number, number, number, number]
  readonly light: number
  readonly colour?: readonly [number, number, number]
}
const card: readonly Field[] = [
  { box: [100, 120, 150, 170], light: 0.18 },
  { box: [154, 120, 168, 143], light: 0.9 },
  { box: [154, 147, 168, 170], light: 0.03 },
]

/** Fields before a mottled ground, under a light of some colour, as a camera log. */
function found(fields: readonly Field[], light: readonly [number, number, number] = [1, 1, 1]): readonly FoundCard[] {
  const { encode } = encodingById('log-420-95').curve
  const data = new Uint16Array(width * height * 3)
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i += 3) {
      const field = fields.find(({ box: [l, t, r, b] }) => x >= l && x < r && y >= t && y < b)
      const ground = 0.1 * (1.6 + Math.sin(x * 1.3) + 0.5 * Math.sin(y * 1.7 + x))
      for (let c = 0; c < 3; c++) {
        const own = field ? field.light * (field.colour?.[c] ?? 1) : ground * [1.2, 0.9, 0.6][c]!
        data[i + c] = Math.round(encode(own * light[c]!) * 65535)
      }
    }
  const frame = { width, height, data, low: 0, high: 1 }
  return findCards({ source: frame, chain: buildChain(defaultGrade('log-420-95', 'bt709'), () => undefined) })
}

test.each([
  ['white light', [1, 1, 1]],
  ['a lamp, a stop under', [0.7, 0.5, 0.28]],
  ['cool light, a stop over', [1.7, 2, 2.6]],
] as const)('a card with a white and a black is found in %s', (_, light) => {
  const cards = found(card, light)
  expect(cards).toHaveLength(1)
  const { area, steps } = cards[0]!
  expect(area.left * width).toBeGreaterThan(100)
  expect(area.right * width).toBeLessThan(150)
  expect(area.top * height).toBeGreaterThan(120)
  expect(area.bottom * height).toBeLessThan(170)
  expect(steps[0]).toBeCloseTo(Math.log2(0.03 / 0.18), 1)
  expect(steps[1]).toBeCloseTo(Math.log2(0.9 / 0.18), 1)
})

const changed = (index: number, change: Partial<Field>): readonly Field[] =>
  card.map((f, i) => (i === index ? { ...f, ...change } : f))
test.each([
  ['fields of another colour beside it', changed(1, { colour: [1, 0.8, 0.5] })],
  ['fields that are no white of it', changed(1, { light: 0.3 })],
  ['no black beside it', card.slice(0, 2)],
  ['a white that stands far off', changed(1, { box: [300, 20, 314, 43] })],
  ['a grey of one line', changed(0, { box: [100, 120, 150, 126] })],
  ['green plates that look like one', card.map((f) => ({ ...f, colour: [0.5, 1, 0.45] as const }))],
  ['nothing but ground', []],
])('with %s there is no card', (_, fields) => {
  expect(found(fields)).toEqual([])
})

test('of a row of five steps the grey is the middle one', () => {
  const lights = [0.9, 0.4, 0.18, 0.08, 0.035]
  const row = lights.map((light, i): Field => ({ box: [60 + i * 32, 100, 90 + i * 32, 130], light }))
  const [first] = found(row)
  expect((first!.area.left + first!.area.right) / 2).toBeCloseTo((60 + 2 * 32 + 15) / width, 2)
})
