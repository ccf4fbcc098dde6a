// The Bench's worker: fetches the frame, runs the Passage, measures the result, and plays. The interface thread only shows it.
import { LRUCache } from 'lru-cache'
import { buildChain, compile, dragSize, lutsOf, measureMeridian, missingLuts, paradeImage, planError, restSize, vectorImage, waveformImage, withinBound, type Frame, type GradeDocument, type Meridian, type Plan, type PlanCache, type ScopeCounts } from '@core/index'
import { factsOf } from './facts'
import { frameAtHand, loadFrame, loadLut, lutAtHand } from './frame-source'
import { measuredEvery, type BenchAnswer, type BenchRequest, type Measured, type Medium, type PlayRequest, type RenderRequest, type RenderResult } from './messages'
import { play, type PlayCounts } from './player'
import { frameOfProxy, isPlain, ProxyReader, proxyRange, proxySpan } from './proxy-reader'
import type { Unpacking, Work } from './tile'
import { sharedBytes, startTiles } from './tiles'

const built: PlanCache = new Map()
const tiles = startTiles()
/** Pixels measured for the Meridian: fewer while a hand moves. */
const meridianSamples = { dragging: 1000, resting: 6000 } as const
const readers = new LRUCache<string, ProxyReader>({ max: 2, dispose: (reader) => reader.close() })

const scope = self as unknown as { onmessage: ((e: MessageEvent<BenchRequest>) => void) | null; postMessage: (m: BenchAnswer, transfer?: Transferable[]) => void }
const buffers = (...images: { rgba: { buffer: ArrayBufferLike } }[]): Transferable[] => images.map((image) => image.rgba.buffer as ArrayBuffer)
const sentence = (error: unknown): string => (error instanceof Error ? error.message : String(error))

scope.onmessage = ({ data }) => {
  switch (data.ask) {
    case 'render':
      void render(data).then(
        (result) => scope.postMessage(result, buffers(result.picture, result.waveform, result.parade, result.vector)),
        (error: unknown) => scope.postMessage({ id: data.id, ok: false, message: sentence(error) }),
      )
      break
    case 'play': void startPlaying(data); break
    case 'regrade': if (playing) playing.look = data; break
    case 'shown': playing?.onScreen(); break
    case 'pause': playing?.stop(); break
  }
}

function readerOf(medium: Medium): ProxyReader | null {
  const { proxy } = medium
  if (!proxy) return null
  const reader = readers.get(medium.hash) ?? new ProxyReader({ ...medium, proxy }, sharedBytes)
  readers.set(medium.hash, reader)
  return reader
}

/** The exact frame where it is at hand or wanted; while a hand scrubs, the proxy's. */
async function frameFor({ medium, frameIndex, grade, size }: RenderRequest): Promise<{ frame: Frame; source: RenderResult['source'] }> {
  const address = { mediaHash: medium.hash, index: frameIndex, range: grade.read.range }
  const known = frameAtHand(address)
  if (known) return { frame: known, source: 'exact' }
  const reader = size === dragSize && !playing ? readerOf(medium) : null
  if (reader && medium.proxy) {
    try {
      return { frame: frameOfProxy(await reader.take(frameIndex), medium.proxy, grade.read.range), source: 'proxy' }
    } catch {
      // Without a proxy the exact frame does.
      readers.delete(medium.hash)
    }
  }
  return { frame: await loadFrame(address), source: 'exact' }
}

async function render(request: RenderRequest): Promise<RenderResult> {
  const { id, grade, size, asShot, frameIndex } = request
  const { frame, source } = await frameFor(request)
  await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
  const plan = asShot ? null : compile(grade, lutAtHand, frame, size, built)
  const accuracy = plan && size === restSize ? accuracyOf(plan, frame) : null
  let meridian: Meridian | null = null
  const { picture, counts } = await tiles.work({ work: workFor(grade, plan, accuracy), displayId: grade.show.displayId, frame, unpack: null, count: true }, () => {
    const chain = plan?.chain ?? buildChain(grade, lutAtHand)
    meridian = measureMeridian(chain, frame, size === dragSize ? meridianSamples.dragging : meridianSamples.resting)
  })
  return { id, ok: true, size, frameIndex, source, picture, ...measured(counts!), meridian, accuracy }
}

const measured = (counts: ScopeCounts): Measured => ({ waveform: waveformImage(counts), parade: paradeImage(counts), vector: vectorImage(counts), facts: factsOf(counts) })

function accuracyOf(plan: Plan, frame: Frame): NonNullable<RenderResult['accuracy']> {
  const report = planError(plan, frame)
  return { ...report, evaluated: withinBound(report) ? 'compiled' : 'direct' }
}

function workFor(grade: GradeDocument, plan: Plan | null, accuracy: RenderResult['accuracy']): Work {
  if (!plan) return { kind: 'asShot' }
  if (accuracy?.evaluated === 'direct') return { kind: 'direct', grade, luts: new Map(lutsOf(grade).flatMap((hash) => { const lut = lutAtHand(hash); return lut ? [[hash, lut] as const] : [] })) }
  return { kind: 'passes', passes: { decode: plan.decode, passes: plan.passes } }
}

interface Playing { look: Pick<PlayRequest, 'grade' | 'asShot'>; onScreen: () => void; readonly stop: () => void }
let playing: Playing | null = null

async function startPlaying(request: PlayRequest): Promise<void> {
  playing?.stop()
  let stopped = false, release = (): void => undefined
  const mine: Playing = { look: request, onScreen: () => release(), stop: () => { stopped = true; release() } }
  playing = mine
  const end = (frameIndex: number, counts: PlayCounts, fault = ''): void => {
    if (playing === mine) playing = null
    scope.postMessage({ id: request.id, ended: true, frameIndex, counts, fault })
  }
  const none = { shown: 0, dropped: 0 }
  const { medium } = request, reader = readerOf(medium)
  if (!reader || !medium.proxy) return end(request.plan.from, none, 'The proxy is still being made.')
  const { proxy } = medium
  let target: Frame | null = null
  try {
    const { last, counts } = await play(request.plan, {
      ask: (index) => reader.ask(index),
      forget: (wanted) => reader.forget(wanted),
      now: () => performance.now(),
      sleep: (ms) => new Promise((done) => setTimeout(done, ms)),
      show: async (index, progress) => {
        const taken = await reader.take(index)
        if (stopped) return
        const { grade, asShot } = mine.look
        let unpack: Unpacking | null = null
        if (isPlain(proxy, taken.layout)) {
          target ??= { width: proxy.width, height: proxy.height, data: new Uint16Array(sharedBytes(proxy.width * proxy.height * 6)), ...proxySpan(proxy) }
          unpack = { planes: taken.planes, layout: taken.layout, range: proxyRange(proxy, grade.read.range), matrix: proxy.matrix }
        } else {
          target = frameOfProxy(taken, proxy, grade.read.range)
        }
        const frame = target
        await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
        const plan = asShot ? null : compile(grade, lutAtHand, frame, dragSize, built)
        const count = progress.shown % measuredEvery === 1
        const { picture, counts } = await tiles.work({ work: workFor(grade, plan, null), displayId: grade.show.displayId, frame, unpack, count }, () => undefined)
        const results = counts && measured(counts)
        // One picture is on its way at a time; the clock goes on meanwhile.
        await new Promise<void>((done) => {
          release = done
          scope.postMessage({ id: request.id, played: true, frameIndex: index, picture, measured: results, counts: progress }, buffers(picture, ...(results ? [results.waveform, results.parade, results.vector] : [])))
        })
      },
    }, () => stopped)
    end(last, counts)
  } catch (error) {
    readers.delete(medium.hash)
    end(request.plan.from, none, sentence(error))
  }
}
