// What a shot begins with: its reading, its Show and its lead frame.
import type { GuessSummary, MediaFacts } from '@contracts/index'
import { encodingById, isGamutId } from '@core/colour'
import { defaultGrade, openingShow, type GradeDocument, type ReadSettings } from '@core/grade'
import { asItLooks, openingByTag } from '@core/guess'
import type { ServerContext } from '../context'
import { showDefaultsOf } from '../db/defaults'
import { listEncodings } from '../db/encodings'
import type { Queryable } from '../db/pool'
import type { Destination } from './import'

// Tags of primaries by the gamut they name (ISO/IEC 23091-2).
const gamutOfPrimaries: Readonly<Record<string, string>> = {
  bt709: 'bt709',
  bt2020: 'bt2020',
  smpte432: 'p3-d65',
  smpte431: 'p3-dci',
}

/** The gamut of a reading at first: floating point carries light, and a log's own gamut is surer than a tag. */
function gamutAtFirst({ bitDepth, primaries }: MediaFacts, encodingId: string): string {
  const tagged = gamutOfPrimaries[primaries ?? ''] ?? (isGamutId(primaries) ? primaries : undefined)
  if (bitDepth > 16) return tagged ?? 'bt709'
  const { group, gamutIds } = encodingById(encodingId)
  return (group === 'log' ? undefined : tagged) ?? gamutIds[0]
}

/** Near the middle, at a frame that is decoded at once; a better one is proposed when all were looked through. */
export function leadAtFirst({ frameCount, keyFrames = [] }: MediaFacts): number {
  const middle = Math.floor(frameCount / 2)
  const near = keyFrames.reduce((best, k) => (Math.abs(k - middle) < Math.abs(best - middle) ? k : best), 0)
  return Math.abs(near - middle) <= frameCount / 4 ? near : middle
}

/** What is to be known of a medium before a shot of it opens: its guess, or as much of it as there is at first. */
export interface KnownOfMedium {
  readonly opening: Pick<GuessSummary['opening'], 'encodingId'>
  readonly codeCeiling: number
}

/** Before a medium was guessed: by its tags, and else as it looks. */
export const knownAtFirst = ({ transfer }: MediaFacts): KnownOfMedium => ({
  opening: { encodingId: openingByTag(transfer) },
  // The most that its codes can hold, until it is known how much they do.
  codeCeiling: 1,
})

/** What a medium is read by at first. */
export async function openingRead(
  db: Queryable,
  facts: MediaFacts,
  { opening: { encodingId }, codeCeiling }: KnownOfMedium,
  gamutId?: string,
): Promise<ReadSettings> {
  const own = (await listEncodings(db)).find((e) => e.id === encodingId)
  const { read } = defaultGrade(
    own ? asItLooks : encodingId,
    gamutId ?? own?.gamutId ?? gamutAtFirst(facts, encodingId),
    facts.range,
  )
  return {
    ...read,
    ...(own ? { encodingId, own } : {}),
    brightestSignal: codeCeiling,
  }
}

/** What a shot of this medium is read by at first, and graded by: not at all. */
export async function openingGrade(
  context: ServerContext,
  facts: MediaFacts,
  known: KnownOfMedium,
  to: Destination,
): Promise<GradeDocument> {
  const encodingId = to.known?.encodingId ?? known.opening.encodingId
  const read = await openingRead(context.pool, facts, { ...known, opening: { encodingId } }, to.known?.gamutId)
  const { displayId, rendering } = await showDefaultsOf(context.pool, to.projectId, to.known?.sceneId ?? null)
  const grade = defaultGrade(read.own ? asItLooks : read.encodingId, read.gamutId, facts.range)
  return { ...grade, read, show: openingShow(read, { ...grade.show, displayId }, rendering) }
}
