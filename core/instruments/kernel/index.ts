// The scopes kernel's memory: a job, its tables, its counters and the rows to count.
import { reserve, startKernel, type StartedKernel } from '../../wasm/load'
import { wasm } from './scopes.wasm'

interface ScopeCode {
  countScopes(job: number): void
}

/** What is counted, with what says where; `countPlain` in ../scopes.ts shows how. */
export interface ScopeJob {
  /** RGB triples of the rows to count. */
  readonly rows: Uint16Array
  readonly width: number
  /** Per column of the traces, the first pixel of a row that is counted in it; one more for the end. */
  readonly columnStart: Uint32Array
  /** A code's level in 32nds, as whole numbers: (code / 2 · gain) / 32768 + offset; held to 0..levels − 1. */
  readonly levelGain: number
  readonly levelOffset: number
  readonly levels: number
  readonly columns: number
  /** Counters per luma bin, and cells per axis of the vectorscope. */
  readonly lumaBins: number
  readonly cells: number
  /** Weights of R and B in luma, whole 32768ths; the rest is G's. */
  readonly weights: readonly [number, number]
  /** 128ths of a cell of the vectorscope for half a colour difference of 32768 codes, whole. */
  readonly perCb: number
  readonly perCr: number
  readonly topCode: number
  /** One byte per pixel of the rows, zero where it is not counted; null where all are. */
  readonly mask: Uint8Array | null
  /** Gains of Cb and Cr from codes of difference to codes, in 32768ths; null where their traces are not wanted. */
  readonly chromaGains: readonly [number, number] | null
  /** Cells of a second, zoomed vectorscope per code of Cb and Cr, in 2^20ths, whole; null where none is wanted. */
  readonly zoomed: readonly [number, number] | null
  /** Arrays for the result; where one has not the length that is needed, a new one is made. */
  readonly into: Omit<ScopeResult, 'sums' | 'clipped' | 'crushed'> | null
}

export interface ScopeResult {
  readonly waveform: Uint32Array
  readonly red: Uint32Array
  readonly green: Uint32Array
  readonly blue: Uint32Array
  readonly luma: Uint32Array
  readonly vector: Uint32Array
  /** Empty where they were not asked for. */
  readonly cb: Uint32Array
  readonly cr: Uint32Array
  readonly zoomed: Uint32Array
  readonly sums: readonly [number, number, number]
  readonly clipped: number
  readonly crushed: number
}

const wordsOfJob = 28
const numbersAt = wordsOfJob * 4
const jobBytes = numbersAt + 5 * 8
/** Bytes of a pixel in the strip (four levels, a bin and a cell), and the rows it holds. */
const stripBytes = 6 * 2
const stripRows = 8
/** Eight pixels are read at a time, so the last read may pass the end by seven. */
const pastTheEnd = 7 * 6
/** So many bytes of the picture are brought in at a time: they stay in the processor's nearer caches. */
const bandBytes = 128 * 1024
let kernel: StartedKernel<ScopeCode> | null | undefined

/** Counts with the kernel; null where there is no WebAssembly. */
export function countFast(job: ScopeJob): ScopeResult | null {
  if (kernel === undefined) kernel = startKernel<ScopeCode>(wasm, jobBytes)
  if (!kernel) return null
  const { width, levels, columns, cells, mask, chromaGains } = job
  const entries = columns * levels
  let next = (jobBytes + 15) & ~15
  const place = (bytes: number): number => {
    const at = next
    next += (bytes + 15) & ~15
    return at
  }
  const allRows = job.rows.length / 3 / width
  const bandRows = Math.min(allRows, Math.max(stripRows, Math.floor(bandBytes / (width * 6 * stripRows)) * stripRows))
  const columnStart = place(job.columnStart.byteLength)
  const countersAt = next
  const traces = place(entries * 4 * 4)
  const luma = place(job.lumaBins * 4)
  const vector = place(cells * cells * 4)
  const chromaEntries = chromaGains ? entries : 0
  const zoomedEntries = job.zoomed ? cells * cells : 0
  const cb = place(chromaEntries * 4)
  const cr = place(chromaEntries * 4)
  const zoomed = place(zoomedEntries * 4)
  const countersEnd = next
  const strip = place(((width + 7) & ~7) * stripBytes * stripRows)
  const source = place(bandRows * width * 6 + pastTheEnd)
  const maskAt = mask ? place(bandRows * width + pastTheEnd) : 0
  reserve(kernel.memory, next)
  const { buffer } = kernel.memory
  new Uint32Array(buffer, columnStart, job.columnStart.length).set(job.columnStart)
  new Uint8Array(buffer, countersAt, countersEnd - countersAt).fill(0)
  const words = new Uint32Array(buffer, 0, wordsOfJob)
  const numbers = new Float64Array(buffer, numbersAt, 5).fill(0)
  words.set([
    source,
    width,
    0,
    columnStart,
    job.levelGain,
    job.levelOffset,
    levels,
    columns,
    traces,
    luma,
    vector,
    cells,
    job.topCode,
    ...job.weights,
    job.perCb,
    job.perCr,
    maskAt,
    chromaGains ? cb : 0,
    chromaGains ? cr : 0,
    ...(chromaGains ?? [0, 0]),
    job.zoomed ? zoomed : 0,
    ...(job.zoomed ?? [0, 0]),
    strip,
    0,
    0,
  ])
  const band = new Uint16Array(buffer, source, bandRows * width * 3)
  const bandMask = new Uint8Array(buffer, maskAt, mask ? bandRows * width : 0)
  for (let row = 0; row < allRows; row += bandRows) {
    const rows = Math.min(bandRows, allRows - row)
    const from = row * width
    const to = (row + rows) * width
    band.set(job.rows.subarray(from * 3, to * 3))
    if (mask) bandMask.set(mask.subarray(from, to))
    words[2] = rows
    kernel.code.countScopes(0)
  }
  const counters = (name: keyof NonNullable<ScopeJob['into']>, at: number, length: number): Uint32Array => {
    const counted = new Uint32Array(buffer, at, length)
    const into = job.into?.[name]
    if (into?.length !== length) return counted.slice()
    into.set(counted)
    return into
  }
  const trace = (name: 'waveform' | 'red' | 'green' | 'blue', index: number): Uint32Array =>
    counters(name, traces + index * entries * 4, entries)
  return {
    waveform: trace('waveform', 0),
    red: trace('red', 1),
    green: trace('green', 2),
    blue: trace('blue', 3),
    luma: counters('luma', luma, job.lumaBins),
    vector: counters('vector', vector, cells * cells),
    cb: counters('cb', cb, chromaEntries),
    cr: counters('cr', cr, chromaEntries),
    zoomed: counters('zoomed', zoomed, zoomedEntries),
    sums: [numbers[0], numbers[1], numbers[2]],
    clipped: numbers[3],
    crushed: numbers[4],
  }
}
