// House standards: named targets with their tolerances. Practitioners disagree; each school is a standard, and a scene
// picks one.
import { readingKind, type ReadingId } from './kinds'

/** Where a reading should lie, in the reading's own carried unit, and how far beyond it may lie before it counts. */
export interface Target {
  readonly low: number
  readonly high: number
  readonly tolerance: number
}

/** What a reading is held against. A reading without a target is shown and never counts. */
export type Targets = Readonly<Partial<Record<ReadingId, Target>>>

export interface HouseStandard {
  readonly id: string
  readonly name: string
  readonly tip: string
  readonly targets: Targets
}

const share = (low: number, high: number, tolerance = 0.1): Target => ({
  low: low / 100,
  high: high / 100,
  tolerance: tolerance / 100,
})
const plain = (low: number, high: number, tolerance = 0): Target => ({ low, high, tolerance })

/** What every school asks for: nothing lost that can be helped, neutral greys, a card where it belongs, clean steps. */
const common: Targets = {
  clipped: share(0, 0.5, 0),
  crushed: share(0, 0.5, 0),
  castMids: plain(0, 3, 0.3),
  castWhites: plain(0, 3, 0.3),
  castBlacks: plain(0, 4, 0.4),
  neutrals: plain(0, 3, 0.3),
  cardExposure: plain(-0.15, 0.15, 0.01),
  cardWhite: plain(0, 2, 0.2),
  skinHue: plain(-5, 5, 0.5),
  skinChroma: share(-6, 6, 0.5),
  saturationTop: share(0, 75, 0.5),
  outOfGamut: share(0, 1, 0),
  outOfRange: share(0, 1, 0),
  noise: share(0, 1, 0.02),
  banding: share(0, 2, 0),
  range: share(0, 0.1, 0),
}

export const houseStandards: readonly HouseStandard[] = [
  {
    id: 'common-ground',
    name: 'Common ground',
    tip: 'What no school disputes. Finished pictures of every kind lie within it; what lies outside is a fault.',
    targets: {
      ...common,
      black: share(0, 8),
      white: share(82, 100),
      contrastRange: plain(2.8, 12, 0.1),
      neutrals: plain(0, 5.5, 0.3),
      castBlacks: plain(0, 7, 0.3),
      castMids: plain(0, 5.5, 0.3),
      castWhites: plain(0, 5.5, 0.3),
      saturationTop: share(0, 90, 0.5),
      noise: share(0, 2.5, 0.02),
    },
  },
  {
    id: 'broad-day',
    name: 'Broad day',
    tip: 'Blacks a little over zero, whites with room above them.',
    targets: { ...common, black: share(2, 5), white: share(90, 97), contrastRange: plain(4.5, 8, 0.1) },
  },
  {
    id: 'full-stretch',
    name: 'Full stretch',
    tip: 'Blacks at zero, whites at the top.',
    targets: { ...common, black: share(0, 1), white: share(97, 100), contrastRange: plain(5, 10, 0.1) },
  },
  {
    id: 'lifted',
    name: 'Lifted blacks',
    tip: 'Soft blacks and held whites, as faded paper.',
    targets: { ...common, black: share(6, 11), white: share(85, 92), contrastRange: plain(3, 6, 0.1) },
  },
  {
    id: 'key-lit',
    name: 'Key-lit studio',
    tip: 'A lit face: skin at 70 to 75 %, whites held, blacks clean.',
    targets: { ...common, black: share(1, 4), white: share(88, 96), skinLuma: share(70, 75, 0.5) },
  },
  {
    id: 'night',
    name: 'Night',
    tip: 'Deep blacks; no white is asked for, as the scene may hold none. Skin at 40 to 60 %.',
    targets: { ...common, black: share(0, 3), crushed: share(0, 3, 0), skinLuma: share(40, 60, 0.5) },
  },
  {
    id: 'as-lit',
    name: 'As it was lit',
    tip: 'No stretch and no neutralising: black, white and the colour of the light stay as the scene puts them.',
    targets: { clipped: share(0, 2, 0), crushed: share(0, 2, 0), outOfRange: share(0, 1, 0), range: share(0, 0.1, 0) },
  },
]

export const defaultStandardId = 'common-ground'
const byId = new Map(houseStandards.map((s) => [s.id, s]))
const defaultStandard = byId.get(defaultStandardId) ?? houseStandards[0]

/**
 * The standard of an id among those that ship and the user's own; the default one for ids that are not known any more.
 */
export const standardById = (id: string, own: readonly HouseStandard[] = []): HouseStandard =>
  own.find((s) => s.id === id) ?? byId.get(id) ?? defaultStandard

export const isShippedStandard = (id: string): boolean => byId.has(id)

export type Verdict = 'met' | 'low' | 'high'

/** Where a number stands to its target; null where there is none. */
export function verdictOf(value: number, target: Target | null | undefined): Verdict | null {
  if (!target) return null
  // A hair more than the tolerance, so that a number on the line is not judged by its last bit.
  const slack = target.tolerance + 1e-9
  if (value < target.low - slack) return 'low'
  if (value > target.high + slack) return 'high'
  return 'met'
}

/** How many of the kind's steps a number lies outside its target; 0 where it meets it. */
export function stepsOutside(id: ReadingId, value: number, target: Target): number {
  const verdict = verdictOf(value, target)
  if (verdict === 'met' || verdict === null) return 0
  return (verdict === 'low' ? target.low - value : value - target.high) / readingKind(id).weighs
}
