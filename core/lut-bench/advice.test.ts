import { bakeLut } from '../bake/bake'
import { encodingById, middleGrey } from '../colour'
import { defaultGrade, setParameter, setShow, setStep } from '../grade'
import type { Frame } from '../image'
import { placeFor, placeLut, showFault, stepFault } from './advice'
import { sheetBase, sheetFacts, throughLut } from './contact-sheet'
import { expectationOf } from './expects'

const none = (): undefined => undefined
const hash = 'a'.repeat(64)
const conversion = bakeLut(defaultGrade('log-420-95'), none, 33, '')
const look = bakeLut(
  setStep(setParameter(defaultGrade('gamma-2.4', 'bt709'), 'saturation', 'saturation', 0.3), 'saturation', {
    side: 'display',
  }),
  none,
  17,
  '',
)
const made = expectationOf(conversion)
const colour = expectationOf(look)

test('a conversion goes to Show and is given what it was made for; a look goes behind Show', () => {
  expect(placeFor(made, defaultGrade('log-420-95'))).toMatchObject({
    place: 'show',
    takes: 'log-420-95',
    sentence: expect.stringContaining('as this shot is') as string,
  })
  expect(placeFor(made, defaultGrade('log-351-128'))).toMatchObject({
    place: 'show',
    takes: 'log-420-95',
    sentence: expect.stringContaining(
      'made for Log 420/95; this shot is Log 351/128: converted on the way in'.slice(1),
    ) as string,
  })
  expect(placeFor(colour, defaultGrade('log-351-128'))).toMatchObject({ place: 'look', takes: 'side' })
  expect(placeLut(defaultGrade('log-351-128'), hash, placeFor(made, defaultGrade('log-351-128'))).show).toMatchObject({
    method: 'lut',
    lutHash: hash,
    lutTakes: 'log-420-95',
  })
  expect(
    placeLut(defaultGrade('hlg'), hash, placeFor(colour, defaultGrade('hlg'))).steps.find((s) => s.id === 'lut'),
  ).toMatchObject({ side: 'display', params: { lutHash: hash, takes: 'side' } })
})

test('what stands where it is not given what it expects is told', () => {
  expect(stepFault({ side: 'display', params: { takes: 'side' } }, made)).toContain('contains a conversion')
  expect(stepFault({ side: 'scene', params: { takes: 'side' } }, colour)).toContain('given working log')
  expect(stepFault({ side: 'display', params: { takes: 'side' } }, colour)).toBeNull()
  expect(showFault({ lutTakes: 'side' }, made)).toContain('given working log')
  expect(showFault({ lutTakes: 'log-420-95' }, made)).toBeNull()
  expect(showFault({ lutTakes: 'side' }, colour)).toContain('is a look')
})

const { encode } = encodingById('log-351-128').curve
const frame: Frame = {
  width: 24,
  height: 12,
  low: 0,
  high: 1,
  data: Uint16Array.from({ length: 24 * 12 * 3 }, (_, i) =>
    Math.round(encode(middleGrey * 2 ** (-2 + (Math.floor(i / 3) % 24) / 6) * [1.3, 1, 0.7][i % 3]!) * 65535),
  ),
}

test('a conversion made for another camera, put where it belongs, shows this shot as the plain way does', () => {
  const grade = defaultGrade('log-351-128')
  const base = sheetBase(grade, none, frame)
  const out = throughLut(base, conversion, placeFor(made, grade), 1)
  out.forEach((v, i) => expect(Math.abs(v / 65535 - base.signal[i]!)).toBeLessThan(0.03))
  // The same through the Passage itself.
  const placed = sheetBase(placeLut(grade, hash, placeFor(made, grade)), () => conversion, frame)
  placed.signal.forEach((v, i) => expect(Math.abs(out[i]! / 65535 - v)).toBeLessThan(1e-4))
})

test('strength 0 is the picture as it was, and the skin is judged where it is', () => {
  const base = sheetBase(setShow(defaultGrade('log-351-128'), { method: 'rolloff' }), none, frame)
  const off = throughLut(base, look, { place: 'look', takes: 'side' }, 0)
  off.forEach((v, i) => expect(v).toBe(Math.floor(Math.min(1, Math.max(0, base.signal[i]!)) * 65535 + 0.5)))
  const facts = sheetFacts(base, throughLut(base, look, { place: 'look', takes: 'side' }, 1), {
    left: 0.2,
    top: 0.2,
    right: 0.5,
    bottom: 0.8,
  })
  expect(facts.skin!.chromaGain).toBeLessThan(0.5)
  expect(sheetFacts(base, off, { left: 0.2, top: 0.2, right: 0.5, bottom: 0.8 }).skin!.chromaGain).toBeCloseTo(1, 2)
  expect(facts.saturation).toBeLessThan(sheetFacts(base, off, null).saturation * 0.6)
})
