// The render job: every frame of a shot through the same passes as the preview, encoded to a file.
import type { MediaFacts } from '@contracts/index'
import { neighbourFrames, gradeAt } from '@core/grade'
import type { ServerContext } from '../context'
import { findMedia } from '../db/media'
import { claimRender, failRender, findRender, finishRender, reportProgress, touchRender } from '../db/renders'
import type { Attempt } from '../db/work'
import { transaction } from '../db/pool'
import { findRevision, type RevisionRow } from '../db/revisions'
import { decodeAll, decodedPicture } from '@media/decode'
import { startEncoder } from '@media/encode'
import { lutPaths } from '../services/frames'
import { newAttempt } from './attempts'
import type { SourceFrame } from '../workers/frame-worker'

/** Renders one queued job to its end. Failures are written to the job in one sentence; nothing is left half-stored. */
export async function renderShot(context: ServerContext, id: string): Promise<void> {
  const { pool, store, log } = context
  const mine = newAttempt(id)
  if (!(await claimRender(pool, mine))) return
  context.attempts.add(mine.attempt)
  const output = store.outputPath()
  // Frames may wait long for a thread; the render must not look abandoned meanwhile.
  const pulse = setInterval(() => void touchRender(pool, mine).catch(() => undefined), pulseEveryMs)
  try {
    if (!(await writeFrames(context, mine, output))) return
    const size = (await store.sizeOf(output)) ?? 0
    // The file comes to its place only while the row is held: never over that of another try, never after a cancel.
    await transaction(pool, async (db) => {
      if (await finishRender(db, mine, size)) await store.keepOutput(output, store.renderPath(id))
    })
  } catch (error) {
    log.error({ err: error, render: id }, 'a render failed')
    await failRender(pool, mine, error instanceof Error ? error.message : 'The render failed.')
  } finally {
    clearInterval(pulse)
    context.attempts.delete(mine.attempt)
    await store.discard(output)
  }
}

const reportEveryMs = 250
const pulseEveryMs = 5000

/** Conformed footage is delivered at the rate it is played at: the same frames, another time. */
const playedRate = (
  facts: MediaFacts,
  played: RevisionRow['played'],
): Pick<MediaFacts, 'rateNumerator' | 'rateDenominator'> =>
  played ? { rateNumerator: played.numerator, rateDenominator: played.denominator } : facts

/** False when the render was cancelled on the way. */
async function writeFrames(
  { pool, store, workers, requireOriginal }: ServerContext,
  mine: Attempt,
  path: string,
): Promise<boolean> {
  const render = await findRender(pool, mine.id)
  const revision = render && (await findRevision(pool, render.revisionId))
  const media = revision && (await findMedia(pool, revision.mediaHash))
  if (!revision || !media) throw new Error('The shot is no longer there.')
  await requireOriginal(media.hash)
  const { grade } = revision
  const range = {
    first: revision.firstFrame,
    count: revision.frameCount,
    time: media.frameTimes[revision.firstFrame] ?? 0,
  }
  const luts = lutPaths(grade, store)
  const decoder = decodeAll(store.mediaPath(media.hash), media.facts, range)
  const encoder = startEncoder(
    path,
    { ...media.facts, ...playedRate(media.facts, revision.played) },
    grade.show.displayId,
  )
  // A few frames are graded at once; they are written in order.
  const inFlight: Promise<Uint8Array>[] = []
  let written = 0
  let reportedAt = 0
  const writeOldest = async (): Promise<boolean> => {
    const frame = await inFlight.shift()
    if (!frame) return true
    await encoder.write(Buffer.from(frame.buffer, frame.byteOffset, frame.byteLength))
    written++
    const now = Date.now()
    if (now - reportedAt < reportEveryMs) return true
    reportedAt = now
    return reportProgress(pool, mine, written)
  }
  try {
    const last = range.first + range.count - 1
    const reach = Math.max(0, ...neighbourFrames(grade, range.first, -Infinity, Infinity))
    // Frames that the grade looks at about the next one to be graded.
    const sources = new Map<number, SourceFrame>()
    let decoded = range.first
    let next = range.first
    const gradeNext = async (): Promise<boolean> => {
      const index = next++
      const source = sources.get(index)
      const neighbours = neighbourFrames(grade, index, range.first, last)
      if (!source) return true
      const graded = workers.gradeFrame({
        source,
        ...(neighbours.length > 0
          ? {
              around: neighbours.flatMap((away) => {
                const other = sources.get(index + away)
                return other ? [{ away, source: other }] : []
              }),
            }
          : {}),
        grade: gradeAt(grade, index),
        luts,
      })
      graded.catch(() => undefined)
      inFlight.push(graded)
      sources.delete(index - reach)
      return inFlight.length <= workers.threads || writeOldest()
    }
    for await (const planes of decoder.frames) {
      sources.set(decoded++, decodedPicture(planes, media.facts, grade.read.range))
      if (decoded - next > reach && !(await gradeNext())) return false
    }
    while (next < decoded) if (!(await gradeNext())) return false
    while (inFlight.length > 0) if (!(await writeOldest())) return false
    if (written !== range.count) throw new Error(`Only ${written} of ${range.count} frames could be decoded.`)
    await encoder.finish()
    // It may have been replaced while it was read.
    await requireOriginal(media.hash)
    return true
  } finally {
    decoder.stop()
    encoder.stop()
  }
}
