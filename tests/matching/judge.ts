// Judges matching on made pairs: how near the shot comes to what it would look like seen as the reference was, and
// whether scenes that have nothing in common are told so.
import { lightPicture, matchChoices, matchPictures, sameView } from '@core/matching'
import { demoShots } from '../../demo/shots'
import { judgingPhotographs, photographsAreThere } from '../guess/photographs'
import { errorsOf, matchPair, otherAngle, strangers, type MatchPair } from './pairs'

const none = (): undefined => undefined

export interface Judged {
  readonly pairs: number
  readonly matched: number
  /** ΔE 2000 over all shared surfaces of all matched pairs, sorted. */
  readonly errors: readonly number[]
  /** The middle one of each matched pair, and before matching. */
  readonly medians: readonly number[]
  readonly mediansBefore: readonly number[]
  readonly declined: readonly string[]
  readonly strangers: number
  readonly taken: readonly string[]
  readonly msEach: number
}

/** Scenes that nothing was tuned on: the demo's plates, and photographs for judging where they are installed. */
export const judgedScenes = (): readonly string[] => [
  ...new Map(demoShots.map((s) => [s.plate, s.id])).values(),
  ...(photographsAreThere() ? judgingPhotographs : []),
]

const middle = (sorted: readonly number[]): number => sorted[sorted.length >> 1] ?? Number.NaN

export function matched({ reference, shot }: MatchPair): ReturnType<typeof matchPictures> {
  return matchPictures(
    { light: lightPicture(reference.frame, reference.grade, none), grade: reference.grade },
    { light: lightPicture(shot.frame, shot.grade, none), grade: shot.grade },
    none,
  )
}

export function judgeMatching(pairs: number, apart: number, scenes = judgedScenes()): Judged {
  const errors: number[] = []
  const medians: number[] = []
  const mediansBefore: number[] = []
  const declined: string[] = []
  let ms = 0
  for (let n = 0; n < pairs; n++) {
    const pair = matchPair(scenes[n % scenes.length] ?? '', 1001 + n * 13)
    const from = performance.now()
    const match = matched(pair)
    ms += performance.now() - from
    if (!match) {
      declined.push(pair.name)
      continue
    }
    const after = errorsOf(pair, match.grade)
    if (after.length === 0) continue
    errors.push(...after)
    medians.push(middle(after))
    mediansBefore.push(middle(errorsOf(pair, pair.shot.grade)))
  }
  const taken: string[] = []
  for (let n = 0; n < apart; n++) {
    const step = 1 + Math.floor(n / scenes.length)
    const pair = strangers(scenes[n % scenes.length] ?? '', scenes[(n + step) % scenes.length] ?? '', 5001 + n * 17)
    const { reference, shot } = pair
    if (sameView(lightPicture(reference.frame, reference.grade, none), lightPicture(shot.frame, shot.grade, none)))
      taken.push(pair.name)
  }
  return {
    pairs,
    matched: medians.length,
    errors: errors.sort((a, b) => a - b),
    medians,
    mediansBefore,
    declined,
    strangers: apart,
    taken,
    msEach: ms / pairs,
  }
}

export interface JudgedAngles {
  readonly pairs: number
  readonly offered: number
  /** The middle ΔE 2000 of each offered pair over its whole picture, before and after. */
  readonly before: readonly number[]
  readonly after: readonly number[]
  /** Offered, and farther from the truth than before. */
  readonly worse: readonly string[]
  readonly sure: number
  readonly strangers: number
  readonly taken: readonly string[]
}

/** One scene from elsewhere, where colour alone can tell; and scenes that have nothing in common. */
export function judgeOtherAngles(pairs: number, apart: number, scenes = judgedScenes()): JudgedAngles {
  const before: number[] = []
  const after: number[] = []
  const worse: string[] = []
  let sure = 0
  const byColour = ({ reference, shot }: MatchPair) => {
    const side = ({ frame, grade }: MatchPair['shot']) => ({ light: lightPicture(frame, grade, none), grade })
    const answer = matchChoices(side(reference), side(shot), none)
    return answer.by === 'colours' ? answer.choices[0] : undefined
  }
  for (let n = 0; n < pairs; n++) {
    const pair = otherAngle(scenes[n % scenes.length] ?? '', 2001 + n * 13)
    const choice = byColour(pair)
    if (!choice) continue
    const was = middle(errorsOf(pair, pair.shot.grade))
    const is = middle(errorsOf(pair, choice.grade))
    before.push(was)
    after.push(is)
    if (choice.sure) sure++
    if (is > was) worse.push(`${pair.name} ${was.toFixed(1)} → ${is.toFixed(1)}`)
  }
  const taken: string[] = []
  for (let n = 0; n < apart; n++) {
    const step = 1 + Math.floor(n / scenes.length)
    const pair = strangers(scenes[n % scenes.length] ?? '', scenes[(n + step) % scenes.length] ?? '', 6001 + n * 17)
    if (byColour(pair)) taken.push(pair.name)
  }
  return { pairs, offered: after.length, before, after, worse, sure, strangers: apart, taken }
}
