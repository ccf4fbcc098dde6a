// Scope counts as pictures: brightness on a log scale, so that single pixels show beside large areas.
import type { ScopeCounts } from './scopes'

export interface TraceImage { readonly width: number; readonly height: number; readonly rgba: Uint8ClampedArray }
type Ink = readonly [number, number, number]

// Trace inks: luma in pale ink; the channels in their own colours, lightened so that each is legible on the dark ground.
const pale: Ink = [240, 240, 236]
const redInk: Ink = [255, 104, 92]
const greenInk: Ink = [112, 232, 120]
const blueInk: Ink = [122, 150, 255]

/** A lookup from a count to 0..1: one pixel is already visible, `full` pixels are full brightness. */
function brightness(full: number): Float32Array {
  const table = new Float32Array(1024)
  const scale = Math.log1p(full)
  for (let n = 1; n < table.length; n++) table[n] = Math.min(1, 0.16 + (0.84 * Math.log1p(n)) / scale)
  return table
}

function paint(counts: Uint32Array, width: number, height: number, ink: Ink, full: number, image: TraceImage, atX: number): void {
  const table = brightness(full)
  for (let row = 0; row < height; row++) {
    const line = height - 1 - row
    for (let x = 0; x < width; x++) {
      const n = counts[row * width + x]!
      if (n === 0) continue
      const value = table[Math.min(n, 1023)]!
      const o = (line * image.width + atX + x) * 4
      image.rgba[o] = ink[0]
      image.rgba[o + 1] = ink[1]
      image.rgba[o + 2] = ink[2]
      image.rgba[o + 3] = value * 255
    }
  }
}

const blank = (width: number, height: number): TraceImage => ({ width, height, rgba: new Uint8ClampedArray(width * height * 4) })

export function waveformImage({ waveform, sizes, pixels }: ScopeCounts): TraceImage {
  const image = blank(sizes.columns, sizes.levels)
  paint(waveform, sizes.columns, sizes.levels, pale, Math.max(8, pixels / sizes.columns / 12), image, 0)
  return image
}

/** Red, green and blue side by side. */
export function paradeImage({ red, green, blue, sizes, pixels }: ScopeCounts): TraceImage {
  const image = blank(sizes.columns * 3, sizes.levels)
  const full = Math.max(8, pixels / sizes.columns / 12)
  paint(red, sizes.columns, sizes.levels, redInk, full, image, 0)
  paint(green, sizes.columns, sizes.levels, greenInk, full, image, sizes.columns)
  paint(blue, sizes.columns, sizes.levels, blueInk, full, image, sizes.columns * 2)
  return image
}

export function vectorImage({ vector, sizes, pixels }: ScopeCounts): TraceImage {
  const image = blank(sizes.vectorCells, sizes.vectorCells)
  paint(vector, sizes.vectorCells, sizes.vectorCells, pale, Math.max(8, pixels / 2000), image, 0)
  return image
}
