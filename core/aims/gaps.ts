// How far goals are from what is measured, and how much each counts.
import { turn } from '../readings'
import { goalsOf, tolerances, type Aim, type Goal, type Quantity } from './aim'
import type { Measured } from './measure'

/** A lower rank gives way almost wholly: what is known of the light is not bent for what a standard would like. */
export const rankWeights = { 1: 1, 2: 0.15, 3: 0.04 } as const

/**
 * Goals within this many tolerances of what is wanted are met; a solver that stops just short of one has not failed.
 */
export const metWithin = 1

/**
 * Tolerances that a place counts as being off where nothing can be measured in it: moves that make it so are no
 * solution.
 */
export const unmeasured = 40

/** What is measured on the whole frame. */
const restsOnAll = ({ want }: Aim): boolean => want.kind === 'level' || want.kind === 'chroma'

/** A solver looks beyond the ends of the signal; a display holds them. */
export const asShown = (quantity: Quantity, v: number | null): number | null =>
  v !== null && (quantity === 'level' || quantity === 'luma') ? Math.min(1, Math.max(0, v)) : v

const top = 0.9995
const bottom = 0.0005

/** How far a measure lies from its goal, in tolerances. */
export function gapOf({ quantity, value, bound }: Goal, is: number): number {
  const gap = (quantity === 'hue' ? turn(is - value) : is - value) / tolerances[quantity]
  if ((bound === 'most' && gap < 0) || (bound === 'least' && gap > 0)) return 0
  // At an end of the signal the wanted value is a bound: what lies further out is held there.
  if ((quantity === 'level' || quantity === 'luma') && ((value >= top && gap > 0) || (value <= bottom && gap < 0)))
    return 0
  return gap
}

/** Two measures of the same aims: the largest difference in tolerances. */
export const apartBy = (aims: readonly Aim[], a: Measured, b: Measured): number =>
  Math.max(
    0,
    ...aims.flatMap(({ id, want }) =>
      goalsOf(want).map(({ quantity }, i) =>
        Math.abs(((a.get(id)?.[i] ?? 0) - (b.get(id)?.[i] ?? 0)) / tolerances[quantity]),
      ),
    ),
  )

export type Offsets = ReadonlyMap<string, number>

/** What many pixels measure over what few do, for aims that rest on the whole frame. */
export const offsetsOf = (aims: readonly Aim[], full: Measured, sampled: Measured): Offsets =>
  new Map(aims.filter(restsOnAll).map(({ id }) => [id, (full.get(id)?.[0] ?? 0) - (sampled.get(id)?.[0] ?? 0)]))

export const shifted = (sampled: Measured, offsets: Offsets): Measured =>
  new Map([...sampled].map(([id, values]) => [id, values.map((v) => (v === null ? null : v + (offsets.get(id) ?? 0)))]))
