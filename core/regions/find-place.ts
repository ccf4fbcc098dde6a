// Finding where a region sits in another picture: by what its key holds there, or by what it looks like.
import type { Plane } from '../image'
import type { KeyPlanes } from './key'

/**
 * The middle of what was found in shares of the frame, its size against what was looked for, and how sure that is
 * (0..1).
 */
export interface FoundPlace {
  readonly x: number
  readonly y: number
  readonly size: number
  readonly sure: number
}
/** A connected area: its middle and extent in shares of the frame, and its area in shares of the frame's. */
export interface Island {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  readonly area: number
}

/** The largest connected area where a matte holds by half; null where it holds nothing to speak of. */
export function largestIsland({ width, height, values }: Plane): Island | null {
  const seen = new Uint8Array(values.length)
  const stack = new Int32Array(values.length)
  let best: Island | null = null
  for (let start = 0; start < values.length; start++) {
    if (seen[start] || values[start] <= 0.5) continue
    let top = 0
    let count = 0
    let sx = 0
    let sy = 0
    let left = width
    let right = 0
    let upper = height
    let lower = 0
    stack[top++] = start
    seen[start] = 1
    while (top > 0) {
      const i = stack[--top]
      const x = i % width
      const y = (i - x) / width
      count++
      sx += x
      sy += y
      left = Math.min(left, x)
      right = Math.max(right, x)
      upper = Math.min(upper, y)
      lower = Math.max(lower, y)
      const reach = (j: number): void => {
        if (!seen[j] && values[j] > 0.5) {
          seen[j] = 1
          stack[top++] = j
        }
      }
      if (x > 0) reach(i - 1)
      if (x + 1 < width) reach(i + 1)
      if (y > 0) reach(i - width)
      if (y + 1 < height) reach(i + width)
    }
    if (count / values.length > (best?.area ?? 2e-4))
      best = {
        x: (sx / count + 0.5) / width,
        y: (sy / count + 0.5) / height,
        width: (right - left + 1) / width,
        height: (lower - upper + 1) / height,
        area: count / values.length,
      }
  }
  return best
}

/** Where the same key holds in another picture: the largest area there, against the largest here. */
export function placeByKey(here: Plane, there: Plane): FoundPlace | null {
  const from = largestIsland(here)
  const to = largestIsland(there)
  if (!from || !to) return null
  const size = Math.sqrt(to.area / from.area)
  // A size that is far off is another thing of that colour.
  return { x: to.x, y: to.y, size: Math.min(3, Math.max(1 / 3, size)), sure: size > 0.4 && size < 2.5 ? 0.8 : 0.3 }
}

/** Only places whose middle is within `radius` (a share of the width) of one, and sizes near one. */
export interface Within {
  readonly x: number
  readonly y: number
  readonly radius: number
  readonly size: number
}

const sizes = [0.6, 0.75, 0.87, 1, 1.15, 1.35, 1.6] as const
const nearSizes = [0.87, 1, 1.15] as const
const coarseHeight = 54

/**
 * Where another picture looks most like what a matte holds in this one (normalised correlation of lightness, over
 * places and sizes).
 */
export function placeByLook(here: Plane, matte: Float32Array, there: Plane, within?: Within): FoundPlace | null {
  const a = coarse(here)
  const m = coarse({ ...here, values: matte })
  const b = coarse(there)
  const box = largestIsland(m)
  if (!box) return null
  let best: FoundPlace | null = null
  for (const size of within ? nearSizes.map((s) => s * within.size) : sizes) {
    const points = pointsOf(a, m, box, size)
    if (points.length < 12) continue
    for (let y = 0; y < b.height; y++)
      for (let x = 0; x < b.width; x++) {
        const place = { x: (x + 0.5) / b.width, y: (y + 0.5) / b.height }
        if (within && awayFrom(place, within, b) > within.radius) continue
        const alike = correlation(points, b, x, y)
        if (alike > (best?.sure ?? 0)) best = { ...place, size, sure: alike }
      }
  }
  return best
}

/** Between two places of a picture, in shares of its width. */
const awayFrom = (
  a: { readonly x: number; readonly y: number },
  b: { readonly x: number; readonly y: number },
  { width, height }: Plane,
): number => Math.hypot(a.x - b.x, ((a.y - b.y) * height) / width)

interface LookPoint {
  readonly dx: number
  readonly dy: number
  readonly value: number
}

/** What is looked for, as places about its middle with their lightness. */
function pointsOf(a: Plane, m: Plane, box: Island, size: number): readonly LookPoint[] {
  const points: LookPoint[] = []
  const cx = Math.floor(box.x * a.width)
  const cy = Math.floor(box.y * a.height)
  for (let y = 0; y < a.height; y++)
    for (let x = 0; x < a.width; x++)
      if (m.values[y * a.width + x] > 0.5)
        points.push({
          dx: Math.round((x - cx) * size),
          dy: Math.round((y - cy) * size),
          value: a.values[y * a.width + x],
        })
  return points
}

function correlation(points: readonly LookPoint[], { width, height, values }: Plane, cx: number, cy: number): number {
  let n = 0
  let sa = 0
  let sb = 0
  let saa = 0
  let sbb = 0
  let sab = 0
  for (const { dx, dy, value } of points) {
    const x = cx + dx
    const y = cy + dy
    if (x < 0 || y < 0 || x >= width || y >= height) continue
    const v = values[y * width + x]
    n++
    sa += value
    sb += v
    saa += value * value
    sbb += v * v
    sab += value * v
  }
  // Most of it must be in the picture.
  if (n < points.length * 0.7) return 0
  const deviation = Math.sqrt(Math.max(0, saa - (sa * sa) / n) * Math.max(0, sbb - (sb * sb) / n))
  return deviation < 1e-9 ? 0 : ((sab - (sa * sb) / n) / deviation) * (n / points.length)
}

/** Means over cells: small enough that every place can be tried. */
function coarse({ width, height, values }: Plane): Plane {
  const cell = Math.max(1, Math.floor(height / coarseHeight))
  const w = Math.floor(width / cell)
  const h = Math.floor(height / cell)
  const out = new Float32Array(w * h)
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let sum = 0
      for (let v = y * cell; v < (y + 1) * cell; v++)
        for (let u = x * cell; u < (x + 1) * cell; u++) sum += values[v * width + u]
      out[y * w + x] = sum / (cell * cell)
    }
  return { width: w, height: h, values: out }
}

/** Stops by which the light under a matte here must change to be as much as under a matte there. */
export function stopsBetween(
  here: KeyPlanes,
  hereMatte: Float32Array,
  there: KeyPlanes,
  thereMatte: Float32Array,
): number | null {
  // Lightness of Oklab is the cube root of light.
  const light = ({ l }: KeyPlanes, matte: Float32Array): number => {
    let sum = 0
    let weight = 0
    for (let p = 0; p < l.length; p++) {
      sum += matte[p] * Math.max(0, l[p]) ** 3
      weight += matte[p]
    }
    return weight > 1 ? sum / weight : 0
  }
  const a = light(here, hereMatte)
  const b = light(there, thereMatte)
  return a > 1e-6 && b > 1e-6 ? Math.min(6, Math.max(-6, Math.log2(b / a))) : null
}
