// What a shot begins with: its reading, its Show and its lead frame.
import type { GuessSummary, MediaFacts } from '@contracts/index'
import { encodingById, isGamutId } from '@core/colour'
import { defaultGrade, openingShow, type GradeDocument, type ReadSettings } from '@core/grade'
import { asItLooks } from '@core/guess'
import type { ServerContext } from '../context'
import { showDefaultsOf } from '../db/defaults'
import { listEncodings } from '../db/encodings'
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

/** What a shot of this medium is read by at first, and graded by: not at all. */
export async function openingGrade(
  context: ServerContext,
  facts: MediaFacts,
  guess: GuessSummary | null | undefined,
  to: Destination,
): Promise<GradeDocument> {
  const encodingId = to.known?.encodingId ?? guess?.opening.encodingId ?? asItLooks
  const own = (await listEncodings(context.pool)).find((e) => e.id === encodingId)
  const gamutId = to.known?.gamutId ?? own?.gamutId ?? gamutAtFirst(facts, encodingId)
  const grade = defaultGrade(own ? asItLooks : encodingId, gamutId, facts.range)
  const brightestSignal = guess?.codeCeiling
  const read: ReadSettings = {
    ...grade.read,
    ...(own ? { encodingId, own } : {}),
    ...(brightestSignal === undefined ? {} : { brightestSignal }),
  }
  const { displayId, rendering } = await showDefaultsOf(context.pool, to.projectId, to.known?.sceneId ?? null)
  return { ...grade, read, show: openingShow(read, { ...grade.show, displayId }, rendering) }
}
