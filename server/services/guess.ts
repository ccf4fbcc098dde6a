// What a medium was written in and how bright it gets, and the shots that were there before either was known.
import type { GuessSummary, MediaFacts } from '@contracts/index'
import { brightestFrames } from '@core/footage'
import { same, setRead, type GradeDocument } from '@core/grade'
import { fileFactsOf } from '@core/guess'
import { carrierOfLinear } from '@core/image'
import { decodedPicture } from '@media/decode'
import { decodeSights, type DecodedSight } from '@media/sights'
import { localActor, type ServerContext } from '../context'
import { showDefaultsOf } from '../db/defaults'
import { listEncodings } from '../db/encodings'
import { lockReach } from '../db/locks'
import { findGuess, keepCeiling, keepGuess } from '../db/media'
import { untouchedShots } from '../db/openings'
import { transaction, type Queryable } from '../db/pool'
import { appendRevision, headOf } from '../db/revisions'
import { likenessOf } from './likeness'
import { knownAtFirst, openingRead } from './opening'

export interface Guessed {
  readonly guess: GuessSummary
  /** The frames that were decoded for it. */
  readonly seen: readonly DecodedSight[]
}

/** The colour engine's answer for a few places of the medium; floating point is linear by its nature. */
export async function guessOf(
  context: ServerContext,
  path: string,
  facts: MediaFacts,
  frameTimes: readonly number[],
  decoded?: readonly DecodedSight[],
): Promise<Guessed> {
  if (facts.bitDepth > 16) return { guess: ofLight, seen: [] }
  const seen = decoded ?? (await decodeSights(path, facts, frameTimes))
  const guess = await context.workers.guess({
    sights: seen.map(({ planes, next }) => ({
      source: decodedPicture(planes, facts),
      ...(next ? { next: decodedPicture(next, facts) } : {}),
    })),
    file: fileFactsOf(facts),
    own: await listEncodings(context.pool),
  })
  return { guess, seen }
}

const ofLight: GuessSummary = {
  kind: 'linear',
  kindProbability: 1,
  encodingId: carrierOfLinear,
  range: 'full',
  alike: [carrierOfLinear],
  probability: 1,
  rangeConflict: false,
  tagged: true,
  opening: { encodingId: carrierOfLinear, because: 'tag', asks: false, offers: [] },
  codeCeiling: 1,
  sentences: ['Floating point pictures hold scene-linear light; they are carried as ACEScct.'],
}

export interface MediumToGuess {
  readonly hash: string
  readonly facts: MediaFacts
  readonly path: string
  readonly frameTimes: readonly number[]
}

/** Guesses a medium unless that was done, and opens its untouched shots by it. */
export async function guessAndSettle(
  context: ServerContext,
  { hash, facts, path, frameTimes }: MediumToGuess,
  decoded?: readonly DecodedSight[],
): Promise<void> {
  if (await findGuess(context.pool, hash)) return
  const { guess } = await guessOf(context, path, facts, frameTimes, decoded)
  await keepGuess(context.pool, hash, guess, likenessOf(facts, guess))
  const before = knownAtFirst(facts).opening.encodingId
  const read = await openingRead(context.pool, facts, guess)
  await settle(context, hash, ({ read: { encodingId } }) => (encodingId === before ? read : null))
}

const framesLookedAt = 3

/**
 * Looks for the clip's brightest light at the frames whose lights are brightest, and ends the shoulder of untouched
 * shots there.
 * @param lights of every frame, as its sketch says
 */
export async function findBrightestLight(
  context: ServerContext,
  { hash, facts }: Pick<MediumToGuess, 'hash' | 'facts'>,
  lights: readonly number[],
): Promise<void> {
  const guess = await findGuess(context.pool, hash)
  if (!guess || facts.bitDepth > 16) return
  let ceiling = guess.codeCeiling
  for (const index of brightestFrames(lights, framesLookedAt)) {
    // One that cannot be decoded by itself is passed over: all were decoded in the pass before.
    const source = await context.frames.source(hash, index, facts.range, { byItself: true }).catch(() => null)
    if (source) ceiling = Math.max(ceiling, await context.workers.codeCeiling({ source }))
  }
  if (ceiling === guess.codeCeiling) return
  await keepCeiling(context.pool, hash, ceiling)
  await settle(context, hash, ({ read }) => ({ ...read, brightestSignal: ceiling }))
}

/** Shots that nobody has touched yet are read otherwise, where that changes how they are read or shown. */
async function settle(
  { pool }: ServerContext,
  mediaHash: string,
  readOf: (grade: GradeDocument) => GradeDocument['read'] | null,
): Promise<void> {
  for (const { id } of await untouchedShots(pool, mediaHash))
    await transaction(pool, async (db) => {
      await lockReach(db, id)
      const shot = (await untouchedShots(db, mediaHash)).find((s) => s.id === id)
      const head = shot && (await headOf(db, id))
      const read = head && readOf(head.grade)
      if (!shot || !head || !read) return
      const grade = setRead(head.grade, read, (await showDefaultsOf(db, shot.projectId, shot.sceneId)).rendering)
      if (grade.read.encodingId === head.grade.read.encodingId && same(grade.show, head.grade.show)) return
      await open(db, id, head.id, grade, grade.read.encodingId === head.grade.read.encodingId)
    })
}

async function open(
  db: Queryable,
  shotId: string,
  parentId: string,
  grade: GradeDocument,
  light: boolean,
): Promise<void> {
  await appendRevision(db, {
    shotId,
    parentId,
    grade,
    summary: light ? 'Shoulder to the brightest light of the clip' : 'Read as the pixels say',
    actor: localActor,
    why: { kind: 'opening' },
  })
}
