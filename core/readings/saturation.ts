// How colourful the picture is, and where it is hottest.
import { pixelsOf, type Area, type MeasuredPicture } from './picture'
import type { Finding } from './reading'

const bins = 2048
const hueBins = 72

/** Names of directions on the vectorscope, from +Cb anticlockwise. */
const hueNames = [
  [0, 'blue'],
  [52, 'magenta'],
  [103, 'red'],
  [130, 'orange'],
  [172, 'yellow'],
  [232, 'green'],
  [283, 'cyan'],
  [330, 'azure'],
  [360, 'blue'],
] as const
export function hueName(degrees: number): string {
  const at = ((degrees % 360) + 360) % 360
  return hueNames.reduce((best, h) => (Math.abs(h[0] - at) < Math.abs(best[0] - at) ? h : best))[1]
}

export interface Saturation {
  readonly mean: number
  readonly top: number
  readonly hottestDegrees: number
  readonly area: Area
}

/** Chroma is 2 · hypot(Cb, Cr): 1 is the largest Cb or Cr. */
export function measureSaturation(
  { shown, luma: w }: Pick<MeasuredPicture, 'shown' | 'luma'>,
  within: Area = { left: 0, top: 0, right: 1, bottom: 1 },
): Saturation {
  const { width, height, data } = shown
  const { x0, x1, y0, y1 } = pixelsOf(within, shown)
  const histogram = new Uint32Array(bins)
  let sum = 0
  const chromaAt = (i: number): readonly [number, number, number] => {
    const r = data[i] / 65535
    const g = data[i + 1] / 65535
    const b = data[i + 2] / 65535
    const l = w.red * r + w.green * g + w.blue * b
    const cb = (b - l) / w.cbDivisor
    const cr = (r - l) / w.crDivisor
    return [2 * Math.sqrt(cb * cb + cr * cr), cb, cr]
  }
  for (let y = y0; y < y1; y++)
    for (let x = x0; x < x1; x++) {
      const chroma = chromaAt((y * width + x) * 3)[0]
      sum += chroma
      histogram[Math.min(bins - 1, Math.floor((chroma / 1.3) * bins))]++
    }
  const pixels = (x1 - x0) * (y1 - y0)
  let left = 0.99 * pixels
  let top = 0
  for (let bin = 0; bin < bins; bin++) {
    const here = histogram[bin]
    if (here > 0 && here >= left) {
      top = ((bin + left / here) / bins) * 1.3
      break
    }
    left -= here
  }
  // The hue that most of the hottest percent shares, and where those pixels lie.
  const hues = new Uint32Array(hueBins)
  const boxes = Array.from({ length: hueBins }, () => [width, height, 0, 0] as [number, number, number, number])
  for (let y = y0; y < y1; y++)
    for (let x = x0; x < x1; x++) {
      const [chroma, cb, cr] = chromaAt((y * width + x) * 3)
      if (chroma < top || chroma < 0.01) continue
      const hue = Math.floor(((Math.atan2(cr, cb) / (2 * Math.PI) + 1) % 1) * hueBins) % hueBins
      const box = boxes[hue]
      hues[hue]++
      if (x < box[0]) box[0] = x
      if (y < box[1]) box[1] = y
      if (x >= box[2]) box[2] = x + 1
      if (y >= box[3]) box[3] = y + 1
    }
  const hottest = hues.indexOf(hues.reduce((a, b) => Math.max(a, b), 0))
  const box = boxes[hottest]
  return {
    mean: sum / pixels,
    top,
    hottestDegrees: ((hottest + 0.5) / hueBins) * 360,
    area: { left: box[0] / width, top: box[1] / height, right: box[2] / width, bottom: box[3] / height },
  }
}

export function saturationFindings(picture: MeasuredPicture): readonly Finding[] {
  const { mean, top, hottestDegrees, area } = measureSaturation(picture)
  const hot =
    top > 0.02
      ? { detail: `Hottest in ${hueName(hottestDegrees)}, at ${hottestDegrees.toFixed(0)}°.`, area }
      : { detail: '' }
  return [
    { id: 'saturation', value: mean, confidence: 1, detail: '' },
    { id: 'saturationTop', value: top, confidence: 1, ...hot },
  ]
}
