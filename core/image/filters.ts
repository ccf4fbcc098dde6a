// Filters on planes of single values, row by row: means, Gaussian blur, grey morphology, guided filter. Radii are in
// pixels and may be fractions, so that what is meant by a share of the picture is the same at every size. Beyond the
// edge, the edge is repeated.
import { extremesByKernel, finerByKernel, guidedByKernel, stretchedByKernel, meansByKernel } from './kernel'

export interface Plane {
  readonly width: number
  readonly height: number
  readonly values: Float32Array
}

/** Rows above and below that a mean of that radius looks at. */
const boxReach = (radius: number): number => Math.ceil(radius)

/** The mean over a square of 2·radius + 1 pixels a side; of the outermost pixels a fraction counts. */
export function boxMean(plane: Plane, radius: number): Plane {
  return means(plane, radius, 1)
}
const means = (plane: Plane, radius: number, times: number): Plane =>
  radius <= 0 ? plane : (meansByKernel(plane, radius, times) ?? plainMeans(plane, radius, times))

/** The reference, and what runs without a kernel: `times` means, one behind the other. */
export function plainMeans(plane: Plane, radius: number, times: number): Plane {
  const rows = (of: Plane): Plane => {
    let rows = of
    for (let n = 0; n < times; n++) rows = meanOfRows(rows, radius)
    return rows
  }
  return turned(rows(turned(rows(plane))))
}

function meanOfRows({ width, height, values }: Plane, wanted: number): Plane {
  const radius = Math.min(wanted, width - 1)
  const out = new Float32Array(values.length)
  const whole = Math.floor(radius)
  const part = radius - Math.floor(radius)
  const by = 1 / (2 * radius + 1)
  const last = width - 1
  for (let y = 0; y < height; y++) {
    const row = y * width
    const first = values[row]
    const end = values[row + last]
    let sum = first * whole
    for (let x = 0; x <= whole; x++) sum += values[row + x]
    for (let x = 0; x < width; x++) {
      const before = x - whole - 1
      const after = x + whole + 1
      const low = before < 0 ? first : values[row + before]
      const high = after > last ? end : values[row + after]
      out[row + x] = (sum + part * (low + high)) * by
      sum += high - (x - whole < 0 ? first : values[row + x - whole])
    }
  }
  return { width, height, values: out }
}

/** Rows become columns, a block at a time so that memory is read in order. */
function turned({ width, height, values }: Plane): Plane {
  const out = new Float32Array(values.length)
  const block = 32
  for (let y0 = 0; y0 < height; y0 += block)
    for (let x0 = 0; x0 < width; x0 += block) {
      const y1 = Math.min(height, y0 + block)
      const x1 = Math.min(width, x0 + block)
      for (let x = x0; x < x1; x++) for (let y = y0; y < y1; y++) out[x * height + y] = values[y * width + x]
    }
  return { width: height, height: width, values: out }
}

/** A Gaussian of that deviation in pixels, by three means in a row (their variances add up to its own). */
export function blur(plane: Plane, deviation: number): Plane {
  return means(plane, boxRadius(deviation), 3)
}
/** The variance of a mean over w = 2r + 1 pixels, whole r, is (w² − 1) / 12. */
const boxRadius = (deviation: number): number => (Math.sqrt(4 * deviation * deviation + 1) - 1) / 2
export const blurReach = (deviation: number): number => 3 * boxReach(boxRadius(deviation)) + (deviation > 0 ? 3 : 0)

/**
 * The largest value within a square of 2·radius + 1 pixels a side (dilation); the smallest for a radius below zero
 * (erosion).
 */
export function dilate(plane: Plane, radius: number): Plane {
  if (radius === 0) return plane
  const size = Math.abs(radius)
  const low = Math.floor(size)
  const part = size - low
  const most = radius > 0
  const near = low === 0 ? plane : extremes(plane, low, most)
  if (part < 1e-6) return near
  // Between two whole radii, the straight way between them.
  const far = extremes(plane, low + 1, most)
  const out = new Float32Array(near.values.length)
  for (let i = 0; i < out.length; i++) out[i] = near.values[i] + (far.values[i] - near.values[i]) * part
  return { ...plane, values: out }
}
export const dilateReach = (radius: number): number => Math.ceil(Math.abs(radius))

const extremes = (plane: Plane, radius: number, most: boolean): Plane =>
  extremesByKernel(plane, radius, most) ?? plainExtremes(plane, radius, most)

/** The reference, and what runs without a kernel. */
export const plainExtremes = (plane: Plane, radius: number, most: boolean): Plane =>
  turned(rowExtremes(turned(rowExtremes(plane, radius, most)), radius, most))

/**
 * Runs of a window's length are scanned from both ends, so that the work does not grow with the radius (van Herk,
 * 1992).
 */
function rowExtremes({ width, height, values }: Plane, radius: number, most: boolean): Plane {
  const out = new Float32Array(values.length)
  const window = 2 * radius + 1
  const padded = Math.ceil((width + 2 * radius) / window) * window
  const line = new Float32Array(padded)
  const ahead = new Float32Array(padded)
  const behind = new Float32Array(padded)
  const none = most ? -Infinity : Infinity
  for (let y = 0; y < height; y++) {
    line.fill(none)
    line.set(values.subarray(y * width, (y + 1) * width), radius)
    for (let i = 0; i < padded; i++) {
      const v = line[i]
      const w = ahead[i - 1]
      ahead[i] = i % window === 0 || (most ? v > w : v < w) ? v : w
    }
    for (let i = padded - 1; i >= 0; i--) {
      const v = line[i]
      const w = behind[i + 1]
      behind[i] = i % window === window - 1 || (most ? v > w : v < w) ? v : w
    }
    for (let x = 0; x < width; x++) {
      const a = behind[x]
      const b = ahead[x + window - 1]
      out[y * width + x] = most === a > b ? a : b
    }
  }
  return { width, height, values: out }
}

/**
 * Edge-aware smoothing: inside each window the result is a straight function of the guide (He, Sun, Tang: Guided Image
 * Filtering, IEEE PAMI 35/6, 2013, eq. 5–8).
 * @param flat variance of the guide under which a window counts as having no edge
 */
export function guided(plane: Plane, guide: Plane, radius: number, flat: number): Plane {
  return radius <= 0 ? plane : (guidedByKernel(plane, guide, radius, flat) ?? plainGuided(plane, guide, radius, flat))
}

/** The reference, and what runs without a kernel. */
export function plainGuided(plane: Plane, guide: Plane, radius: number, flat: number): Plane {
  const { width, height, values: p } = plane
  const { values: g } = guide
  const of = (values: Float32Array): Plane => plainMeans({ width, height, values }, radius, 1)
  const gp = new Float32Array(p.length)
  const gg = new Float32Array(p.length)
  for (let i = 0; i < p.length; i++) {
    gp[i] = g[i] * p[i]
    gg[i] = g[i] * g[i]
  }
  const meanG = of(g).values
  const meanP = of(p).values
  const a = of(gp).values
  const b = of(gg).values
  for (let i = 0; i < p.length; i++) {
    const slope = (a[i] - meanG[i] * meanP[i]) / (Math.max(0, b[i] - meanG[i] * meanG[i]) + flat)
    a[i] = slope
    b[i] = meanP[i] - slope * meanG[i]
  }
  const meanA = of(a).values
  const meanB = of(b).values
  for (let i = 0; i < p.length; i++) meanA[i] = meanA[i] * g[i] + meanB[i]
  return { width, height, values: meanA }
}
export const guidedReach = (radius: number): number => 2 * boxReach(radius)

/** What lies at or below `low` becomes 0, at or above `high` 1, straight between; on steps of 1/65536. */
export const stretched = (plane: Plane, low: number, high: number): Plane =>
  stretchedByKernel(plane, low, Math.max(low + 1e-6, high)) ?? plainStretched(plane, low, Math.max(low + 1e-6, high))

/** The reference, and what runs without a kernel. */
export const plainStretched = (plane: Plane, low: number, high: number): Plane => ({
  ...plane,
  values: plane.values.map((v) => onSteps(Math.min(1, Math.max(0, (v - low) / (high - low))))),
})

/** Mattes are whole numbers of this: sums, differences and inverses of such are exact in single precision. */
export const matteStep = 1 / 65536
export const onSteps = (value: number): number => Math.round(value * 65536) * matteStep

/**
 * Rows `from` up to `to` of a grid twice as fine, straight between the pixels of a coarse plane that begins at row
 * `top` of its own grid; on steps of 1/65536.
 */
export const finer = (coarse: Plane, top: number, fineWidth: number, from: number, to: number): Float32Array =>
  finerByKernel(coarse, top, fineWidth, from, to) ?? plainFiner(coarse, top, fineWidth, from, to)

/** The reference, and what runs without a kernel. */
export function plainFiner(
  { width, height, values }: Plane,
  top: number,
  fineWidth: number,
  from: number,
  to: number,
): Float32Array {
  const out = new Float32Array(fineWidth * (to - from))
  const line = new Float32Array(width + 2)
  const last = top + height - 1
  for (let y = from; y < to; y++) {
    const v = Math.min(last, Math.max(top, (y - 0.5) / 2))
    const y0 = Math.floor(v)
    const f = v - y0
    const a = (y0 - top) * width
    const b = (Math.min(last, y0 + 1) - top) * width
    for (let x = 0; x < width; x++) line[x + 1] = values[a + x] + (values[b + x] - values[a + x]) * f
    line[0] = line[1]
    line[width + 1] = line[width]
    // A fine pixel lies a quarter of a coarse one to the left or right of its middle.
    for (let x = 0, o = (y - from) * fineWidth; x < fineWidth; x++, o++) {
      const k = Math.min(width - 1, x >> 1) + 1
      const other = x & 1 ? line[k + 1] : line[k - 1]
      out[o] = onSteps(line[k] * 0.75 + other * 0.25)
    }
  }
  return out
}
