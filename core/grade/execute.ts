// The executor: a plan applied to a frame, or to some of its rows. The same code runs in the browser's workers, on the
// server and in the shell.
import type { Frame } from '../image'
import { renderMatte, type Region } from '../regions'
import type { Pass } from './compile'
import { applyFast } from './kernel'
import type { Lattice } from './lattice'

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
      applyInside(lattice, source, out, matteFor(region, frame, rows, mattes, kept))
    } else applyFast(lattice, source, out)
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

/** Mixes the lattice's result over `source` by the matte, stretch by stretch; pixels outside the matte are only copied. */
function applyInside(lattice: Lattice, source: Uint16Array, target: Uint16Array, matte: Float32Array): void {
  if (target !== source) target.set(source)
  const changed = new Uint16Array(stretchPixels * 3)
  for (let from = 0; from < matte.length; ) {
    if (matte[from] === 0) {
      from++
      continue
    }
    let to = from + 1
    while (to < matte.length && to - from < stretchPixels && matte[to] !== 0) to++
    applyFast(lattice, target.subarray(from * 3, to * 3), changed)
    for (let p = from, i = from * 3, o = 0; p < to; p++)
      for (let c = 0; c < 3; c++, i++, o++) target[i] = target[i]! + (changed[o]! - target[i]!) * matte[p]! + 0.5
    from = to
  }
}

const stretchPixels = 1024
