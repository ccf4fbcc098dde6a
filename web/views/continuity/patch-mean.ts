// A drawn picture beside another one: brought to the same shape, and the mean colour of a part of it.
import type { TraceImage } from '@core/instruments'
import type { Area } from '@core/readings'

/** A mean colour of display signal, 0..1. */
export type Mean = readonly [number, number, number]

/** Of at least one pixel, in whole ones. */
export function meanOf({ width, height, rgba }: TraceImage, { left, right, top, bottom }: Area): Mean {
  const sum: [number, number, number] = [0, 0, 0]
  const [x0, y0] = [Math.min(width - 1, Math.floor(left * width)), Math.min(height - 1, Math.floor(top * height))]
  const x1 = Math.min(width, Math.max(x0 + 1, Math.ceil(right * width)))
  const y1 = Math.min(height, Math.max(y0 + 1, Math.ceil(bottom * height)))
  for (let y = y0; y < y1; y++)
    for (let x = x0; x < x1; x++)
      for (let c = 0; c < 3; c++) sum[c] = (sum[c] ?? 0) + (rgba[(y * width + x) * 4 + c] ?? 0) / 255
  const n = (x1 - x0) * (y1 - y0)
  return [sum[0] / n, sum[1] / n, sum[2] / n]
}

export const css = (mean: Mean): string =>
  `rgb(${mean.map((v) => Math.round(Math.min(1, Math.max(0, v)) * 255)).join(' ')})`

/** A picture with clear margins, so that it is not stretched where another shape is shown. Aspects are as shown. */
export function shapedTo({ width, height, rgba }: TraceImage, own: number, wanted: number): TraceImage {
  const wide = Math.max(width, Math.round((width * wanted) / own))
  const high = Math.max(height, Math.round((height * own) / wanted))
  if (wide === width && high === height) return { width, height, rgba }
  const out = new Uint8ClampedArray(wide * high * 4)
  const [x0, y0] = [(wide - width) >> 1, (high - height) >> 1]
  for (let y = 0; y < height; y++)
    out.set(rgba.subarray(y * width * 4, (y + 1) * width * 4), ((y + y0) * wide + x0) * 4)
  return { width: wide, height: high, rgba: out }
}
