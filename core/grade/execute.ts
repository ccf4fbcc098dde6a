// The executor: a plan applied to a frame. The same code runs in the browser's worker, on the server and in the shell.
import type { Frame } from '../image'
import { renderMatte, type Region } from '../regions'
import type { Plan } from './compile'
import { applyLattice } from './lattice'

/** Mattes already drawn for a frame size, by what they depend on. */
export type MatteCache = Map<string, Float32Array>

/** The display signal of a frame as 16-bit codes of 0..1, RGB triples. `mattes` keeps drawn mattes from call to call. */
export function execute(plan: Plan, frame: Frame, mattes: MatteCache = new Map()): Frame {
  const kept: MatteCache = new Map()
  let data = frame.data
  for (const { lattice, region } of plan.passes) {
    const out = new Uint16Array(frame.data.length)
    applyLattice(lattice, data, out)
    if (region) mixByMatte(data, out, matteFor(region, frame, mattes, kept))
    data = out
  }
  mattes.clear()
  for (const [key, matte] of kept) mattes.set(key, matte)
  return { width: frame.width, height: frame.height, data, low: 0, high: 1 }
}

function matteFor(region: Region, { width, height }: Frame, known: MatteCache, kept: MatteCache): Float32Array {
  const key = JSON.stringify([width, height, region.shape, region.feather, region.invert])
  const matte = known.get(key) ?? renderMatte(region, width, height)
  kept.set(key, matte)
  return matte
}

/** target = base + (target − base) · matte, in place. */
function mixByMatte(base: Uint16Array, target: Uint16Array, matte: Float32Array): void {
  for (let p = 0, i = 0; p < matte.length; p++, i += 3) {
    const m = matte[p]!
    if (m === 1) continue
    for (let c = i; c < i + 3; c++) target[c] = base[c]! + (target[c]! - base[c]!) * m + 0.5
  }
}
