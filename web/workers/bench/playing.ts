// Playing: frames of the proxy through the grade against the clock, told to the page one by one.
import { gradeAt, missingLuts, type GradeDocument } from '@core/grade'
import type { CallContext } from '../calls'
import { loadLut, lutAtHand } from '../frame-source'
import { measuredEvery, type PlayedFrame, type PlayEnd, type PlayRequest, type Viewed } from '../messages'
import { play } from '../player'
import type { Work } from '../tile'
import { countingFor, measuredOf, overlayFor, tapsOf } from './measured'
import { lastPicture, tiles, whilePlaying } from './picture'
import { mattesFor } from './region-questions'
import { forgetReader, proxySource, readerOf } from './source'
import { buffersOf } from './transfer'
import { quickWork } from './work'

interface Playing {
  viewed: Omit<Viewed, 'medium'>
  onScreen: () => void
  readonly stop: () => void
}
let playing: Playing | null = null
whilePlaying(() => playing !== null)

/**
 * Plays until the end of the range, or until it is paused; tells every picture, and answers with the frame to stand at.
 * Throws where the proxy cannot be had.
 */
export async function startPlaying(request: PlayRequest, { tell }: CallContext<PlayedFrame>): Promise<PlayEnd> {
  playing?.stop()
  let stopped = false
  let release = (): void => undefined
  const mine: Playing = {
    viewed: request,
    onScreen: () => release(),
    stop: () => {
      stopped = true
      release()
    },
  }
  playing = mine
  const { medium } = request
  const reader = readerOf(medium)
  if (!reader || !medium.proxy) {
    if (playing === mine) playing = null
    throw new Error('The proxy is still being made.')
  }
  const { proxy } = medium
  let made: { readonly viewed: Playing['viewed']; readonly grade: GradeDocument; readonly work: Work } | null = null
  let onScreen: Promise<void> = Promise.resolve()
  try {
    const played = await play(
      request.plan,
      {
        ask: (index) => reader.ask(index),
        forget: (wanted) => reader.forget(wanted),
        now: () => performance.now(),
        sleep: (ms) => new Promise((done) => setTimeout(done, ms)),
        show: async (index, progress) => {
          const taken = await reader.take(index)
          if (stopped) return
          const { asShot, viewing } = mine.viewed
          const grade = gradeAt(mine.viewed.grade, index)
          const { frame, unpack } = proxySource(taken, proxy, grade.read.range)
          await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
          if (made?.viewed !== mine.viewed || made.grade !== grade)
            made = { viewed: mine.viewed, grade, work: asShot ? { kind: 'asShot' } : quickWork(grade, frame) }
          const count = progress.shown % measuredEvery === 1
          const taps = tapsOf(grade, lutAtHand, frame)
          lastPicture.now = {
            grade,
            whole: mine.viewed.grade,
            medium,
            frameIndex: index,
            asShot,
            frame,
            viewing,
            chain: null,
          }
          const { picture, counts } = await tiles.work(
            {
              work: made.work,
              displayId: grade.show.displayId,
              frame,
              unpack,
              overlay: overlayFor(viewing, taps),
              ...mattesFor(grade, asShot, frame, viewing),
              count: count ? countingFor(viewing, taps) : null,
            },
            () => undefined,
          )
          const results = counts && measuredOf(counts, viewing)
          // One picture is on its way to the screen while the next is made.
          await onScreen
          if (stopped) return
          onScreen = new Promise<void>((done) => {
            release = done
            tell({ frameIndex: index, picture, measured: results, counts: progress }, buffersOf(picture, results))
          })
        },
      },
      () => stopped,
    )
    return { frameIndex: played.last, counts: played.counts }
  } catch (error) {
    forgetReader(medium)
    throw error
  } finally {
    if (playing === mine) playing = null
  }
}

export const isPlaying = (): boolean => playing !== null
/** The grade or the way of looking changed while playing. */
export function changeViewed(viewed: Omit<Viewed, 'medium'>): void {
  if (playing) playing.viewed = viewed
}
/** The last played picture is on screen: the next may come. */
export const pictureIsOnScreen = (): void => playing?.onScreen()
export const pause = (): void => playing?.stop()
