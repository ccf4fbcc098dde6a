// The curve before a cube: where the grade bends most, entries lie closest.
import { lookUp1d, type Lut1d } from '../luts'

export type InPlace = (pixels: Float64Array) => void

/** Entries of the curves before the cube, and the share of them that is dealt out evenly whatever the grade does. */
const shaperSize = 4096
const evenShare = 0.3

/** How finely slopes are told apart along a channel, on how many pixels, and over which difference. */
const slopeBins = 256
const slopePixels = 6000
const slopeStep = 1 / 512

/**
 * A curve for each channel that rises fastest where the result changes most with that channel: along the greys, and at
 * the colours of the picture, so that the cube behind it has little left to bend.
 */
export function shaperFor(act: InPlace, fed: Float64Array, title: string): Lut1d {
  const along = greySlopes(act)
  const data = new Float32Array(shaperSize * 3)
  const last = shaperSize - 1
  for (let c = 0; c < 3; c++) {
    const slopes = smoothed(pictureSlopes(act, fed, c)).map((v, bin) => Math.max(v, along[bin]))
    const whole = slopes.reduce((a, b) => a + b, 0) || 1
    let sum = 0
    for (let n = 1; n < shaperSize; n++) {
      sum += (slopes[Math.min(slopeBins - 1, Math.floor(((n - 0.5) / last) * slopeBins))] / whole) * (slopeBins / last)
      data[n * 3 + c] = (evenShare * n) / last + (1 - evenShare) * Math.min(1, sum)
    }
    data[last * 3 + c] = 1
  }
  return { dimensions: 1, title, size: shaperSize, data, domainMin: [0, 0, 0], domainMax: [1, 1, 1] }
}

const changeOf = (low: Float64Array, high: Float64Array, i: number): number =>
  Math.abs(high[i] - low[i]) + Math.abs(high[i + 1] - low[i + 1]) + Math.abs(high[i + 2] - low[i + 2])

function greySlopes(act: InPlace): Float64Array {
  const greys = Float64Array.from({ length: (slopeBins + 1) * 3 }, (_, i) => Math.floor(i / 3) / slopeBins)
  act(greys)
  return Float64Array.from(
    { length: slopeBins },
    (_, bin) => changeOf(greys.subarray(bin * 3), greys.subarray(bin * 3 + 3), 0) * slopeBins,
  )
}

/**
 * The slope of the result along one channel at the picture's colours: the quadratic mean in each bin, which leans to
 * the steep ones.
 */
function pictureSlopes(act: InPlace, fed: Float64Array, channel: number): Float64Array {
  const every = Math.max(1, Math.floor(fed.length / 3 / slopePixels))
  const count = Math.floor(fed.length / 3 / every)
  const low = Float64Array.from(
    { length: count * 3 },
    (_, i) => fed[Math.floor(i / 3) * every * 3 + (i % 3)] - (i % 3 === channel ? slopeStep / 2 : 0),
  )
  const high = low.map((v, i) => v + (i % 3 === channel ? slopeStep : 0))
  const bins = Uint16Array.from({ length: count }, (_, p) =>
    Math.min(slopeBins - 1, Math.max(0, Math.floor((low[p * 3 + channel] + slopeStep / 2) * slopeBins))),
  )
  const sums = new Float64Array(slopeBins)
  const seen = new Float64Array(slopeBins)
  act(low)
  act(high)
  for (let p = 0; p < count; p++) {
    sums[bins[p]] += (changeOf(low, high, p * 3) / slopeStep) ** 2
    seen[bins[p]]++
  }
  return sums.map((v, bin) => Math.sqrt(v / Math.max(1, seen[bin])))
}

const smoothed = (values: Float64Array): Float64Array =>
  values.map((_, i) => {
    const about = values.subarray(Math.max(0, i - 3), i + 4)
    return about.reduce((a, b) => a + b, 0) / about.length
  })

/** What goes into a channel's rising curve for each of evenly spaced results. */
export function inverted(curve: Lut1d, channel: 0 | 1 | 2, size: number): Float64Array {
  const at = lookUp1d(curve, channel)
  return Float64Array.from({ length: size }, (_, i) => {
    const wanted = i / (size - 1)
    let low = 0
    let high = 1
    for (let step = 0; step < 40; step++) {
      const middle = (low + high) / 2
      if (at(middle) < wanted) low = middle
      else high = middle
    }
    return (low + high) / 2
  })
}
