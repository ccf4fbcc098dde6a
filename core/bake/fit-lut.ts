// Fitting a table's entries to real colours: straight lines between exact entries cut every bend short; entries moved to
// where the lines lie nearest the curve, over the colours that a picture holds, err less.
import type { Lut3d } from '../luts'

/** Adds neighbours of each colour: what other frames of the clip will hold. The sequence is fixed, so that the same picture gives the same table. */
export function withNeighbours(colours: Float64Array, reach: number): Float64Array {
  const out = new Float64Array(colours.length * 2)
  out.set(colours)
  let state = 1
  for (let i = 0; i < colours.length; i++) {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    out[colours.length + i] = colours[i]! + (state / 2147483648 - 1) * reach
  }
  return out
}

/** The four entries and weights of tetrahedral interpolation at each colour. */
function cornersOf({ size, domainMin, domainMax }: Lut3d, colours: Float64Array): { entries: Uint32Array; weights: Float32Array } {
  const count = colours.length / 3, last = size - 1, strides = [1, size, size * size]
  const entries = new Uint32Array(count * 4), weights = new Float32Array(count * 4)
  for (let p = 0; p < count; p++) {
    const at = [0, 1, 2].map((c) => Math.min(Math.max(((colours[p * 3 + c]! - domainMin[c]!) / (domainMax[c]! - domainMin[c]!)) * last, 0), last))
    const cell = at.map((v) => Math.min(Math.floor(v), last - 1)), part = at.map((v, c) => v - cell[c]!)
    const order = [0, 1, 2].sort((a, b) => part[b]! - part[a]!)
    let entry = cell[0]! + cell[1]! * size + cell[2]! * size * size, before = 1
    order.forEach((c, k) => {
      entries[p * 4 + k] = entry
      weights[p * 4 + k] = before - part[c]!
      before = part[c]!
      entry += strides[c]!
    })
    entries[p * 4 + 3] = entry
    weights[p * 4 + 3] = before
  }
  return { entries, weights }
}

const rounds = 36
// Steps a little over the plain average of what is missing; entries that few colours touch move little.
const stride = 1.4
const inertia = 0.4

/**
 * Moves the entries of a table toward the least squared error at `colours`, whose exact results are `wanted` (both RGB triples).
 * Entries that no colour touches stay; all stay within 0..1. Simultaneous reconstruction (Andersen and Kak 1984).
 */
export function fitLut(lut: Lut3d, colours: Float64Array, wanted: Float64Array): Lut3d {
  const { entries, weights } = cornersOf(lut, colours)
  const data = Float64Array.from(lut.data), touched = new Float64Array(lut.size ** 3)
  for (let i = 0; i < entries.length; i++) touched[entries[i]!]! += weights[i]!
  const missing = new Float64Array(data.length)
  for (let round = 0; round < rounds; round++) {
    missing.fill(0)
    for (let p = 0, k = 0; k < entries.length; p += 3, k += 4)
      for (let c = 0; c < 3; c++) {
        const now = weights[k]! * data[entries[k]! * 3 + c]! + weights[k + 1]! * data[entries[k + 1]! * 3 + c]! + weights[k + 2]! * data[entries[k + 2]! * 3 + c]! + weights[k + 3]! * data[entries[k + 3]! * 3 + c]!
        const left = wanted[p + c]! - now
        for (let n = k; n < k + 4; n++) missing[entries[n]! * 3 + c]! += weights[n]! * left
      }
    for (let entry = 0; entry < touched.length; entry++) {
      if (touched[entry] === 0) continue
      for (let i = entry * 3; i < entry * 3 + 3; i++) data[i] = Math.min(Math.max(data[i]! + (stride * missing[i]!) / (touched[entry]! + inertia), 0), 1)
    }
  }
  return { ...lut, data: Float32Array.from(data) }
}
