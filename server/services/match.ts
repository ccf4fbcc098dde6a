// Matching one shot to another: what would be moved, with small pictures. Asking changes nothing.
import { LRUCache } from 'lru-cache'
import type { ShotDetail, ShotProposal } from '@contracts/responses'
import { pointedAt } from '@core/readings'
import { applyMatch, applySwatches, type MatchAnswer, type MatchChoiceId, type Swatch } from '@core/matching'
import type { ServerContext } from '../context'
import { findShot } from '../db/shots'
import { notFound, Problem } from '../problem'
import { thumbnailThrough } from './thumbnails'
import type { MatchSide } from '../workers/match-frames'

const kept = 500
const unreadable = (count: number, of: number): string =>
  `${count} of ${of} ${of === 1 ? 'place' : 'places'} of this shot cannot be read: too small, or clipped by the camera.`
const size = { maxWidth: 960, maxHeight: 540 } as const

export interface Pair {
  readonly shotId: string
  readonly referenceId: string
  /** Ids of shared surfaces that a person struck. */
  readonly without: readonly number[]
}
export interface MatchReader {
  readonly of: (pair: Pair) => Promise<ShotProposal>
  /** A frame of a shot moved until its places look as those of another picture that they were paired with. */
  readonly swatches: (shot: ShotDetail, frame: number, pairs: readonly Swatch[]) => Promise<ShotProposal>
  /** The PNG of the shot's lead frame through a choice. Throws 404 where there is no such choice. */
  readonly picture: (pair: Pair, choiceId: MatchChoiceId) => Promise<Uint8Array>
}

interface Found {
  readonly shot: ShotDetail
  readonly reference: ShotDetail
  readonly without: readonly number[]
}
type Context = Pick<ServerContext, 'pool' | 'frames' | 'workers' | 'store'>

export function matchReader(context: Context): MatchReader {
  const { pool, frames, workers } = context
  const answers = new LRUCache<string, Promise<MatchAnswer>>({ max: kept })

  const sideOf = async (shot: ShotDetail): Promise<MatchSide> => ({
    ...(await frames.gradeTask(shot.media.hash, shot.leadFrame, shot.revision.grade, shot)),
    pointed: pointedAt(shot.leadFrame, shot),
  })
  const stateOf = (shot: ShotDetail): unknown => [shot.headId, shot.leadFrame, pointedAt(shot.leadFrame, shot)]
  function answerTo({ shot, reference, without }: Found): Promise<MatchAnswer> {
    const ask = async (): Promise<MatchAnswer> => {
      const [ofReference, ofShot] = await Promise.all([sideOf(reference), sideOf(shot)])
      return workers.match({ reference: ofReference, shot: ofShot, without, ...size })
    }
    const key = JSON.stringify([stateOf(shot), stateOf(reference), without])
    const answer = answers.get(key) ?? ask()
    answers.set(key, answer)
    answer.catch(() => answers.delete(key))
    return answer
  }
  async function both({ shotId, referenceId, without }: Pair): Promise<Found> {
    const [shot, reference] = await Promise.all([findShot(pool, shotId), findShot(pool, referenceId)])
    if (!shot || !reference) throw notFound('shot')
    if (shot.projectId !== reference.projectId)
      throw new Problem(422, 'invalid', 'The reference is a shot of another project.', { field: 'reference' })
    if (shot.id === reference.id)
      throw new Problem(422, 'invalid', 'A shot cannot be matched to itself.', { field: 'reference' })
    return { shot, reference, without: [...without].sort((a, b) => a - b) }
  }

  return {
    of: async (pair) => {
      const found = await both(pair)
      const { shot } = found
      const { note, choices, surfaces } = await answerTo(found)
      return {
        shotId: shot.id,
        headId: shot.headId,
        note,
        choices: choices.map((choice) => ({
          id: choice.id,
          name: choice.name,
          sentence: choice.sentence,
          sure: choice.sure,
          changes: choice.changes,
          grade: applyMatch(shot.revision.grade, choice, shot.leadFrame),
        })),
        surfaces: surfaces.map(({ here: _, there: __, ...seen }) => seen),
      }
    },
    swatches: async (shot, frame, pairs) => {
      const task = await frames.gradeTask(shot.media.hash, frame, shot.revision.grade, shot)
      const answer = await workers.swatches({ ...task, swatches: pairs, ...size })
      const proposal = { shotId: shot.id, headId: shot.headId, choices: [], surfaces: [] }
      if (!answer) return { ...proposal, note: unreadable(pairs.length, pairs.length) }
      const { changes, sentence, unread, surfaces } = answer
      const note = [sentence, ...(unread.length > 0 ? [unreadable(unread.length, pairs.length)] : [])].join(' ')
      const grade = applySwatches(shot.revision.grade, answer, frame)
      return {
        ...proposal,
        note,
        choices: [{ id: 'pairs', name: 'Match the pairs', sentence: note, sure: true, changes, grade }],
        surfaces: surfaces.map(({ here: _, there: __, ...seen }) => seen),
      }
    },
    picture: async (pair, choiceId) => {
      const found = await both(pair)
      const { shot } = found
      const choice = (await answerTo(found)).choices.find((c) => c.id === choiceId)
      if (!choice) throw notFound('choice')
      return thumbnailThrough(context, {
        mediaHash: shot.media.hash,
        index: shot.leadFrame,
        grade: applyMatch(shot.revision.grade, choice, shot.leadFrame),
        firstFrame: shot.firstFrame,
        frameCount: shot.frameCount,
      })
    },
  }
}
