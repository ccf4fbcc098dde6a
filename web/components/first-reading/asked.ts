// Which shots it is asked of what they were written in: opened as they look, though flat, and nobody has said.
import type { ShotSummary } from '@contracts/responses'

export const isAsked = ({ guess, read, staysAsItLooks }: ShotSummary): boolean =>
  guess !== null && guess.opening.asks && !staysAsItLooks && read.encodingId === guess.opening.encodingId

/** The others among these shots that are asked of and are of files like this one's. */
export const askedLike = (shot: ShotSummary, among: readonly ShotSummary[]): readonly string[] =>
  shot.likeness === ''
    ? []
    : among.filter((s) => s.id !== shot.id && s.likeness === shot.likeness && isAsked(s)).map((s) => s.id)

const numbers = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine']
const counted = (count: number): string => numbers[count] ?? String(count)

export const text = {
  asks: 'This looks flat: which is it?',
  asksOf: (name: string): string => `“${name}” looks flat: which is it?`,
  why: 'It is shown as its file looks. What it was written in decides how light is read from it.',
  share: (probability: number): string => `${Math.round(probability * 100)} %`,
  readAs: (name: string): string => `Read as ${name}`,
  stays: 'As it looks',
  staysTip: 'It is meant to be seen like this: read as finished video, and asked no more.',
  usual: (shots: number, name: string): string =>
    shots === 1 ? `One like it is read as ${name}` : `${counted(shots)} like it are read as ${name}`,
  estimate: 'None of these: estimate it',
  estimateTip: 'Fits a curve to what the clip shows: its noise, a grey card, another exposure, another camera.',
  usualTip: 'Files of the same camera and setting, by what they say of themselves, their size and their highest code.',
  others: (count: number): string => (count === 1 ? 'and the one like it' : `and the ${count} like it`),
} as const
