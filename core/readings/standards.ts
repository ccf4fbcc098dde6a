// House standards: named targets with their tolerances. Practitioners disagree; each school is a standard, and a scene picks one.

/** Levels that count as met, as shares of the display signal. */
export interface Band { readonly low: number; readonly high: number }

export interface HouseStandard {
  readonly id: string
  readonly name: string
  readonly tip: string
  /** Where 0.1 % of the pixels lie below, and 99.9 %; null where the school leaves them alone. */
  readonly black: Band | null
  readonly white: Band | null
}

const band = (low: number, high: number): Band => ({ low: low / 100, high: high / 100 })

export const houseStandards: readonly HouseStandard[] = [
  { id: 'broad-day', name: 'Broad day', tip: 'Blacks a little over zero, whites with room above them.', black: band(2, 5), white: band(90, 97) },
  { id: 'full-stretch', name: 'Full stretch', tip: 'Blacks at zero, whites at the top.', black: band(0, 1), white: band(97, 100) },
  { id: 'lifted', name: 'Lifted blacks', tip: 'Soft blacks and held whites, as faded paper.', black: band(6, 11), white: band(85, 92) },
  { id: 'night', name: 'Night', tip: 'Deep blacks; no white is asked for, as the scene may hold none.', black: band(0, 3), white: null },
  { id: 'as-lit', name: 'As it was lit', tip: 'No stretch: black and white stay where the scene puts them.', black: null, white: null },
]

export const defaultStandardId = 'broad-day'
const byId = new Map(houseStandards.map((s) => [s.id, s]))
export const isStandardId = (id: unknown): id is string => typeof id === 'string' && byId.has(id)

/** The standard of an id; the default one for ids that are not known any more. */
export const standardById = (id: string): HouseStandard => byId.get(id) ?? byId.get(defaultStandardId)!

export type Verdict = 'met' | 'low' | 'high'

/** Where a level stands to its target; null where there is none. Levels within a tenth of a percent of the band meet it. */
export function verdictOf(level: number, target: Band | null): Verdict | null {
  if (target === null) return null
  const slack = 0.001
  return level < target.low - slack ? 'low' : level > target.high + slack ? 'high' : 'met'
}
