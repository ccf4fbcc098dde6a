// Surfaces of two pictures that show the same things from elsewhere: found by colour alone. Light and camera change all
// colours alike, so what the colours are to each other stays; only where several colours that differ are found again in
// the same relation is anything claimed, and even then it is for a person to look at.
import type { LightPicture } from './light'
import { areaAbout, colourPlace, grouped, meanAbout, type Light, type SharedSurface } from './surfaces'

interface Place {
  readonly light: Light
  readonly x: number
  readonly y: number
  readonly uneven: number
}
interface Colour {
  /** Stops of green, and stops of red and of blue over it. */
  readonly at: readonly [number, number, number]
  readonly light: Light
  /** Share of the picture's even places. */
  readonly share: number
  readonly best: Place
}

const across = 48
const mostUneven = 0.25
const mostColours = 14
/** A colour that covers less of a picture is chance. */
const leastShare = 0.008
/** Two colours farther apart than this, in stops of red and blue over green, are different things in any light. */
const different = 0.3
/** Found again within so many stops: of colour, and of light, which shading changes too. */
const sameColour = 0.13
const sameLight = 0.9
/** How far exposure, balance and contrast of one scene differ at most. */
const most = { stops: 3, balance: 1, slope: [0.7, 1.4] } as const
/** So many colours that differ must be found again, and make up so much of what is coloured in either picture. */
const leastFound = 3
const leastCovered = 0.6

/** Empty where the two pictures have no colours in the same relation. */
export function surfacesByColour(here: LightPicture, there: LightPicture): readonly SharedSurface[] {
  const [a, b] = [coloursOf(here), coloursOf(there)]
  let best: { readonly pairs: readonly (readonly [Colour, Colour])[]; readonly score: number } = { pairs: [], score: 0 }
  for (const [i, k] of twos(a))
    for (const [j, l] of twos(b))
      for (const [p, q] of [
        [j, l],
        [l, j],
      ] as const) {
        const pairs = foundAgain(i, k, p, q, a, b)
        const score = scoreOf(pairs, a, b)
        if (score > best.score) best = { pairs, score }
      }
  const radius = { here: here.width / across / 2, there: there.width / across / 2 }
  return best.pairs.map(([of, other], id) => ({
    id,
    here: of.light,
    there: other.light,
    hereArea: areaAbout(of.best.x, of.best.y, radius.here, here),
    thereArea: areaAbout(other.best.x, other.best.y, radius.there, there),
    places: 4,
  }))
}

function coloursOf(picture: LightPicture): readonly Colour[] {
  const radius = picture.width / across / 2
  const places: Place[] = []
  for (let y = radius; y < picture.height; y += radius * 2)
    for (let x = radius; x < picture.width; x += radius * 2) {
      const about = meanAbout(picture, x, y, radius)
      if (about && about.uneven <= mostUneven) places.push({ light: about.mean, x, y, uneven: about.uneven })
    }
  return grouped(places, (p) => colourPlace(p.light), mostColours)
    .filter((group) => group.length >= leastShare * places.length)
    .map((group) => {
      const middle = (c: 0 | 1 | 2): number =>
        group.map((p) => Math.max(p.light[c], 1e-4)).sort((p, q) => p - q)[group.length >> 1]
      const light: Light = [middle(0), middle(1), middle(2)]
      const [r, g, b] = light.map(Math.log2)
      return {
        at: [g, r - g, b - g],
        light,
        share: group.length / places.length,
        best: group.reduce((p, q) => (q.uneven < p.uneven ? q : p)),
      }
    })
}

/** Every two colours of a picture that differ enough to tell of a change. */
function twos(colours: readonly Colour[]): readonly (readonly [Colour, Colour])[] {
  return colours.flatMap((a, i) =>
    colours.slice(0, i).flatMap((b) => (apart(a.at, b.at) > different ? [[a, b] as const] : [])),
  )
}
const apart = (a: Colour['at'], b: Colour['at']): number => Math.hypot(a[1] - b[1], a[2] - b[2])

/** The colours that the change from (p, q) there to (i, k) here brings together, each with its like. */
function foundAgain(
  i: Colour,
  k: Colour,
  p: Colour,
  q: Colour,
  a: readonly Colour[],
  b: readonly Colour[],
): readonly (readonly [Colour, Colour])[] {
  const run = [i.at[1] - k.at[1], i.at[2] - k.at[2]] as const
  const other = [p.at[1] - q.at[1], p.at[2] - q.at[2]] as const
  const length = Math.hypot(...other)
  const slope = (run[0] * other[0] + run[1] * other[1]) / length ** 2
  if (slope < most.slope[0] || slope > most.slope[1]) return []
  if (Math.hypot(run[0] - slope * other[0], run[1] - slope * other[1]) > sameColour) return []
  const offset = [0, 1, 2].map((c) => (i.at[c] + k.at[c] - slope * (p.at[c] + q.at[c])) / 2)
  if (Math.abs(offset[0]) > most.stops || Math.hypot(offset[1], offset[2]) > most.balance) return []
  const taken = new Set<Colour>()
  return [...a]
    .sort((m, n) => n.share - m.share)
    .flatMap((of) => {
      const off = (to: Colour): readonly [number, number] => {
        const [l, u, v] = to.at.map((value, c) => offset[c] + slope * value - of.at[c])
        return [Math.hypot(u, v), Math.abs(l)]
      }
      const near = b
        .filter((to) => !taken.has(to) && off(to)[0] < sameColour && off(to)[1] < sameLight)
        .sort((m, n) => off(m)[0] + off(m)[1] / 8 - off(n)[0] - off(n)[1] / 8)[0]
      if (!near) return []
      taken.add(near)
      return [[of, near] as const]
    })
}

/** How much of both pictures is found again; 0 where it could be chance. */
function scoreOf(pairs: readonly (readonly [Colour, Colour])[], a: readonly Colour[], b: readonly Colour[]): number {
  const distinct = pairs.reduce<Colour[]>(
    (kept, [of]) => (kept.every((o) => apart(o.at, of.at) > different) ? [...kept, of] : kept),
    [],
  )
  if (distinct.length < leastFound) return 0
  const covered = (all: readonly Colour[], side: 0 | 1): number => {
    const main = all.reduce((m, c) => (c.share > m.share ? c : m))
    const coloured = all.filter((c) => apart(c.at, main.at) > different)
    const found = coloured.filter((c) => pairs.some((pair) => pair[side] === c))
    const sum = (of: readonly Colour[]): number => of.reduce((s, c) => s + c.share, 0)
    return sum(found) / Math.max(sum(coloured), 1e-6)
  }
  const [here, there] = [covered(a, 0), covered(b, 1)]
  return Math.min(here, there) < leastCovered ? 0 : distinct.length + Math.min(here, there)
}
