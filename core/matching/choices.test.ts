// What matching rests on where two pictures show different things: made pictures of light with a patch pointed out.
import { defaultGrade } from '../grade'
import { nothingPointed, type Area, type Pointed } from '../readings'
import { randomFrom } from '../../tests/support/pictures'
import { matchChoices, type LightPicture, type Matchable } from '.'

const none = (): undefined => undefined
const width = 96
const height = 54
const area: Area = { left: 0.4, right: 0.6, top: 0.4, bottom: 0.6 }
const card = { luma: 0.5, chroma: 0.1, hueDegrees: 123 }
const grade = defaultGrade('log-420-95', 'w766', 'full')

/** A field of random blots, another for every seed, with an even patch in the middle. */
function picture(seed: number, patch: readonly number[], gain: readonly number[]): LightPicture {
  const random = randomFrom(seed)
  const light = new Float32Array(width * height * 3)
  const blots = Array.from({ length: 60 }, () => [random() * width, random() * height, random(), random(), random()])
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const inside = x > width * 0.38 && x < width * 0.62 && y > height * 0.38 && y < height * 0.62
      const near = blots.reduce((a, b) => (Math.hypot(b[0]! - x, b[1]! - y) < Math.hypot(a[0]! - x, a[1]! - y) ? b : a))
      for (let c = 0; c < 3; c++) light[(y * width + x) * 3 + c] = (inside ? patch[c]! : 0.4 * near[c + 2]!) * gain[c]!
    }
  return { width, height, light, clipped: new Uint8Array(width * height) }
}
const side = (seed: number, patch: readonly number[], gain: readonly number[], pointed: Pointed): Matchable => ({
  light: picture(seed, patch, gain),
  grade,
  pointed,
})
const person: Pointed = { card: null, subjects: [{ name: 'Ida', area, card }] }
const carded: Pointed = { card: area, subjects: [] }
const skin = [0.24, 0.15, 0.11]
const warmAndDark = [0.58, 0.5, 0.4]

test('the same subject in another picture is brought to the same light', () => {
  const { by, choices, note } = matchChoices(side(1, skin, [1, 1, 1], person), side(2, skin, warmAndDark, person), none)
  expect(by).toBe('subject')
  expect(choices.map((c) => c.id)).toEqual(['all', 'half'])
  expect(note).toMatch(/^Ida as in the reference\. No other surface is seen in both\. ΔE \d+\.\d → 0\.\d/)
  const exposure = choices[0]!.moves.find((m) => m.control === 'exposure')!
  expect(exposure.to).toBeGreaterThan(0.8)
  expect(exposure.to).toBeLessThan(1.3)
  const half = choices[1]!.moves.find((m) => m.control === 'exposure')!
  expect(half.to).toBeCloseTo(exposure.to / 2, 9)
})

test('a grey card that both show does as well, where no subject is shared', () => {
  const grey = [0.18, 0.18, 0.18]
  const { by, choices } = matchChoices(side(3, grey, [1, 1, 1], carded), side(4, grey, warmAndDark, carded), none)
  expect(by).toBe('card')
  expect(choices[0]).toMatchObject({ id: 'all', sure: true })
  expect(choices[0]!.sentence).toMatch(/ΔE \d+\.\d → 0\.\d/)
})

test('without anything shared only overall tone is offered, and it is never sure', () => {
  const { by, note, choices, surfaces } = matchChoices(
    side(5, skin, [1, 1, 1], nothingPointed),
    side(6, skin, warmAndDark, nothingPointed),
    none,
  )
  expect([by, surfaces]).toEqual([null, []])
  expect(note).toMatch(/Nothing is seen in both pictures/)
  expect(choices.map((c) => [c.id, c.sure])).toEqual([['tone', false]])
})

test('a surface that a person strikes is not asked any more', () => {
  const here = side(7, skin, [1, 1, 1], nothingPointed)
  const there = { ...here, light: picture(7, skin, warmAndDark) }
  const all = matchChoices(here, there, none)
  expect(all.by).toBe('surfaces')
  const [first] = all.surfaces
  const fewer = matchChoices(here, there, none, [first!.id])
  expect(fewer.surfaces.map((s) => s.id)).toEqual(all.surfaces.slice(1).map((s) => s.id))
})
