// Surfaces that two pictures share: places where both are even, brought together by their colour.
import { moved, type Homography } from '../regions/homography'
import type { Area } from '../readings'
import type { LightPicture } from './light'

export type Light = readonly [number, number, number]

/** One surface as both pictures show it. */
export interface SharedSurface {
  /** What it is called by, the same as long as the two pictures are. */
  readonly id: number
  readonly here: Light
  readonly there: Light
  /** Where it is seen best. */
  readonly hereArea: Area
  readonly thereArea: Area
  /** How many places it was found at. */
  readonly places: number
}

interface Place {
  readonly here: Light
  readonly there: Light
  readonly x: number
  readonly y: number
  readonly tx: number
  readonly ty: number
  /** How uneven it is, as a share of its light. */
  readonly uneven: number
}

const across = 40
const mostSurfaces = 18
/** Places more uneven than this are edges and textures: they are taken where hardly anything is even. */
const mostUneven = 0.22
const mostTextured = 0.7
const enoughPlaces = 60
/** Light under this is noise. */
const leastLight = 0.002
const leastPlaces = 6

/** The surfaces of two pictures of the same view. Empty where they have too few even places in common. */
export function surfacesOfSameView(
  here: LightPicture,
  there: LightPicture,
  motion: Homography,
): readonly SharedSurface[] {
  const radius = here.width / across / 2
  const grow = Math.hypot(motion[0], motion[3])
  const seen: Place[] = []
  for (let y = radius * 2; y < here.height - radius * 2; y += radius * 2)
    for (let x = radius * 2; x < here.width - radius * 2; x += radius * 2) {
      const [tx, ty] = moved(motion, x, y)
      const a = meanAbout(here, x, y, radius)
      const b = meanAbout(there, tx, ty, radius * grow)
      if (!a || !b) continue
      const uneven = Math.max(a.uneven, b.uneven)
      if (uneven <= mostTextured) seen.push({ here: a.mean, there: b.mean, x, y, tx, ty, uneven })
    }
  seen.sort((p, q) => p.uneven - q.uneven)
  const found = seen.filter(({ uneven }, i) => uneven <= mostUneven || i < enoughPlaces)
  if (found.length < leastPlaces) return []
  // By what both pictures show, so that what changed between them is a group of its own.
  return grouped(found, (p) => [...colourPlace(p.here), ...colourPlace(p.there)]).map((group, id) => {
    const middle = (of: (p: Place) => Light): Light => {
      const channel = (c: number): number => median(group.map((p) => of(p)[c] ?? 0))
      return [channel(0), channel(1), channel(2)]
    }
    const best = group.reduce((a, b) => (b.uneven < a.uneven ? b : a))
    return {
      id,
      here: middle((p) => p.here),
      there: middle((p) => p.there),
      hereArea: areaAbout(best.x, best.y, radius, here),
      thereArea: areaAbout(best.tx, best.ty, radius * grow, there),
      places: group.length,
    }
  })
}

/** Mean light about a place and its unevenness; null outside, in the dark, or where the camera clipped. */
export function meanAbout(
  { width, height, light, clipped }: LightPicture,
  x: number,
  y: number,
  radius: number,
): { readonly mean: Light; readonly uneven: number } | null {
  const r = Math.max(1, Math.round(radius * 0.8))
  const cx = Math.round(x)
  const cy = Math.round(y)
  if (cx < r || cy < r || cx >= width - r || cy >= height - r) return null
  const sum = [0, 0, 0]
  const squares = [0, 0, 0]
  let n = 0
  for (let v = cy - r; v <= cy + r; v++)
    for (let u = cx - r; u <= cx + r; u++) {
      const p = v * width + u
      if (clipped[p]) return null
      n++
      for (let c = 0; c < 3; c++) {
        const value = light[p * 3 + c]
        sum[c] += value
        squares[c] += value * value
      }
    }
  const mean = sum.map((s) => s / n)
  const level = (mean[0] + mean[1] + mean[2]) / 3
  if (level < leastLight) return null
  const uneven = Math.sqrt(mean.reduce((s, m, c) => s + Math.max(0, squares[c] / n - m * m), 0) / 3) / level
  return { mean: [mean[0], mean[1], mean[2]], uneven }
}

/** The square about a place, in shares of the picture. */
export const areaAbout = (x: number, y: number, r: number, of: LightPicture): Area => ({
  left: Math.max(0, (x - r) / of.width),
  right: Math.min(1, (x + r) / of.width),
  top: Math.max(0, (y - r) / of.height),
  bottom: Math.min(1, (y + r) / of.height),
})

const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b)
  return ((sorted[(sorted.length - 1) >> 1] ?? 0) + (sorted[sorted.length >> 1] ?? 0)) / 2
}

/** Stops of light and the two differences of colour, so that equal distances are about equally much to see. */
export const colourPlace = ([r, g, b]: Light): readonly number[] => {
  const log = (v: number): number => Math.log2(Math.max(v, 1e-4))
  return [log(g) * 0.6, (log(r) - log(g)) * 2, (log(b) - log(g)) * 2]
}
const apart = (a: readonly number[], b: readonly number[]): number => a.reduce((s, v, i) => s + (v - b[i]) ** 2, 0)

/**
 * Places brought together by where they lie in a space of colour: seeds as far from each other as can be had, then
 * Lloyd's rounds (1982).
 */
export function grouped<T>(
  found: readonly T[],
  placeOf: (of: T) => readonly number[],
  most = mostSurfaces,
): readonly (readonly T[])[] {
  const at = found.map(placeOf)
  let centres = at.slice(0, 1)
  while (centres.length > 0 && centres.length < Math.min(most, found.length)) {
    const distances = at.map((p) => Math.min(...centres.map((c) => apart(p, c))))
    const farthest = distances.reduce((best, d, i) => (d > distances[best] ? i : best), 0)
    if (distances[farthest] < 0.1) break
    centres.push(at[farthest])
  }
  let groups: number[][] = []
  for (let round = 0; round < 6; round++) {
    groups = centres.map(() => [])
    at.forEach((p, i) => {
      let nearest = 0
      centres.forEach((c, k) => {
        if (apart(p, c) < apart(p, centres[nearest])) nearest = k
      })
      groups[nearest].push(i)
    })
    groups = groups.filter((g) => g.length > 0)
    centres = groups.map((g) => at[0].map((_, c) => g.reduce((s, i) => s + at[i][c], 0) / g.length))
  }
  return groups.map((g) => g.map((i) => found[i]))
}
