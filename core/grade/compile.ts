// The compiler: a chain becomes a few passes over the frame, each a lattice, with mattes between them.
import { displayById, fromWorkingLog, toWorkingLog } from '../colour'
import type { Region } from '../regions'
import { buildChain, type Chain, type Link, type LutFinder } from './chain'
import type { GradeDocument } from './document'
import { latticeCoordinates, type Lattice } from './lattice'

/** 33 while dragging, 65 at rest and for delivery. */
export type LatticeSize = 17 | 33 | 65
export const dragSize: LatticeSize = 33
export const restSize: LatticeSize = 65

export interface Pass {
  readonly lattice: Lattice
  /** The pass's result is mixed over its input by this region's matte. */
  readonly region?: Region
}

export interface Plan {
  readonly chain: Chain
  readonly passes: readonly Pass[]
}

/** The signal that the codes 0 and 65535 of the incoming frame stand for. */
export interface CodeSpan { readonly low: number; readonly high: number }

/** How 16-bit codes between two passes, or at an end, are to be understood. */
type Coding =
  | { readonly kind: 'camera'; readonly span: CodeSpan }
  | { readonly kind: 'workingLog' }
  | { readonly kind: 'displayLinear' }
  | { readonly kind: 'displaySignal' }

/**
 * Codes between passes before Show: working log from −0.3 (linear −0.26) to 1.3 (15.5 stops over grey), in 65535 steps
 * of 0.0004 stop.
 */
const betweenLow = -0.3
const betweenHigh = 1.3

/** Keeps the lattices of the last plan, so that a pass whose links did not change is not built again. */
export type LatticeCache = Map<string, Lattice>

/**
 * Compiles a document for frames with codes of the given span.
 * @param cache lattices of earlier calls; afterwards it holds those of this plan only
 */
export function compile(document: GradeDocument, lut: LutFinder, span: CodeSpan, size: LatticeSize, cache: LatticeCache = new Map()): Plan {
  const chain = buildChain(document, lut)
  const runs = splitAtRegions(chain, { low: span.low, high: span.high })
  const kept: LatticeCache = new Map()
  const passes = runs.map((run): Pass => {
    const key = runSignature(run, chain, size)
    const lattice = kept.get(key) ?? cache.get(key) ?? buildLattice(run, chain, size)
    kept.set(key, lattice)
    return run.region ? { lattice, region: run.region } : { lattice }
  })
  cache.clear()
  for (const [key, lattice] of kept) cache.set(key, lattice)
  return { chain, passes }
}

interface Run {
  readonly links: readonly Link[]
  readonly input: Coding
  readonly output: Coding
  readonly region?: Region
}

function splitAtRegions(chain: Chain, span: CodeSpan): readonly Run[] {
  const runs: Run[] = []
  let pending: Link[] = []
  let input: Coding = { kind: 'camera', span }
  const showAt = chain.links.findIndex((l) => l.station === 'show')
  chain.links.forEach((link, i) => {
    if (!link.region) {
      pending.push(link)
      return
    }
    const coding: Coding = { kind: i < showAt ? 'workingLog' : 'displaySignal' }
    if (pending.length > 0 || input.kind === 'camera') runs.push({ links: pending, input, output: coding })
    runs.push({ links: [link], input: coding, output: coding, region: link.region })
    pending = []
    input = coding
  })
  if (pending.length > 0) runs.push({ links: pending, input, output: { kind: chain.leaves } })
  return runs
}

function runSignature(run: Run, chain: Chain, size: number): string {
  return JSON.stringify([size, chain.encodingId, chain.displayId, run.input, run.output, run.links.map((l) => l.signature)])
}

function buildLattice({ links, input, output }: Run, chain: Chain, size: number): Lattice {
  const axis = inputAxis(input, chain)
  const values = latticeCoordinates(axisValues(axis, size))
  for (const link of links) link.apply(values)
  const exit = outputAxis(output, chain)
  const nodes = new Float32Array(size ** 3 * 4)
  const perEntry = 65535 / (exit.high - exit.low)
  for (let i = 0; i < values.length; i++) {
    const v = exit.fromLink ? exit.fromLink(values[i]!) : values[i]!
    // An impossible value must not spread: the lattice holds finite numbers only.
    nodes[Math.floor(i / 3) * 4 + (i % 3)] = Number.isFinite(v) ? (v - exit.low) * perEntry : 0
  }
  return { size, nodes, positionOfCode: positionTable(input, axis, chain.encodingId, size), codeOfOutput: exit.codes }
}

/**
 * Lattice axes run along working log, but closer where pictures live: light below zero and more than nine stops over
 * grey takes fewer nodes.
 */
const denseLow = toWorkingLog(-0.003)
const denseHigh = 0.93
const sparsity = { below: 6, above: 3 } as const

function toAxis(log: number): number {
  if (log < denseLow) return denseLow - (denseLow - log) / sparsity.below
  return log > denseHigh ? denseHigh + (log - denseHigh) / sparsity.above : log
}
function fromAxis(position: number): number {
  if (position < denseLow) return denseLow - (denseLow - position) * sparsity.below
  return position > denseHigh ? denseHigh + (position - denseHigh) * sparsity.above : position
}

interface InputAxis {
  /** The ends of the lattice's axis. */
  readonly low: number
  readonly high: number
  /** Code 0..65535 → a value on the axis. */
  readonly ofCode: (code: number) => number
  /** A value on the axis → what the first link takes; absent where they are the same. */
  readonly toLink?: (value: number) => number
}

function inputAxis(coding: Coding, chain: Chain): InputAxis {
  if (coding.kind === 'camera') {
    const { low, high } = coding.span
    const axisOf = (code: number): number => toAxis(toWorkingLog(chain.decode(code)))
    // Codes a camera can really write; those outside are held to the ends.
    return {
      low: axisOf(Math.max(low, -0.08)),
      high: axisOf(Math.min(high, 1.1)),
      ofCode: (code) => axisOf(low + ((high - low) * code) / 65535),
      toLink: (position) => fromWorkingLog(fromAxis(position)),
    }
  }
  if (coding.kind === 'workingLog')
    return { low: toAxis(betweenLow), high: toAxis(betweenHigh), ofCode: (c) => toAxis(betweenLow + ((betweenHigh - betweenLow) * c) / 65535), toLink: fromAxis }
  return { low: 0, high: 1, ofCode: (c) => c / 65535 }
}

/** What the first link takes at each node along one axis. */
function axisValues({ low, high, toLink }: InputAxis, size: number): Float64Array {
  return Float64Array.from({ length: size }, (_, i) => {
    const value = low + ((high - low) * i) / (size - 1)
    return toLink ? toLink(value) : value
  })
}

// Position tables depend on the footage, not on the grade, so that a drag never builds one. A few encodings at a time are in use.
const positionTables = new Map<string, Float32Array>()
const positionTablesKept = 24

function positionTable(coding: Coding, { low, high, ofCode }: InputAxis, encodingId: string, size: number): Float32Array {
  const key = JSON.stringify([coding, coding.kind === 'camera' ? encodingId : '', size])
  const known = positionTables.get(key)
  if (known) return known
  if (positionTables.size >= positionTablesKept) positionTables.clear()
  const table = new Float32Array(65536)
  positionTables.set(key, table)
  const perUnit = (size - 1) / (high - low)
  for (let code = 0; code < 65536; code++) {
    const p = (ofCode(code) - low) * perUnit
    table[code] = p > 0 ? Math.min(p, size - 1) : 0
  }
  return table
}

interface OutputAxis {
  readonly low: number
  readonly high: number
  /** What the last link leaves → the value the lattice holds; absent where they are the same. */
  readonly fromLink?: (value: number) => number
  readonly codes: Uint16Array
}

const identityCodes = Uint16Array.from({ length: 65536 }, (_, i) => i)

function outputAxis(coding: Coding, chain: Chain): OutputAxis {
  if (coding.kind === 'workingLog') return { low: betweenLow, high: betweenHigh, codes: identityCodes }
  if (coding.kind === 'displaySignal') return { low: 0, high: 1, codes: identityCodes }
  if (coding.kind === 'camera') throw new RangeError('No pass leaves camera codes.')
  // The display's clip and curve are per channel: they stay exact in the table behind the lattice.
  const low = toWorkingLog(0), high = toWorkingLog(1)
  return { low, high, fromLink: toWorkingLog, codes: displayCodes(chain.displayId, low, high) }
}

const displayTables = new Map<string, Uint16Array>()

function displayCodes(displayId: string, low: number, high: number): Uint16Array {
  const known = displayTables.get(displayId)
  if (known) return known
  const { encode } = displayById(displayId).eotf
  const table = Uint16Array.from({ length: 65536 }, (_, i) => {
    const light = fromWorkingLog(low + ((high - low) * i) / 65535)
    return Math.round(65535 * encode(Math.min(Math.max(light, 0), 1)))
  })
  displayTables.set(displayId, table)
  return table
}

