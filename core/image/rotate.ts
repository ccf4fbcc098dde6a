// Turning a frame by quarter turns, as a camera held upright asks for.
import type { Frame } from './frame'

export type QuarterTurn = 0 | 90 | 180 | 270

/** The frame turned clockwise. */
export function rotate(frame: Frame, degrees: QuarterTurn): Frame {
  if (degrees === 0) return frame
  const { width, height, data } = frame
  const [w, h] = degrees === 180 ? [width, height] : [height, width]
  const source = {
    90: (x: number, y: number) => (height - 1 - x) * width + y,
    180: (x: number, y: number) => (height - 1 - y) * width + width - 1 - x,
    270: (x: number, y: number) => x * width + width - 1 - y,
  }[degrees]
  const out = new Uint16Array(data.length)
  for (let y = 0, o = 0; y < h; y++)
    for (let x = 0; x < w; x++, o += 3) {
      const i = source(x, y) * 3
      out[o] = data[i]
      out[o + 1] = data[i + 1]
      out[o + 2] = data[i + 2]
    }
  return { ...frame, width: w, height: h, data: out }
}
