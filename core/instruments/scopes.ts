// One pass over a frame of display signal for waveform, parade, vectorscope and the luma histogram. Every pixel counts.
import type { LumaWeights } from '../colour'
import type { Frame } from '../image'
import { countFast, type ScopeJob, type ScopeResult } from './kernel'

export interface ScopeSizes {
  /** Columns across the picture in waveform and parade. */
  readonly columns: number
  /** Levels from `levelLow` to `levelHigh`, in waveform and parade. */
  readonly levels: number
  /** Cells per axis of the vectorscope. */
  readonly vectorCells: number
}

/**
 * The levels that waveform and parade can show, as shares of the signal; values outside are counted in the end rows.
 */
export const levelLow = -0.05
export const levelHigh = 1.05
/** The vectorscope spans Cb and Cr from −vectorSpan to +vectorSpan. */
export const vectorSpan = 0.6
export const histogramBins = 4096

export interface ScopeCounts {
  readonly sizes: ScopeSizes
  /** [column · levels + level]: level 0 is the lowest. The sum of a column is the number of pixels in it. */
  readonly waveform: Uint32Array
  readonly red: Uint32Array
  readonly green: Uint32Array
  readonly blue: Uint32Array
  /** [row · cells + column]: column rises with Cb, row rises with Cr. */
  readonly vector: Uint32Array
  /**
   * Cb and Cr as waveforms about the middle (0.5 is none), and the zoomed vectorscope; empty where they were not asked
   * for.
   */
  readonly cb: Uint32Array
  readonly cr: Uint32Array
  readonly zoomed: Uint32Array
  /** Luma of 0..1 in 4096 bins. */
  readonly luma: Uint32Array
  /** Sums of R', G', B' codes (0..65535) over all pixels. */
  readonly sums: readonly [number, number, number]
  /** Pixels with any channel at the highest code, and with all channels at the lowest. */
  readonly clipped: number
  readonly crushed: number
  readonly pixels: number
}

/** The arrays of counts. */
export const countedTraces = ['waveform', 'red', 'green', 'blue', 'vector', 'luma', 'cb', 'cr', 'zoomed'] as const
export type CountArrays = Pick<ScopeCounts, (typeof countedTraces)[number]>

/** What is counted beyond the usual. */
export interface ScopeWishes {
  /** One byte per pixel of the whole frame, zero where it is not counted. */
  readonly mask?: Uint8Array
  /** Traces of Cb and Cr. */
  readonly chroma?: boolean
  /** Whole factor of a second, zoomed vectorscope. */
  readonly zoom?: number
  /**
   * Arrays that are counted into, so that no memory is taken for every picture. Those of another length are left alone.
   */
  readonly into?: CountArrays
}

/** Memory for the counts of a wish. */
export function roomForCounts(
  { columns, levels, vectorCells }: ScopeSizes,
  { chroma = false, zoom = 1 }: ScopeWishes,
  bytes: (length: number) => ArrayBufferLike = (length) => new ArrayBuffer(length),
): CountArrays {
  const room = (entries: number): Uint32Array => new Uint32Array(bytes(entries * 4))
  const trace = (): Uint32Array => room(columns * levels)
  const cells = vectorCells * vectorCells
  const extra = chroma ? columns * levels : 0
  return {
    waveform: trace(),
    red: trace(),
    green: trace(),
    blue: trace(),
    vector: room(cells),
    luma: room(histogramBins),
    cb: room(extra),
    cr: room(extra),
    zoomed: room(zoom > 1 ? cells : 0),
  }
}

/** Counts in memory of their own, to be kept. */
export const copiedCounts = (counts: ScopeCounts): ScopeCounts => ({
  ...counts,
  ...(Object.fromEntries(countedTraces.map((trace) => [trace, counts[trace].slice()])) as unknown as CountArrays),
})

/**
 * Counts a frame whose codes span 0..1 of the display signal (or of the code value, for footage as shot): all of it, or
 * the rows from `fromRow` up to, not including, `toRow`. `topCode` is the code of the brightest the display shows.
 */
export function countScopes(
  frame: Frame,
  weights: LumaWeights,
  sizes: ScopeSizes,
  fromRow = 0,
  toRow = frame.height,
  topCode = 65535,
  wishes: ScopeWishes = {},
): ScopeCounts {
  const job = jobFor(frame, weights, sizes, fromRow, toRow, topCode, wishes)
  const result = countFast(job) ?? countPlain(job)
  return {
    sizes,
    ...result,
    pixels: wishes.mask ? result.luma.reduce((a, b) => a + b, 0) : frame.width * (toRow - fromRow),
  }
}

/** What a pass over some rows counts, and where. RangeError for more levels or cells than 16 bits can tell apart. */
export function jobFor(
  frame: Frame,
  weights: LumaWeights,
  sizes: ScopeSizes,
  fromRow: number,
  toRow: number,
  topCode: number,
  { mask, chroma = false, zoom = 1, into }: ScopeWishes = {},
): ScopeJob {
  const { width, data } = frame
  const { columns, levels, vectorCells } = sizes
  const cellsPerCode = (divisor: number): number => vectorCells / (2 * vectorSpan) / 65535 / divisor
  const zoomedPerCode = (divisor: number): number => Math.round(cellsPerCode(divisor) * 2 ** 20) * zoom
  const perLevel = levels / (levelHigh - levelLow)
  const levelGain = Math.round((frame.high - frame.low) * perLevel * 32)
  if (levelGain > 32767 || vectorCells > 240)
    throw new RangeError(
      `${levels} levels of ${frame.low}..${frame.high}, or ${vectorCells} cells, are more than can be counted.`,
    )
  return {
    rows: data.subarray(fromRow * width * 3, toRow * width * 3),
    width,
    columnStart: columnStarts(width, columns),
    levelGain,
    levelOffset: Math.round((frame.low - levelLow) * perLevel * 32),
    levels,
    columns,
    lumaBins: histogramBins,
    cells: vectorCells,
    weights: [Math.round(weights.red * 32768), Math.round(weights.blue * 32768)],
    perCb: Math.round(cellsPerCode(weights.cbDivisor) * 2 ** 23),
    perCr: Math.round(cellsPerCode(weights.crDivisor) * 2 ** 23),
    topCode,
    mask: mask ? mask.subarray(fromRow * width, toRow * width) : null,
    chromaGains: chroma ? [Math.round(32768 / weights.cbDivisor), Math.round(32768 / weights.crDivisor)] : null,
    zoomed: zoom > 1 ? [zoomedPerCode(weights.cbDivisor), zoomedPerCode(weights.crDivisor)] : null,
    into: into ?? null,
  }
}

/** The plain reference of the kernel, and what runs where there is no WebAssembly. */
export function countPlain({
  rows,
  width,
  levelGain,
  levelOffset,
  levels,
  columns,
  lumaBins,
  cells,
  weights: [wr, wb],
  perCb,
  perCr,
  topCode,
  mask,
  chromaGains,
  zoomed: zoomedPer,
  into,
}: ScopeJob): ScopeResult {
  const traceEntries = columns * levels
  const chromaEntries = chromaGains ? traceEntries : 0
  const room = (trace: keyof CountArrays, entries: number): Uint32Array =>
    into?.[trace].length === entries ? into[trace].fill(0) : new Uint32Array(entries)
  const waveform = room('waveform', traceEntries)
  const red = room('red', traceEntries)
  const green = room('green', traceEntries)
  const blue = room('blue', traceEntries)
  const luma = room('luma', lumaBins)
  const vector = room('vector', cells * cells)
  const cb = room('cb', chromaEntries)
  const cr = room('cr', chromaEntries)
  const zoomed = room('zoomed', zoomedPer ? cells * cells : 0)
  const lastCell = cells - 1
  // Products of halved codes keep the upper half, rounded, as the kernel's do.
  const product = (halved: number, factor: number): number => (halved * factor + 16384) >> 15
  const levelOf = (halved: number): number =>
    Math.min(Math.max((product(halved, levelGain) + levelOffset) >> 5, 0), levels - 1)
  const chromaOf = (difference: number, gain: number): number =>
    Math.min(Math.max(32768 + ((difference * gain) >> 15), 0), 65535)
  const cellOf = (difference: number, perCode: number): number => (product(difference, perCode) + (cells << 6)) >> 7
  const zoomedCellOf = (difference: number, perCode: number): number =>
    Math.min(Math.max(((cells << 19) + difference * perCode) >> 20, 0), lastCell)
  let sumRed = 0
  let sumGreen = 0
  let sumBlue = 0
  let clipped = 0
  let crushed = 0
  for (let i = 0; i < rows.length; i += 3) {
    if (mask && mask[i / 3] === 0) continue
    const r = rows[i]
    const g = rows[i + 1]
    const b = rows[i + 2]
    const halfRed = r >> 1
    const halfGreen = g >> 1
    const halfBlue = b >> 1
    // Neutral is exactly neutral: what is weighed is how far R and B lie from G.
    const halfLuma = halfGreen + product(halfRed - halfGreen, wr) + product(halfBlue - halfGreen, wb)
    const fromBlue = halfBlue - halfLuma
    const fromRed = halfRed - halfLuma
    const column = Math.floor((((i / 3) % width) * columns) / width) * levels
    waveform[column + levelOf(halfLuma)]++
    red[column + levelOf(halfRed)]++
    green[column + levelOf(halfGreen)]++
    blue[column + levelOf(halfBlue)]++
    luma[halfLuma >> 3]++
    vector[cellOf(fromRed, perCr) * cells + cellOf(fromBlue, perCb)]++
    if (chromaGains) {
      cb[column + levelOf(chromaOf(2 * fromBlue, chromaGains[0]) >> 1)]++
      cr[column + levelOf(chromaOf(2 * fromRed, chromaGains[1]) >> 1)]++
    }
    if (zoomedPer) zoomed[zoomedCellOf(2 * fromRed, zoomedPer[1]) * cells + zoomedCellOf(2 * fromBlue, zoomedPer[0])]++
    sumRed += r
    sumGreen += g
    sumBlue += b
    if (r >= topCode || g >= topCode || b >= topCode) clipped++
    else if (r + g + b === 0) crushed++
  }
  return {
    waveform,
    red,
    green,
    blue,
    luma,
    vector,
    cb,
    cr,
    zoomed,
    sums: [sumRed, sumGreen, sumBlue],
    clipped,
    crushed,
  }
}

/** Adds the counts of other rows of the same frame to `counts`, in place, and returns the whole. */
export function addCounts(counts: ScopeCounts, others: ScopeCounts): ScopeCounts {
  for (const trace of countedTraces) {
    const into = counts[trace]
    const from = others[trace]
    for (let i = 0; i < into.length; i++) into[i] += from[i]
  }
  return {
    ...counts,
    sums: [counts.sums[0] + others.sums[0], counts.sums[1] + others.sums[1], counts.sums[2] + others.sums[2]],
    clipped: counts.clipped + others.clipped,
    crushed: counts.crushed + others.crushed,
    pixels: counts.pixels + others.pixels,
  }
}

/**
 * Where the columns of the traces begin in a row of `width` pixels, and where the last ends: pixel x belongs to ⌊x ·
 * columns / width⌋.
 */
function columnStarts(width: number, columns: number): Uint32Array {
  return Uint32Array.from({ length: columns + 1 }, (_, column) => Math.ceil((column * width) / columns))
}

/** The luma (0..1) below which `share` (0..1) of the pixels lie, interpolated within its bin. */
export function lumaPercentile({ luma, pixels }: ScopeCounts, share: number): number {
  const wanted = share * pixels
  let below = 0
  for (let bin = 0; bin < histogramBins; bin++) {
    const here = luma[bin]
    if (below + here >= wanted && here > 0) return Math.min(1, (bin + (wanted - below) / here) / histogramBins)
    below += here
  }
  return 1
}
