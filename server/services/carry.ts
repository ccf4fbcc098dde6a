// A grade carried from one shot to another, as a proposal: regions and subjects are looked for in the other picture,
// the corrections are worked out anew on its own pixels within the bounds of its whole clip, the look is left alone.
// Only where both show the same view are its levels those of the other shot: else it keeps a Level of its own, balanced
// where that is sure. What would be lost is named. Asking changes nothing.
import { LRUCache } from 'lru-cache'
import type { CarryOver } from '@contracts/index'
import type { OutsideReading, ProposedPlace, ShotDetail, ShotProposal } from '@contracts/responses'
import { carriedAims, carryGrade, withOwnBalance, type Aim } from '@core/aims'
import { differences, gradeAt, moveRegions, restingAt, type GradeDocument } from '@core/grade'
import { coarseToFine } from '@core/instruments'
import { pointedAt, type HouseStandard } from '@core/readings'
import type { ServerContext } from '../context'
import type { Pool, Queryable } from '../db/pool'
import { findRevision } from '../db/revisions'
import { findShot } from '../db/shots'
import { notFound, Problem } from '../problem'
import { balanceReader } from './balance'
import { clipEnds } from './clip-ends'
import { newLosses, standingReader } from './standing'
import { thumbnailThrough } from './thumbnails'

const size = { maxWidth: 960, maxHeight: 540 } as const

/** A shot with an earlier grade of its own, looked at by the frame that this was kept at. */
async function asItWas(
  db: Queryable,
  shot: ShotDetail,
  revisionId: string | undefined,
  frame = shot.leadFrame,
): Promise<ShotDetail> {
  if (revisionId === undefined) return shot
  const then = await findRevision(db, revisionId)
  if (then?.shotId !== shot.id)
    throw new Problem(422, 'invalid', 'That grade is not one of the shot it is said to be from.', {
      field: 'revisionId',
    })
  const inShot = frame >= shot.firstFrame && frame < shot.firstFrame + shot.frameCount
  return {
    ...shot,
    headId: revisionId,
    leadFrame: inShot ? frame : shot.leadFrame,
    revision: { ...shot.revision, grade: then.grade },
  }
}

/** So many frames of the clip are looked at, besides its darkest and its brightest. */
const looked = 6

/** Frames that the clip is traced by: its ends as the survey found them, and others from coarse to fine. */
async function momentsOf(pool: Pool, shot: ShotDetail): Promise<readonly number[]> {
  const spread = coarseToFine(shot.frameCount).slice(0, looked)
  return [...new Set([shot.leadFrame, ...(await clipEnds(pool, shot)), ...spread.map((i) => shot.firstFrame + i)])]
}

export interface CarriedFrom {
  readonly shotId: string
  readonly fromId: string
  readonly asked: CarryOver
}
/** A region of what is carried that a person moved, by shares of the width and the height. */
export interface MovedRegion {
  readonly id: string
  readonly x: number
  readonly y: number
}
export interface CarryReader {
  readonly of: (carried: CarriedFrom) => Promise<ShotProposal>
  /** The PNG of the shot's lead frame as it would be. */
  readonly picture: (carried: CarriedFrom, moves: readonly MovedRegion[]) => Promise<Uint8Array>
}

interface Found {
  readonly shot: ShotDetail
  readonly from: ShotDetail
  readonly asked: CarryOver
  readonly standard: HouseStandard
}
interface Carried {
  readonly grade: GradeDocument
  readonly sure: boolean
  readonly sentence: string
  readonly aims: readonly string[]
  readonly places: readonly ProposedPlace[]
  readonly losses: readonly string[]
  readonly outside: readonly OutsideReading[]
}

export function carryReader(
  context: Pick<ServerContext, 'pool' | 'findings' | 'frames' | 'workers' | 'store'>,
): CarryReader {
  const { pool, frames, workers } = context
  const { measure, standardOf, outsideOf } = standingReader(context)
  const balance = balanceReader(context)
  const answers = new LRUCache<string, Promise<Carried>>({ max: 200 })

  /** The regions that are taken along and the subjects that were pointed out there, where they lie here. */
  async function placed({ shot, from, asked }: Found, grade: GradeDocument) {
    const regions = asked.stations.includes('regions') ? grade.regions : []
    const subjects = from.subjects.flatMap(({ id, name, here }) => {
      const known = shot.subjects.some((s) => s.id === id && s.here)
      return here?.frame === from.leadFrame && !known ? [{ id, name, area: here.area }] : []
    })
    if (regions.length === 0 && subjects.length === 0 && !asked.solve) return { grade, places: [], sameView: false }
    const side = (of: ShotDetail) =>
      frames.gradeTask(of.media.hash, of.leadFrame, gradeAt(of.revision.grade, of.leadFrame))
    const [there, here] = await Promise.all([side(from), side(shot)])
    const found = await workers.places({ from: there, to: here, regions, areas: subjects.map((s) => s.area), ...size })
    return {
      sameView: found.sameView,
      grade: regions.length > 0 ? { ...grade, regions: found.regions.map((r) => r.region) } : grade,
      places: [
        ...found.regions.map(({ region: { id, name }, sure }): ProposedPlace => ({ kind: 'region', id, name, sure })),
        ...subjects.flatMap(({ id, name }, i): ProposedPlace[] => {
          const place = found.areas[i]
          return place ? [{ kind: 'subject', id, name, ...place }] : []
        }),
      ],
    }
  }

  async function carry(found: Found): Promise<Carried> {
    const { shot, from, asked, standard } = found
    const theirs = restingAt(from.revision.grade, from.leadFrame)
    const {
      grade: carried,
      places,
      sameView,
    } = await placed(found, carryGrade(theirs, shot.revision.grade, asked.stations))
    let start = carried
    let aims: readonly Aim[] | null = null
    if (asked.solve && sameView) {
      aims = carriedAims(
        await measure(from, from.revision.grade),
        await measure(shot, carried),
        pointedAt(shot.leadFrame, shot),
      )
      if (!aims.some((aim) => aim.id === 'white-balance')) start = withOwnBalance(carried, shot.revision.grade)
    } else if (asked.solve) {
      aims = []
      // Nothing there says how bright or warm this place should be.
      if (asked.stations.includes('level')) start = carryGrade(await ownLevel(shot), carried, ['level'])
    }
    const moments = await momentsOf(pool, shot)
    const answer = await workers.carry({
      ...(await frames.gradeTask(shot.media.hash, shot.leadFrame, gradeAt(start, shot.leadFrame))),
      document: start,
      before: shot.revision.grade,
      sourceBits: shot.media.bitDepth,
      index: shot.leadFrame,
      aims,
      moments: await Promise.all(
        moments.map(async (index) => ({ index, source: await frames.source(shot.media.hash, index, shot.read.range) })),
      ),
      standard,
      ...size,
    })
    const losses = newLosses(shot, answer.ends, standard)
    const open = places.filter((p) => !p.sure)
    const solvedHow = sameView ? ', solved for this shot' : ', over a level of its own'
    const how = asked.solve ? solvedHow : ''
    const sentence = [
      `The grade of ${from.name}${how}.`,
      ...answer.unmet,
      ...losses,
      ...(open.length > 0 ? [`Not found for sure: ${open.map((p) => p.name).join(', ')}.`] : []),
    ].join(' ')
    return {
      grade: answer.grade,
      sure: losses.length === 0 && open.length === 0,
      sentence,
      aims: answer.aims,
      places,
      losses,
      outside: await outsideOf(shot, answer.grade, standard),
    }
  }

  /** The shot balanced by itself, where that is sure; else as it is. */
  async function ownLevel(shot: ShotDetail): Promise<GradeDocument> {
    const [advised] = (await balance.of(shot.id)).choices
    return advised?.sure ? advised.grade : shot.revision.grade
  }

  function answerTo(found: Found): Promise<Carried> {
    const state = (of: ShotDetail): unknown => [
      of.headId,
      of.leadFrame,
      pointedAt(of.leadFrame, of),
      of.firstFrame,
      of.frameCount,
      of.waivers,
    ]
    const key = JSON.stringify([state(found.shot), state(found.from), found.asked, found.standard])
    const answer = answers.get(key) ?? carry(found)
    answers.set(key, answer)
    answer.catch(() => answers.delete(key))
    return answer
  }
  async function both({ shotId, fromId, asked }: CarriedFrom): Promise<Found> {
    const [shot, source] = await Promise.all([findShot(pool, shotId), findShot(pool, fromId)])
    if (!shot || !source) throw notFound('shot')
    if (shot.projectId !== source.projectId)
      throw new Problem(422, 'invalid', 'The grade comes from another project.', { field: 'from' })
    return {
      shot,
      from: await asItWas(pool, source, asked.revisionId, asked.frame),
      asked,
      standard: await standardOf(shot),
    }
  }
  return {
    of: async (carried) => {
      const found = await both(carried)
      const { shot } = found
      const { grade, sure, sentence, aims, places, losses, outside: off } = await answerTo(found)
      return {
        shotId: shot.id,
        headId: shot.headId,
        note: sentence,
        choices: [
          {
            id: 'carried',
            name: 'Carried',
            sentence,
            sure,
            changes: differences(shot.revision.grade, grade).map((d) => d.words),
            grade,
            aims,
          },
        ],
        places,
        losses,
        outside: off,
      }
    },
    picture: async (carried, moves) => {
      const found = await both(carried)
      const { shot } = found
      const { grade } = await answerTo(found)
      return thumbnailThrough(context, {
        mediaHash: shot.media.hash,
        index: shot.leadFrame,
        grade: moveRegions(grade, moves),
        firstFrame: shot.firstFrame,
        frameCount: shot.frameCount,
      })
    },
  }
}
