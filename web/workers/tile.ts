// One thread's share of a picture: some rows through the passes, to canvas pixels with their overlay, and counted for
// the instruments.
import { displayById, lumaWeights, type MatrixId } from '@core/colour'
import {
  buildChain,
  drawMatte,
  executeDirectRows,
  executeRows,
  packSignal,
  playedMatteCache,
  previewPasses,
  rastersOf,
  rowsRead,
  type Chain,
  type GradeDocument,
  type MatteSource,
  type Passes,
  type Rows,
  type Tap,
} from '@core/grade'
import { planesToRows, type CodeRange, type Frame, type PlaneLayout, type Planes } from '@core/image'
import {
  addCounts,
  chromaticityCells,
  countChromaticity,
  countScopes,
  paintOverlay,
  partMask,
  roomForCounts,
  type CountArrays,
  type Counted,
  type OverlaySettings,
  type Part,
  type ScopeWishes,
} from '@core/instruments'
import type { Lut } from '@core/luts'
import { paintMatte, type MatteViewId } from '@core/regions'
import { sharedBytes } from './shared-memory'

/** How rows become display signal. */
export type Work =
  /** The code values as they are. */
  | { readonly kind: 'asShot' }
  | { readonly kind: 'passes'; readonly passes: Passes }
  /** Every pixel through the reference, where the passes would be too far from it. */
  | { readonly kind: 'direct'; readonly grade: GradeDocument; readonly luts: ReadonlyMap<string, Lut> }

/** Planes that still have to become the frame's codes: each thread converts its own rows. */
export interface Unpacking {
  readonly planes: Planes
  readonly layout: PlaneLayout
  readonly range: CodeRange
  readonly matrix: MatrixId
}

/** What the instruments want counted. */
export interface Counting {
  readonly wishes: Pick<ScopeWishes, 'chroma' | 'zoom'>
  readonly chromaticity: boolean
  /** Another station's signal is to be counted for the instruments. */
  readonly tap: Tap | null
  readonly part: Part | null
}

export interface TileJob {
  readonly id: number
  readonly work: Work
  /** The display the signal is for. */
  readonly displayId: string
  /** Frame, result and canvas pixels lie in shared memory; each thread touches its own rows only. */
  readonly frame: Frame
  readonly shown: Uint16Array
  readonly canvas: Uint32Array
  readonly rows: Rows
  readonly unpack: Unpacking | null
  readonly overlay: { readonly settings: OverlaySettings; readonly tap: Tap | null } | null
  /** What regions' mattes are made from, where one is looked at or measured in. */
  readonly mattes: MatteSource | null
  /** A matte that is looked at instead of the picture. */
  readonly matte: { readonly regionId: string; readonly view: MatteViewId } | null
  /** Null while the instruments do not want to know. */
  readonly count: Counting | null
}

/**
 * Counts of the picture, of the tapped station where there is one, and of the part where the instruments are limited to
 * one.
 */
export interface TileCounts {
  readonly end: Counted
  readonly tap: Counted | null
  readonly part: Counted | null
}
export interface TileAnswer {
  readonly id: number
  readonly counts: TileCounts | null
}

/** What the picture is looked at on, until there are monitors to choose from. */
export const ownDisplayId = 'bt709-2.4'
export const scopeSizes = { columns: 240, levels: 180, vectorCells: 180 } as const
const mattes = playedMatteCache()

export function workTile({
  work,
  displayId,
  frame,
  shown,
  canvas,
  rows,
  unpack,
  overlay,
  mattes: source,
  matte,
  count,
}: Omit<TileJob, 'id'>): TileCounts | null {
  mattes.nextPicture()
  if (unpack) {
    // Rows of the other thread that are looked at are converted here as well: both write the same.
    const reach = Math.max(
      work.kind === 'passes' ? rowsRead(work.passes, frame.height) : 0,
      source ? matteReach(source, frame.height) : 0,
    )
    planesToRows(
      unpack.planes,
      unpack.layout,
      unpack.range,
      unpack.matrix,
      frame.data,
      Math.max(0, rows.from - reach),
      Math.min(frame.height, rows.to + reach),
    )
  }
  const matteRows = (regionId: string, from: number, to: number): Float32Array | null => {
    const region = source?.regions?.find((r) => r.id === regionId)
    return region && source ? drawMatte(source, region, frame, { from, to }, mattes) : null
  }
  const mapping = work.kind === 'asShot' ? null : previewPasses(displayId, ownDisplayId)
  const packed = work.kind === 'passes' && !mapping
  if (work.kind === 'passes') executeRows(work.passes, frame, shown, rows, mattes, packed ? canvas : undefined)
  else if (work.kind === 'direct')
    directRows(
      buildChain(work.grade, (hash) => work.luts.get(hash)),
      frame,
      shown,
      rows,
    )
  else codesAsSignal(frame, shown, rows)
  const display = displayById(displayId)
  const asShot = work.kind === 'asShot'
  const signal = { ...frame, data: shown, low: 0, high: 1 }
  if (!packed) toCanvas(mapping ? through(mapping, signal, rows, 'mapped') : shown, canvas, frame.width, rows)
  const topCode = asShot ? 65535 : Math.round(display.eotf.encode(display.carriedPeak) * 65535)
  const weights = lumaWeights(asShot ? 'bt709' : display.lumaMatrix)
  if (overlay)
    paintOverlay(
      overlay.settings,
      signal,
      overlay.tap && !asShot ? through(overlay.tap, frame, rows, 'overlay') : null,
      canvas,
      weights,
      topCode,
      rows.from,
      rows.to,
    )
  const looked = matte && matteRows(matte.regionId, rows.from, Math.min(frame.height, rows.to + 1))
  if (matte && looked) paintMatte(matte.view, looked, canvas, frame.width, rows.from, rows.to)
  if (!count) return null
  const mask = count.part ? maskOf(count.part, frame, rows, matteRows) : undefined
  turn = (turn + 1) % turns
  const counted = (of: Frame, top: number, use: 'end' | 'tap' | 'part', within?: Uint8Array): Counted => ({
    scopes: countScopes(of, weights, scopeSizes, rows.from, rows.to, top, {
      ...count.wishes,
      into: countRoom(use, count.wishes),
      ...(within ? { mask: within } : {}),
    }),
    chromaticity: count.chromaticity
      ? countChromaticity(of, display, chromaticityCells, rows.from, rows.to, within)
      : null,
  })
  const tapped = count.tap && !asShot ? { ...signal, data: through(count.tap, frame, rows, 'tap') } : null
  const part = (within: Uint8Array): Counted =>
    tapped ? counted(tapped, 65535, 'part', within) : counted(signal, topCode, 'part', within)
  return {
    end: counted(signal, topCode, 'end'),
    tap: tapped && counted(tapped, 65535, 'tap'),
    part: mask ? part(mask) : null,
  }
}

// Counts of this picture, of the one before, which may still be held as the reference, and of one that is only
// measured.
const turns = 3
let turn = 0
const rooms = new Map<string, { readonly wishes: string; readonly arrays: CountArrays }>()
function countRoom(use: string, wishes: Counting['wishes']): CountArrays {
  const key = `${use} ${turn}`
  const words = JSON.stringify(wishes)
  const known = rooms.get(key)
  if (known?.wishes === words) return known.arrays
  const arrays = roomForCounts(scopeSizes, wishes, sharedBytes)
  rooms.set(key, { wishes: words, arrays })
  return arrays
}

const directRows = (chain: Chain, frame: Frame, shown: Uint16Array, { from, to }: Rows): void =>
  executeDirectRows(chain, frame, shown, from, to, rastersOf(chain, frame, true))
const matteReach = (source: MatteSource, frameHeight: number): number =>
  rowsRead(
    {
      ...source,
      decode: new Float32Array(0),
      passes: (source.regions ?? []).map((region) => ({ stages: [], region })),
    },
    frameHeight,
  ) + 1
const scratch = new Map<string, Uint16Array>()

/** Rows of a frame through other passes, into memory of this thread's own: the picture itself is left alone. */
function through(passes: Passes, frame: Frame, rows: Rows, use: 'mapped' | 'overlay' | 'tap'): Uint16Array {
  let into = scratch.get(use)
  if (into?.length !== frame.data.length) scratch.set(use, (into = new Uint16Array(frame.data.length)))
  executeRows(passes, frame, into, rows, use === 'mapped' ? undefined : mattes)
  return into
}

let kept: { readonly key: string; readonly mask: Uint8Array } | null = null
function maskOf(
  part: Part,
  { width, height }: Frame,
  { from, to }: Rows,
  matteRows: (regionId: string, from: number, to: number) => Float32Array | null,
): Uint8Array {
  if (part.kind === 'region') return partMask(part, { width, height }, from, to, matteRows)
  const key = JSON.stringify([part, width, height, from, to])
  if (kept?.key !== key) kept = { key, mask: partMask(part, { width, height }, from, to) }
  return kept.mask
}

const addTables = (a: Uint32Array | null, b: Uint32Array | null): Uint32Array | null => {
  if (a && b) a.forEach((count, i) => (a[i] = count + (b[i] ?? 0)))
  return a
}
const addCounted = (a: Counted | null, b: Counted | null): Counted | null =>
  a && b ? { scopes: addCounts(a.scopes, b.scopes), chromaticity: addTables(a.chromaticity, b.chromaticity) } : a

/** Joins what two threads counted of one picture, into the first. */
export const joinCounts = (a: TileCounts, b: TileCounts): TileCounts => ({
  end: addCounted(a.end, b.end) ?? a.end,
  tap: addCounted(a.tap, b.tap),
  part: addCounted(a.part, b.part),
})

function codesAsSignal({ width, data, low, high }: Frame, shown: Uint16Array, rows: Rows): void {
  const scale = high - low
  const offset = low * 65535
  for (let i = rows.from * width * 3; i < rows.to * width * 3; i++)
    shown[i] = Math.min(65535, Math.max(0, (data[i] ?? 0) * scale + offset + 0.5))
}

function toCanvas(shown: Uint16Array, canvas: Uint32Array, width: number, rows: Rows): void {
  packSignal(
    shown.subarray(rows.from * width * 3, rows.to * width * 3),
    canvas.subarray(rows.from * width, rows.to * width),
  )
}
