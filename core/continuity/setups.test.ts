import type { Frame } from '../image'
import { randomFrom } from '../../tests/support/pictures'
import { makeReel } from '../../tests/continuity/reels'
import { layoutOf, likeness, setupsOf, type SetupShot } from '.'

/** A place of random blots, another for every seed; lit, cast and moved aside. */
function place(seed: number, light = 1, cast = 1, moved = 0): Frame {
  const [width, height] = [128, 72]
  const random = randomFrom(seed)
  const blots = Array.from({ length: 40 }, () => [random() * 1.2, random(), random(), random(), random()] as const)
  const data = new Uint16Array(width * height * 3)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [u, v] = [(x + moved) / width, y / height]
      const near = blots.reduce((a, b) => (Math.hypot(b[0] - u, b[1] - v) < Math.hypot(a[0] - u, a[1] - v) ? b : a))
      for (let c = 0; c < 3; c++)
        data[(y * width + x) * 3 + c] = Math.round(near[c + 2]! * 30_000 * light * (c === 2 ? cast : 1))
    }
  return { width, height, data, low: 0, high: 1 }
}
const shotOf = (frame: Frame, camera = 'a'): SetupShot => ({ layout: layoutOf(frame), camera })

test('another exposure, another light and a camera that moved a little are the same place', () => {
  const here = layoutOf(place(1))
  expect(likeness(here, layoutOf(place(1, 0.5, 0.8, 8)))).toBeGreaterThan(0.8)
  expect(likeness(here, layoutOf(place(2)))).toBeLessThan(0.5)
  // A blank frame is like nothing.
  const blank = { ...place(1), data: new Uint16Array(128 * 72 * 3).fill(2000) }
  expect(likeness(here, layoutOf(blank))).toBeLessThan(0.2)
})

test('shots that come again are grouped, in order; another camera is another set-up', () => {
  const reel = [place(1), place(2), place(1, 0.8, 1, 4), place(3), place(2, 1.2), place(1, 1.1, 0.9)]
  expect(setupsOf(reel.map((f) => shotOf(f)))).toEqual([
    [0, 2, 5],
    [1, 4],
  ])
  expect(setupsOf([shotOf(place(1), 'a'), shotOf(place(1), 'b')])).toEqual([])
  expect(setupsOf([])).toEqual([])
})

test('a reel of the demo places, recorded, with somebody walking through, is grouped right', () => {
  const { shots, setups } = makeReel(['glaze-shelf', 'courtyard', 'market-phone'], 41)
  const groups = setupsOf(shots)
  const of = shots.map((_, i) => groups.findIndex((g) => g.includes(i)))
  let wrong = 0
  for (let i = 0; i < shots.length; i++)
    for (let k = 0; k < i; k++) if ((setups[i] === setups[k]) !== (of[i]! >= 0 && of[i] === of[k])) wrong++
  expect(wrong).toBeLessThanOrEqual(0.05 * ((shots.length * (shots.length - 1)) / 2))
})
