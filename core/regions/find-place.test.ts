import { largestIsland, placeByKey, placeByLook, stopsBetween, type KeyPlanes } from '.'

const width = 240
const height = 135
const plane = (at: (x: number, y: number) => number) => ({
  width,
  height,
  values: Float32Array.from({ length: width * height }, (_, p) => at(p % width, Math.floor(p / width))),
})
const disc = (cx: number, cy: number, r: number) => plane((x, y) => (Math.hypot(x - cx, y - cy) < r ? 1 : 0))
const planes = (at: (x: number, y: number) => number): KeyPlanes => {
  const none = new Float32Array(width * height)
  return { width, height, l: plane(at).values, a: none, b: none }
}

test('the largest area is found, with its middle and extent; specks are not', () => {
  const found = largestIsland(plane((x, y) => (Math.hypot(x - 60, y - 50) < 20 || (x === 200 && y < 3) ? 1 : 0)))!
  expect(found.x * width).toBeCloseTo(60.5, 0)
  expect(found.y * height).toBeCloseTo(50.5, 0)
  expect(found.width * width).toBeCloseTo(39, -0.5)
  expect(largestIsland(plane((x, y) => (x + y === 3 ? 1 : 0)))).toBeNull()
  expect(largestIsland(plane(() => 0))).toBeNull()
})

test('by its key: where that holds most, and by how much larger', () => {
  const found = placeByKey(disc(60, 50, 15), disc(170, 80, 30))!
  expect([found.x * width, found.y * height].map(Math.round)).toEqual([171, 81])
  expect(found.size).toBeCloseTo(2, 1)
  expect(
    placeByKey(
      disc(60, 50, 15),
      plane(() => 0),
    ),
  ).toBeNull()
})

test('by its look: a pattern is found where it went, larger or smaller, in other light', () => {
  const pattern = (x: number, y: number): number =>
    0.4 + 0.2 * Math.sin(x / 6) * Math.cos(y / 5) + 0.15 * Math.sin((x + 2 * y) / 11)
  const ground = (x: number, y: number): number => 0.5 + 0.1 * Math.sin(x / 19 + y / 23)
  const scene = (cx: number, cy: number, size: number, light: number): ReturnType<typeof plane> =>
    plane(
      (x, y) =>
        light * (Math.hypot(x - cx, y - cy) < 30 * size ? pattern((x - cx) / size, (y - cy) / size) : ground(x, y)),
    )
  const matte = disc(80, 60, 28).values
  for (const [cx, cy, size] of [
    [150, 70, 1],
    [60, 80, 1],
    [140, 66, 1.35],
  ] as const) {
    const found = placeByLook(scene(80, 60, 1, 1), matte, scene(cx, cy, size, 0.6))!
    expect(Math.hypot(found.x * width - cx, found.y * height - cy)).toBeLessThan(6)
    expect(found.sure).toBeGreaterThan(0.8)
    expect(Math.abs(found.size - size)).toBeLessThan(0.25)
  }
  expect(placeByLook(scene(80, 60, 1, 1), new Float32Array(width * height), scene(80, 60, 1, 1))).toBeNull()
})

test('the light under two mattes differs by so many stops', () => {
  const bright = planes(() => 0.8)
  const dim = planes(() => 0.4)
  const matte = disc(80, 60, 28).values
  expect(stopsBetween(dim, matte, bright, matte)).toBeCloseTo(3, 6)
  expect(stopsBetween(bright, matte, bright, matte)).toBe(0)
  expect(stopsBetween(bright, new Float32Array(width * height), dim, matte)).toBeNull()
})
