// Splits a picture between this thread and a second one, and joins what they counted.
import type { MatteSource, Tap } from '@core/grade'
import type { TraceImage } from '@core/instruments'
import { canShare, sharedBytes, sharedPasses } from './shared-memory'
import type { SentJob } from './tile-worker'
import { joinCounts, workTile, type TileAnswer, type TileCounts, type TileJob, type Work } from './tile'

export interface TileWork {
  readonly picture: TraceImage
  readonly counts: TileCounts | null
}
export type PictureJob = Pick<
  TileJob,
  'work' | 'displayId' | 'frame' | 'unpack' | 'overlay' | 'mattes' | 'matte' | 'count'
>
export interface Tiles {
  readonly work: (job: PictureJob, meanwhile: () => void) => Promise<TileWork>
  /** The signal of the last picture, every pixel; the memory is used again for the next one. */
  readonly lastSignal: () => Uint16Array
  /** Pixels that were shown and are not any more: their memory is used again. */
  readonly takeBack: (pixels: ArrayBuffer) => void
}

/** What is kept for pictures to come: one on screen, one on its way, four that wait for their time. */
const mostSpare = 6

/** What the other thread is given: tables in shared memory. */
const sentWork = (work: Work): Work => (work.kind === 'passes' ? { ...work, passes: sharedPasses(work.passes) } : work)
const tapped = <T extends { readonly tap: Tap | null }>(of: T | null): T | null =>
  of && { ...of, tap: of.tap && sharedPasses(of.tap) }
const sentMattes = (mattes: MatteSource | null): MatteSource | null =>
  mattes && {
    ...mattes,
    ...(mattes.taps
      ? { taps: Object.fromEntries(Object.entries(mattes.taps).map(([tap, passes]) => [tap, sharedPasses(passes)])) }
      : {}),
  }

export function startTiles(): Tiles {
  const helper = canShare() ? new Worker(new URL('./tile-worker.ts', import.meta.url), { type: 'module' }) : null
  let shown = new Uint16Array(sharedBytes(0))
  let canvas = new Uint32Array(sharedBytes(0))
  let nextId = 1
  let sent: Work | null = null
  let waiting: { id: number; done: (counts: TileCounts | null) => void; fail: (error: Error) => void } | null = null
  if (helper) {
    helper.onmessage = ({ data }: MessageEvent<TileAnswer>) => {
      if (waiting?.id === data.id) waiting.done(data.counts)
    }
    helper.onerror = (event) => {
      event.preventDefault()
      waiting?.fail(new Error('A picture thread stopped. Reload the page.'))
    }
  }

  // One picture at a time: the memory is shared.
  let before: Promise<unknown> = Promise.resolve()
  const inTurn = <T>(work: () => Promise<T>): Promise<T> => {
    const mine = before.then(work)
    before = mine.catch(() => undefined)
    return mine
  }
  const spare: ArrayBuffer[] = []
  return {
    lastSignal: () => shown,
    takeBack: (pixels) => {
      if (pixels.byteLength === 0) return
      spare.unshift(pixels)
      spare.length = Math.min(spare.length, mostSpare)
    },
    work: (picture, meanwhile) =>
      inTurn(async () => {
        const { frame } = picture
        const pixels = frame.width * frame.height
        if (canvas.length !== pixels) {
          shown = new Uint16Array(sharedBytes(pixels * 6))
          canvas = new Uint32Array(sharedBytes(pixels * 4))
        }
        // The first thread also measures the Meridian, so it takes a little less of the picture.
        const split = helper ? Math.floor(frame.height * 0.48) : frame.height
        const other =
          helper &&
          new Promise<TileCounts | null>((done, fail) => {
            const job: SentJob = {
              ...picture,
              work: picture.work === sent ? null : sentWork(picture.work),
              mattes: sentMattes(picture.mattes),
              overlay: tapped(picture.overlay),
              count: tapped(picture.count),
              id: nextId++,
              shown,
              canvas,
              rows: { from: split, to: frame.height },
            }
            waiting = { id: job.id, done, fail }
            sent = picture.work
            helper.postMessage(job)
          })
        const mine = workTile({ ...picture, shown, canvas, rows: { from: 0, to: split } })
        meanwhile()
        const theirs = other && (await other)
        const counts = mine && theirs ? joinCounts(mine, theirs) : mine
        // Canvas pixels leave for the interface thread, which cannot take shared memory.
        const at = spare.findIndex((pixelsBack) => pixelsBack.byteLength === pixels * 4)
        const [room] = at < 0 ? [] : spare.splice(at, 1)
        const rgba = new Uint8ClampedArray(room ?? new ArrayBuffer(pixels * 4))
        rgba.set(new Uint8ClampedArray(canvas.buffer))
        return { picture: { width: frame.width, height: frame.height, rgba }, counts }
      }),
  }
}
