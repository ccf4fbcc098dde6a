// What a row of the Reel says about a shot, and how shots are found and put in order.
import { encodingById, isEncodingId } from '@core/colour'
import { rateName, speedOf, timecodeAt } from '@core/footage'
import { encodingOf } from '@core/grade'
import type { ShotSummary } from '@contracts/responses'
import { isAsked } from '../../components/first-reading/asked'
import { text } from './text'
import type { Standing } from '../../composables/useStandings'

export const rateOf = ({ media }: ShotSummary): { numerator: number; denominator: number } => ({
  numerator: media.rateNumerator,
  denominator: media.rateDenominator,
})
export const lengthOf = (shot: ShotSummary): string =>
  `${shot.frameCount} frames · ` +
  `${((shot.frameCount * shot.media.rateDenominator) / shot.media.rateNumerator).toFixed(1)} s`
export const startOf = (shot: ShotSummary): string => timecodeAt(shot.firstFrame, shot.media, shot.media.startTimecode)
export const sizeOf = (shot: ShotSummary): string =>
  `${shot.media.width}×${shot.media.height} · ${rateName(rateOf(shot))} fps`
export const sourceOf = ({ media }: ShotSummary): string =>
  `${media.bitDepth === 32 ? 'float' : `${media.bitDepth} bit`} · ${media.chroma} · ${media.range}`

const nameOf = (encodingId: string): string => (isEncodingId(encodingId) ? encodingById(encodingId).name : encodingId)

/** It is seen as its file looks, as it opened. */
const asItLooks = ({ guess, read }: ShotSummary): boolean =>
  guess?.opening.because === 'as it looks' && guess.opening.encodingId === read.encodingId

/** The encoding a shot is read by agrees with what its pixels or its tags say. */
const agrees = ({ guess, read }: ShotSummary): boolean =>
  guess !== null && (guess.encodingId === read.encodingId || guess.alike.includes(read.encodingId))

/** How sure the encoding is, in words, and as a number to sort by (surest first). */
export function certaintyOf(shot: ShotSummary): { readonly words: string; readonly order: number } {
  const { guess } = shot
  if (!guess) return { words: text.waiting, order: 1 }
  if (asItLooks(shot)) return isAsked(shot) ? { words: text.asked, order: 2 } : { words: text.asItLooks, order: 0 }
  if (agrees(shot))
    return guess.tagged
      ? { words: text.byTag, order: -1 }
      : { words: text.certain(guess.probability), order: 1 - guess.probability }
  if (guess.probability < 0.35) return { words: text.unsure, order: 1.5 }
  return {
    words: text.unlike(
      nameOf(guess.encodingId) + (guess.alike.length > 1 ? text.alike(guess.alike.length - 1) : ''),
      guess.probability,
    ),
    order: 2,
  }
}

export function warningsOf(shot: ShotSummary): readonly string[] {
  const { media, guess, played } = shot
  const words: string[] = []
  if (guess?.rangeConflict) words.push(text.warn.range)
  if (guess?.opening.because === 'sure' && !agrees(shot)) words.push(text.warn.encoding)
  if (media.variableRate) words.push(text.warn.variable(media.variableRate[0], media.variableRate[1]))
  if (media.interlaced) words.push(text.warn.interlaced)
  if (media.bitDepth === 8 && isEncodingId(shot.read.encodingId) && encodingById(shot.read.encodingId).group === 'log')
    words.push(text.warn.eightBitLog)
  if (played) words.push(text.warn.timebase((speedOf(rateOf(shot), played) * 100).toFixed(0)))
  if (media.rotation !== 0) words.push(text.warn.turned)
  return words
}

/** All that the file says, as pairs of a word and its value. */
export function fileFacts({ media }: ShotSummary): readonly (readonly [string, string])[] {
  const tag = (value: string | undefined, known: boolean): string =>
    known && value ? value : `${value ?? '–'}, not stated`
  return [
    ['file', `${media.codec} in ${media.container}`],
    ['size', `${media.width}×${media.height}${media.rotation === 0 ? '' : `, turned by ${media.rotation}°`}`],
    ['pixel shape', media.pixelAspect.join(':')],
    ['samples', `${media.storedFormat}, ${sourceOf({ media } as ShotSummary)}`],
    ['range', tag(media.range, media.rangeTagged)],
    ['matrix', tag(media.matrix, media.matrixTagged)],
    ['primaries', media.primaries ?? 'not stated'],
    ['transfer', media.transfer ?? 'not stated'],
    [
      'rate',
      media.variableRate
        ? `${media.variableRate[0]} to ${media.variableRate[1]} fps, varying`
        : `${media.rateNumerator}/${media.rateDenominator} fps`,
    ],
    ['length', `${media.frameCount} frames, ${media.durationSeconds.toFixed(2)} s`],
    ['timecode', media.startTimecode ?? 'none'],
    ...(media.said ?? []),
    ['fields', media.interlaced ? `interlaced, ${media.interlaced}; taken apart for the picture` : 'progressive'],
  ]
}

export type SortKey = 'position' | 'name' | 'scene' | 'encoding' | 'source' | 'state' | 'readings' | 'warnings'
const states = ['new', 'corrected', 'matched', 'finished']

const compare: Readonly<Record<Exclude<SortKey, 'readings'>, (a: ShotSummary, b: ShotSummary) => number>> = {
  position: () => 0,
  name: (a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }),
  scene: (a, b) => (a.scene ?? '\uffff').localeCompare(b.scene ?? '\uffff', 'en', { numeric: true }),
  encoding: (a, b) =>
    encodingOf(a.read).name.localeCompare(encodingOf(b.read).name, 'en', { numeric: true }) ||
    certaintyOf(a).order - certaintyOf(b).order,
  source: (a, b) => a.media.bitDepth - b.media.bitDepth || a.media.chroma.localeCompare(b.media.chroma),
  state: (a, b) => states.indexOf(a.state) - states.indexOf(b.state) || a.revisionDepth - b.revisionDepth,
  warnings: (a, b) => warningsOf(b).length - warningsOf(a).length,
}

/** Shots in another order; equal ones stay as they stand on the reel. */
export function sorted(
  shots: readonly ShotSummary[],
  key: SortKey,
  downward: boolean,
  standings: ReadonlyMap<string, Standing>,
): readonly ShotSummary[] {
  // What lies outside most comes first; what is not measured yet, last.
  const by =
    key === 'readings'
      ? (a: ShotSummary, b: ShotSummary): number =>
          (standings.get(b.id)?.length ?? -1) - (standings.get(a.id)?.length ?? -1)
      : compare[key]
  return [...shots].sort((a, b) => (by(a, b) || a.position - b.position) * (downward ? -1 : 1))
}

/** True when every word is found in what the row says. */
export function fits(shot: ShotSummary, words: string): boolean {
  const said = [
    shot.name,
    shot.scene,
    shot.cameraName,
    encodingOf(shot.read).name,
    shot.state,
    sourceOf(shot),
    sizeOf(shot),
    ...warningsOf(shot),
  ]
    .join(' ')
    .toLowerCase()
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => said.includes(word))
}

/** The standing in a few words, and in full. */
export function standingOf(standing: Standing | undefined): {
  readonly words: string
  readonly full: string
  readonly off: boolean
} {
  if (!standing) return { words: text.measuring, full: text.tips.readings, off: false }
  if (standing.length === 0) return { words: text.allWithin, full: text.tips.readings, off: false }
  return {
    words: text.outside(standing.length),
    full: standing
      .slice(0, 4)
      .map((r) => r.sentence)
      .join('\n'),
    off: true,
  }
}
