// Follows a shape through a clip, on the brightness of the proxy's frames, and tells what it found as it goes.
import {
  motionAfter,
  renderShapeMatte,
  startTracker,
  trackNumbers,
  type Homography,
  type Level,
  type ShownShape,
  type Tracker,
  type TrackKind,
  type TrackLoss,
} from '@core/regions'
import type { ProxyFacts } from '@contracts/responses'
import { serve, type CallContext } from './calls'
import type { Medium } from './messages'
import { frameOfProxy, isPlain, proxyFrames, proxyReaderOf, type ProxyPicture } from './proxy-reader'

const tellEveryMs = 150
export interface TrackQuestion {
  readonly medium: Medium & { readonly proxy: ProxyFacts }
  /** The frame it begins at, and what has moved there already since the track's reference frame. */
  readonly from: number
  readonly motion: Homography
  /** The shape as it lies at that frame. */
  readonly shape: ShownShape
  readonly kind: TrackKind
  /** Frames to follow it through, in order. */
  readonly frames: readonly number[]
  /** Parts of the picture (shares of it, radius of its height) that no point is taken from. */
  readonly excluded: readonly { readonly x: number; readonly y: number; readonly radius: number }[]
}
/** Frames followed since the last event: the numbers of the kind, and two of quality for each. */
export interface Followed {
  readonly frames: readonly number[]
  readonly values: readonly (readonly number[])[]
  readonly quality: readonly (readonly [number, number])[]
  readonly framesPerSecond: number
}
/** Why it ended before the last frame; empty where it did not. */
export interface TrackEnd {
  readonly why: string
}

const reasons: Readonly<Record<TrackLoss | 'flat', string>> = {
  few: 'too few of its points agree: it is hidden, or it has changed',
  gone: 'it has left the picture',
  flat: 'there is too little detail in it to follow',
}

async function track(
  { medium, from, motion, shape, kind, frames, excluded }: TrackQuestion,
  { signal, tell }: CallContext<Followed>,
): Promise<TrackEnd> {
  let found: { frames: number[]; values: (readonly number[])[]; quality: (readonly [number, number])[] } = {
    frames: [],
    values: [],
    quality: [],
  }
  let toldAt = performance.now()
  let count = 0
  const begun = performance.now()
  const tellMore = (): void => {
    tell({ ...found, framesPerSecond: (count * 1000) / Math.max(1, performance.now() - begun) })
    found = { frames: [], values: [], quality: [] }
    toldAt = performance.now()
  }
  const end = (why: string): TrackEnd => {
    tellMore()
    return { why }
  }
  let tracker: Tracker | null = null
  for await (const picture of proxyFrames(proxyReaderOf(medium), [from, ...frames])) {
    if (signal.aborted) return end('')
    const { index } = picture
    const level = brightness(picture, medium.proxy)
    if (!tracker) {
      const matte = renderShapeMatte(shape, level.width, level.height)
      const allowed = Uint8Array.from(matte, (m) => (m > 0.5 ? 1 : 0))
      for (const { x, y, radius } of excluded) exclude(allowed, level, x, y, radius)
      tracker = startTracker(level, { kind, allowed })
      if (!tracker) return end(reasons.flat)
      continue
    }
    const step = tracker.next(level)
    if (typeof step === 'string') return end(reasons[step])
    count++
    found.frames.push(index)
    found.values.push(trackNumbers(kind, motionAfter(step.motion, motion)))
    found.quality.push([Math.round(step.agreeing * 1000) / 1000, Math.round(step.residual * 1e6) / 1000])
    if (performance.now() - toldAt > tellEveryMs) tellMore()
  }
  return end('')
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
function brightness(picture: ProxyPicture, proxy: TrackQuestion['medium']['proxy']): Level {
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

const functions = { track }
export type TrackFunctions = typeof functions
serve(functions)
