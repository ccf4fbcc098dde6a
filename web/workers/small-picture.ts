// A frame as a picture of 8 bits, for lists and choices.
import type { Frame } from '@core/image'
import type { TraceImage } from '@core/instruments'

/** Codes of any span: 0 to 1 of the signal become black to white. */
export function imageOf({ width, height, data, low, high }: Frame): TraceImage {
  const rgba = new Uint8ClampedArray(width * height * 4)
  const scale = ((high - low) * 255) / 65535
  const offset = low * 255
  for (let p = 0; p < width * height; p++) {
    for (let c = 0; c < 3; c++) rgba[p * 4 + c] = (data[p * 3 + c] ?? 0) * scale + offset
    rgba[p * 4 + 3] = 255
  }
  return { width, height, rgba }
}
