// The clip trace's worker: every frame of a shot through the present grade, from the proxy, coarse to fine, out of the
// way of the hand.
import { displayById, lumaWeights } from '@core/colour'
import { compile, dragSize, execute, gradeAt, type GradeDocument, type PlanCache } from '@core/grade'
import { planesToRows, type Frame } from '@core/image'
import { coarseToFine, traceFrame, type FrameTrace } from '@core/instruments'
import { serve, type CallContext } from './calls'
import { loadLutsOf, lutAtHand } from './frame-source'
import type { Medium } from './messages'
import type { ProxyFacts } from '@contracts/responses'
import { frameOfProxy, isPlain, proxyRange, proxyReaderOf, proxySpan, type ProxyPicture } from './proxy-reader'

const tellEveryMs = 200
/** Every second pixel of every second row: enough for percentiles to a tenth of a percent. */
const stride = 2

export interface TraceQuestion {
  readonly medium: Medium & { readonly proxy: ProxyFacts }
  readonly grade: GradeDocument
  readonly first: number
  readonly count: number
}
/** Some more frames: numbers within the shot, and their measures. */
export interface Traced {
  readonly frames: readonly number[]
  readonly traces: readonly FrameTrace[]
}

/** While a hand is at work both cores are its own. */
let paused: Promise<void> | null = null
let resume = (): void => undefined
function pause(): void {
  paused ??= new Promise((done) => {
    resume = () => {
      paused = null
      done()
    }
  })
}

async function trace(
  { medium, grade, first, count }: TraceQuestion,
  { signal, tell }: CallContext<Traced>,
): Promise<void> {
  const source = proxyReaderOf(medium)
  await loadLutsOf(grade)
  const display = displayById(grade.show.displayId)
  const topCode = Math.round(display.eotf.encode(display.carriedPeak) * 65535)
  const weights = lumaWeights(display.lumaMatrix)
  const built: PlanCache = new Map()
  const order = coarseToFine(count)
  let frames: number[] = []
  let traces: FrameTrace[] = []
  let toldAt = performance.now()
  const tellMore = (): void => {
    tell({ frames, traces })
    frames = []
    traces = []
    toldAt = performance.now()
  }
  for (const [i, at] of order.entries()) {
    if (paused) await paused
    if (signal.aborted) return
    const next = order[i + 1]
    source.forget((index) => index === first + at)
    source.ask(first + at)
    if (next !== undefined) source.ask(first + next)
    const frame = thinned(await source.take(first + at), medium.proxy, grade.read.range)
    const shown = execute(compile(gradeAt(grade, first + at), lutAtHand, frame, dragSize, built), frame)
    frames.push(at)
    traces.push(traceFrame(shown.data, weights, topCode))
    if (performance.now() - toldAt > tellEveryMs) tellMore()
  }
  tellMore()
}

let row = new Uint16Array(0)

/** A frame of every second pixel both ways. */
function thinned(picture: ProxyPicture, proxy: TraceQuestion['medium']['proxy'], range: 'full' | 'legal'): Frame {
  const whole = isPlain(proxy, picture.layout) ? null : frameOfProxy(picture, proxy, range)
  const { width, height } = whole ?? picture.layout
  const out = { width: Math.ceil(width / stride), height: Math.ceil(height / stride) }
  const data = new Uint16Array(out.width * out.height * 3)
  if (!whole && row.length !== width * height * 3) row = new Uint16Array(width * height * 3)
  const from = whole?.data ?? row
  for (let y = 0, o = 0; y < out.height; y++) {
    if (!whole)
      planesToRows(
        picture.planes,
        picture.layout,
        proxyRange(proxy, range),
        proxy.matrix,
        row,
        y * stride,
        y * stride + 1,
      )
    for (let x = 0; x < out.width; x++, o += 3) {
      const i = (y * stride * width + x * stride) * 3
      data[o] = from[i] ?? 0
      data[o + 1] = from[i + 1] ?? 0
      data[o + 2] = from[i + 2] ?? 0
    }
  }
  return { ...out, data, ...(whole ? { low: whole.low, high: whole.high } : proxySpan(proxy)) }
}

const functions = { trace, pause, resume: (): void => resume() }
export type TraceFunctions = typeof functions
serve(functions)
