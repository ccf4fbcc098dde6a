// Boxes of a frame: cut out, and averaged.
import type { Frame } from './frame'

/** Whole pixels, from the upper left. */
export interface Box {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** Throws RangeError for an empty box or one that reaches outside. */
export function requireInside(frame: Pick<Frame, 'width' | 'height'>, { x, y, width, height }: Box): void {
  if (width < 1 || height < 1 || x < 0 || y < 0 || x + width > frame.width || y + height > frame.height)
    throw new RangeError(
      `The box ${x},${y},${width},${height} does not lie inside the picture of ${frame.width}×${frame.height}.`,
    )
}

/**
 * Mean R, G, B signal of a box that lies inside the frame. Throws RangeError for an empty box or one that reaches
 * outside.
 */
export function meanOfBox(frame: Frame, box: Box): readonly [number, number, number] {
  requireInside(frame, box)
  const { width, data, low, high } = frame
  const sums = [0, 0, 0]
  for (let y = box.y; y < box.y + box.height; y++)
    for (let x = box.x; x < box.x + box.width; x++) for (let c = 0; c < 3; c++) sums[c] += data[(y * width + x) * 3 + c]
  const signal = (sum: number): number => low + ((high - low) * sum) / (box.width * box.height) / 65535
  return [signal(sums[0]), signal(sums[1]), signal(sums[2])]
}

/** The part of a frame inside a box. Throws RangeError for an empty box or one that reaches outside. */
export function cut(frame: Frame, { x, y, width, height }: Box): Frame {
  requireInside(frame, { x, y, width, height })
  const data = new Uint16Array(width * height * 3)
  for (let row = 0; row < height; row++) {
    const from = ((y + row) * frame.width + x) * 3
    data.set(frame.data.subarray(from, from + width * 3), row * width * 3)
  }
  return { ...frame, width, height, data }
}
