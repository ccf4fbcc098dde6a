// Balance for me for shots of the reel: what it would choose for each, for its whole clip. Asking changes nothing.
import { LRUCache } from 'lru-cache'
import type { BalanceAnswer } from '@core/balance'
import { applyChoice } from '@core/balance'
import { pointedAt } from '@core/readings'
import type { ShotProposal, ShotDetail } from '@contracts/responses'
import type { ServerContext } from '../context'
import { findShot } from '../db/shots'
import { notFound } from '../problem'
import { clipEnds } from './clip-ends'
import { thumbnailThrough } from './thumbnails'

const kept = 500
/** As the Bench looks at it. */
const size = { maxWidth: 960, maxHeight: 540 } as const

export interface BalanceReader {
  readonly of: (shotId: string) => Promise<ShotProposal>
  /** The PNG of the lead frame through a choice. Throws 404 where there is no such choice. */
  readonly picture: (shotId: string, choiceId: string) => Promise<Uint8Array>
}

type Context = Pick<ServerContext, 'pool' | 'frames' | 'workers' | 'store'>

export function balanceReader(context: Context): BalanceReader {
  const { pool, frames, workers } = context
  const answers = new LRUCache<string, Promise<BalanceAnswer>>({ max: kept })

  async function ask(shot: ShotDetail): Promise<BalanceAnswer> {
    const { media, leadFrame, revision } = shot
    const moments = [...new Set(await clipEnds(pool, shot))].filter((frame) => frame !== leadFrame)
    return workers.balance({
      ...(await frames.gradeTask(media.hash, leadFrame, revision.grade, shot)),
      document: revision.grade,
      index: leadFrame,
      moments: await Promise.all(
        moments.map(async (index) => ({ index, source: await frames.source(media.hash, index, shot.read.range) })),
      ),
      sourceBits: media.bitDepth,
      pointed: pointedAt(leadFrame, shot),
      ...size,
    })
  }

  function answerTo(shot: ShotDetail): Promise<BalanceAnswer> {
    const key = JSON.stringify([shot.headId, shot.leadFrame, pointedAt(shot.leadFrame, shot), shot.firstFrame])
    const answer = answers.get(key) ?? ask(shot)
    answers.set(key, answer)
    answer.catch(() => answers.delete(key))
    return answer
  }
  async function shotOf(shotId: string): Promise<ShotDetail> {
    const shot = await findShot(pool, shotId)
    if (!shot) throw notFound('shot')
    return shot
  }

  return {
    of: async (shotId) => {
      const shot = await shotOf(shotId)
      const { choices, note } = await answerTo(shot)
      return {
        shotId,
        headId: shot.headId,
        note,
        choices: choices.map((choice) => ({
          id: choice.id,
          name: choice.name,
          sentence: choice.sentence,
          sure: choice.sure,
          changes: [
            ...choice.moves.filter((m) => !choice.ramp || m.control !== 'exposure').map((m) => m.words),
            ...(choice.ramp ? [choice.sentence] : []),
          ],
          grade: applyChoice(shot.revision.grade, choice, shot.leadFrame),
        })),
      }
    },
    picture: async (shotId, choiceId) => {
      const shot = await shotOf(shotId)
      const choice = (await answerTo(shot)).choices.find((c) => c.id === choiceId)
      if (!choice) throw notFound('choice')
      return thumbnailThrough(context, {
        mediaHash: shot.media.hash,
        index: shot.leadFrame,
        grade: applyChoice(shot.revision.grade, choice, shot.leadFrame),
        firstFrame: shot.firstFrame,
        frameCount: shot.frameCount,
      })
    },
  }
}
