// The scopes kernel's memory: a job, its tables, its counters and the rows to count.
import { reserve, startKernel, type StartedKernel } from '../../wasm/load'
import { wasm } from './scopes.wasm'

interface ScopeCode { countScopes(job: number): void }

/** What is counted, with what says where; `countPlain` in ../scopes.ts shows how. */
export interface ScopeJob {
  /** RGB triples of the rows to count. */
  readonly rows: Uint16Array
  readonly width: number
  /** Byte offset of a picture column's counters. */
  readonly columnOf: Uint32Array
  /** A code's level in 32nds, as whole numbers: (code / 2 · gain) / 32768 + offset; held to 0..levels − 1. */
  readonly levelGain: number
  readonly levelOffset: number
  readonly levels: number
  /** Counters per trace, per luma bin and of the vectorscope. */
  readonly traceEntries: number
  readonly lumaBins: number
  readonly cells: number
  /** Weights of luma in 65536ths, whole numbers that add up to 65536. */
  readonly weights: readonly [number, number, number]
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

const wordsOfJob = 30, numbersAt = wordsOfJob * 4
const jobBytes = numbersAt + 5 * 8
/** Bytes of a pixel in the strip: four levels, a bin and a cell. */
const stripBytes = 6 * 2
/** Eight pixels are read at a time, so the last read may pass the end by seven. */
const pastTheEnd = 7 * 6
let kernel: StartedKernel<ScopeCode> | null | undefined

/** Counts with the kernel; null where there is no WebAssembly. */
export function countFast(job: ScopeJob): ScopeResult | null {
  if (kernel === undefined) kernel = startKernel<ScopeCode>(wasm, jobBytes)
  if (!kernel) return null
  let next = (jobBytes + 15) & ~15
  const place = (bytes: number): number => {
    const at = next
    next += (bytes + 15) & ~15
    return at
  }
  const columnOf = place(job.columnOf.byteLength), countersAt = next
  const waveform = place(job.traceEntries * 4), red = place(job.traceEntries * 4), green = place(job.traceEntries * 4), blue = place(job.traceEntries * 4)
  const luma = place(job.lumaBins * 4), vector = place(job.cells * job.cells * 4)
  const { mask, chromaGains } = job, chromaEntries = chromaGains ? job.traceEntries : 0, zoomedEntries = job.zoomed ? job.cells * job.cells : 0
  const cb = place(chromaEntries * 4), cr = place(chromaEntries * 4), zoomed = place(zoomedEntries * 4)
  const countersEnd = next, strip = place(((job.width + 7) & ~7) * stripBytes), source = place(job.rows.byteLength + pastTheEnd), maskAt = mask ? place(mask.byteLength + pastTheEnd) : 0
  reserve(kernel.memory, next)
  const { buffer } = kernel.memory
  new Uint32Array(buffer, columnOf, job.columnOf.length).set(job.columnOf)
  new Uint8Array(buffer, countersAt, countersEnd - countersAt).fill(0)
  new Uint16Array(buffer, source, job.rows.length).set(job.rows)
  if (mask) new Uint8Array(buffer, maskAt, mask.length).set(mask)
  new Uint32Array(buffer, 0, wordsOfJob).set([
    source, job.width, job.rows.length / 3 / job.width, columnOf, job.levelGain, job.levelOffset, job.levels - 1, waveform, red, green, blue, luma, vector, job.cells, job.topCode,
    ...job.weights, job.perCb, job.perCr, maskAt, chromaGains ? cb : 0, chromaGains ? cr : 0, ...(chromaGains ?? [0, 0]), job.zoomed ? zoomed : 0, ...(job.zoomed ?? [0, 0]), strip, 0,
  ])
  const numbers = new Float64Array(buffer, numbersAt, 5)
  kernel.code.countScopes(0)
  const counters = (at: number, entries: number): Uint32Array => new Uint32Array(buffer, at, entries).slice()
  return {
    waveform: counters(waveform, job.traceEntries), red: counters(red, job.traceEntries), green: counters(green, job.traceEntries), blue: counters(blue, job.traceEntries),
    luma: counters(luma, job.lumaBins), vector: counters(vector, job.cells * job.cells), cb: counters(cb, chromaEntries), cr: counters(cr, chromaEntries), zoomed: counters(zoomed, zoomedEntries),
    sums: [numbers[0]!, numbers[1]!, numbers[2]!], clipped: numbers[3]!, crushed: numbers[4]!,
  }
}
