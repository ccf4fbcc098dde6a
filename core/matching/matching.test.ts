// Matching on made pairs of the demo's plates: small, so that the whole judgement stays in the bench.
import { strangers, errorsOf, matchPair } from '../../tests/matching/pairs'
import { matched } from '../../tests/matching/judge'

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
