// The pixels that a reading rests on, where they are neither an area nor marks that the picture can carry all the time.
import { coarsePixels } from './banding'
import type { ReadingId } from './kinds'
import { noisePixels } from './noise'
import type { MeasuredPicture } from './picture'

const pixels: Partial<Record<ReadingId, (picture: MeasuredPicture) => Uint8Array>> = {
  noise: noisePixels,
  noiseGain: noisePixels,
  banding: coarsePixels,
}

export const hasPixels = (id: ReadingId): boolean => id in pixels

/** One byte per pixel, one where the reading counts it; null for a reading without such pixels. */
export const pixelsBehind = (picture: MeasuredPicture, id: ReadingId): Uint8Array | null =>
  pixels[id]?.(picture) ?? null
