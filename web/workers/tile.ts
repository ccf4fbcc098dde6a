// One thread's share of a picture: some rows through the passes, to canvas pixels, and counted for the instruments.
import { countScopes, executeRows, lumaWeights, type Frame, type MatteCache, type Passes, type Rows, type ScopeCounts } from '@core/index'

export interface TileJob {
  readonly id: number
  /** null: the code values as they are. */
  readonly plan: Passes | null
  /** Frame, result and canvas pixels lie in shared memory; each thread touches its own rows only. */
  readonly frame: Frame
  readonly shown: Uint16Array
  readonly canvas: Uint32Array
  readonly rows: Rows
}
export interface TileAnswer { readonly id: number; readonly counts: ScopeCounts }

export const scopeSizes = { columns: 240, levels: 180, vectorCells: 180 } as const
// The weights of the displays offered so far.
const weights = lumaWeights('bt709')
const mattes: MatteCache = new Map()

export function workTile({ plan, frame, shown, canvas, rows }: Omit<TileJob, 'id'>): ScopeCounts {
  if (plan) executeRows(plan, frame, shown, rows, mattes)
  else codesAsSignal(frame, shown, rows)
  toCanvas(shown, canvas, frame.width, rows)
  return countScopes({ ...frame, data: shown, low: 0, high: 1 }, weights, scopeSizes, rows.from, rows.to)
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
