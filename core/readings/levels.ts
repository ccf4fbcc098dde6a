// Levels: percentiles of luma, contrast range in stops, and what is clipped and crushed with its largest patch.
import { lightOfSignal, displayLuminance } from '../colour'
import { printValue } from './kinds'
import type { Area, MeasuredPicture } from './picture'
import type { Finding } from './reading'

const bins = 8192

/** The histogram of luma (0..1 in 8192 bins) of every pixel. */
export function lumaHistogram({ shown: { data }, luma }: Pick<MeasuredPicture, 'shown' | 'luma'>): Uint32Array {
  const out = new Uint32Array(bins)
  const { red, green, blue } = luma
  for (let i = 0; i < data.length; i += 3)
    out[((red * data[i] + green * data[i + 1] + blue * data[i + 2]) * bins) >>> 16]++
  return out
}

/**
 * The level (0..1) that a share of what the histogram holds lies below, interpolated within its bin; codes 0 and 65535
 * are 0 and 1.
 */
export function percentileOf(histogram: Uint32Array, share: number): number {
  const total = histogram.reduce((a, b) => a + b, 0)
  const wanted = share * total
  let below = 0
  for (let bin = 0; bin < histogram.length; bin++) {
    const here = histogram[bin]
    if (here > 0 && below + here >= wanted) {
      // The outermost bins mostly hold the very ends.
      if (bin === 0) return 0
      if (bin === histogram.length - 1) return 1
      return (bin + (wanted - below) / here) / histogram.length
    }
    below += here
  }
  return 1
}

export function measureLevels(picture: MeasuredPicture): readonly Finding[] {
  const histogram = lumaHistogram(picture)
  const at = (share: number): number => percentileOf(histogram, share)
  const stops = spreadStops(picture)
  const level = (id: 'black' | 'middle' | 'white', value: number): Finding => ({ id, value, confidence: 1, detail: '' })
  return [
    level('black', at(0.001)),
    level('middle', at(0.5)),
    level('white', at(0.999)),
    { id: 'contrastRange', value: stops, confidence: 1, detail: rangeWord(stops) },
    ...measureEnds(picture),
  ]
}

function rangeWord(stops: number): string {
  if (stops < 3.5) return 'Flat.'
  return stops > 8 ? 'Hard.' : ''
}

/**
 * Stops of display luminance between the 1st and the 99th percentile; light under a thousandth of white counts as that.
 */
function spreadStops({ shown: { data }, display }: MeasuredPicture): number {
  const light = lightOfSignal(display)
  const [wr, wg, wb] = displayLuminance(display)
  const stride = Math.max(1, Math.floor(data.length / 3 / 40_000)) | 1
  const values = new Float64Array(Math.ceil(data.length / 3 / stride))
  for (let p = 0, i = 0; p < values.length; p++, i += stride * 3) {
    const [r, g, b] = light(data[i] / 65535, data[i + 1] / 65535, data[i + 2] / 65535)
    values[p] = Math.log2(Math.max(wr * r + wg * g + wb * b, 0.001))
  }
  values.sort()
  const at = (share: number): number => values[Math.min(values.length - 1, Math.floor(share * values.length))] ?? 0
  return at(0.99) - at(0.01)
}

/** Which pixels are lost at an end of the signal. */
export type End = 'clipped' | 'crushed'

/** 1 where a pixel has a channel at the top (or, for crushed, all channels at the bottom). */
export function lostAt(
  end: End,
  { shown: { data }, display: { eotf, carriedPeak } }: Pick<MeasuredPicture, 'shown' | 'display'>,
): Uint8Array {
  const out = new Uint8Array(data.length / 3)
  const top = Math.round(eotf.encode(carriedPeak) * 65535)
  for (let p = 0, i = 0; p < out.length; p++, i += 3) {
    const r = data[i]
    const g = data[i + 1]
    const b = data[i + 2]
    if (end === 'clipped' ? r >= top || g >= top || b >= top : (r | g | b) === 0) out[p] = 1
  }
  return out
}

function measureEnds(picture: MeasuredPicture): readonly Finding[] {
  const { width, height } = picture.shown
  return (['clipped', 'crushed'] as const).map((end) => {
    const marks = lostAt(end, picture)
    const lost = marks.reduce((a, b) => a + b, 0)
    const patch = lost > 0 ? largestPatch(marks, width, height) : null
    const share = lost / marks.length
    return {
      id: end,
      value: share,
      confidence: 1,
      detail: patch
        ? `The largest patch is ${printValue(patch.pixels / marks.length, 'pixels')} % of the picture.`
        : '',
      ...(patch ? { area: patch.area } : {}),
    }
  })
}

export interface Patch {
  readonly pixels: number
  readonly area: Area
}

/**
 * The largest four-connected patch of marked pixels; null without any. Runs of each row are joined with those of the
 * row above (union–find).
 */
export function largestPatch(marks: Uint8Array, width: number, height: number): Patch | null {
  const parent: number[] = []
  const size: number[] = []
  const box: number[][] = []
  const rootOf = (i: number): number => {
    while (parent[i] !== i) i = parent[i] = parent[parent[i]]
    return i
  }
  let above: [number, number, number][] = []
  for (let y = 0; y < height; y++) {
    const row: [number, number, number][] = []
    let next = 0
    for (let x = 0; x < width; x++) {
      if (!marks[y * width + x]) continue
      const from = x
      while (x < width && marks[y * width + x]) x++
      const id = parent.length
      parent.push(id)
      size.push(x - from)
      box.push([from, y, x, y + 1])
      row.push([from, x, id])
      while (next < above.length && above[next][1] <= from) next++
      for (let k = next; k < above.length && above[k][0] < x; k++) {
        const a = rootOf(above[k][2])
        const b = rootOf(id)
        if (a === b) continue
        parent[a] = b
        size[b] += size[a]
        const [p, q] = [box[a], box[b]]
        box[b] = [Math.min(p[0], q[0]), Math.min(p[1], q[1]), Math.max(p[2], q[2]), Math.max(p[3], q[3])]
      }
    }
    above = row
  }
  let best = -1
  for (let i = 0; i < parent.length; i++) if (parent[i] === i && (best < 0 || size[i] > size[best])) best = i
  if (best < 0) return null
  const [x0, y0, x1, y1] = box[best]
  return {
    pixels: size[best],
    area: { left: x0 / width, top: y0 / height, right: x1 / width, bottom: y1 / height },
  }
}
