// The clip trace's worker: every frame of a shot through the present grade, from the proxy, coarse to fine, out of the
// way of the hand.
import { displayById, lumaWeights } from '@core/colour'
import { compile, dragSize, execute, gradeAt, missingLuts, type PlanCache } from '@core/grade'
import { planesToRows, type Frame } from '@core/image'
import { coarseToFine, traceFrame, type FrameTrace } from '@core/instruments'
import { loadLut, lutAtHand } from './frame-source'
import { frameOfProxy, isPlain, ProxyReader, proxyRange, proxySpan, type ProxyPicture } from './proxy-reader'
import type { TraceAnswer, TraceOrder, TraceRequest } from './trace-messages'

const scope = self as unknown as {
  onmessage: ((e: MessageEvent<TraceOrder>) => void) | null
  postMessage: (m: TraceAnswer) => void
}
const answerEveryMs = 200
/** Every second pixel of every second row: enough for percentiles to a tenth of a percent. */
const stride = 2

let running = 0
let held: Promise<void> | null = null
let letGo = (): void => undefined
let reader: { readonly hash: string; readonly it: ProxyReader } | null = null

scope.onmessage = ({ data }) => {
  switch (data.ask) {
    case 'trace':
      running = data.id
      void trace(data).catch((error: unknown) =>
        scope.postMessage({
          id: data.id,
          frames: [],
          traces: [],
          done: true,
          fault: error instanceof Error ? error.message : String(error),
        }),
      )
      break
    case 'wait':
      held ??= new Promise((done) => {
        letGo = () => {
          held = null
          done()
        }
      })
      break
    case 'go on':
      letGo()
      break
    case 'stop':
      running = 0
      letGo()
      break
  }
}

async function trace({ id, medium, grade, first, count }: TraceRequest): Promise<void> {
  if (reader?.hash !== medium.hash) {
    reader?.it.close()
    reader = { hash: medium.hash, it: new ProxyReader(medium, (bytes) => new ArrayBuffer(bytes)) }
  }
  const source = reader.it
  await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
  const display = displayById(grade.show.displayId)
  const topCode = Math.round(display.eotf.encode(display.carriedPeak) * 65535)
  const weights = lumaWeights(display.lumaMatrix)
  const built: PlanCache = new Map()
  const order = coarseToFine(count)
  let frames: number[] = []
  let traces: FrameTrace[] = []
  let answeredAt = performance.now()
  const answer = (done: boolean): void => {
    scope.postMessage({ id, frames, traces, done, fault: '' })
    frames = []
    traces = []
    answeredAt = performance.now()
  }
  for (const [i, at] of order.entries()) {
    if (held) await held
    if (running !== id) return
    const next = order[i + 1]
    source.forget((index) => index === first + at)
    source.ask(first + at)
    if (next !== undefined) source.ask(first + next)
    const frame = thinned(await source.take(first + at), medium.proxy, grade.read.range)
    const shown = execute(compile(gradeAt(grade, first + at), lutAtHand, frame, dragSize, built), frame)
    frames.push(at)
    traces.push(traceFrame(shown.data, weights, topCode))
    if (performance.now() - answeredAt > answerEveryMs) answer(false)
  }
  answer(true)
}

let row = new Uint16Array(0)

/** A frame of every second pixel both ways. */
function thinned(picture: ProxyPicture, proxy: TraceRequest['medium']['proxy'], range: 'full' | 'legal'): Frame {
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
