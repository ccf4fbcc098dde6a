// The executor: a plan applied to a frame, or to some of its rows. The same code runs in the browser's workers, on the
// server and in the shell.
import { blurReach, halfOf, type Frame } from '../image'
import {
  builtFrom,
  cleaningReach,
  keyPlanes,
  renderMatte,
  tapsRead,
  type KeyPlanes,
  type KeySource,
  type KeyTap,
  type MattePicture,
  type MatteRoom,
  type Region,
} from '../regions'
import { chunkPixels, packSignal, runChunk, runStages } from './kernel'
import { matteCache, type MatteCache } from './matte-cache'
import { applyNeighbourhood, neighbourhoodMeans } from './neighbourhood'
import type { NeighbourhoodStage, Pass, Passes } from './stage'

type MatteSource = Pick<Passes, 'regions' | 'taps' | 'rough'>

/** Rows from `from` up to, not including, `to`. */
export interface Rows {
  readonly from: number
  readonly to: number
}

/**
 * To be told of the means of every neighbourhood stage of the rows that were asked for: one value per pixel, or three
 * in a row.
 */
export type MeansListener = (stage: NeighbourhoodStage, means: Float32Array) => void

/** The display signal of a frame as 16-bit codes of 0..1, RGB triples. `cache` keeps drawn mattes from call to call. */
export function execute(plan: Passes, frame: Frame, cache: MatteCache = matteCache()): Frame {
  const data = new Uint16Array(frame.data.length)
  executeRows(plan, frame, data, { from: 0, to: frame.height }, cache)
  return { width: frame.width, height: frame.height, data, low: 0, high: 1 }
}

/**
 * As execute, for some rows only, into `target`, which has the size of the whole frame; and as packed pixels into
 * `canvas`, which has one for each.
 */
export function executeRows(
  plan: Passes,
  frame: Frame,
  target: Uint16Array,
  rows: Rows,
  cache: MatteCache = matteCache(),
  canvas?: Uint32Array,
): void {
  const reach = rowsNeeded(plan, frame.height)
  if (reach > 0) return executeWithNeighbourhoods(plan, frame, target, rows, reach, cache, canvas)
  const drawn = mattesOf(plan, frame, rows, cache)
  const start = rows.from * frame.width
  const count = (rows.to - rows.from) * frame.width
  for (let first = 0; first < count; first += chunkPixels) {
    const end = Math.min(count, first + chunkPixels)
    const from = (start + first) * 3
    const to = (start + end) * 3
    runChunk(
      plan,
      frame.data.subarray(from, to),
      target.subarray(from, to),
      drawn.map((matte) => matte && matte.subarray(first, end)),
      canvas?.subarray(start + first, start + end),
    )
  }
  drawn.forEach((matte, n) => {
    if (matte && plan.passes[n]?.region?.strength !== 1) cache.room.give(matte)
  })
}

const neighbourhoodsOf = ({ stages }: Pass): readonly NeighbourhoodStage[] =>
  stages.filter((s): s is NeighbourhoodStage => s.kind === 'neighbourhood')

/**
 * Rows above and below that a plan's result depends on; 0 where every pixel stands for itself. Mattes look further by
 * themselves.
 */
export const rowsNeeded = ({ passes }: Passes, frameHeight: number): number =>
  passes.reduce(
    (sum, pass) => sum + neighbourhoodsOf(pass).reduce((s, { deviation }) => s + blurReach(deviation * frameHeight), 0),
    0,
  )

/** Rows above and below that are looked at for a plan's result, mattes included. */
export function rowsRead(plan: Passes, frameHeight: number): number {
  const regions = plan.regions ?? []
  const keys = plan.passes
    .flatMap((p) => (p.region ? builtFrom(p.region, regions) : []))
    .flatMap((r) => r.components)
    .flatMap(({ source }) => (source.kind === 'key' ? [cleaningReach(source.cleaning, frameHeight)] : []))
  const taps = Object.values(plan.taps ?? {}).map((tap) => rowsNeeded(tap, frameHeight))
  return rowsNeeded(plan, frameHeight) + Math.max(0, ...keys) + Math.max(0, ...taps)
}

/** With neighbourhoods: all rows they need are kept as numbers between the stages. */
function executeWithNeighbourhoods(
  plan: Passes,
  frame: Frame,
  target: Uint16Array,
  rows: Rows,
  reach: number,
  cache: MatteCache,
  canvas?: Uint32Array,
): void {
  const { width } = frame
  const pixels = wideRows(plan, frame, rows, reach, cache)
  const from = rows.from * width * 3
  for (let p = 0, o = from; p < pixels.length; p += 4, o += 3)
    for (let c = 0; c < 3; c++) target[o + c] = Math.min(Math.max(pixels[p + c], 0), 1) * 65535 + 0.5
  if (canvas)
    packSignal(target.subarray(from, rows.to * width * 3), canvas.subarray(rows.from * width, rows.to * width))
}

/** The result of rows as RGBA floats; `tell` is told of the means on the way. */
export function wideRows(
  plan: Passes,
  frame: Frame,
  rows: Rows,
  reach: number,
  cache: MatteCache,
  tell?: MeansListener,
): Float32Array {
  const { width, height, data } = frame
  const top = Math.max(0, rows.from - reach)
  const bottom = Math.min(height, rows.to + reach)
  const count = (bottom - top) * width
  const pixels = new Float32Array(count * 4)
  const { decode } = plan
  for (let p = 0, i = top * width * 3; p < pixels.length; p += 4, i += 3)
    for (let c = 0; c < 3; c++) pixels[p + c] = decode[data[i + c]]
  const drawn = mattesOf(plan, frame, { from: top, to: bottom }, cache)
  plan.passes.forEach((pass, n) => {
    const matte = drawn[n]
    const before = matte ? pixels.slice() : null
    for (let s = 0; s < pass.stages.length;) {
      const stage = pass.stages[s]
      if (stage.kind === 'neighbourhood') {
        const means = neighbourhoodMeans(stage, pixels, width, height)
        applyNeighbourhood(stage, means, pixels)
        if (tell) {
          const per = means.length / count
          tell(stage, means.slice((rows.from - top) * width * per, (rows.to - top) * width * per))
        }
        s++
        continue
      }
      const next = pass.stages.findIndex((other, k) => k > s && other.kind === 'neighbourhood')
      const end = next < 0 ? pass.stages.length : next
      for (let first = 0; first < count; first += chunkPixels)
        runStages(plan, n, s, end, pixels.subarray(first * 4, Math.min(count, first + chunkPixels) * 4))
      s = end
    }
    if (before && matte)
      for (let i = 0; i < pixels.length; i++) pixels[i] = before[i] + (pixels[i] - before[i]) * matte[i >> 2]
  })
  return pixels.subarray((rows.from - top) * width * 4, (rows.to - top) * width * 4)
}

/** Each pass's matte with its strength, null where it has none. */
function mattesOf(plan: Passes, frame: Frame, rows: Rows, cache: MatteCache): readonly (Float32Array | null)[] {
  return plan.passes.map(({ region }) =>
    region ? strengthened(drawMatte(plan, region, frame, rows, cache), region.strength, cache.room) : null,
  )
}

function strengthened(matte: Float32Array, strength: number, room: MatteRoom): Float32Array {
  if (strength === 1) return matte
  const out = room.take(matte.length)
  for (let i = 0; i < out.length; i++) out[i] = matte[i] * strength
  return out
}

/**
 * The matte of a region for some rows of a frame, without its strength; not to be written to. What is kept of a frame
 * without a name is its shapes alone.
 */
export function drawMatte(
  source: MatteSource,
  region: Region,
  frame: Frame,
  rows: Rows,
  cache: MatteCache = matteCache(),
): Float32Array {
  const { width, height } = frame
  const regions = source.regions ?? [region]
  const read = tapsRead(region, regions)
  const components = builtFrom(region, regions).map(({ components: of, invert }) => [of, invert])
  const key =
    read.length > 0 && frame.id === undefined
      ? null
      : JSON.stringify([
          width,
          height,
          rows,
          components,
          source.rough,
          read.map((tap) => pictureKey(source, frame, tap)),
        ])
  const known = key === null ? undefined : cache.mattes.get(key)
  if (known) return known
  const matte = renderMatte(region, regions, picturedBy(source, frame, cache), rows.from, rows.to)
  if (key !== null) cache.mattes.set(key, matte)
  return matte
}

/** Says which picture a key reads at a tap: this frame and those about it. */
const pictureKey = (
  { taps, rough }: MatteSource,
  { id, around, width, height }: Frame,
  tap: KeyTap,
): readonly unknown[] => [id, [...(around?.keys() ?? [])], width, height, rough, taps?.[tap]?.signature]

/** A frame as keys read it: all of it at one tap. */
export const planesAt = ({ taps }: Pick<Passes, 'taps'>, frame: Frame, tap: KeyTap): KeyPlanes =>
  readPlanes(taps?.[tap], frame, { from: 0, to: frame.height })

function picturedBy(source: MatteSource, frame: Frame, cache: MatteCache): MattePicture {
  const { width, height } = frame
  const { taps, rough } = source
  let half: Frame | null = null
  return {
    width,
    height,
    keyStep: rough ? 2 : 1,
    room: cache.room,
    planes: (tap: KeyTap, from, to, away) => {
      const whole = away === 0 ? frame : frame.around?.get(away)
      if (!whole || whole.width !== width || whole.height !== height) return null
      const passes = taps?.[tap]
      const key =
        whole.id === undefined ? null : JSON.stringify([whole.id, width, height, rough, from, to, passes?.signature])
      const planes =
        (key === null ? undefined : cache.planes.get(key)) ??
        readPlanes(passes, rough ? (half ??= halfOf(whole)) : whole, { from, to })
      if (key !== null) cache.planes.set(key, planes)
      return planes
    },
    ...(frame.id === undefined
      ? {}
      : {
          keyed: (keySource: KeySource, rows: Rows, all: Rows, make: (rows: Rows) => Float32Array) => {
            const key = JSON.stringify([keySource, pictureKey(source, frame, keySource.key.tap)])
            const known = cache.keys.get(key)
            if (known && known.from <= rows.from && known.to >= rows.to) return known
            // Asked about other rows than before: a shape moves over them, and all may come.
            const wanted = known ? all : rows
            const made = { ...wanted, values: make(wanted) }
            cache.keys.set(key, made)
            return made
          },
        }),
  }
}

function readPlanes(passes: Passes | undefined, frame: Frame, rows: Rows): KeyPlanes {
  const { width, height } = frame
  const { from, to } = rows
  const codes = new Uint16Array((to - from) * width * 3)
  const reach = passes ? rowsNeeded(passes, height) : 0
  if (passes && reach > 0)
    wideRows(passes, frame, rows, reach, matteCache()).forEach((v, i) => {
      if (i % 4 < 3) codes[(i >> 2) * 3 + (i & 3)] = Math.min(Math.max(v, 0), 1) * 65535 + 0.5
    })
  else if (passes)
    for (let first = 0; first < codes.length / 3; first += chunkPixels) {
      const end = Math.min(codes.length / 3, first + chunkPixels)
      const at = from * width
      runChunk(
        passes,
        frame.data.subarray((at + first) * 3, (at + end) * 3),
        codes.subarray(first * 3, end * 3),
        passes.passes.map(() => null),
      )
    }
  return keyPlanes(codes, width)
}
