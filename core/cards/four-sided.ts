// How four-sided a field is: its pixels against the smallest upright or turned rectangle about them.

type Point = readonly [number, number]

/** Convex hull by Andrew's monotone chain, anticlockwise; at least three points. */
function hullOf(points: readonly Point[]): readonly Point[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1])
  const half = (list: typeof sorted): Point[] => {
    const out: Point[] = []
    for (const p of list) {
      while (out.length > 1 && turn(out[out.length - 2], out[out.length - 1], p) <= 0) out.pop()
      out.push(p)
    }
    return out.slice(0, -1)
  }
  return [...half(sorted), ...half([...sorted].reverse())]
}
const turn = (o: Point, a: Point, b: Point): number => (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0])

export interface FourSided {
  /** Pixels as a share of the convex hull's area: 1 has no dents. */
  readonly solid: number
  /** The largest four-sided figure in the hull as a share of it: 1 for four corners, 0.64 for a disc. */
  readonly cornered: number
  /** The hull's area as a share of the smallest rectangle about it: 1 is a rectangle, 0.5 a triangle. */
  readonly square: number
  /** Sides of that rectangle in pixels, the longer first. */
  readonly long: number
  readonly short: number
}

/** @param pixels places as y × width + x */
export function fourSided(pixels: Int32Array, width: number): FourSided {
  const hull = hullOf(cornersOf(pixels, width))
  const area = Math.abs(areaOf(hull))
  let smallest = { area: Infinity, long: 0, short: 0 }
  hull.forEach((p, i) => {
    const q = hull[(i + 1) % hull.length]
    const length = Math.hypot(q[0] - p[0], q[1] - p[1])
    if (length === 0) return
    const [ux, uy] = [(q[0] - p[0]) / length, (q[1] - p[1]) / length]
    const along = hull.map(([x, y]) => x * ux + y * uy)
    const across = hull.map(([x, y]) => y * ux - x * uy)
    const w = Math.max(...along) - Math.min(...along)
    const h = Math.max(...across) - Math.min(...across)
    if (w * h < smallest.area) smallest = { area: w * h, long: Math.max(w, h), short: Math.min(w, h) }
  })
  return {
    solid: pixels.length / area,
    cornered: largestFourSided(hull) / area,
    square: area / smallest.area,
    long: smallest.long,
    short: smallest.short,
  }
}

/** The outer corners of a field's first and last pixel of every row. */
function cornersOf(pixels: Int32Array, width: number): readonly Point[] {
  const ends = new Map<number, [number, number]>()
  for (const p of pixels) {
    const y = Math.floor(p / width)
    const x = p % width
    const row = ends.get(y)
    if (!row) ends.set(y, [x, x + 1])
    else {
      row[0] = Math.min(row[0], x)
      row[1] = Math.max(row[1], x + 1)
    }
  }
  return [...ends].flatMap(([y, [a, b]]): Point[] => [
    [a, y],
    [b, y],
    [a, y + 1],
    [b, y + 1],
  ])
}

const areaOf = (polygon: readonly Point[]): number =>
  polygon.reduce((sum, p, i) => {
    const q = polygon[(i + 1) % polygon.length]
    return sum + (p[0] * q[1] - q[0] * p[1]) / 2
  }, 0)

/** Over every diagonal, the two triangles at its sides; a hull of many points is thinned out first. */
function largestFourSided(hull: readonly Point[]): number {
  const every = Math.ceil(hull.length / mostHull)
  const points = hull.filter((_, i) => i % every === 0)
  let best = 0
  points.forEach((a, i) => {
    for (let j = i + 2; j < points.length; j++) {
      let [left, right] = [0, 0]
      points.forEach((p) => {
        const side = turn(a, points[j], p) / 2
        left = Math.max(left, side)
        right = Math.max(right, -side)
      })
      best = Math.max(best, left + right)
    }
  })
  return best
}
const mostHull = 40
