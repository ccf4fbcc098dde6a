// The first pass over a scene: a shot balanced, matched to the hero of its scene or else to a shot before it that shows
// the same, and given the hero's look. Asking changes nothing; each part is taken only where it is sure of itself, and
// what lies outside the standard after it, or would be lost by it, is named.
import { LRUCache } from 'lru-cache'
import { carryGrade } from '@core/aims'
import { differences, gradeAt, isNeutralStep, restingAt, sharedSteps, stationOf, type GradeDocument } from '@core/grade'
import { applyMatch } from '@core/matching'
import { pointedAt, type HouseStandard } from '@core/readings'
import type { OutsideReading, ShotDetail, ShotProposal } from '@contracts/responses'
import type { ServerContext } from '../context'
import { shotsBefore } from '../db/scene-order'
import { findShot } from '../db/shots'
import { notFound, Problem } from '../problem'
import { balanceReader } from './balance'
import { newLosses, standingReader } from './standing'
import { thumbnailThrough } from './thumbnails'

const kept = 500
/** So many shots before it are tried where nothing is shared with the hero. */
const triedBefore = 2
/** Each of those may rest on others before it: behind more than this, a shot is brought to the hero or to nothing. */
const mostBefore = 60
const size = { maxWidth: 960, maxHeight: 540 } as const
export const firstPassChoices = ['all'] as const

type Context = Pick<ServerContext, 'pool' | 'findings' | 'frames' | 'workers' | 'store'>

export interface FirstPassReader {
  /** @param heroId may be the shot itself: it is balanced alone */
  readonly of: (shotId: string, heroId: string) => Promise<ShotProposal>
  readonly picture: (shotId: string, heroId: string) => Promise<Uint8Array>
}

interface Passed {
  readonly grade: GradeDocument
  readonly sentence: string
}
interface Judged extends Passed {
  readonly outside: readonly OutsideReading[]
  readonly losses: readonly string[]
}

/** It has a look of its own that does something: one that rests, or is its scene's, is nothing to give. */
function hasLook(grade: GradeDocument): boolean {
  const shared = new Set(sharedSteps(grade))
  return grade.steps.some((s) => stationOf(s) === 'look' && !shared.has(s) && s.enabled && !isNeutralStep(s))
}

export function firstPassReader(context: Context): FirstPassReader {
  const { pool, frames, workers } = context
  const balance = balanceReader(context)
  const { standardOf, measure, outsideOf } = standingReader(context)
  const passes = new LRUCache<string, Promise<Judged>>({ max: kept })

  /** The grade after it, or as it was, and what is said of it. */
  async function balanced(shot: ShotDetail): Promise<Passed> {
    const [advised] = (await balance.of(shot.id)).choices
    if (!advised || advised.changes.length === 0)
      return { grade: shot.revision.grade, sentence: 'Its balance needs nothing.' }
    return advised.sure
      ? { grade: advised.grade, sentence: `Balanced: ${advised.sentence}` }
      : { grade: shot.revision.grade, sentence: 'Its balance is unsure and stays.' }
  }
  /** Matched to a shot as it will be; null where nothing sure is shared. */
  async function matched(shot: ShotDetail, before: GradeDocument, to: ShotDetail): Promise<Passed | null> {
    const side = async (of: ShotDetail): Promise<Parameters<typeof workers.match>[0]['shot']> => ({
      ...(await frames.gradeTask(of.media.hash, of.leadFrame, of.revision.grade, of)),
      pointed: pointedAt(of.leadFrame, of),
    })
    const [reference, own] = await Promise.all([side(to), side(shot)])
    const { choices } = await workers.match({
      reference,
      shot: { ...own, grade: gradeAt(before, shot.leadFrame) },
      without: [],
      ...size,
    })
    const best = choices.find((c) => c.sure)
    if (!best) return null
    if (best.changes.length === 0) return { grade: before, sentence: `Alike with ${to.name}.` }
    return {
      grade: applyMatch(before, best, shot.leadFrame),
      sentence: `Matched to ${to.name}: ${best.sentence}`,
    }
  }
  const asPassed = (shot: ShotDetail, grade: GradeDocument): ShotDetail => ({
    ...shot,
    revision: { ...shot.revision, grade },
  })
  /** All that a shot may rest on beside its hero. */
  async function earlierOf(shot: ShotDetail): ReturnType<typeof shotsBefore> {
    const before = await shotsBefore(pool, shot.id, mostBefore + 1)
    return before.length > mostBefore ? [] : before
  }
  async function matchedBefore(shot: ShotDetail, grade: GradeDocument, hero: ShotDetail): Promise<Passed> {
    const nearest = (await earlierOf(shot)).filter((s) => s.id !== hero.id).slice(0, triedBefore)
    for (const { id } of nearest) {
      const earlier = await findShot(pool, id)
      const found = earlier && (await matched(shot, grade, asPassed(earlier, (await passOf(earlier, hero)).grade)))
      if (found) return found
    }
    return { grade, sentence: `Nothing is shared with ${hero.name}.` }
  }
  async function pass(shot: ShotDetail, hero: ShotDetail): Promise<Passed> {
    const first = await balanced(shot)
    if (shot.id === hero.id) return first
    // The others as the same pass makes them: all of a scene are accepted together.
    const { grade: ofHero } = await balanced(hero)
    const second =
      (await matched(shot, first.grade, asPassed(hero, ofHero))) ?? (await matchedBefore(shot, first.grade, hero))
    const carried = hasLook(ofHero)
    return {
      grade: carried ? carryGrade(restingAt(ofHero, hero.leadFrame), second.grade, ['look']) : second.grade,
      sentence: [first.sentence, second.sentence, ...(carried ? [`The look of ${hero.name}.`] : [])].join(' '),
    }
  }
  async function judged(shot: ShotDetail, hero: ShotDetail, standard: HouseStandard): Promise<Judged> {
    const passed = await pass(shot, hero)
    const [before, after] = await Promise.all([measure(shot, shot.revision.grade), measure(shot, passed.grade)])
    const losses = newLosses(shot, [{ frame: shot.leadFrame, before, after }], standard)
    return { ...passed, losses, outside: await outsideOf(shot, passed.grade, standard) }
  }
  async function passOf(shot: ShotDetail, hero: ShotDetail): Promise<Judged> {
    const state = (of: ShotDetail): unknown => [of.headId, of.leadFrame, pointedAt(of.leadFrame, of), of.firstFrame]
    const standard = await standardOf(shot)
    const key = JSON.stringify([state(shot), state(hero), standard, shot.waivers, await earlierOf(shot)])
    const made = passes.get(key) ?? judged(shot, hero, standard)
    passes.set(key, made)
    made.catch(() => passes.delete(key))
    return made
  }
  async function both(shotId: string, heroId: string): Promise<readonly [ShotDetail, ShotDetail]> {
    const [shot, hero] = await Promise.all([findShot(pool, shotId), findShot(pool, heroId)])
    if (!shot || !hero) throw notFound('shot')
    if (shot.projectId !== hero.projectId)
      throw new Problem(422, 'invalid', 'The hero is a shot of another project.', { field: 'hero' })
    return [shot, hero]
  }
  return {
    of: async (shotId, heroId) => {
      const [shot, hero] = await both(shotId, heroId)
      const { grade, sentence, losses, outside } = await passOf(shot, hero)
      const note = [sentence, ...losses].join(' ')
      const changes = differences(shot.revision.grade, grade).map((d) => d.words)
      return {
        shotId,
        headId: shot.headId,
        note,
        choices: [{ id: 'all', name: 'First pass', sentence: note, sure: losses.length === 0, changes, grade }],
        losses,
        outside,
      }
    },
    picture: async (shotId, heroId) => {
      const [shot, hero] = await both(shotId, heroId)
      const { grade } = await passOf(shot, hero)
      return thumbnailThrough(context, {
        mediaHash: shot.media.hash,
        index: shot.leadFrame,
        grade,
        firstFrame: shot.firstFrame,
        frameCount: shot.frameCount,
      })
    },
  }
}
