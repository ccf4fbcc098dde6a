import { encodingById, gamutById, transformPixels } from '../colour'
import { controlOf } from '../aims'
import {
  buildChain,
  compile,
  defaultGrade,
  execute,
  gradeAt,
  newStep,
  openingShow,
  setParameterAt,
  setShow,
  addKeyframe,
  whiteBalanceMatrix,
  type GradeDocument,
} from '../grade'
import type { Frame } from '../image'
import { readCard } from '../readings'
import { applyChoice, balance, byFoundCard, type BalanceAnswer } from './balance'
import { eyeMeasures, worse } from './eye'

const [width, height] = [96, 54]
const card = { left: 0.05, top: 0.6, right: 0.2, bottom: 0.9 }
const inside = { left: 0.07, top: 0.63, right: 0.18, bottom: 0.87 }
const none = (): undefined => undefined
type Rgb = readonly [number, number, number]

/** A shelf of surfaces from 3 % to 90 %, many coloured, with a grey card and, if wanted, a window of five stops. */
function scene(window: boolean): Float64Array {
  const data = new Float64Array(width * height * 3)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [u, v] = [x / width, y / height]
      const block = Math.floor(u * 12) * 7 + Math.floor(v * 8) * 13
      const level = 0.03 + 0.87 * (((block * 37) % 100) / 100) ** 2
      const hue = (block % 17) / 2.7
      let rgb: Rgb = [0, 2.1, 4.2].map((turn) => level * (1 + 0.3 * Math.cos(hue + turn))) as unknown as Rgb
      if (u > card.left && u < card.right && v > card.top && v < card.bottom) rgb = [0.18, 0.18, 0.18]
      if (window && u > 0.6 && u < 0.8 && v < 0.4) rgb = [5.8, 5.8, 5.8]
      data.set(rgb, (y * width + x) * 3)
    }
  return data
}

function shot(
  light: Float64Array,
  { stops = 0, mired = 0, tint = 0 }: { stops?: number; mired?: number; tint?: number } = {},
): { frame: Frame; grade: GradeDocument } {
  const data = light.map((v) => v * 2 ** stops)
  transformPixels(whiteBalanceMatrix(gamutById('bt709'), mired, -tint), data)
  const { encode } = encodingById('log-420-95').curve
  const codes = Uint16Array.from(data, (v) => Math.round(Math.min(1, Math.max(0, encode(v))) * 65535))
  const plain = defaultGrade('log-420-95', 'bt709')
  const brightestSignal = [...codes].sort((a, b) => b - a)[3]! / 65535
  const read = { ...plain.read, brightestSignal }
  return {
    frame: { width, height, data: codes, low: 0, high: 1 },
    grade: { ...plain, read, show: openingShow(read, plain.show) },
  }
}
const asked = (of: { frame: Frame; grade: GradeDocument }, withCard: boolean) =>
  balance({ ...of, sourceBits: 10, lut: none, pointed: { card: withCard ? inside : null, subjects: [] } })
const value = (grade: GradeDocument, id: 'exposure' | 'temperature' | 'tint' | 'contrast'): number =>
  controlOf(grade, id)!.value

test.each([
  { stops: -1.7, mired: 40, tint: 8 },
  { stops: 1.2, mired: -50, tint: -6 },
  { stops: 0, mired: 25, tint: 0 },
])('a card that was pointed out undoes %p, as one sure choice, with contrast left alone', (fault) => {
  const of = shot(scene(true), fault)
  const { choices } = asked(of, true)
  expect(choices).toHaveLength(1)
  const [{ grade, sure }] = choices as [(typeof choices)[0]]
  expect(sure).toBe(true)
  expect(value(grade, 'exposure')).toBeCloseTo(-fault.stops, 1)
  const read = readCard({ source: of.frame, chain: buildChain(grade, none) }, inside)!
  expect(Math.abs(read.exposureStops)).toBeLessThan(0.02)
  expect(read.cast.distance).toBeLessThan(0.3)
  // Warmed light is cooled, and the other way round.
  expect(Math.sign(value(grade, 'temperature'))).toBe(-Math.sign(fault.mired))
  expect(value(grade, 'contrast')).toBe(controlOf(defaultGrade('log-420-95'), 'contrast')!.value)
})

test('a window in a rightly exposed room brings nothing down', () => {
  const { choices } = asked(shot(scene(true)), false)
  expect(choices[0]!.moves.filter((m) => m.control === 'exposure')).toEqual([])
  expect(choices.map((c) => c.id)).toEqual(expect.arrayContaining(['brighter', 'darker']))
})

test('a scene in which nothing is bright is raised part of the way, and that is not called sure', () => {
  const { choices } = asked(shot(scene(false), { stops: -3.5 }), false)
  const [advised] = choices
  expect(advised!.sure).toBe(false)
  const to = value(advised!.grade, 'exposure')
  expect(to).toBeGreaterThan(0.3)
  expect(to).toBeLessThanOrEqual(1)
})

test('a night stays night', () => {
  const night = scene(false).map((v) => v * 2 ** -6)
  night.set([6, 5, 2], 3 * (10 * width + 40))
  for (let n = 0; n < 60; n++) night.set([6, 5, 2], 3 * ((10 + (n % 6)) * width + 40 + Math.floor(n / 6)))
  const { choices } = asked(shot(night), false)
  expect(choices[0]!.moves.filter((m) => m.control === 'exposure')).toEqual([])
})

test('a card in two lights is no card', () => {
  const light = scene(false)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width * 0.12; x++) for (let c = 0; c < 3; c++) light[(y * width + x) * 3 + c]! *= 0.2
  expect(asked(shot(light, { stops: 1 }), true).choices.every((c) => !c.sure)).toBe(true)
})

test('the shoulder follows exposure to the clip’s brightest light', () => {
  const of = shot(scene(true), { stops: 1.5 })
  const [choice] = asked(of, true).choices
  const by = of.grade.show.params.sceneMaximumStops - choice!.grade.show.params.sceneMaximumStops
  expect(by).toBeGreaterThan(1)
  expect(by).toBeLessThan(2.1)
})

test('a choice is put onto a grade whose exposure changes along the clip', () => {
  const of = shot(scene(true), { stops: -1 })
  const { stepId, key } = controlOf(of.grade, 'exposure')!
  const from = addKeyframe(addKeyframe(of.grade, stepId, key, 0), stepId, key, 10)
  const moving = setParameterAt(from, stepId, key, 0.5, 10)
  const now = gradeAt(moving, 10)
  const [choice] = asked({ ...of, grade: now }, true).choices
  const balanced = applyChoice(moving, choice!, 10)
  expect(value(gradeAt(balanced, 10), 'exposure')).toBeCloseTo(1, 1)
  expect(value(gradeAt(balanced, 0), 'exposure')).toBe(0)
})

describe('over a whole clip', () => {
  const straight = (of: GradeDocument): GradeDocument => setShow(of, { method: 'straight' })
  // Nothing in it is white: rightly exposed, it does not clip.
  const soft = scene(false).map((v) => Math.min(v, 0.6))
  const dark = shot(soft, { stops: -2 })
  const clipOf = (other: Frame): BalanceAnswer => {
    const document = straight(dark.grade)
    return balance({
      frame: dark.frame,
      grade: document,
      sourceBits: 10,
      lut: none,
      pointed: { card: inside, subjects: [] },
      clip: { document, index: 4, moments: [{ index: 20, frame: other }] },
    })
  }

  test('a proposal that serves all of it stays one value', () => {
    const { choices } = clipOf(dark.frame)
    expect(choices.map((c) => [c.id, c.ramp])).toEqual([['evidence', undefined]])
  })

  test('one that would spoil another moment becomes a ramp between the two', () => {
    const { choices, note } = clipOf(shot(soft).frame)
    const [ramp, least] = choices
    expect([ramp!.id, least!.id, ramp!.sure]).toEqual(['ramp', 'least', false])
    expect(note).toMatch(/No one exposure serves the whole clip: stops \+\d\.\d\d at 4, .*at 20/)
    const after = applyChoice(straight(dark.grade), ramp!, 4)
    const at = (frame: number): number => value(gradeAt(after, frame), 'exposure')
    expect(at(4)).toBeCloseTo(2, 1)
    expect(at(20)).toBeLessThan(0.6)
    expect(at(12)).toBeCloseTo((at(4) + at(20)) / 2, 1)
  })
})

test('a card that nobody pointed at is found and offered; one pointed out is not looked for', () => {
  // Large enough for its steps: its white and black beside the grey.
  const large = { width: 384, height: 216 }
  const at = (u: number, v: number): Rgb | null => {
    if (v < 0.3 || v > 0.6 || u < 0.1 || u > 0.34) return null
    if (u < 0.27) return [0.18, 0.18, 0.18]
    if (u < 0.285) return [0.02, 0.02, 0.02]
    if (v < 0.44) return [0.9, 0.9, 0.9]
    return v < 0.46 ? [0.02, 0.02, 0.02] : [0.03, 0.03, 0.03]
  }
  const { encode } = encodingById('log-420-95').curve
  const data = new Uint16Array(large.width * large.height * 3)
  for (let y = 0, i = 0; y < large.height; y++)
    for (let x = 0; x < large.width; x++, i += 3) {
      const ground: Rgb = [0.3, 0.2 + 0.1 * Math.sin(x), 0.1 + 0.05 * Math.sin(y * 2)]
      const rgb = at(x / large.width, y / large.height) ?? ground
      rgb.forEach((v, c) => {
        data[i + c] = Math.round(encode((v / 4) * [1.1, 1, 0.8][c]!) * 65535)
      })
    }
  const grade = defaultGrade('log-420-95', 'bt709')
  const question = { frame: { ...large, data, low: 0, high: 1 }, grade, sourceBits: 10, lut: none }
  const choice = byFoundCard({ ...question, pointed: { card: null, subjects: [] } })
  expect([choice?.id, choice?.sure]).toEqual(['card', false])
  expect(choice?.sentence).toMatch(/^What looks like a grey card was found at the left\. The card lies −\d\.\d\d stops/)
  expect(value(choice!.grade, 'exposure')).toBeCloseTo(2, 1)
  expect(byFoundCard({ ...question, pointed: { card: choice!.area, subjects: [] } })).toBeNull()
  expect(byFoundCard({ ...question, grade: choice!.grade, pointed: { card: null, subjects: [] } })).toBeNull()
})

describe('with a look behind it', () => {
  const withLook = (of: { frame: Frame; grade: GradeDocument }, mired: number) => {
    const params = { ...newStep('white-balance', 'look', 'scene').params, temperatureMired: mired }
    const look = { ...newStep('white-balance', 'look', 'scene'), lookId: 'own', params }
    return { ...of, grade: { ...of.grade, steps: [...of.grade.steps, look] } }
  }
  const cardIn = ({ frame, grade }: { frame: Frame; grade: GradeDocument }): number => {
    const shown = execute(compile(grade, none, frame, 33), frame)
    const sum = [0, 0, 0]
    for (let y = Math.ceil(inside.top * height); y < inside.bottom * height - 1; y++)
      for (let x = Math.ceil(inside.left * width); x < inside.right * width - 1; x++)
        for (let c = 0; c < 3; c++) sum[c]! += shown.data[(y * width + x) * 3 + c]!
    return Math.max(...sum) / Math.min(...sum) - 1
  }

  test('it says what of the cast is the light’s and what the look’s, and balances either', () => {
    const of = withLook(shot(scene(false), { mired: 10 }), 30)
    const { choices, note } = asked(of, true)
    expect(note).toMatch(/The greys of the picture are warm by (3|4)\d mired: (2|3)\d of (3|4)\d are the look’s\./)
    expect(choices.map((c) => c.id)).toEqual(['evidence', 'picture'])
    const [light, picture] = choices
    // Light neutral: the look is left to do what it does. Picture neutral: the card itself is grey on the display.
    expect(value(light!.grade, 'temperature')).toBeCloseTo(-10, 0)
    expect(value(picture!.grade, 'temperature')).toBeLessThan(-30)
    expect(cardIn({ ...of, grade: picture!.grade })).toBeLessThan(0.01)
    expect(cardIn({ ...of, grade: light!.grade })).toBeGreaterThan(0.05)
  })

  test('a look that leaves greys alone, and none at all, are not spoken of', () => {
    for (const plain of [withLook(shot(scene(false)), 0), shot(scene(false))])
      expect(asked(plain, true).choices.map((c) => c.id)).not.toContain('picture')
  })
})

test('what the eye objects to is named with its numbers', () => {
  const { frame, grade } = shot(scene(false))
  const before = eyeMeasures(grade, frame, none)
  expect(worse(before, before)).toBe('')
  expect(worse(before, { ...before, clipped: before.clipped + 0.05 })).toMatch(/would clip/)
  expect(worse(before, { ...before, crushed: before.crushed + 0.05 })).toMatch(/would be black/)
  expect(worse(before, { ...before, localContrast: before.localContrast * 0.5 })).toMatch(/50\.0 % of its contrast/)
})
