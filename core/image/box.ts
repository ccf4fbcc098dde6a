// Means over boxes of a frame.
import type { Frame } from './frame'

/** Whole pixels, from the upper left. */
export interface Box { readonly x: number; readonly y: number; readonly width: number; readonly height: number }

/** Mean R, G, B signal of a box that lies inside the frame. Throws RangeError for an empty box or one that reaches outside. */
export function meanOfBox({ width, height, data, low, high }: Frame, box: Box): readonly [number, number, number] {
  if (box.width < 1 || box.height < 1 || box.x < 0 || box.y < 0 || box.x + box.width > width || box.y + box.height > height) throw new RangeError('The box does not lie inside the picture.')
  const sums = [0, 0, 0]
  for (let y = box.y; y < box.y + box.height; y++)
    for (let x = box.x; x < box.x + box.width; x++) for (let c = 0; c < 3; c++) sums[c]! += data[(y * width + x) * 3 + c]!
  const signal = (sum: number): number => low + ((high - low) * sum) / (box.width * box.height) / 65535
  return [signal(sums[0]!), signal(sums[1]!), signal(sums[2]!)]
}
