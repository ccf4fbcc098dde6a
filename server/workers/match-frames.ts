// Two shots' frames matched, or a shot's places to swatches of another picture, as a thread is asked for it.
import {
  lightPicture,
  matchChoices,
  matchSwatches,
  type MatchAnswer,
  type Matchable,
  type Swatch,
  type SwatchAnswer,
} from '@core/matching'
import type { Pointed } from '@core/readings'
import { framesOf, lutFinder, type GradeTask } from './kept'

/** Its grade is the state on its frame. */
export interface MatchSide extends GradeTask {
  readonly pointed: Pointed
}
export interface MatchTask {
  readonly reference: MatchSide
  readonly shot: MatchSide
  /** Ids of surfaces that a person struck. */
  readonly without: readonly number[]
  readonly maxWidth: number
  readonly maxHeight: number
}

export function matchFrames({ reference, shot, without, maxWidth, maxHeight }: MatchTask): MatchAnswer {
  const lut = lutFinder([...reference.luts, ...shot.luts])
  const side = ({ source, grade, pointed }: MatchSide): Matchable => ({
    light: lightPicture(framesOf({ source }, maxWidth, maxHeight), grade, lut),
    grade,
    pointed,
  })
  return matchChoices(side(reference), side(shot), lut, without)
}

export interface SwatchTask extends GradeTask {
  readonly swatches: readonly Swatch[]
  readonly maxWidth: number
  readonly maxHeight: number
}
/** Null where none of the shot's places can be read. */
export function matchToSwatches({
  source,
  grade,
  luts,
  swatches,
  maxWidth,
  maxHeight,
}: SwatchTask): SwatchAnswer | null {
  const lut = lutFinder(luts)
  return matchSwatches(lightPicture(framesOf({ source }, maxWidth, maxHeight), grade, lut), grade, swatches, lut)
}
