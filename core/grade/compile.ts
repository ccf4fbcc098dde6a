// The compiler: a chain becomes a few passes. Neighbouring curves are joined into one table and neighbouring matrices
// into one matrix, both exact; only what mixes channels otherwise becomes a lattice.
import { clamp01 } from '../numbers'
import { displayById, toWorkingLog } from '../colour'
import { buildChain, type Chain, type Link, type LutFinder } from './chain'
import { curveTable } from './curve-table'
import type { GradeDocument } from './document'
import { latticeCoordinates, type Lattice } from './lattice'
import { curveOperation, joined, operate, type Curve, type Operation, type SignedOperation } from './operation'
import { tapsRead, type KeyTap, type Region } from '../regions'
import { sceneLinks } from './scene-light'
import type { KeyPasses, Pass, Passes, Stage } from './stage'
import { type Axis, straightAxis, signalAxis, axisOf } from './axes'

/** 33 while dragging, 65 at rest and for delivery. */
export type LatticeSize = 17 | 33 | 65
export const dragSize: LatticeSize = 33
export const restSize: LatticeSize = 65

export interface Plan extends Passes {
  readonly chain: Chain
}

/** The signal that the codes 0 and 65535 of the incoming frame stand for. */
export interface CodeSpan {
  readonly low: number
  readonly high: number
}

/** Keeps what was built for the last plan, so that what did not change is not built again. */
export type PlanCache = Map<string, readonly Stage[]>

/**
 * Compiles a document for frames with codes of the given span.
 * @param cache parts of earlier plans; afterwards it holds those of this plan only
 */
export function compile(
  document: GradeDocument,
  lut: LutFinder,
  span: CodeSpan,
  size: LatticeSize,
  cache: PlanCache = new Map(),
): Plan {
  const chain = buildChain(document, lut)
  return {
    chain,
    ...compileLinks(
      chain,
      chain.links,
      [{ signature: `finish ${chain.displayId} ${chain.leaves}`, operation: curveOperation(finishCurve(chain)) }],
      span,
      size,
      cache,
    ),
  }
}

/** Compiles some links of a chain and what is to follow them. */
export function compileLinks(
  chain: Chain,
  links: readonly Link[],
  ending: readonly SignedOperation[],
  span: CodeSpan,
  size: LatticeSize,
  cache: PlanCache,
): Passes {
  const kept: PlanCache = new Map()
  const once: Once = (signature, build) => {
    const stages = kept.get(signature) ?? cache.get(signature) ?? build()
    kept.set(signature, stages)
    return stages
  }
  const passes = passesOf(links, ending, size, once)
  const regions = passes.flatMap((p) => (p.region ? [p.region] : []))
  const mattes = regions.length > 0 ? matteSource(chain, regions, span, size, once) : {}
  cache.clear()
  for (const [key, stages] of kept) cache.set(key, stages)
  return { decode: decodeTable(chain, span), passes, ...mattes }
}

/** What mattes are made from. */
export type MatteSource = Pick<Passes, 'regions' | 'taps' | 'rough'>

/** What the mattes of all regions of a document are made from, whether these carry steps or not. */
export function compileMattes(
  document: GradeDocument,
  lut: LutFinder,
  span: CodeSpan,
  size: LatticeSize,
  cache: PlanCache = new Map(),
): MatteSource {
  return chainMattes(buildChain(document, lut), span, size, cache)
}

/** The same for a chain. */
export function chainMattes(chain: Chain, span: CodeSpan, size: LatticeSize, cache: PlanCache): MatteSource {
  return matteSource(chain, chain.regions, span, size, (signature, build) => {
    const stages = cache.get(signature) ?? build()
    cache.set(signature, stages)
    return stages
  })
}

function matteSource(
  chain: Chain,
  regions: readonly Region[],
  span: CodeSpan,
  size: LatticeSize,
  once: Once,
): MatteSource {
  const taps: Partial<Record<KeyTap, KeyPasses>> = {}
  const decode = decodeTable(chain, span)
  for (const tap of new Set(regions.flatMap((region) => tapsRead(region, chain.regions)))) {
    const read = sceneLinks(chain, tap)
    const toLog = curveOperation(read.at(-1)?.leaves === 'workingLog' ? clamp01 : (v) => clamp01(toWorkingLog(v)))
    taps[tap] = {
      decode,
      passes: passesOf(read, [{ signature: `key ${read.at(-1)?.leaves}`, operation: toLog }], size, once),
      signature: JSON.stringify([chain.decodeSignature, size, read.map((l) => l.signature)]),
    }
  }
  return { regions: chain.regions, taps, rough: size < restSize }
}

/** Links as passes: a region's link is one of its own, all between are joined. */
function passesOf(
  links: readonly Link[],
  ending: readonly SignedOperation[],
  size: LatticeSize,
  once: Once,
): readonly Pass[] {
  const passOf = (run: readonly SignedOperation[]): Pass => ({ stages: withNeighbourhoods(run, size, once) })
  const passes: Pass[] = []
  let pending: SignedOperation[] = []
  links.forEach((link, at) => {
    const signed = link.operations.map((operation, i) => ({
      signature: `${operation.kind === 'neighbourhood' ? `${at} ` : ''}${link.signature} ${i}`,
      operation,
    }))
    if (link.region) {
      if (pending.length > 0) passes.push(passOf(pending))
      passes.push({ ...passOf(signed), region: link.region })
      pending = []
    } else pending.push(...signed)
  })
  passes.push(passOf([...pending, ...ending]))
  return passes
}

/** What looks at neighbours is a stage of its own; what stands between such is joined. */
function withNeighbourhoods(run: readonly SignedOperation[], size: LatticeSize, once: Once): readonly Stage[] {
  const stages: Stage[] = []
  let from = 0
  run.forEach(({ signature, operation }, i) => {
    if (operation.kind !== 'neighbourhood') return
    stages.push(...buildStages(run.slice(from, i), size, once), {
      kind: 'neighbourhood',
      deviation: operation.deviation,
      amount: operation.amount,
      weights: operation.weights,
      at: signature,
    })
    from = i + 1
  })
  return [...stages, ...buildStages(run.slice(from), size, once)]
}

type Once = (signature: string, build: () => readonly Stage[]) => readonly Stage[]
const signatureOf = (run: readonly SignedOperation[]): string => run.map((s) => s.signature).join('\n')

/** What remains after the last link: hold to what the display can show, and encode where that is still to do. */
function finishCurve({ displayId, leaves }: Chain): Curve {
  const {
    eotf: { encode },
    carriedPeak,
  } = displayById(displayId)
  if (leaves === 'displayLinear') return (v) => encode(Math.min(Math.max(v, 0), carriedPeak))
  const top = encode(carriedPeak)
  return (v) => Math.min(Math.max(v, 0), top)
}

// Decoding depends on the footage, not on the grade, so that a drag never builds a table. A few encodings at a time are
// in use.
const decodeTables = new Map<string, Float32Array>()
const decodeTablesKept = 16

function decodeTable(chain: Chain, { low, high }: CodeSpan): Float32Array {
  const key = JSON.stringify([low, high, chain.decodeSignature])
  const known = decodeTables.get(key)
  if (known) return known
  if (decodeTables.size >= decodeTablesKept) decodeTables.clear()
  const table = Float32Array.from({ length: 65536 }, (_, code) => chain.decode(low + ((high - low) * code) / 65535))
  decodeTables.set(key, table)
  return table
}

/** Exact stages up to the first and from the last operation that needs a lattice; one lattice for all between. */
function buildStages(run: readonly SignedOperation[], size: LatticeSize, once: Once): readonly Stage[] {
  const first = run.findIndex((s) => s.operation.kind === 'pixels')
  const last = run.findLastIndex((s) => s.operation.kind === 'pixels')
  const from = run[first]?.operation
  const to = run[last]?.operation
  if (from?.kind !== 'pixels' || to?.kind !== 'pixels') return keptStages(run, once)
  // A LUT that stands alone keeps its own nodes, and is no approximation then.
  const own = first === last ? from.exactOn : undefined
  const grid: Grid = own
    ? { size: own.size, entry: straightAxis(own.low, own.high), exit: signalAxis }
    : { size, entry: axisOf(from.takes), exit: axisOf(to.leaves) }
  const inside = run.slice(first, last + 1)
  const entry = own ? `${own.low} ${own.high}` : from.takes
  const exit = own ? 'signal' : to.leaves
  return [
    ...keptStages(
      [
        ...run.slice(0, first),
        { signature: `onto ${grid.size} ${entry}`, operation: curveOperation(positionOn(grid)) },
      ],
      once,
    ),
    ...once(`lattice ${grid.size}\n${signatureOf(inside)}`, () => [
      { kind: 'lattice', lattice: buildLattice(inside, grid) },
    ]),
    ...keptStages(
      [{ signature: `off ${exit}`, operation: curveOperation(grid.exit.fromAxis) }, ...run.slice(last + 1)],
      once,
    ),
  ]
}

/** Operations that need no lattice as stages, neighbours joined; tables of what did not change are not made again. */
function keptStages(run: readonly SignedOperation[], once: Once): readonly Stage[] {
  return joined(run).flatMap(({ signature, operation }) => once(`exact\n${signature}`, () => [exactStage(operation)]))
}

/** The nodes of a lattice and what its two sides mean. */
interface Grid {
  readonly size: number
  readonly entry: Axis
  readonly exit: Axis
}

const positionOn =
  ({ size, entry: { low, high, toAxis } }: Grid): Curve =>
  (v) =>
    ((toAxis(v) - low) * (size - 1)) / (high - low)

function buildLattice(run: readonly SignedOperation[], { size, entry, exit }: Grid): Lattice {
  const step = (entry.high - entry.low) / (size - 1)
  const values = latticeCoordinates(Float64Array.from({ length: size }, (_, i) => entry.fromAxis(entry.low + i * step)))
  for (const { operation } of run) operate(operation, values)
  const nodes = new Float32Array(size ** 3 * 4)
  for (let i = 0; i < values.length; i++) {
    const v = exit.toAxis(values[i])
    // An impossible value must not spread: the lattice holds finite numbers only.
    nodes[Math.floor(i / 3) * 4 + (i % 3)] = Number.isFinite(v) ? v : 0
  }
  return { size, nodes }
}

/** Operations that need no lattice as stages, neighbours joined. Throws RangeError for those that need one. */
export const exactStages = (operations: readonly Operation[]): readonly Stage[] =>
  joined(operations.map((operation) => ({ signature: '', operation }))).map((s) => exactStage(s.operation))

function exactStage(operation: Operation): Stage {
  switch (operation.kind) {
    case 'curve':
      return { kind: 'curve', table: inARow(operation.curves.map(curveTable)) }
    case 'matrix': {
      const m = operation.matrix
      return { kind: 'matrix', columns: Float32Array.of(m[0], m[3], m[6], 0, m[1], m[4], m[7], 0, m[2], m[5], m[8], 0) }
    }
    case 'gain':
      return {
        kind: 'gain',
        data: inARow([
          curveTable(operation.gain),
          curveTable(operation.curve),
          Float32Array.of(...operation.weights, operation.blend),
        ]),
      }
    case 'relative':
      return { kind: 'relative', table: curveTable(operation.curve) }
    case 'pixels':
      throw new RangeError('This operation needs a lattice.')
    case 'neighbourhood':
      throw new RangeError('This operation looks at neighbours and cannot be joined.')
  }
}

function inARow(parts: readonly Float32Array[]): Float32Array {
  const [only] = parts
  if (only && parts.length === 1) return only
  const row = new Float32Array(parts.reduce((sum, p) => sum + p.length, 0))
  let at = 0
  for (const part of parts) {
    row.set(part, at)
    at += part.length
  }
  return row
}
