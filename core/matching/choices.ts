// What matching offers, by what it rests on, in the order of trust: surfaces that lie alike in both, the same subject,
// a card, colours that stand in the same relation, or, where nothing is shared, overall tone.
import { withControlsAt, type ControlId } from '../aims'
import { setShowParameter, type GradeDocument, type LutFinder } from '../grade'
import { nothingPointed } from '../readings'
import { matchPictures, type Matchable } from './match'
import { overallSurfaces } from './overall'
import { surfacesByColour } from './other-angle'
import { sharedCard, sharedSubjects } from './pointed'
import { solveMatch } from './solve'
import { matchControls, type Match, type MatchedSurface, type MatchMove } from './toward'
import type { SharedSurface } from './surfaces'

/** `all` that differs; the `colour` of the light alone; the `people` alone; `half` the way; or overall `tone`. */
export const matchChoiceIds = ['all', 'colour', 'people', 'half', 'tone'] as const
export type MatchChoiceId = (typeof matchChoiceIds)[number]
export type MatchEvidence = 'surfaces' | 'subject' | 'card' | 'colours'

export interface MatchChoice {
  readonly id: MatchChoiceId
  readonly name: string
  readonly sentence: string
  /** Two pictures that share nothing are never made alike by more than their mood. */
  readonly sure: boolean
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
  /** What the first choice rests on; null where the shots share nothing. */
  readonly by: MatchEvidence | null
  readonly choices: readonly MatchChoice[]
  /** What was compared, for the first choice. */
  readonly surfaces: readonly MatchedSurface[]
}

/** A difference that nobody sees at a cut. */
const alike = 1
/** What colours alone come to must be this near, and this much nearer than before. */
const likely = { most: 3, share: 0.6 } as const
const ofTheLight: readonly ControlId[] = ['exposure', 'temperature', 'tint']

/** @param without ids of surfaces that a person struck */
export function matchChoices(
  reference: Matchable,
  shot: Matchable,
  lut: LutFinder,
  without: readonly number[] = [],
): MatchAnswer {
  const solve = (surfaces: readonly SharedSurface[], moving: readonly ControlId[]): Match | null =>
    solveMatch(surfaces, reference.grade, shot.grade, lut, { moving, known: true })
  const here = { light: reference.light, pointed: reference.pointed ?? nothingPointed }
  const there = { light: shot.light, pointed: shot.pointed ?? nothingPointed }
  const subjects = sharedSubjects(here, there)
  const names = subjects.map((s) => s.name).join(' and ')
  const people = solve(
    subjects.map((s) => s.surface),
    ofTheLight,
  )
  const ofPeople = choiceOf(
    'people',
    'People only',
    people,
    `${names} as in the reference; weather and hour stay as they were.`,
  )

  const whole = matchPictures(reference, shot, lut, without)
  if (whole) {
    if (whole.medianBefore < alike) return alikeAlready(whole, shot.grade, 'surfaces')
    const colour = solveMatch(whole.surfaces, reference.grade, shot.grade, lut, { moving: ['temperature', 'tint'] })
    const choices = [
      ...choiceOf('all', 'Match', whole),
      ...ofPeople,
      ...choiceOf('colour', 'Colour of the light only', colour, 'Hour and weather stay as they were.'),
      ...halfOf(whole, shot.grade),
    ]
    return { note: choices[0]?.sentence ?? '', by: 'surfaces', choices, surfaces: whole.surfaces }
  }
  const card = sharedCard(here, there)
  const known = people ?? solve(card, ofTheLight)
  if (known) {
    const by = people ? 'subject' : 'card'
    if (known.medianBefore < alike) return alikeAlready(known, shot.grade, by)
    const what = people ? names : 'The grey card'
    const choices = [
      ...choiceOf('all', 'Match', known, `${what} as in the reference. No other surface is seen in both.`),
      ...halfOf(known, shot.grade),
    ]
    return { note: choices[0]?.sentence ?? '', by, choices, surfaces: known.surfaces }
  }
  const byColour = solve(
    surfacesByColour(reference.light, shot.light).filter((s) => !without.includes(s.id)),
    matchControls,
  )
  if (byColour && byColour.medianAfter < Math.min(likely.most, byColour.medianBefore * likely.share)) {
    const choices = [
      ...choiceOf('all', 'Match by colours', byColour, 'Another view: like colours are taken for the same things.'),
      ...halfOf(byColour, shot.grade),
    ].map((choice) => ({ ...choice, sure: false }))
    return { note: choices[0]?.sentence ?? '', by: 'colours', choices, surfaces: byColour.surfaces }
  }
  const tone = solve(overallSurfaces(reference.light, shot.light), ofTheLight)
  const note = 'Nothing is seen in both pictures by which they could be matched.'
  const choices = choiceOf('tone', 'Overall tone', tone).map((choice) => ({
    ...choice,
    sure: false,
    sentence: `${note} This brings light and colour of the whole nearer.`,
  }))
  return { note, by: null, choices, surfaces: [] }
}

function choiceOf(id: MatchChoiceId, name: string, match: Match | null, first = ''): readonly MatchChoice[] {
  if (!match || match.moved.length === 0) return []
  const { moved, grade } = match
  const sentence = [first, sentenceOf(match)].filter(Boolean).join(' ')
  return [{ id, name, sentence, sure: true, changes: moved.map((m) => m.words), moves: moved, grade }]
}

function alikeAlready(match: Match, grade: GradeDocument, by: MatchEvidence): MatchAnswer {
  const sentence = `ΔE ${match.medianBefore.toFixed(1)} over ${surfacesOf(match)}: they are alike already.`
  const choice = { id: 'all', name: 'Match', sentence, sure: true, changes: [], moves: [], grade } as const
  return { note: sentence, by, choices: [choice], surfaces: match.surfaces }
}

/** Half of every move: the reference is to come the other half. */
function halfOf(match: Match, from: GradeDocument): readonly MatchChoice[] {
  if (match.moved.length === 0) return []
  const moves = match.moved.map(({ control, from: was, to }) => ({ control, from: was, to: (was + to) / 2, words: '' }))
  const grade = withControlsAt(from, moves, 0)
  return [
    {
      id: 'half',
      name: 'Half-way',
      sentence: 'Half of each move. Split the difference moves the reference by the other half.',
      sure: true,
      changes: match.moved.map(({ words }) => `half of ${words}`),
      moves,
      grade,
    },
  ]
}

const surfacesOf = ({ surfaces }: Match): string => {
  const used = surfaces.filter((s) => !s.struck).length
  return used === 1 ? '1 shared surface' : `${used} shared surfaces`
}

function sentenceOf(match: Match): string {
  const struck = match.surfaces.filter((s) => s.struck).length
  const parts = [
    `ΔE ${match.medianBefore.toFixed(1)} → ${match.medianAfter.toFixed(1)} over ${surfacesOf(match)}.`,
    ...(struck > 0 ? [`${struck} left out: ${struck === 1 ? 'it' : 'they'} changed between the shots.`] : []),
    ...(match.limited.length > 0 ? [`At its limit: ${match.limited.join(', ')}.`] : []),
  ]
  return parts.join(' ')
}
