// A surface through a clip: where it lies in each frame, and the signal that the camera wrote for it.
import type { Vector3 } from '../colour'
import type { Frame } from '../image'
import { pixelsOf, type Area } from '../readings'
import { moved, noMotion, type Homography } from '../regions'
import { startTracker, type Level, type Tracker, type TrackLoss } from '../regions/track'

export type SurfaceLoss = TrackLoss | 'flat'
/** What the camera wrote for a surface on a frame of the medium: red, green and blue, 0..1 of the code range. */
export interface SurfaceSample {
  readonly frame: number
  readonly signal: Vector3
}
export interface NumberedFrame {
  readonly frame: number
  readonly picture: Frame
}

/** An even surface has nothing to be followed by: then its surroundings carry it, at worst the whole picture. */
const growths = [0, 0.6, 1.5, Infinity] as const
/** Places across and down at which a surface is read. */
const across = 20
/** More of it than this must be in the picture. */
const leastInside = 0.6

/** Lost for so many frames it is not looked for any longer: what hid it has not passed. */
const patience = 16

/**
 * Follows what lies in an area of the first frame through the others, in their order, and tells what it found on each;
 * frames on which it is hidden are left out. Returns why it ended before they did; null where it did not.
 */
export async function* followSurface(
  first: NumberedFrame,
  area: Area,
  frames: AsyncIterable<NumberedFrame> | Iterable<NumberedFrame>,
): AsyncGenerator<SurfaceSample, SurfaceLoss | null> {
  const level = brightness(first.picture)
  const begin = (growth: number): Tracker | null =>
    startTracker(level, { kind: 'similarity', allowed: within(first.picture, grown(area, growth)) })
  const tracker = growths.reduce<Tracker | null>((found, growth) => found ?? begin(growth), null)
  const here = signalIn(first.picture, area, noMotion)
  if (here) yield { frame: first.frame, signal: here }
  if (!tracker || !here) return 'flat'
  let missed: SurfaceLoss[] = []
  for await (const { frame, picture } of frames) {
    const step = tracker.next(brightness(picture))
    const signal = typeof step === 'string' ? step : (signalIn(picture, area, step.motion) ?? 'gone')
    if (typeof signal === 'string') missed.push(signal)
    else {
      missed = []
      yield { frame, signal }
    }
    if (missed.length > patience) break
  }
  return missed[0] ?? null
}

function brightness({ width, height, data }: Frame): Level {
  const values = new Float32Array(width * height)
  for (let p = 0; p < values.length; p++) values[p] = data[p * 3 + 1] / 65535
  return { width, height, values }
}

function grown({ left, top, right, bottom }: Area, by: number): Area {
  const wide = by === Infinity ? 1 : (right - left) * by
  const high = by === Infinity ? 1 : (bottom - top) * by
  return {
    left: Math.max(0, left - wide),
    top: Math.max(0, top - high),
    right: Math.min(1, right + wide),
    bottom: Math.min(1, bottom + high),
  }
}

function within(frame: Frame, area: Area): Uint8Array {
  const { x0, x1, y0, y1 } = pixelsOf(area, frame)
  const allowed = new Uint8Array(frame.width * frame.height)
  for (let y = y0; y < y1; y++) allowed.fill(1, y * frame.width + x0, y * frame.width + x1)
  return allowed
}

/** The middle of each channel, so that what passes over a part of it does not count. Null where it left the picture. */
function signalIn(frame: Frame, area: Area, motion: Homography): Vector3 | null {
  const { width, height, data, low, high } = frame
  const channels: [number[], number[], number[]] = [[], [], []]
  for (let j = 0; j < across; j++)
    for (let i = 0; i < across; i++) {
      const x = ((area.left + ((i + 0.5) / across) * (area.right - area.left)) * width) / height
      const y = area.top + ((j + 0.5) / across) * (area.bottom - area.top)
      const [u, v] = moved(motion, x, y)
      const px = Math.floor(u * height)
      const py = Math.floor(v * height)
      if (px < 0 || py < 0 || px >= width || py >= height) continue
      const at = (py * width + px) * 3
      channels.forEach((values, c) => values.push(data[at + c]))
    }
  if (channels[0].length < leastInside * across * across) return null
  const middle = (values: number[]): number =>
    low + (values.sort((a, b) => a - b)[values.length >> 1] / 65535) * (high - low)
  return [middle(channels[0]), middle(channels[1]), middle(channels[2])]
}
