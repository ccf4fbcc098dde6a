// The highest code that a picture uses: where the brightest light of a clip lies.
import type { Frame } from '../image'

/** The code, in 1023rds, that the first of the code shares counts. */
export const countLow = -256
const countOf = 1536
/** So few channel values are no light of the scene, but single pixels. */
const stray = 1e-4

/** Counts of channel values by 10-bit code, from `countLow` in steps of a code. */
export const noCodes = (): Float64Array => new Float64Array(countOf)
export const countCode = (counts: Float64Array, code: number): void =>
  void counts[Math.min(countOf - 1, Math.max(0, Math.round(code * 1023) - countLow))]++

/** The code that all but one in ten thousand channel values lie under, 0..1 of the signal; 0 for no codes. */
export function ceilingOf(codeShares: ArrayLike<number>): number {
  let above = 0
  for (let i = codeShares.length - 1; i >= 0; i--) {
    above += codeShares[i]
    if (above > stray) return (i + countLow) / 1023
  }
  return 0
}

const countedPixels = 1e6

/** The ceiling of one frame, from a million of its pixels. */
export function codeCeilingOf({ width, height, data, low, high }: Frame): number {
  const perCode = (high - low) / 65535
  const counts = noCodes()
  const step = 3 * Math.max(1, Math.floor((width * height) / countedPixels))
  let counted = 0
  for (let i = 0; i < data.length; i += step, counted += 3)
    for (let c = 0; c < 3; c++) countCode(counts, low + data[i + c] * perCode)
  return ceilingOf(counts.map((n) => n / counted))
}
