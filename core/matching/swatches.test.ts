// Swatch pairs of different pictures: what a person paired is shown alike, and what was not stays what it was.
import { displayToLab, type Vector3 } from '../colour'
import { compile, executeExactly, restSize, setParameter, tears, type GradeDocument } from '../grade'
import type { Frame } from '../image'
import { pixelsOf, type Area } from '../readings'
import { matchPair } from '../../tests/matching/pairs'
import { applySwatches, lightPicture, matchSwatches, type Swatch } from './index'

const none = (): undefined => undefined
const lab = displayToLab('bt709-2.4')
function shownIn(frame: Frame, grade: GradeDocument, area: Area): Vector3 {
  const shown = executeExactly(compile(grade, none, frame, restSize), frame)
  const { x0, x1, y0, y1 } = pixelsOf(area, shown)
  const sum = [0, 0, 0]
  for (let y = y0; y < y1; y++)
    for (let x = x0; x < x1; x++) for (let c = 0; c < 3; c++) sum[c]! += shown.data[(y * shown.width + x) * 3 + c]!
  const n = (x1 - x0) * (y1 - y0) * 65535
  return [sum[0]! / n, sum[1]! / n, sum[2]! / n]
}
const away = (a: Vector3, b: Vector3): number => Math.hypot(...lab(...a).map((v, i) => v - lab(...b)[i]!))
const { frame, grade } = matchPair('glaze-shelf', 11).shot
const light = lightPicture(frame, grade, none)
/** Even places of the shelf: a pale wall, a red and a blue glaze. */
const square = (x: number, y: number): Area => ({ left: x - 0.012, right: x + 0.012, top: y - 0.02, bottom: y + 0.02 })

test('tones and a near neutral are brought to theirs by exposure, contrast and balance', () => {
  // The other picture: the same places as a known grade shows them.
  const set = (kind: string, key: string, value: number) => (g: GradeDocument) =>
    setParameter(g, g.steps.find((s) => s.kind === kind)!.id, key, value)
  const there = [
    set('exposure', 'exposureStops', -0.7),
    set('white-balance', 'temperatureMired', 25),
    set('contrast', 'contrast', 1.2),
  ].reduce((g, change) => change(g), grade)
  const places = [square(0.12, 0.2), square(0.5, 0.9), square(0.85, 0.25)]
  const swatches = places.map((area, id): Swatch => ({ id, area, seen: shownIn(frame, there, area) }))
  const answer = matchSwatches(light, grade, swatches, none)!
  const matched = applySwatches(grade, answer, 0)
  for (const { area, seen } of swatches) {
    expect(away(shownIn(frame, grade, area), seen)).toBeGreaterThan(8)
    expect(away(shownIn(frame, matched, area), seen)).toBeLessThan(2)
  }
  expect(answer.moves.map((m) => m.control)).toEqual(expect.arrayContaining(['exposure', 'temperature']))
  expect(answer.unread).toEqual([])
})

test('one strong colour is turned by itself: the balance stays, and so does what is neutral', () => {
  const { x, y } = strongest()
  const area = square(x, y)
  const now = shownIn(frame, grade, area)
  const [r, g, b] = now
  const seen: Vector3 = [r * 0.9, g * 1.05 + 0.04, b]
  const answer = matchSwatches(light, grade, [{ id: 4, area, seen }], none)!
  expect(answer.moves.map((m) => m.control)).not.toContain('temperature')
  expect(answer.sentence).toContain('Balance stays')
  const matched = applySwatches(grade, answer, 0)
  expect(away(shownIn(frame, matched, area), seen)).toBeLessThan(away(now, seen) * 0.6)
  const curves = matched.steps.find((s) => s.kind === 'colour-curves')!.params['hueByHue']
  expect(tears('hueByHue', curves as never)).toEqual([])
})

test('a place that is clipped is told, and alone it is no answer', () => {
  const clipped = { ...light, clipped: new Uint8Array(light.clipped.length).fill(1) }
  const area = square(0.5, 0.5)
  expect(matchSwatches(clipped, grade, [{ id: 7, area, seen: [0.5, 0.5, 0.5] }], none)).toBeNull()
})

/** The most colourful even place of the picture as it is shown. */
function strongest(): { readonly x: number; readonly y: number } {
  const shown = executeExactly(compile(grade, none, frame, restSize), frame)
  let best = { x: 0.5, y: 0.5, chroma: 0 }
  for (let j = 3; j < 37; j++)
    for (let i = 3; i < 57; i++) {
      const p = (Math.round((j / 40) * shown.height) * shown.width + Math.round((i / 60) * shown.width)) * 3
      const [l, a, b] = lab(shown.data[p]! / 65535, shown.data[p + 1]! / 65535, shown.data[p + 2]! / 65535)
      const chroma = l > 20 && l < 80 ? Math.hypot(a, b) : 0
      if (chroma > best.chroma) best = { x: i / 60, y: j / 40, chroma }
    }
  return best
}
