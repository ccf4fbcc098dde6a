// Matching on made pairs of the demo's plates: small, so that the whole judgement stays in the bench.
import { strangers, errorsOf, matchPair } from '../../tests/matching/pairs'
import { matched } from '../../tests/matching/judge'
import { defaultGrade, openingShow } from '../grade'
import { solveMatch } from './solve'

const middle = (sorted: readonly number[]): number => sorted[sorted.length >> 1]!

test.each(['glaze-shelf', 'potter', 'market-phone'])(
  '%s through two cameras, lights, contrasts and framings is shown alike',
  (scene) => {
    const pair = matchPair(scene, 77)
    const match = matched(pair)!
    const before = middle(errorsOf(pair, pair.shot.grade))
    const after = errorsOf(pair, match.grade)
    expect(before).toBeGreaterThan(4)
    expect(middle(after)).toBeLessThan(1.5)
    expect(match.medianAfter).toBeLessThan(1.5)
    // It moves what is beneath the look, and says what.
    expect(match.moved.length).toBeGreaterThan(1)
    expect(match.grade.steps.map((s) => s.id)).toEqual(pair.shot.grade.steps.map((s) => s.id))
  },
)

test('scenes that have nothing in common are not matched', () => {
  expect(matched(strangers('glaze-shelf', 'courtyard', 5))).toBeNull()
  expect(matched(strangers('kiln-night', 'market-phone', 6))).toBeNull()
})

test('what changed in the shot is left out instead of pulling the others along', () => {
  const pair = matchPair('glaze-shelf', 78)
  const { frame } = pair.shot
  const data = frame.data.slice()
  // A tenth of the picture is another thing now: far brighter and red.
  for (let y = 0; y < frame.height; y++)
    for (let x = 0; x < frame.width * 0.12; x++) {
      const i = (y * frame.width + x) * 3
      data[i] = Math.min(65535, data[i]! + 9000)
      data[i + 2] = Math.max(0, data[i + 2]! - 6000)
    }
  const match = matched({ ...pair, shot: { ...pair.shot, frame: { ...frame, data } } })!
  const after = errorsOf(pair, match.grade)
  expect(middle(after)).toBeLessThan(1.5)
})

test('lights that clip on the display do not lead to a balance that is none of it', () => {
  // A sky under a contrast of 1.32: half of its tones are too bright to be shown, in both.
  const contrast = 1.32
  const sky = [
    [0.6, 0.72, 0.9],
    [0.64, 0.72, 0.87],
    [0.61, 0.72, 0.93],
    [1.46, 1.43, 1.33],
    [1.6, 1.57, 1.46],
    [1.63, 1.62, 1.53],
  ] as const
  const area = { left: 0, top: 0, right: 0.1, bottom: 0.1 }
  const surfaces = sky.map((here, id) => {
    const [r, g, b] = here.map((v) => 0.18 * (v / 0.18) ** contrast)
    return { id, here, there: [r!, g!, b!] as const, hereArea: area, thereArea: area, places: 20 }
  })
  const opened = defaultGrade('log-420-95')
  const grade = { ...opened, show: openingShow(opened.read, opened.show) }
  const { moved, medianAfter } = solveMatch(surfaces, grade, grade, () => undefined)!
  const to = (control: string): number => moved.find((m) => m.control === control)?.to ?? Number.NaN
  expect(to('contrast')).toBeCloseTo(1 / contrast, 1)
  expect(Math.abs(moved.find((m) => m.control === 'temperature')?.to ?? 0)).toBeLessThan(15)
  expect(medianAfter).toBeLessThan(0.5)
})
