// Scope counts as pictures: brightness on a log scale, so that single pixels show beside large areas.
import type { ScopeCounts } from './scopes'

export interface TraceImage { readonly width: number; readonly height: number; readonly rgba: Uint8ClampedArray }
type Ink = readonly [number, number, number]

// Trace inks: luma in pale ink; the channels in their own colours, lightened so that each is legible on the dark ground.
const pale: Ink = [240, 240, 236]
const redInk: Ink = [255, 104, 92]
const greenInk: Ink = [112, 232, 120]
const blueInk: Ink = [122, 150, 255]

/** From a count to a packed pixel (ABGR, as little-endian canvas memory holds it): one pixel is already visible, `full` pixels are full brightness. */
function brightness(full: number, [red, green, blue]: Ink): Uint32Array {
  const scale = Math.log1p(full), colour = (blue << 16) | (green << 8) | red
  return Uint32Array.from({ length: 1024 }, (_, n) => {
    if (n === 0) return 0
    const alpha = Math.round(255 * Math.min(1, 0.16 + (0.84 * Math.log1p(n)) / scale))
    return ((alpha << 24) | colour) >>> 0
  })
}

/** Paints counts that lie column by column, lowest level first. */
function paintColumns(counts: Uint32Array, width: number, height: number, ink: Ink, full: number, image: TraceImage, atX: number): void {
  const table = brightness(full, ink)
  const pixels = new Uint32Array(image.rgba.buffer)
  const bottom = (height - 1) * image.width + atX
  // The image starts blank and most counts are zero: only the others are written.
  for (let x = 0, i = 0; x < width; x++)
    for (let row = 0; row < height; row++, i++) {
      const n = counts[i]!
      if (n !== 0) pixels[bottom + x - row * image.width] = table[n < 1023 ? n : 1023]!
    }
}

/** Paints counts that lie row by row, lowest row first. */
function paintRows(counts: Uint32Array, width: number, height: number, ink: Ink, full: number, image: TraceImage): void {
  const table = brightness(full, ink)
  const pixels = new Uint32Array(image.rgba.buffer)
  for (let row = 0; row < height; row++) {
    const line = (height - 1 - row) * image.width
    for (let x = 0; x < width; x++) {
      const n = counts[row * width + x]!
      if (n !== 0) pixels[line + x] = table[n < 1023 ? n : 1023]!
    }
  }
}

const blank = (width: number, height: number): TraceImage => ({ width, height, rgba: new Uint8ClampedArray(width * height * 4) })

export function waveformImage({ waveform, sizes, pixels }: ScopeCounts): TraceImage {
  const image = blank(sizes.columns, sizes.levels)
  paintColumns(waveform, sizes.columns, sizes.levels, pale, Math.max(8, pixels / sizes.columns / 12), image, 0)
  return image
}

/** Red, green and blue side by side. */
export function paradeImage({ red, green, blue, sizes, pixels }: ScopeCounts): TraceImage {
  const image = blank(sizes.columns * 3, sizes.levels)
  const full = Math.max(8, pixels / sizes.columns / 12)
  paintColumns(red, sizes.columns, sizes.levels, redInk, full, image, 0)
  paintColumns(green, sizes.columns, sizes.levels, greenInk, full, image, sizes.columns)
  paintColumns(blue, sizes.columns, sizes.levels, blueInk, full, image, sizes.columns * 2)
  return image
}

export function vectorImage({ vector, sizes, pixels }: ScopeCounts): TraceImage {
  const image = blank(sizes.vectorCells, sizes.vectorCells)
  paintRows(vector, sizes.vectorCells, sizes.vectorCells, pale, Math.max(8, pixels / 2000), image)
  return image
}
