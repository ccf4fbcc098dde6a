// One picture: the frame through the Passage, drawn and measured by all threads. Keeps what was shown last, for
// questions about it.
import { buildChain, compile, dragSize, gradeAt, missingLuts, restSize } from '@core/grade'
import { measureMeridian, measurePartMeridian, partMask, type Meridian, type TraceImage } from '@core/instruments'
import { loadFrame, loadLut, lutAtHand } from '../frame-source'
import { measuredEvery, type Rendered, type RenderRequest, type Viewed } from '../messages'
import { startTiles, type TileWork } from '../tiles'
import { countingFor, holdCounted, holdLast, measuredOf, overlayFor, tapsOf } from './measured'
import type { LastPicture } from './questions'
import { mattesFor, wholeMatte } from './region-questions'
import { sourceFor } from './source'
import { accuracyOf, built, quickWork, workFor } from './work'

export const tiles = startTiles()
/** Pixels measured for the Meridian: fewer while a hand moves. */
const meridianSamples = { dragging: 800, resting: 6000 } as const

/** What was shown last, as it was drawn or played. */
export const lastPicture: { now: LastPicture | null } = { now: null }

let scrubbed = 0
let newest = 0
let playingNow = (): boolean => false
/** Playing has the proxy for itself. */
export const whilePlaying = (is: () => boolean): void => {
  playingNow = is
}
/** Changes with every picture that is asked for. */
export const pictureNumber = (): number => newest

/** A newer picture was asked for before this one was begun. */
class Stale extends Error {}

export async function render(request: RenderRequest): Promise<Rendered> {
  const { size, asShot, frameIndex } = request
  const mine = ++newest
  const grade = gradeAt(request.grade, frameIndex)
  const { frame, unpack, source } = await sourceFor(request, playingNow())
  await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
  // What came later is what is wanted now.
  if (newest !== mine) throw new Stale()
  const plan = asShot || source === 'proxy' ? null : compile(grade, lutAtHand, frame, size, built)
  const accuracy = plan && size === restSize ? accuracyOf(plan, frame) : null
  let meridian: Meridian | null = null
  let partMeridian: Meridian | null = null
  // A scrubbed frame is to be seen at once.
  const count = source === 'exact' || scrubbed++ % measuredEvery === 0
  const taps = tapsOf(grade, lutAtHand, frame)
  const { viewing } = request
  lastPicture.now = {
    grade,
    whole: request.grade,
    medium: request.medium,
    frameIndex,
    asShot,
    frame,
    viewing,
    chain: asShot ? null : (plan?.chain ?? buildChain(grade, lutAtHand)),
  }
  const { picture, counts } = await tiles.work(
    {
      work: source === 'proxy' && !asShot ? quickWork(grade, frame) : workFor(grade, plan, accuracy),
      displayId: grade.show.displayId,
      frame,
      unpack,
      overlay: overlayFor(viewing, taps),
      ...mattesFor(grade, asShot, frame, viewing),
      count: count ? countingFor(viewing, taps) : null,
    },
    () => {
      // Rows of a proxy are only whole once every thread is done; the Meridian waits for the exact frame.
      if (unpack) return
      const chain = plan?.chain ?? buildChain(grade, lutAtHand)
      meridian = measureMeridian(chain, frame, size === dragSize ? meridianSamples.dragging : meridianSamples.resting)
      if (viewing.follow)
        partMeridian = measurePartMeridian(
          chain,
          frame,
          partMask(viewing.follow, frame, 0, frame.height, wholeMatte(grade, frame)),
          meridianSamples.dragging,
        )
    },
  )
  return {
    size,
    frameIndex,
    source,
    picture,
    measured: counts && measuredOf(counts, viewing),
    meridian,
    partMeridian,
    accuracy,
  }
}

/** A frame of any shot, drawn and counted beside what is shown. */
async function aside(of: Viewed & { readonly frameIndex: number }, count: boolean): Promise<TileWork> {
  const { medium, frameIndex, viewing } = of
  const grade = gradeAt(of.grade, frameIndex)
  const frame = await loadFrame({ mediaHash: medium.hash, index: frameIndex, range: grade.read.range })
  await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
  return tiles.work(
    {
      work: workFor(grade, compile(grade, lutAtHand, frame, dragSize), null),
      displayId: grade.show.displayId,
      frame,
      unpack: null,
      overlay: null,
      mattes: null,
      matte: null,
      count: count ? countingFor({ ...viewing, part: null }, tapsOf(grade, lutAtHand, frame)) : null,
    },
    () => undefined,
  )
}

export const draw = async (of: Viewed & { readonly frameIndex: number }): Promise<TraceImage> =>
  (await aside(of, false)).picture

/** Holds a trace as the reference: the last one, or that of a frame of any shot. */
export async function reference(of: 'this' | (Viewed & { readonly frameIndex: number }) | null): Promise<boolean> {
  if (of === 'this') return holdLast()
  holdCounted(null)
  if (of === null) return false
  const { counts } = await aside(of, true)
  holdCounted(counts && (counts.tap ?? counts.end))
  return counts !== null
}
