// The executor: a plan applied to a frame, or to some of its rows. The same code runs in the browser's workers, on the
// server and in the shell.
import type { Frame } from '../image'
import { renderMatte, type Region } from '../regions'
import type { Pass } from './compile'
import { applyLattice } from './lattice'

/** Rows from `from` up to, not including, `to`. */
export interface Rows { readonly from: number; readonly to: number }

/** Mattes already drawn, by what they depend on. */
export type MatteCache = Map<string, Float32Array>

/** What the executor needs of a plan; plain data that can be sent to another thread. */
export interface Passes { readonly passes: readonly Pass[] }

/** The display signal of a frame as 16-bit codes of 0..1, RGB triples. `mattes` keeps drawn mattes from call to call. */
export function execute(plan: Passes, frame: Frame, mattes: MatteCache = new Map()): Frame {
  const data = new Uint16Array(frame.data.length)
  executeRows(plan, frame, data, { from: 0, to: frame.height }, mattes)
  return { width: frame.width, height: frame.height, data, low: 0, high: 1 }
}

/** As execute, for some rows only, into `target`, which has the size of the whole frame. */
export function executeRows({ passes }: Passes, frame: Frame, target: Uint16Array, rows: Rows, mattes: MatteCache = new Map()): void {
  const start = rows.from * frame.width * 3, end = rows.to * frame.width * 3
  const kept: MatteCache = new Map()
  const out = target.subarray(start, end)
  let source = frame.data.subarray(start, end)
  for (const { lattice, region } of passes) {
    if (region) {
      const changed = new Uint16Array(out.length)
      applyLattice(lattice, source, changed)
      mixByMatte(source, changed, matteFor(region, frame, rows, mattes, kept), out)
    } else applyLattice(lattice, source, out)
    source = out
  }
  mattes.clear()
  for (const [key, matte] of kept) mattes.set(key, matte)
}

function matteFor(region: Region, { width, height }: Frame, rows: Rows, known: MatteCache, kept: MatteCache): Float32Array {
  const key = JSON.stringify([width, height, rows, region.shape, region.feather, region.invert])
  const matte = known.get(key) ?? renderMatte(region, width, height, rows.from, rows.to)
  kept.set(key, matte)
  return matte
}

/** target = base + (changed − base) · matte. `base` and `target` may be the same. */
function mixByMatte(base: Uint16Array, changed: Uint16Array, matte: Float32Array, target: Uint16Array): void {
  for (let p = 0, i = 0; p < matte.length; p++, i += 3) {
    const m = matte[p]!
    for (let c = i; c < i + 3; c++) target[c] = base[c]! + (changed[c]! - base[c]!) * m + 0.5
  }
}
