// Levels: percentiles of luma, and the contrast range in stops.
import { lightOfSignal, displayLuminance } from '../colour'
import type { MeasuredPicture } from './picture'
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
