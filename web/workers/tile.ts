// One thread's share of a picture: some rows through the passes, to canvas pixels, and counted for the instruments.
import { buildChain, countScopes, displayById, executeDirectRows, executeRows, lumaWeights, planesToRows, previewPasses, type CodeRange, type Frame, type GradeDocument, type Lut, type MatrixId, type MatteCache, type Passes, type PlaneLayout, type Planes, type Rows, type ScopeCounts } from '@core/index'

/** How rows become display signal. */
export type Work =
  /** The code values as they are. */
  | { readonly kind: 'asShot' }
  | { readonly kind: 'passes'; readonly passes: Passes }
  /** Every pixel through the reference, where the passes would be too far from it. */
  | { readonly kind: 'direct'; readonly grade: GradeDocument; readonly luts: ReadonlyMap<string, Lut> }

/** Planes that still have to become the frame's codes: each thread converts its own rows. */
export interface Unpacking { readonly planes: Planes; readonly layout: PlaneLayout; readonly range: CodeRange; readonly matrix: MatrixId }

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
  /** Whether the instruments want to know. */
  readonly count: boolean
}
export interface TileAnswer { readonly id: number; readonly counts: ScopeCounts | null }

/** What the picture is looked at on, until there are monitors to choose from. */
export const ownDisplayId = 'bt709-2.4'
export const scopeSizes = { columns: 240, levels: 180, vectorCells: 180 } as const
const mattes: MatteCache = new Map()

export function workTile({ work, displayId, frame, shown, canvas, rows, unpack, count }: Omit<TileJob, 'id'>): ScopeCounts | null {
  if (unpack) planesToRows(unpack.planes, unpack.layout, unpack.range, unpack.matrix, frame.data, rows.from, rows.to)
  if (work.kind === 'passes') executeRows(work.passes, frame, shown, rows, mattes)
  else if (work.kind === 'direct') executeDirectRows(buildChain(work.grade, (hash) => work.luts.get(hash)), frame, shown, rows.from, rows.to)
  else codesAsSignal(frame, shown, rows)
  const display = displayById(displayId)
  const signal = { ...frame, data: shown, low: 0, high: 1 }
  const mapping = work.kind === 'asShot' ? null : previewPasses(displayId, ownDisplayId)
  toCanvas(mapping ? mapped(mapping, signal, rows) : shown, canvas, frame.width, rows)
  if (!count) return null
  const topCode = work.kind === 'asShot' ? 65535 : Math.round(display.eotf.encode(display.carriedPeak) * 65535)
  return countScopes(signal, lumaWeights(work.kind === 'asShot' ? 'bt709' : display.lumaMatrix), scopeSizes, rows.from, rows.to, topCode)
}

let mappedPixels = new Uint16Array(0)

/** The signal as the user's own display can show it; the signal itself is left alone for the instruments. */
function mapped(mapping: Passes, signal: Frame, rows: Rows): Uint16Array {
  if (mappedPixels.length !== signal.data.length) mappedPixels = new Uint16Array(signal.data.length)
  executeRows(mapping, signal, mappedPixels, rows)
  return mappedPixels
}

function codesAsSignal({ width, data, low, high }: Frame, shown: Uint16Array, rows: Rows): void {
  const scale = high - low, offset = low * 65535
  for (let i = rows.from * width * 3; i < rows.to * width * 3; i++) shown[i] = Math.min(65535, Math.max(0, data[i]! * scale + offset + 0.5))
}

/** 16-bit codes to packed canvas pixels (ABGR, as little-endian memory holds RGBA), rounded to nearest. */
function toCanvas(shown: Uint16Array, canvas: Uint32Array, width: number, rows: Rows): void {
  for (let o = rows.from * width, i = o * 3; o < rows.to * width; o++, i += 3) {
    const red = (shown[i]! * 255 + 32768) >>> 16, green = (shown[i + 1]! * 255 + 32768) >>> 16, blue = (shown[i + 2]! * 255 + 32768) >>> 16
    canvas[o] = (0xff000000 | (blue << 16) | (green << 8) | red) >>> 0
  }
}
