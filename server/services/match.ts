// Matching one shot to another: what would be moved, with small pictures. Asking changes nothing.
import { LRUCache } from 'lru-cache'
import type { ShotDetail, ShotProposal } from '@contracts/responses'
import { applyMatch, type MatchAnswer, type MatchChoiceId } from '@core/matching'
import type { ServerContext } from '../context'
import { findShot } from '../db/shots'
import { notFound, Problem } from '../problem'
import { thumbnailThrough } from './thumbnails'
import type { GradeTask } from '../workers/kept'

const kept = 500
const size = { maxWidth: 960, maxHeight: 540 } as const

export interface MatchReader {
  readonly of: (shotId: string, referenceId: string) => Promise<ShotProposal>
  /** The PNG of the shot's lead frame through a choice. Throws 404 where there is no such choice. */
  readonly picture: (shotId: string, referenceId: string, choiceId: MatchChoiceId) => Promise<Uint8Array>
}

type Context = Pick<ServerContext, 'pool' | 'frames' | 'workers' | 'store'>

export function matchReader(context: Context): MatchReader {
  const { pool, frames, workers } = context
  const answers = new LRUCache<string, Promise<MatchAnswer>>({ max: kept })

  const taskOf = (shot: ShotDetail): Promise<GradeTask> =>
    frames.gradeTask(shot.media.hash, shot.leadFrame, shot.revision.grade, shot)
  async function ask(shot: ShotDetail, reference: ShotDetail): Promise<MatchAnswer> {
    const [ofReference, ofShot] = await Promise.all([taskOf(reference), taskOf(shot)])
    return workers.match({ reference: ofReference, shot: ofShot, ...size })
  }
  function answerTo(shot: ShotDetail, reference: ShotDetail): Promise<MatchAnswer> {
    const key = JSON.stringify([shot.headId, shot.leadFrame, reference.headId, reference.leadFrame])
    const answer = answers.get(key) ?? ask(shot, reference)
    answers.set(key, answer)
    answer.catch(() => answers.delete(key))
    return answer
  }
  async function both(shotId: string, referenceId: string): Promise<readonly [ShotDetail, ShotDetail]> {
    const [shot, reference] = await Promise.all([findShot(pool, shotId), findShot(pool, referenceId)])
    if (!shot || !reference) throw notFound('shot')
    if (shot.projectId !== reference.projectId)
      throw new Problem(422, 'invalid', 'The reference is a shot of another project.', { field: 'reference' })
    if (shot.id === reference.id)
      throw new Problem(422, 'invalid', 'A shot cannot be matched to itself.', { field: 'reference' })
    return [shot, reference]
  }

  return {
    of: async (shotId, referenceId) => {
      const [shot, reference] = await both(shotId, referenceId)
      const { note, choices } = await answerTo(shot, reference)
      return {
        shotId,
        headId: shot.headId,
        note,
        choices: choices.map((choice) => ({
          id: choice.id,
          name: choice.name,
          sentence: choice.sentence,
          sure: true,
          changes: choice.changes,
          grade: applyMatch(shot.revision.grade, choice, shot.leadFrame),
        })),
      }
    },
    picture: async (shotId, referenceId, choiceId) => {
      const [shot, reference] = await both(shotId, referenceId)
      const choice = (await answerTo(shot, reference)).choices.find((c) => c.id === choiceId)
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
