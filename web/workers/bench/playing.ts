// Playing: frames of proxies through their grades against the clock, told to the page one by one. A reel plays as a row
// of clips; the next one is made ready while the one before it plays.
import { gradeAt, missingLuts, type GradeDocument } from '@core/grade'
import type { CallContext } from '../calls'
import { loadLut, lutAtHand } from '../frame-source'
import { measuredEvery, type ChangedLook, type PlayedClip, type PlayedFrame } from '../messages'
import type { PlayEnd, PlayRequest } from '../messages'
import { fewAhead, play } from '../player'
import { proxySpan, type ProxyReader } from '../proxy-reader'
import { countingFor, measuredOf, overlayFor, tapsOf } from './measured'
import { lastPicture, tiles, whilePlaying } from './picture'
import { mattesFor } from './region-questions'
import { forgetReader, proxySource, readerOf } from './source'
import { buffersOf } from './transfer'
import { prepareWork, quickWork } from './work'

interface Playing {
  look: ChangedLook
  onScreen: () => void
  readonly stop: () => void
}
let playing: Playing | null = null
whilePlaying(() => playing !== null)

/**
 * Pictures of a reel that may wait for their time, two seconds of them (100 MB at 960×540): a clip that begins slowly,
 * or a machine that is busy for a moment, is made up for by what was made before.
 */
const manyAhead = 48
/** Frames of the next clip that are decoded before its cut. */
const madeReady = 5

/** The row of clips, each with what reads it. */
function rowOf(clips: readonly PlayedClip[]) {
  const clipAt = (index: number): PlayedClip | undefined =>
    clips.find(({ at, count }) => index >= at && index < at + count)
  function reader({ medium }: PlayedClip): ProxyReader {
    const found = readerOf(medium)
    if (!found) throw new Error('The proxy is still being made.')
    return found
  }
  const frameOf = ({ first, at }: PlayedClip, index: number): number => first + index - at
  /** The first frames of what comes after a clip: kept while that plays. */
  const comingAfter = (clip: PlayedClip): ReadonlyMap<PlayedClip, readonly number[]> => {
    const next = clipAt(clip.at + clip.count)
    return new Map(
      next ? [[next, Array.from({ length: Math.min(madeReady, next.count) }, (_, n) => next.first + n)]] : [],
    )
  }
  return { clipAt, reader, frameOf, comingAfter }
}

/**
 * Plays until the end of the range, or until it is paused; tells every picture, and answers with the place to stand at.
 * Throws where a proxy cannot be had.
 */
export async function startPlaying(request: PlayRequest, { tell }: CallContext<PlayedFrame>): Promise<PlayEnd> {
  playing?.stop()
  let stopped = false
  let release = (): void => undefined
  const mine: Playing = {
    look: request,
    onScreen: () => release(),
    stop: () => {
      stopped = true
      release()
    },
  }
  playing = mine
  const row = rowOf(request.clips)
  const gradeOf = (clip: PlayedClip, frame: number): GradeDocument =>
    gradeAt((request.clips.length === 1 ? mine.look.grade : undefined) ?? clip.grade, frame)
  let onScreen: Promise<void> = Promise.resolve()
  let now: PlayedClip | undefined
  try {
    if (request.clips.some((clip) => !clip.medium.proxy)) throw new Error('The proxy is still being made.')
    await begin()
    const played = await play(
      request.plan,
      {
        ask: (index) => {
          const clip = row.clipAt(index)
          if (clip) row.reader(clip).ask(row.frameOf(clip, index))
        },
        forget: (wanted) => {
          if (!now) return
          const next = row.comingAfter(now)
          const open = [now, ...next.keys()]
          // Pieces of one medium share a reader.
          for (const clip of open)
            row
              .reader(clip)
              .forget((frame) =>
                open.some(
                  (c) =>
                    c.medium.hash === clip.medium.hash &&
                    (wanted(frame - c.first + c.at) || (next.get(c)?.includes(frame) ?? false)),
                ),
              )
        },
        // A hand that grades one clip changes its look all the time: what waits there is shown all the same.
        look: () => request.clips.length > 1 && mine.look.asShot,
        now: () => performance.now(),
        sleep: (ms) => new Promise((done) => setTimeout(done, ms)),
        make: async (index, nth) => {
          const clip = row.clipAt(index)
          const proxy = clip?.medium.proxy
          if (!clip || !proxy) return null
          const { medium } = clip
          const frameIndex = row.frameOf(clip, index)
          const taken = await row.reader(clip).take(frameIndex)
          if (stopped) return null
          const { asShot, viewing } = mine.look
          const grade = gradeOf(clip, frameIndex)
          const { frame, unpack } = proxySource(taken, proxy, grade.read.range)
          await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
          const work = asShot ? ({ kind: 'asShot' } as const) : quickWork(grade, frame)
          if (clip !== now) {
            now = clip
            makeReady(clip)
          }
          const count = nth % measuredEvery === 1 && viewing.visible.length > 0
          const taps = tapsOf(grade, lutAtHand, frame)
          const whole = clip.grade
          lastPicture.now = { grade, whole, medium, frameIndex, asShot, frame, viewing, chain: null }
          const { picture, counts } = await tiles.work(
            {
              work,
              displayId: grade.show.displayId,
              frame,
              unpack,
              overlay: overlayFor(viewing, taps),
              ...mattesFor(grade, asShot, frame, viewing),
              count: count ? countingFor(viewing, taps) : null,
            },
            () => undefined,
          )
          return { picture, measured: counts && measuredOf(counts, viewing) }
        },
        present: async ({ picture, measured }, index, progress) => {
          // One picture is on its way to the screen while the next waits.
          await onScreen
          if (stopped) return
          onScreen = new Promise<void>((done) => {
            release = done
            tell({ frameIndex: index, picture, measured, counts: progress }, buffersOf(picture, measured))
          })
        },
      },
      () => stopped,
      request.clips.length > 1 ? manyAhead : fewAhead,
    )
    return { frameIndex: played.last, counts: played.counts }
  } catch (error) {
    for (const { medium } of request.clips) forgetReader(medium)
    throw error
  } finally {
    if (playing === mine) playing = null
  }

  /** The clock starts with the first frame at hand and its grade compiled. */
  async function begin(): Promise<void> {
    const clip = row.clipAt(request.plan.from)
    if (!clip?.medium.proxy) return
    const frameIndex = row.frameOf(clip, request.plan.from)
    const grade = gradeOf(clip, frameIndex)
    const decoding = row.reader(clip).ask(frameIndex).picture
    await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
    if (!mine.look.asShot) quickWork(grade, proxySpan(clip.medium.proxy))
    await decoding
  }
  /** What comes after a clip: its first frames decoded, its grade compiled. */
  function makeReady(clip: PlayedClip): void {
    for (const [next, frames] of row.comingAfter(clip)) {
      const { proxy } = next.medium
      const reader = row.reader(next)
      for (const frame of frames) reader.ask(frame)
      // Not ready in time, it is made when its turn comes.
      if (proxy) void prepareWork(gradeOf(next, next.first), proxySpan(proxy)).catch(() => undefined)
    }
  }
}

let readied = 0
/**
 * Makes the grades of clips ready while nothing plays, one after another, so that nothing is left to be made at a cut.
 * What is asked later overtakes it.
 */
export async function prepareClips({ clips }: { readonly clips: readonly PlayedClip[] }): Promise<void> {
  const mine = ++readied
  for (const { medium, grade, first } of clips) {
    if (mine !== readied || playing) return
    if (medium.proxy) await prepareWork(gradeAt(grade, first), proxySpan(medium.proxy)).catch(() => undefined)
  }
}

/** The grade or the way of looking changed while playing. */
export function changeLook(look: ChangedLook): void {
  if (playing) playing.look = look
}
/** The last played picture is on screen: the next may come. */
export const pictureIsOnScreen = (): void => playing?.onScreen()
export const pause = (): void => playing?.stop()
