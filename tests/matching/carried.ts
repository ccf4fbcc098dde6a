// Judges where regions land that are carried from shot to shot: within 3 % of the width, or asked about.
import { carriedPlaces, carriedRegion, lightPicture } from '@core/matching'
import { centreOf, type Region } from '@core/regions'
import { randomSource } from '../guess/scenes'
import { judgedScenes } from './judge'
import { matchPair, strangers, type MatchPair, type Visitor } from './pairs'

const none = (): undefined => undefined
export const landed = 0.03

export interface CarriedRegions {
  readonly regions: number
  /** Those taken without asking: how far off they land, in widths, sorted. */
  readonly sure: readonly number[]
  readonly strangers: number
  /** Taken without asking in pictures that have nothing in common. */
  readonly wrong: number
  readonly msEach: number
}

const oval = (x: number, y: number, radius: number): Region => ({
  id: 'part',
  name: 'Part',
  enabled: true,
  invert: false,
  strength: 1,
  components: [
    {
      id: 'shape',
      mode: 'add',
      invert: false,
      opacity: 1,
      source: {
        kind: 'shape',
        inner: 0.02,
        outer: 0.02,
        shape: { kind: 'ellipse', centreX: x, centreY: y, radiusX: radius, radiusY: radius, rotationDegrees: 0 },
      },
    },
  ],
})

function carriedIn({ reference, shot }: MatchPair, region: Region): { sure: boolean; x: number; y: number } {
  const from = lightPicture(reference.frame, reference.grade, none)
  const places = carriedPlaces(from, lightPicture(shot.frame, shot.grade, none))
  const { region: carried, sure } = carriedRegion(region, from, places)
  const [{ source }] = carried.components as [Region['components'][0]]
  if (source.kind !== 'shape') throw new Error('It was a shape.')
  return { sure, ...centreOf(source.shape) }
}

/** Regions of what stayed, of what moved, and of pictures that have nothing in common. */
export function judgeCarried(stayed: number, moved: number, apart: number, scenes = judgedScenes()): CarriedRegions {
  const random = randomSource(77)
  const between = (a: number, b: number): number => a + (b - a) * random()
  const at = (n: number): string => scenes[n % scenes.length]!
  const off: number[] = []
  let regions = 0
  let wrong = 0
  const from = performance.now()
  for (let n = 0; n < stayed + moved; n++) {
    const gone = n < stayed ? 0 : between(0.05, 0.2) * (random() < 0.5 ? -1 : 1)
    const [x, y, radius] = [between(0.3, 0.7), between(0.3, 0.7), between(0.05, 0.12)]
    const visitor: Visitor | undefined = n < stayed ? undefined : { scene: at(n + 3), x, y, radius, gone }
    const pair = matchPair(at(n), 3001 + n * 19, visitor)
    const [u, v] = pair.lies!(x, y)
    // Where it has left the picture there is no right place.
    if (u + gone < 0.05 || u + gone > 0.95 || v < 0.05 || v > 0.95) continue
    regions++
    const found = carriedIn(pair, oval(x, y, radius * 1.5))
    if (found.sure) off.push(Math.hypot(found.x - u - gone, ((found.y - v) * 9) / 16))
  }
  for (let n = 0; n < apart; n++) {
    const pair = strangers(at(n), at(n + 1 + Math.floor(n / scenes.length)), 7001 + n * 23)
    if (carriedIn(pair, oval(between(0.3, 0.7), between(0.3, 0.7), between(0.08, 0.2))).sure) wrong++
  }
  return {
    regions,
    sure: off.sort((a, b) => a - b),
    strangers: apart,
    wrong,
    msEach: (performance.now() - from) / (stayed + moved + apart),
  }
}
