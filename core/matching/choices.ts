// What matching offers: all that differs, or the colour of the light alone. Nothing where two pictures share nothing.
import { withControlsAt } from '../aims'
import { setShowParameter, type GradeDocument, type LutFinder } from '../grade'
import { matchPictures, type Matchable } from './match'
import { solveMatch, type Match, type MatchMove } from './solve'

export type MatchChoiceId = 'all' | 'colour'

export interface MatchChoice {
  readonly id: MatchChoiceId
  readonly name: string
  readonly sentence: string
  /** What it changes, in words; empty where the shots are alike already. */
  readonly changes: readonly string[]
  readonly moves: readonly MatchMove[]
  /** The shot's state on its frame, matched. */
  readonly grade: GradeDocument
}

/** The document with a choice taken, as it was made for one of its frames. */
export function applyMatch(
  document: GradeDocument,
  { moves, grade: { show } }: Pick<MatchChoice, 'moves' | 'grade'>,
  frame: number,
): GradeDocument {
  return setShowParameter(withControlsAt(document, moves, frame), 'sceneMaximumStops', show.params.sceneMaximumStops)
}

export interface MatchAnswer {
  readonly note: string
  /** Empty where nothing is shared. */
  readonly choices: readonly MatchChoice[]
}

/** A difference that nobody sees at a cut. */
const alike = 1

export function matchChoices(reference: Matchable, shot: Matchable, lut: LutFinder): MatchAnswer {
  const whole = matchPictures(reference, shot, lut)
  if (!whole) return { note: 'Nothing is seen in both pictures by which they could be matched.', choices: [] }
  if (whole.medianBefore < alike) {
    const sentence = `ΔE ${whole.medianBefore.toFixed(1)} over ${surfacesOf(whole)}: they are alike already.`
    return {
      note: sentence,
      choices: [{ id: 'all', name: 'Match', sentence, changes: [], moves: [], grade: shot.grade }],
    }
  }
  const colour = solveMatch(whole.surfaces, reference.grade, shot.grade, lut, ['temperature', 'tint'])
  const choices: MatchChoice[] = [
    { id: 'all', name: 'Match', sentence: sentenceOf(whole), ...changesOf(whole) },
    ...(colour && colour.moved.length > 0
      ? [
          {
            id: 'colour' as const,
            name: 'Colour of the light only',
            sentence: `Hour and weather stay as they were. ${sentenceOf(colour)}`,
            ...changesOf(colour),
          },
        ]
      : []),
  ]
  return { note: choices[0]?.sentence ?? '', choices }
}

const surfacesOf = ({ surfaces }: Match): string => {
  const used = surfaces.filter((s) => !s.struck).length
  return used === 1 ? '1 shared surface' : `${used} shared surfaces`
}
const changesOf = ({ moved, grade }: Match): Pick<MatchChoice, 'changes' | 'moves' | 'grade'> => ({
  changes: moved.map((m) => m.words),
  moves: moved,
  grade,
})

function sentenceOf(match: Match): string {
  const struck = match.surfaces.filter((s) => s.struck).length
  const parts = [
    `ΔE ${match.medianBefore.toFixed(1)} → ${match.medianAfter.toFixed(1)} over ${surfacesOf(match)}.`,
    ...(struck > 0 ? [`${struck} left out: ${struck === 1 ? 'it' : 'they'} changed between the shots.`] : []),
    ...(match.limited.length > 0 ? [`At its limit: ${match.limited.join(', ')}.`] : []),
  ]
  return parts.join(' ')
}
