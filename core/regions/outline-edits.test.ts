import fc from 'fast-check'
import {
  addOutlinePoint,
  moveOutlinePoint,
  outlineOf,
  paintMatte,
  removeOutlinePoint,
  shapeBounds,
  smoothPath,
  type Path,
  type Polygon,
} from '.'

const square: Polygon = {
  kind: 'polygon',
  points: [
    { x: 0.2, y: 0.2 },
    { x: 0.8, y: 0.2 },
    { x: 0.8, y: 0.8 },
    { x: 0.2, y: 0.8 },
  ],
}
const path = smoothPath(square.points)
const ellipse = { kind: 'ellipse', centreX: 0.5, centreY: 0.5, radiusX: 0.2, radiusY: 0.2, rotationDegrees: 0 } as const

test('a point is moved with its handles, and no other', () => {
  expect((moveOutlinePoint(square, 1, 'at', 0.1, -0.1) as Polygon).points.map((p) => [p.x, p.y])).toEqual([
    [0.2, 0.2],
    [0.9, 0.1],
    [0.8, 0.8],
    [0.2, 0.8],
  ])
  const moved = moveOutlinePoint(path, 2, 'at', 0.05, 0.05) as Path
  moved.points.forEach((p, i) => {
    const was = path.points[i]!
    const by = i === 2 ? 0.05 : 0
    for (const k of ['x', 'y', 'inX', 'inY', 'outX', 'outY'] as const) expect(p[k]).toBeCloseTo(was[k] + by, 12)
  })
  expect(moveOutlinePoint(ellipse, 0, 'at', 1, 1)).toBe(ellipse)
})

test('a handle takes the other one round: the line stays smooth and the other keeps its length', () => {
  const number = fc.double({ min: -0.2, max: 0.2, noNaN: true })
  fc.assert(
    fc.property(fc.constantFrom('in', 'out' as const), number, number, (part, dx, dy) => {
      const was = path.points[1]!
      const p = (moveOutlinePoint(path, 1, part, dx, dy) as Path).points[1]!
      const a = [p.inX - p.x, p.inY - p.y] as const
      const b = [p.outX - p.x, p.outY - p.y] as const
      if (Math.hypot(...a) < 1e-3 || Math.hypot(...b) < 1e-3) return
      expect(a[0] * b[1] - a[1] * b[0]).toBeCloseTo(0, 9)
      expect(a[0] * b[0] + a[1] * b[1]).toBeLessThan(0)
      const [other, before] =
        part === 'in' ? [b, [was.outX - was.x, was.outY - was.y]] : [a, [was.inX - was.x, was.inY - was.y]]
      expect(Math.hypot(...other)).toBeCloseTo(Math.hypot(...(before as [number, number])), 9)
    }),
  )
})

test('a point more leaves the course of a curve as it was; of a polygon it lies where it was asked for', () => {
  for (let i = 0; i < 4; i++) {
    const more = addOutlinePoint(path, i) as Path
    expect(more.points).toHaveLength(5)
    // Every place of the finer outline lies on the old one.
    const old = outlineOf(path, 1.6)
    const away = (u: number, v: number): number =>
      Math.min(
        ...old.map(([a, b], n) => {
          const [c, d] = old[(n + 1) % old.length]!
          const t = Math.min(1, Math.max(0, ((u - a) * (c - a) + (v - b) * (d - b)) / ((c - a) ** 2 + (d - b) ** 2)))
          return Math.hypot(u - a - t * (c - a), v - b - t * (d - b))
        }),
      )
    for (const [u, v] of outlineOf(more, 1.6)) expect(away(u, v)).toBeLessThan(1e-3)
  }
  expect((addOutlinePoint(square, 3) as Polygon).points[4]).toEqual({ x: 0.2, y: 0.5 })
  expect((addOutlinePoint(square, 0, { x: 0.5, y: 0.1 }) as Polygon).points[1]).toEqual({ x: 0.5, y: 0.1 })
  const full: Polygon = {
    kind: 'polygon',
    points: Array.from({ length: shapeBounds.points.max }, (_, i) => ({ x: i / 100, y: (i % 2) / 2 })),
  }
  expect(addOutlinePoint(full, 0)).toBe(full)
})

test('three points always remain', () => {
  const three = removeOutlinePoint(square, 0) as Polygon
  expect(three.points).toEqual(square.points.slice(1))
  expect(removeOutlinePoint(three, 0)).toBe(three)
  expect((removeOutlinePoint(path, 3) as Path).points).toHaveLength(3)
  expect(removeOutlinePoint(ellipse, 0)).toBe(ellipse)
})

describe('looking at a matte', () => {
  // Two rows of four pixels, all of one grey; the matte holds the left half, its third column by half.
  const matte = Float32Array.of(1, 1, 0.4, 0, 1, 1, 0.4, 0)
  const painted = (view: Parameters<typeof paintMatte>[0]): number[] => {
    const canvas = new Uint32Array(8).fill(0xff808080)
    paintMatte(view, matte, canvas, 4, 0, 2)
    return [...canvas].map((c) => c & 255)
  }
  test('as grey, on grey and on black', () => {
    expect(painted('grey').slice(0, 4)).toEqual([255, 255, 102, 0])
    expect(painted('on-black').slice(0, 4)).toEqual([128, 128, 51, 0])
    expect(painted('on-grey').slice(0, 4)).toEqual([128, 128, Math.round(128 * 0.4 + 118 * 0.6), 118])
  })
  test('a line where it crosses a half, hatching where it is neither whole nor nothing', () => {
    expect(painted('outline')).toEqual([128, 233, 128, 128, 128, 233, 128, 128])
    expect(painted('edge').map((v) => v !== 128)).toEqual([false, false, true, false, false, false, true, false])
  })
  test('some rows leave the others alone', () => {
    const canvas = new Uint32Array(8).fill(0xff808080)
    paintMatte('grey', matte.subarray(4), canvas, 4, 1, 2)
    expect([...canvas].map((c) => c & 255)).toEqual([128, 128, 128, 128, 255, 255, 102, 0])
  })
})
