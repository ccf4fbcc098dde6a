// Stages: what the executor runs, as plain data that can be sent to another thread.
import type { KeyTap, Region } from '../regions'
import type { Lattice } from './lattice'

export type Stage =
  /** Three columns of four floats: the matrix's columns and a zero each. */
  | { readonly kind: 'matrix'; readonly columns: Float32Array }
  /** See curve-table.ts: one table for all channels, or three in a row. */
  | { readonly kind: 'curve'; readonly table: Float32Array }
  /** The table of the gain, then that of the curve, then four floats: weights and blend. */
  | { readonly kind: 'gain'; readonly data: Float32Array }
  | { readonly kind: 'relative'; readonly table: Float32Array }
  /** Pixels are positions on its axes before it, its values after it. */
  | { readonly kind: 'lattice'; readonly lattice: Lattice }
  | NeighbourhoodStage

/** As the operation of that name; `at` tells it from others of its plan. */
export interface NeighbourhoodStage {
  readonly kind: 'neighbourhood'
  readonly deviation: number
  readonly amount: number
  readonly weights: readonly [number, number, number] | null
  readonly at: string
}

export interface Pass {
  readonly stages: readonly Stage[]
  /** The pass's result is mixed over its input by this region's matte. */
  readonly region?: Region
}

/** All that the executor needs of a plan. The last pass leaves display signal of 0..1. */
export interface Passes {
  /** 65536 entries: code of the incoming frame → what the first stage takes. */
  readonly decode: Float32Array
  readonly passes: readonly Pass[]
  /**
   * May stand for all passes, with a decoding table of its own, where no region holds anything; leaves display signal,
   * too.
   */
  readonly outside?: { readonly decode: Float32Array; readonly stages: readonly Stage[] }
  /** All regions of the grade, as some are built from others; absent where no pass has one. */
  readonly regions?: readonly Region[]
  /** What keys read: passes that leave working log of 0..1, and what they depend on. */
  readonly taps?: Readonly<Partial<Record<KeyTap, KeyPasses>>>
  /** For a look while a hand moves: keys are made on every second pixel. */
  readonly rough?: boolean
}
export interface KeyPasses extends Passes {
  readonly signature: string
}

/** The same passes with every table replaced, as for memory that threads share. */
export function withTables<P extends Passes>(passes: P, replace: (table: Float32Array) => Float32Array): P {
  const stage = (s: Stage): Stage => {
    switch (s.kind) {
      case 'curve':
      case 'relative':
        return { ...s, table: replace(s.table) }
      case 'gain':
        return { ...s, data: replace(s.data) }
      case 'lattice':
        return { ...s, lattice: { ...s.lattice, nodes: replace(s.lattice.nodes) } }
      case 'matrix':
      case 'neighbourhood':
        return s
    }
  }
  const taps =
    passes.taps && Object.fromEntries(Object.entries(passes.taps).map(([tap, of]) => [tap, withTables(of, replace)]))
  const { outside } = passes
  return {
    ...passes,
    ...(outside ? { outside: { decode: replace(outside.decode), stages: outside.stages.map(stage) } } : {}),
    decode: replace(passes.decode),
    passes: passes.passes.map((p) => ({ ...p, stages: p.stages.map(stage) })),
    ...(taps ? { taps } : {}),
  }
}
