// The plain kernel: what stages.as.ts does, in TypeScript. The reference, and what runs where there is no WebAssembly
// with SIMD.
import { lookUp, tableEntries } from '../curve-table'
import { applyLattice } from '../lattice'
import type { Passes, Stage } from '../stage'

/** Runs all passes on a chunk. `mattes[n]` is pass n's matte for these pixels, null where it has none. */
export function runPlain(
  { decode, passes }: Passes,
  source: Uint16Array,
  target: Uint16Array,
  mattes: readonly (Float32Array | null)[],
): void {
  const count = source.length / 3
  const pixels = new Float32Array(count * 4)
  for (let p = 0; p < count; p++) for (let c = 0; c < 3; c++) pixels[p * 4 + c] = decode[source[p * 3 + c]]
  passes.forEach(({ stages }, n) => {
    const matte = mattes[n]
    const before = matte ? pixels.slice() : null
    for (const stage of stages) runPlainStage(stage, pixels)
    if (before && matte)
      for (let i = 0; i < pixels.length; i++) pixels[i] = before[i] + (pixels[i] - before[i]) * matte[i >> 2]
  })
  for (let p = 0; p < count; p++)
    for (let c = 0; c < 3; c++) target[p * 3 + c] = Math.min(Math.max(pixels[p * 4 + c], 0), 1) * 65535 + 0.5
}

/** One stage on RGBA floats, in place. Throws RangeError for one that looks at neighbours. */
export function runPlainStage(stage: Stage, pixels: Float32Array): void {
  switch (stage.kind) {
    case 'lattice':
      return applyLattice(stage.lattice, pixels)
    case 'matrix':
      return applyMatrix(stage.columns, pixels)
    case 'gain':
      return applyGain(stage.data, pixels)
    case 'relative':
      return applyRelative(stage.table, pixels)
    case 'neighbourhood':
      throw new RangeError('A stage that looks at neighbours is not run on a chunk of pixels.')
    case 'curve': {
      const tables = [0, 1, 2].map((c) =>
        stage.table.length > tableEntries ? stage.table.subarray(c * tableEntries) : stage.table,
      )
      for (let i = 0; i < pixels.length; i += 4)
        for (let c = 0; c < 3; c++) pixels[i + c] = lookUp(tables[c], pixels[i + c])
    }
  }
}

function applyMatrix(m: Float32Array, pixels: Float32Array): void {
  for (let i = 0; i < pixels.length; i += 4) {
    const r = pixels[i]
    const g = pixels[i + 1]
    const b = pixels[i + 2]
    for (let c = 0; c < 3; c++) pixels[i + c] = m[c] * r + m[4 + c] * g + m[8 + c] * b
  }
}

function applyGain(data: Float32Array, pixels: Float32Array): void {
  const curve = data.subarray(tableEntries)
  const [wr = 0, wg = 0, wb = 0, blend = 0] = data.subarray(tableEntries * 2)
  const byLargest = wr === 0 && wg === 0 && wb === 0
  for (let i = 0; i < pixels.length; i += 4) {
    const r = pixels[i]
    const g = pixels[i + 1]
    const b = pixels[i + 2]
    const share = lookUp(data, byLargest ? Math.max(r, g, b) : wr * r + wg * g + wb * b) * (1 - blend)
    for (let c = i; c < i + 3; c++) pixels[c] = pixels[c] * share + (blend && lookUp(curve, pixels[c]) * blend)
  }
}

function applyRelative(table: Float32Array, pixels: Float32Array): void {
  for (let i = 0; i < pixels.length; i += 4) {
    const largest = Math.max(pixels[i], pixels[i + 1], pixels[i + 2])
    if (largest <= 0) continue
    for (let c = i; c < i + 3; c++) pixels[c] = largest * lookUp(table, pixels[c] / largest)
  }
}
