import { encodingById, middleGrey } from '../colour'
import {
  applyRecipe,
  buildChain,
  defaultGrade,
  evaluateDirect,
  setParameter,
  setShow,
  shippedRecipes,
  stepKindById,
  type GradeDocument,
} from '../grade'
import { parameterFault } from '../grade/step-kind'
import { lookFromPicture, type LookShot } from './look-from-picture'

const none = (): undefined => undefined
const count = 900
const { encode } = encodingById('log-420-95').curve
/** Tones over ten stops, in colours that footage has. */
const codes = Float64Array.from({ length: count * 3 }, (_, i) => {
  const p = Math.floor(i / 3)
  const stops = -6 + 9 * ((p * 0.618034) % 1)
  const hue = (p * 0.381966) % 1
  return encode(middleGrey * 2 ** stops * (1 + 0.35 * Math.sin(6.283 * (hue + (i % 3) / 3))))
})
const place = {
  shares: Float64Array.from({ length: count * 2 }, (_, i) => ((i * 37) % 100) / 100),
  frameWidth: 16,
  frameHeight: 9,
}
const grade = setShow(defaultGrade('log-420-95'), { method: 'rolloff' })
const shot = (skin: readonly number[] = []): LookShot => ({ grade, lut: none, codes, place, skin })
const through = (g: GradeDocument): Float64Array => {
  const pixels = codes.slice()
  evaluateDirect(buildChain(g, none), pixels, place)
  return pixels
}

test('a picture of the same scene through other settings is come near to, by those settings', () => {
  const reference = through(
    setParameter(
      setParameter(setParameter(grade, 'exposure', 'exposureStops', 0.6), 'white-balance', 'temperatureMired', 20),
      'saturation',
      'saturation',
      0.75,
    ),
  )
  const { content, before, after, taken } = lookFromPicture(shot(), reference)
  expect(after).toBeLessThan(before / 5)
  const value = (kind: string, key: string): number => Number(content.steps.find((s) => s.kind === kind)?.params[key])
  expect(value('exposure', 'exposureStops')).toBeCloseTo(0.6, 0)
  expect(value('white-balance', 'temperatureMired')).toBeGreaterThan(10)
  expect(value('saturation', 'saturation')).toBeLessThan(0.9)
  expect(taken.join(' ')).toContain('Exposure +')
})

test('tints by tone are found as pushes', () => {
  const reference = through(
    applyRecipe(
      grade,
      shippedRecipes.find((r) => r.id === 'shipped-split')!,
    ),
  )
  const { content, before, after } = lookFromPicture(shot(), reference)
  expect(after).toBeLessThan(before * 0.4)
  expect(content.steps.some((s) => s.kind === 'zone')).toBe(true)
})

test('it stays a look: every step within its bounds, what was too far is said, the same each time', () => {
  const dark = Float64Array.from({ length: 3000 }, (_, i) => [0.04, 0.01, 0.12][i % 3]! * ((i % 700) / 700))
  const found = lookFromPicture(shot(), dark)
  for (const { kind, params } of found.content.steps)
    for (const [key, p] of Object.entries(stepKindById(kind).parameters))
      expect(parameterFault(p, params[key])).toBeNull()
  expect(found.left.some((s) => s.includes('another picture'))).toBe(true)
  expect(found.left.at(-1)).toContain('Grain')
  expect(lookFromPicture(shot(), dark)).toEqual(found)
})

test('known skin is held against the look', () => {
  const skin = Array.from({ length: 30 }, (_, i) => i * 30).filter((p) => p < count)
  const reference = through(setParameter(grade, 'white-balance', 'temperatureMired', -35))
  const warmth = (content: ReturnType<typeof lookFromPicture>['content']): number => {
    const out = through(applyRecipe(grade, content))
    const plain = through(grade)
    return Math.abs(
      skin.reduce((sum, p) => sum + (out[p * 3]! - out[p * 3 + 2]!) - (plain[p * 3]! - plain[p * 3 + 2]!), 0),
    )
  }
  const free = lookFromPicture(shot(), reference)
  const held = lookFromPicture(shot(skin), reference)
  expect(warmth(held.content)).toBeLessThan(warmth(free.content) * 0.6)
  expect(held.left).toContain('Skin is held where it was.')
})
