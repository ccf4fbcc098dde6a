// The executor: a plan applied to a frame, or to some of its rows. The same code runs in the browser's workers, on the
// server and in the shell.
import type { Frame } from '../image'
import { renderMatte, type Region } from '../regions'
import { chunkPixels, runChunk } from './kernel'
import type { Passes } from './stage'

/** Rows from `from` up to, not including, `to`. */
export interface Rows { readonly from: number; readonly to: number }

/** Mattes already drawn, by what they depend on. */
export type MatteCache = Map<string, Float32Array>

/** The display signal of a frame as 16-bit codes of 0..1, RGB triples. `mattes` keeps drawn mattes from call to call. */
export function execute(plan: Passes, frame: Frame, mattes: MatteCache = new Map()): Frame {
  const data = new Uint16Array(frame.data.length)
  executeRows(plan, frame, data, { from: 0, to: frame.height }, mattes)
  return { width: frame.width, height: frame.height, data, low: 0, high: 1 }
}

/** As execute, for some rows only, into `target`, which has the size of the whole frame; and as packed pixels into `canvas`, which has one for each. */
export function executeRows(plan: Passes, frame: Frame, target: Uint16Array, rows: Rows, mattes: MatteCache = new Map(), canvas?: Uint32Array): void {
  const kept: MatteCache = new Map()
  const drawn = plan.passes.map(({ region }) => (region ? matteFor(region, frame, rows, mattes, kept) : null))
  mattes.clear()
  for (const [key, matte] of kept) mattes.set(key, matte)
  const start = rows.from * frame.width, count = (rows.to - rows.from) * frame.width
  for (let first = 0; first < count; first += chunkPixels) {
    const end = Math.min(count, first + chunkPixels), from = (start + first) * 3, to = (start + end) * 3
    runChunk(plan, frame.data.subarray(from, to), target.subarray(from, to), drawn.map((matte) => matte && matte.subarray(first, end)), canvas?.subarray(start + first, start + end))
  }
}

function matteFor(region: Region, { width, height }: Frame, rows: Rows, known: MatteCache, kept: MatteCache): Float32Array {
  const key = JSON.stringify([width, height, rows, region.shape, region.feather, region.invert])
  const matte = known.get(key) ?? renderMatte(region, width, height, rows.from, rows.to)
  kept.set(key, matte)
  return matte
}
