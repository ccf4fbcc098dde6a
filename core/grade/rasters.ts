// What single pixels cannot know by themselves: mattes with keys, and the means about them. Worked out over the whole
// frame, for those who evaluate some pixels directly.
import type { Frame } from '../image'
import { tapsRead, type Region } from '../regions'
import type { Chain } from './chain'
import { chainMattes, compileLinks, dragSize, type LatticeSize, type PlanCache, restSize } from './compile'
import { framePositions, type Positions } from './direct'
import { drawMatte, rowsNeeded, wideRows } from './execute'
import { matteCache } from './matte-cache'
import { curveOperation } from './operation'

/** Planes over the whole frame, in its size or smaller. */
export interface Rasters {
  readonly width: number
  readonly height: number
  /** By the region's id; without its strength. */
  readonly mattes: ReadonlyMap<string, Float32Array>
  /** By link and operation; one value per pixel, or RGB triples. */
  readonly means: ReadonlyMap<string, Float32Array>
}

/** Statistics need no more; an error report and every delivered pixel do. */
const roughWidth = 160

const known = new WeakMap<Uint16Array, Map<string, Rasters>>()

/** True where some pixel's result depends on others: a key, or a step that looks at neighbours. */
export const readsOtherPixels = (chain: Chain): boolean => keyedIn(chain).length > 0 || isWide(chain)
const keyedIn = (chain: Chain): readonly Region[] => [
  ...new Set(
    chain.links.flatMap(({ region }) => (region && tapsRead(region, chain.regions).length > 0 ? [region] : [])),
  ),
]
const isWide = (chain: Chain): boolean => chain.links.some((l) => l.operations.some((o) => o.kind === 'neighbourhood'))

/** Null where every pixel of the chain stands for itself. `exact`: in the frame's own size. */
export function rastersOf(chain: Chain, frame: Frame, exact: boolean): Rasters | null {
  const keyed = keyedIn(chain)
  const wide = isWide(chain)
  if (keyed.length === 0 && !wide) return null
  const key =
    frame.id === undefined
      ? null
      : JSON.stringify([
          frame.id,
          exact,
          chain.decodeSignature,
          chain.links.map((l) => [l.signature, l.region]),
          chain.regions,
          [...(frame.around?.keys() ?? [])],
        ])
  const found = key === null ? undefined : known.get(frame.data)?.get(key)
  if (found) return found
  const made = make(chain, exact ? frame : smaller(frame), keyed, wide, exact ? restSize : dragSize)
  if (key !== null) known.set(frame.data, new Map([[key, made]]))
  return made
}

function make(chain: Chain, frame: Frame, keyed: readonly Region[], wide: boolean, size: LatticeSize): Rasters {
  const rows = { from: 0, to: frame.height }
  const means = new Map<string, Float32Array>()
  if (built.size > mostBuilt) built.clear()
  if (wide) {
    const plan = compileLinks(
      chain,
      chain.links,
      [{ signature: 'as it is', operation: curveOperation((v) => v) }],
      frame,
      size,
      wideBuilt,
    )
    wideRows(plan, frame, rows, rowsNeeded(plan, frame.height), matteCache(), (stage, values) =>
      means.set(stage.at, values),
    )
  }
  const source = chainMattes(chain, frame, size, built)
  // A small picture is quickly keyed as finely as it can be.
  return {
    width: frame.width,
    height: frame.height,
    mattes: new Map(
      keyed.map((region) => [region.id, drawMatte({ ...source, rough: false }, region, frame, rows, mattes)]),
    ),
    means,
  }
}
/** While one region is worked on the others' mattes stay. */
const mattes = matteCache()
/** Stages that did not change since last time. */
const built: PlanCache = new Map()
const wideBuilt: PlanCache = new Map()
const mostBuilt = 60

/** Every n-th pixel of every n-th row: what is meant by a share of the frame stays the same. */
function smaller(frame: Frame): Frame {
  const every = Math.ceil(frame.width / roughWidth)
  if (every <= 1) return frame
  const width = Math.floor(frame.width / every)
  const height = Math.floor(frame.height / every)
  const data = new Uint16Array(width * height * 3)
  const offset = every >> 1
  for (let y = 0, o = 0; y < height; y++)
    for (let x = 0; x < width; x++, o += 3) {
      const i = ((y * every + offset) * frame.width + x * every + offset) * 3
      data[o] = frame.data[i]
      data[o + 1] = frame.data[i + 1]
      data[o + 2] = frame.data[i + 2]
    }
  return {
    width,
    height,
    data,
    low: frame.low,
    high: frame.high,
    ...(frame.id === undefined ? {} : { id: `${frame.id} small` }),
  }
}

/**
 * Positions of a frame's pixels as framePositions gives them, with all that the chain needs to know about the frame.
 */
export function positionsIn(
  chain: Chain,
  frame: Frame,
  stride: number,
  first = 0,
  count = Math.ceil((frame.width * frame.height) / stride),
  exact = false,
): Positions {
  return withRasters(chain, frame, framePositions(frame.width, frame.height, stride, first, count), exact)
}

export function withRasters(chain: Chain, frame: Frame, positions: Positions, exact = false): Positions {
  const rasters = rastersOf(chain, frame, exact)
  return rasters ? { ...positions, rasters } : positions
}
