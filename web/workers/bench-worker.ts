// The Bench's worker: fetches the frame, runs the Passage, measures the result, and plays. The interface thread only
// shows it.
import { LRUCache } from 'lru-cache'
import {
  buildChain,
  compile,
  dragSize,
  framesLookedAt,
  gradeAt,
  interpolationDifference,
  lutsOf,
  missingLuts,
  planError,
  playable,
  playCache,
  restSize,
  withinBound,
  type GradeDocument,
  type Passes,
  type Plan,
  type PlanCache,
} from '@core/grade'
import type { CodeRange, Frame } from '@core/image'
import {
  colourBefore,
  distributionBefore,
  measureMeridian,
  measurePartMeridian,
  partMask,
  steepTones,
  type Meridian,
} from '@core/instruments'
import { keySpread, sampleOf } from '@core/regions'
import { frameAtHand, frameWithAround, loadFrame, loadLut, lutAtHand } from './frame-source'
import { findRegion, judgeRegion, keyedPlanes, mattesFor, wholeMatte } from './region-looks'
import { lightPixels, lossPixels, probePicture, sampleSkin, takeLook, type LastPicture } from './looking'
import { countingFor, holdCounted, holdLast, measuredOf, overlayFor, tapsOf } from './measured'
import {
  measuredEvery,
  type BenchAnswer,
  type BenchRequest,
  type Measured,
  type Medium,
  type PlayRequest,
  type Rendered,
  type RenderRequest,
} from './messages'
import { play, type PlayCounts } from './player'
import type { ProxyFacts } from '@contracts/responses'
import { frameOfProxy, isPlain, ProxyReader, proxyRange, proxySpan, type ProxyPicture } from './proxy-reader'
import type { Unpacking, Work } from './tile'
import { sharedBytes } from './shared-memory'
import { startTiles } from './tiles'

const built: PlanCache = new Map()
const played = playCache(built)
const tiles = startTiles()
/** Pixels measured for the Meridian: fewer while a hand moves. */
const meridianSamples = { dragging: 800, resting: 6000 } as const
const readers = new LRUCache<string, ProxyReader>({ max: 2, dispose: (reader) => reader.close() })

const scope = self as unknown as {
  onmessage: ((e: MessageEvent<BenchRequest>) => void) | null
  postMessage: (m: BenchAnswer, transfer?: Transferable[]) => void
}
const buffers = (...images: { rgba: { buffer: ArrayBufferLike } }[]): Transferable[] =>
  images.map((image) => image.rgba.buffer as ArrayBuffer)
const tracesOf = (m: Measured | null): { rgba: { buffer: ArrayBufferLike } }[] => Object.values(m?.traces ?? {})
const sentence = (error: unknown): string => (error instanceof Error ? error.message : String(error))

scope.onmessage = ({ data }) => {
  switch (data.ask) {
    case 'render':
      if (data.back) tiles.takeBack(data.back)
      void render(data).then(
        (result) => scope.postMessage(result, buffers(result.picture, ...tracesOf(result.measured))),
        (error: unknown) => {
          if (!(error instanceof Stale)) scope.postMessage({ id: data.id, ok: false, message: sentence(error) })
        },
      )
      break
    case 'play':
      void startPlaying(data)
      break
    case 'regrade':
      if (playing) playing.look = data
      break
    case 'shown':
      if (data.back) tiles.takeBack(data.back)
      playing?.onScreen()
      break
    case 'pause':
      playing?.stop()
      break
    case 'probe':
      scope.postMessage({ id: data.id, probe: last && probePicture(last, tiles.lastSignal(), data.x, data.y) })
      break
    case 'light': {
      const lit = last && lightPixels(last, tiles.lastSignal(), data.instrument, data.x, data.y)
      scope.postMessage({ id: data.id, lit: lit?.image ?? null, share: lit?.share ?? 0 }, lit ? buffers(lit.image) : [])
      break
    }
    case 'skin':
      scope.postMessage({ id: data.id, skin: last && sampleSkin(last, tiles.lastSignal(), data.area, data.cast) })
      break
    case 'spread': {
      const { id, station, side, bits } = data
      scope.postMessage({
        id,
        distribution:
          last && !last.asShot ? distributionBefore(last.grade, lutAtHand, last.frame, station, side) : null,
        steep:
          last && !last.asShot && side === 'scene' && station === 'shape'
            ? steepTones(last.grade, lutAtHand, bits, station)
            : [],
      })
      break
    }
    case 'lookFrom':
      scope.postMessage({ id: data.id, look: last && takeLook(last, lutAtHand, data.reference, data.skin) })
      break
    case 'between':
      scope.postMessage({
        id: data.id,
        difference:
          last && !last.asShot ? interpolationDifference(last.grade, lutAtHand, last.frame, data.stepId) : null,
      })
      break
    case 'colour':
      scope.postMessage({
        id: data.id,
        colour:
          last && !last.asShot
            ? colourBefore(last.grade, lutAtHand, last.frame, data.station, data.side, data.x, data.y)
            : null,
      })
      break
    case 'keySample':
      scope.postMessage({
        id: data.id,
        sample: last && !last.asShot ? sampleOf(keyedPlanes(last, data.tap), data.mode, data.area) : null,
      })
      break
    case 'keySpread':
      scope.postMessage({
        id: data.id,
        keySpread: last && !last.asShot ? keySpread(keyedPlanes(last, data.tap)) : null,
      })
      break
    case 'matteFacts': {
      const { id } = data
      void judgeRegion(last, data.regionId, data.then).then(
        (matte) => scope.postMessage({ id, matte }),
        () => scope.postMessage({ id, matte: null }),
      )
      break
    }
    case 'placeRegion': {
      const { id } = data
      void findRegion(last, data.from, data.regionId).then(
        (found) => scope.postMessage({ id, found, fault: '' }),
        (error: unknown) => scope.postMessage({ id, found: null, fault: sentence(error) }),
      )
      break
    }
    case 'losses': {
      const { id, station } = data
      const asked = newest
      void (last ? lossPixels(last, station, () => newest !== asked) : Promise.resolve(null)).then((lit) =>
        scope.postMessage({ id, lit: lit?.image ?? null, share: lit?.share ?? 0 }, lit ? buffers(lit.image) : []),
      )
      break
    }
    case 'reference': {
      const { id } = data
      void reference(data.of).then(
        (referenced) => scope.postMessage({ id, referenced, fault: '' }),
        (error: unknown) => scope.postMessage({ id, referenced: false, fault: sentence(error) }),
      )
      break
    }
  }
}

function readerOf(medium: Medium): ProxyReader | null {
  const { proxy } = medium
  if (!proxy) return null
  const reader = readers.get(medium.hash) ?? new ProxyReader({ ...medium, proxy }, sharedBytes)
  readers.set(medium.hash, reader)
  return reader
}

interface Source {
  readonly frame: Frame
  readonly unpack: Unpacking | null
  readonly source: Rendered['source']
}

/** A proxy's picture as the threads take it: each converts its own rows of it, where nothing is to be turned. */
function proxySource(taken: ProxyPicture, proxy: ProxyFacts, read: CodeRange): Source {
  if (!isPlain(proxy, taken.layout)) return { frame: frameOfProxy(taken, proxy, read), unpack: null, source: 'proxy' }
  if (target?.width !== proxy.width || target.height !== proxy.height)
    target = {
      width: proxy.width,
      height: proxy.height,
      data: new Uint16Array(sharedBytes(proxy.width * proxy.height * 6)),
      low: 0,
      high: 1,
    }
  return {
    frame: { ...target, ...proxySpan(proxy) },
    unpack: { planes: taken.planes, layout: taken.layout, range: proxyRange(proxy, read), matrix: proxy.matrix },
    source: 'proxy',
  }
}
let target: Frame | null = null

/** The exact frame where it is at hand or wanted; while a hand scrubs, the proxy's. */
async function frameFor({ medium, frameIndex, grade, size }: RenderRequest): Promise<Source> {
  const address = { mediaHash: medium.hash, index: frameIndex, range: grade.read.range }
  const known = frameAtHand(address)
  if (known) return { frame: known, unpack: null, source: 'exact' }
  const reader = size === dragSize && !playing ? readerOf(medium) : null
  if (reader && medium.proxy) {
    try {
      return proxySource(await reader.take(frameIndex), medium.proxy, grade.read.range)
    } catch {
      // Without a proxy the exact frame does.
      readers.delete(medium.hash)
    }
  }
  return { frame: await loadFrame(address), unpack: null, source: 'exact' }
}

/** At rest, with the frames that the grade looks at about it. */
async function withAround(source: Source, { medium, frameIndex, grade, size, asShot }: RenderRequest): Promise<Source> {
  const looked =
    size === restSize && !asShot && source.source === 'exact'
      ? framesLookedAt(grade, frameIndex, medium.span.first, medium.span.last)
      : []
  return looked.length === 0
    ? source
    : {
        ...source,
        frame: await frameWithAround(
          source.frame,
          { mediaHash: medium.hash, index: frameIndex, range: grade.read.range },
          looked,
        ),
      }
}

let scrubbed = 0
class Stale extends Error {}
let newest = 0

async function render(request: RenderRequest): Promise<Rendered> {
  const { id, size, asShot, frameIndex } = request
  const grade = gradeAt(request.grade, frameIndex)
  newest = id
  const { frame, unpack, source } = await withAround(await frameFor(request), request)
  await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
  // What came later is what is wanted now.
  if (newest !== id) throw new Stale()
  const plan = asShot || source === 'proxy' ? null : compile(grade, lutAtHand, frame, size, built)
  const accuracy = plan && size === restSize ? accuracyOf(plan, frame) : null
  let meridian: Meridian | null = null
  let partMeridian: Meridian | null = null
  // A scrubbed frame is to be seen at once.
  const count = source === 'exact' || scrubbed++ % measuredEvery === 0
  const taps = tapsOf(grade, lutAtHand, frame)
  const { viewing } = request
  last = {
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
    id,
    ok: true,
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

/** What was shown last, for questions about it. */
let last: LastPicture | null = null

/** Holds a trace as the reference: the last one, or that of a frame of any shot. */
async function reference(of: Extract<BenchRequest, { ask: 'reference' }>['of']): Promise<boolean> {
  if (of === 'this') return holdLast()
  holdCounted(null)
  if (of === null) return false
  const { medium, frameIndex, viewing } = of
  const grade = gradeAt(of.grade, frameIndex)
  const frame = await loadFrame({ mediaHash: medium.hash, index: frameIndex, range: grade.read.range })
  await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
  const count = countingFor({ ...viewing, part: null }, tapsOf(grade, lutAtHand, frame))
  const { counts } = await tiles.work(
    {
      work: workFor(grade, compile(grade, lutAtHand, frame, dragSize), null),
      displayId: grade.show.displayId,
      frame,
      unpack: null,
      overlay: null,
      mattes: null,
      matte: null,
      count,
    },
    () => undefined,
  )
  holdCounted(counts && (counts.tap ?? counts.end))
  return counts !== null
}

function accuracyOf(plan: Plan, frame: Frame): NonNullable<Rendered['accuracy']> {
  const report = planError(plan, frame)
  return { ...report, evaluated: withinBound(report) ? 'compiled' : 'direct' }
}

/** A plan without its chain, whose operations are functions and stay here. */
function sendable({ chain: _, ...passes }: Plan): Passes {
  return passes
}

function workFor(grade: GradeDocument, plan: Plan | null, accuracy: Rendered['accuracy']): Work {
  if (!plan) return { kind: 'asShot' }
  if (accuracy?.evaluated === 'direct')
    return {
      kind: 'direct',
      grade,
      luts: new Map(
        lutsOf(grade).flatMap((hash) => {
          const lut = lutAtHand(hash)
          return lut ? [[hash, lut] as const] : []
        }),
      ),
    }
  return { kind: 'passes', passes: sendable(plan) }
}

/** The grade as it is played: nearly as exact, and in time. */
function quickWork(grade: GradeDocument, frame: Frame): Work {
  const key = JSON.stringify([grade, frame.low, frame.high])
  if (quick?.key === key) return quick.work
  quick = { key, work: { kind: 'passes', passes: playable(grade, lutAtHand, frame, dragSize, played) } }
  return quick.work
}
let quick: { readonly key: string; readonly work: Work } | null = null

interface Playing {
  look: Pick<PlayRequest, 'grade' | 'asShot' | 'viewing'>
  onScreen: () => void
  readonly stop: () => void
}
let playing: Playing | null = null

async function startPlaying(request: PlayRequest): Promise<void> {
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
  const end = (frameIndex: number, counts: PlayCounts, fault = ''): void => {
    if (playing === mine) playing = null
    scope.postMessage({ id: request.id, ended: true, frameIndex, counts, fault })
  }
  const none = { shown: 0, dropped: 0 }
  const { medium } = request
  const reader = readerOf(medium)
  if (!reader || !medium.proxy) return end(request.plan.from, none, 'The proxy is still being made.')
  const { proxy } = medium
  let made: { readonly look: Playing['look']; readonly grade: GradeDocument; readonly work: Work } | null = null
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
          const { asShot, viewing } = mine.look
          const grade = gradeAt(mine.look.grade, index)
          const { frame, unpack } = proxySource(taken, proxy, grade.read.range)
          await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
          if (made?.look !== mine.look || made.grade !== grade)
            made = { look: mine.look, grade, work: asShot ? { kind: 'asShot' } : quickWork(grade, frame) }
          const count = progress.shown % measuredEvery === 1
          const taps = tapsOf(grade, lutAtHand, frame)
          last = { grade, whole: mine.look.grade, medium, frameIndex: index, asShot, frame, viewing, chain: null }
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
            scope.postMessage(
              { id: request.id, played: true, frameIndex: index, picture, measured: results, counts: progress },
              buffers(picture, ...tracesOf(results)),
            )
          })
        },
      },
      () => stopped,
    )
    end(played.last, played.counts)
  } catch (error) {
    readers.delete(medium.hash)
    end(request.plan.from, none, sentence(error))
  }
}
