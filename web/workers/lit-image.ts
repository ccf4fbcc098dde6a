// Marks to lay over the picture.
import type { Frame } from '@core/image'
import type { TraceImage } from '@core/instruments'

export interface LitPixels {
  readonly image: TraceImage
  /** Share of the pixels, 0..1. */ readonly share: number
}

/** Pale where a pixel is marked, a veil of dark over the rest. */
export function litImage(marks: Uint8Array, { width, height }: Pick<Frame, 'width' | 'height'>): LitPixels {
  const rgba = new Uint8ClampedArray(width * height * 4)
  const pixels = new Uint32Array(rgba.buffer)
  const lit = ((235 << 24) | (207 << 16) | (226 << 8) | 233) >>> 0
  const veil = (150 << 24) >>> 0
  let count = 0
  for (let p = 0; p < marks.length; p++) {
    if (marks[p]) count++
    pixels[p] = marks[p] ? lit : veil
  }
  return { image: { width, height, rgba }, share: count / marks.length }
}
