// The render job: every frame of a shot through the same passes as the preview, encoded to a file.
import type { MediaFacts } from '@contracts/index'
import { framesLookedAt, gradeAt } from '@core/grade'
import type { ServerContext } from '../context'
import { findMedia } from '../db/media'
import { claimRender, failRender, findRender, finishRender, reportProgress } from '../db/renders'
import { findRevision, type RevisionRow } from '../db/revisions'
import { decodeAll, decodedPicture } from '@media/decode'
import { startEncoder } from '@media/encode'
import { lutPaths } from '../services/frames'
import type { SourceFrame } from '../workers/frame-worker'

/** Renders one queued job to its end. Failures are written to the job in one sentence; nothing is left half-stored. */
export async function renderShot(context: ServerContext, id: string): Promise<void> {
  const { pool, store, log } = context
  if (!(await claimRender(pool, id))) return
  const temporary = store.temporaryPath()
  try {
    const finished = await writeFrames(context, id, temporary)
    if (!finished) return
    await store.keep(temporary, store.renderPath(id))
    const size = (await store.sizeOf(store.renderPath(id))) ?? 0
    // Cancelled in the last moment: the file goes, too.
    if (!(await finishRender(pool, id, size))) await store.discard(store.renderPath(id))
  } catch (error) {
    log.error({ err: error, render: id }, 'a render failed')
    await failRender(pool, id, error instanceof Error ? error.message : 'The render failed.')
  } finally {
    await store.discard(temporary)
  }
}

const reportEveryMs = 250

/** Conformed footage is delivered at the rate it is played at: the same frames, another time. */
const playedRate = (
  facts: MediaFacts,
  played: RevisionRow['played'],
): Pick<MediaFacts, 'rateNumerator' | 'rateDenominator'> =>
  played ? { rateNumerator: played.numerator, rateDenominator: played.denominator } : facts

/** False when the render was cancelled on the way. */
async function writeFrames({ pool, store, workers }: ServerContext, id: string, path: string): Promise<boolean> {
  const render = await findRender(pool, id)
  const revision = render && (await findRevision(pool, render.revisionId))
  const media = revision && (await findMedia(pool, revision.mediaHash))
  if (!revision || !media) throw new Error('The shot is no longer there.')
  const { grade } = revision
  const piece = {
    first: revision.firstFrame,
    count: revision.frameCount,
    time: media.frameTimes[revision.firstFrame] ?? 0,
  }
  const luts = lutPaths(grade, store)
  const decoder = decodeAll(store.mediaPath(media.hash), media.facts, piece)
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
    return reportProgress(pool, id, written)
  }
  try {
    const last = piece.first + piece.count - 1
    const reach = Math.max(0, ...framesLookedAt(grade, piece.first, -Infinity, Infinity))
    // Frames that the grade looks at about the next one to be graded.
    const held = new Map<number, SourceFrame>()
    let decoded = piece.first
    let next = piece.first
    const gradeNext = async (): Promise<boolean> => {
      const index = next++
      const source = held.get(index)
      const looked = framesLookedAt(grade, index, piece.first, last)
      if (!source) return true
      const graded = workers.gradeFrame({
        source,
        ...(looked.length > 0
          ? {
              around: looked.flatMap((away) => {
                const other = held.get(index + away)
                return other ? [{ away, source: other }] : []
              }),
            }
          : {}),
        grade: gradeAt(grade, index),
        luts,
      })
      graded.catch(() => undefined)
      inFlight.push(graded)
      held.delete(index - reach)
      return inFlight.length <= workers.threads || writeOldest()
    }
    for await (const planes of decoder.frames) {
      held.set(decoded++, decodedPicture(planes, media.facts, grade.read.range))
      if (decoded - next > reach && !(await gradeNext())) return false
    }
    while (next < decoded) if (!(await gradeNext())) return false
    while (inFlight.length > 0) if (!(await writeOldest())) return false
    if (written !== piece.count) throw new Error(`Only ${written} of ${piece.count} frames could be decoded.`)
    await encoder.finish()
    return true
  } finally {
    decoder.stop()
    encoder.stop()
  }
}
