// Condensing: a whole plan as one table, for playing, where a picture must be ready in time. At rest the exact stages
// are used again.
import { execute } from './execute'
import type { LutFinder } from './chain'
import { compile, type CodeSpan, type LatticeSize, type PlanCache } from './compile'
import type { GradeDocument } from './document'
import type { Passes, Stage } from './stage'

/** Nodes per axis: ΔE of a few tenths on ordinary grades, and small enough for a processor's cache. */
export const condensedSize = 49
/** Codes a camera can really write; those outside are held to the ends. */
const low = -0.08
const high = 1.1

/**
 * The plan's effect on code values as a single lattice; null for plans with regions or neighbourhoods, whose effect
 * depends on the place.
 */
export function condense(plan: Passes, span: CodeSpan, size = condensedSize): Passes | null {
  if (plan.passes.some((p) => p.region || p.stages.some((s) => s.kind === 'neighbourhood'))) return null
  const perSignal = 65535 / (span.high - span.low)
  const step = (high - low) / (size - 1)
  const codes = Float64Array.from({ length: size }, (_, i) =>
    Math.min(65535, Math.max(0, Math.round((low + i * step - span.low) * perSignal))),
  )
  const data = new Uint16Array(size ** 3 * 3)
  for (let b = 0, o = 0; b < size; b++)
    for (let g = 0; g < size; g++)
      for (let r = 0; r < size; r++, o += 3) {
        data[o] = codes[r]
        data[o + 1] = codes[g]
        data[o + 2] = codes[b]
      }
  const shown = execute(plan, { width: size * size, height: size, data, low: span.low, high: span.high }).data
  const nodes = new Float32Array(size ** 3 * 4)
  for (let i = 0, n = 0; i < shown.length; i += 3, n += 4)
    for (let c = 0; c < 3; c++) nodes[n + c] = shown[i + c] / 65535
  const decode = Float32Array.from({ length: 65536 }, (_, code) =>
    Math.min(size - 1, Math.max(0, (span.low + code / perSignal - low) / step)),
  )
  return { decode, passes: [{ stages: [{ kind: 'lattice', lattice: { size, nodes } }] }] }
}

/** Tables that cost less than a lattice does. */
const fewStages = 3

/** What is kept from one playable plan to the next. */
export interface PlayCache {
  readonly whole: PlanCache
  readonly outside: PlanCache
  last: (CodeSpan & { readonly stages: readonly Stage[]; readonly short: Passes | null }) | null
}
export const playCache = (whole: PlanCache): PlayCache => ({ whole, outside: new Map(), last: null })

/**
 * A grade as it is played: one table where that can be; with regions, the few stages or the one table that stand for
 * all where no region holds anything.
 */
export function playable(
  document: GradeDocument,
  lut: LutFinder,
  span: CodeSpan,
  size: LatticeSize,
  cache: PlayCache,
): Passes {
  const { chain: _, ...plan } = compile(document, lut, span, size, cache.whole)
  const table = condense(plan, span)
  if (table) return table
  if (plan.passes.some((p) => p.stages.some((s) => s.kind === 'neighbourhood'))) return plan
  const bare = compile(
    { ...document, steps: document.steps.filter((s) => s.regionId === undefined) },
    lut,
    span,
    size,
    cache.outside,
  )
  const stages = bare.passes.flatMap((p) => p.stages)
  if (stages.length <= fewStages && stages.every((s) => s.kind !== 'lattice'))
    return { ...plan, outside: { decode: bare.decode, stages } }
  // Regions that move from frame to frame leave it as it is.
  const { last } = cache
  if (
    last?.low !== span.low ||
    last.high !== span.high ||
    last.stages.length !== stages.length ||
    stages.some((s, i) => s !== last.stages[i])
  )
    cache.last = { low: span.low, high: span.high, stages, short: condense(bare, span) }
  const short = cache.last?.short
  return short ? { ...plan, outside: { decode: short.decode, stages: short.passes.flatMap((p) => p.stages) } } : plan
}
