// The measured facts of a picture, from its scope counts.
import { levelCounts, levelHigh, levelLow, lumaPercentile, vectorSpan, type ScopeCounts } from '@core/instruments'
import type { PictureFacts } from './messages'

export function factsOf(counts: ScopeCounts): PictureFacts {
  const { pixels, sums, clipped, crushed } = counts
  const mean = (sum: number): number => sum / pixels / 65535
  return {
    black: lumaPercentile(counts, 0.001),
    low: lumaPercentile(counts, 0.01),
    middle: lumaPercentile(counts, 0.5),
    high: lumaPercentile(counts, 0.99),
    white: lumaPercentile(counts, 0.999),
    clippedShare: clipped / pixels,
    crushedShare: crushed / pixels,
    means: [mean(sums[0]), mean(sums[1]), mean(sums[2])],
    channelPercentile1: [
      percentile1(counts.red, counts),
      percentile1(counts.green, counts),
      percentile1(counts.blue, counts),
    ],
    ...meanColour(counts),
  }
}

/** The level that a hundredth of a channel lies below, as fine as the trace is. */
function percentile1(trace: ScopeCounts['red'], { sizes, pixels }: ScopeCounts): number {
  const counts = levelCounts(trace, sizes)
  let below = 0
  for (let level = 0; level < counts.length; level++) {
    const here = counts[level] ?? 0
    if (below + here >= pixels * 0.01 && here > 0)
      return Math.max(0, levelLow + ((level + (pixels * 0.01 - below) / here) / counts.length) * (levelHigh - levelLow))
    below += here
  }
  return 0
}

/** Mean chroma and the angle of the mean colour, from the vectorscope's cells. */
function meanColour({ vector, sizes, pixels }: ScopeCounts): { chroma: number; hueDegrees: number } {
  const cells = sizes.vectorCells
  const valueOf = (cell: number): number => ((cell + 0.5) / cells - 0.5) * 2 * vectorSpan
  let chroma = 0
  let sumCb = 0
  let sumCr = 0
  for (let i = 0; i < vector.length; i++) {
    const n = vector[i] ?? 0
    if (n === 0) continue
    const cb = valueOf(i % cells)
    const cr = valueOf(Math.floor(i / cells))
    chroma += n * Math.sqrt(cb * cb + cr * cr)
    sumCb += n * cb
    sumCr += n * cr
  }
  return { chroma: chroma / pixels, hueDegrees: ((Math.atan2(sumCr, sumCb) * 180) / Math.PI + 360) % 360 }
}
