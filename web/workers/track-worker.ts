// Follows a shape through a clip, on the brightness of the proxy's frames, and tells what it found as it goes.
import { motionAfter, renderShapeMatte, startTracker, trackNumbers, type Level, type TrackLoss } from '@core/regions'
import { frameOfProxy, isPlain, ProxyReader, type ProxyPicture } from './proxy-reader'
import type { TrackAnswer, TrackOrder, TrackRequest } from './track-messages'

const scope = self as unknown as {
  onmessage: ((e: MessageEvent<TrackOrder>) => void) | null
  postMessage: (m: TrackAnswer) => void
}
const answerEveryMs = 150
let running = 0
let reader: { readonly hash: string; readonly it: ProxyReader } | null = null

scope.onmessage = ({ data }) => {
  if (data.ask === 'stop') {
    running = 0
    return
  }
  running = data.id
  void track(data).catch((error: unknown) =>
    scope.postMessage({
      id: data.id,
      frames: [],
      values: [],
      quality: [],
      done: true,
      why: error instanceof Error ? error.message : String(error),
      framesPerSecond: 0,
    }),
  )
}

const reasons: Readonly<Record<TrackLoss | 'flat', string>> = {
  few: 'too few of its points agree: it is hidden, or it has changed',
  gone: 'it has left the picture',
  flat: 'there is too little detail in it to follow',
}

async function track({ id, medium, from, motion, shape, kind, frames, excluded }: TrackRequest): Promise<void> {
  if (reader?.hash !== medium.hash) {
    reader?.it.close()
    reader = { hash: medium.hash, it: new ProxyReader(medium, (bytes) => new ArrayBuffer(bytes)) }
  }
  const source = reader.it
  const take = async (index: number, next?: number): Promise<Level> => {
    source.forget((asked) => asked === index || asked === next)
    source.ask(index)
    if (next !== undefined) source.ask(next)
    return brightness(await source.take(index), medium.proxy)
  }
  const first = await take(from, frames[0])
  const matte = renderShapeMatte(shape, first.width, first.height)
  const allowed = Uint8Array.from(matte, (m) => (m > 0.5 ? 1 : 0))
  for (const { x, y, radius } of excluded) exclude(allowed, first, x, y, radius)
  const tracker = startTracker(first, { kind, allowed })
  let found: { frames: number[]; values: (readonly number[])[]; quality: (readonly [number, number])[] } = {
    frames: [],
    values: [],
    quality: [],
  }
  let answeredAt = performance.now()
  let count = 0
  const begun = performance.now()
  const answer = (done: boolean, why = ''): void => {
    scope.postMessage({
      id,
      ...found,
      done,
      why,
      framesPerSecond: (count * 1000) / Math.max(1, performance.now() - begun),
    })
    found = { frames: [], values: [], quality: [] }
    answeredAt = performance.now()
  }
  if (!tracker) return answer(true, reasons.flat)
  for (const [i, index] of frames.entries()) {
    if (running !== id) return answer(true)
    const step = tracker.next(await take(index, frames[i + 1]))
    if (typeof step === 'string') return answer(true, reasons[step])
    count++
    found.frames.push(index)
    found.values.push(trackNumbers(kind, motionAfter(step.motion, motion)))
    found.quality.push([Math.round(step.agreeing * 1000) / 1000, Math.round(step.residual * 1e6) / 1000])
    if (performance.now() - answeredAt > answerEveryMs) answer(false)
  }
  answer(true)
}

function exclude(allowed: Uint8Array, { width, height }: Level, x: number, y: number, radius: number): void {
  const cx = x * width
  const cy = y * height
  const r = radius * height
  for (let v = Math.max(0, Math.floor(cy - r)); v < Math.min(height, cy + r); v++)
    for (let u = Math.max(0, Math.floor(cx - r)); u < Math.min(width, cx + r); u++)
      if ((u - cx) ** 2 + (v - cy) ** 2 < r * r) allowed[v * width + u] = 0
}

/** Luma as it is coded: what is followed needs no light. */
function brightness(picture: ProxyPicture, proxy: TrackRequest['medium']['proxy']): Level {
  const {
    planes: { y },
    layout,
  } = picture
  if (isPlain(proxy, layout)) {
    const values = new Float32Array(layout.width * layout.height)
    for (let p = 0; p < values.length; p++) values[p] = (y[p] ?? 0) / 1023
    return { width: layout.width, height: layout.height, values }
  }
  const { width, height, data } = frameOfProxy(picture, proxy, 'full')
  const values = new Float32Array(width * height)
  for (let p = 0; p < values.length; p++) values[p] = (data[p * 3 + 1] ?? 0) / 65535
  return { width, height, values }
}
