// What of a picture leaves the worker instead of being copied.
import type { TraceImage } from '@core/instruments'
import type { Measured } from '../messages'

export const buffersOf = (picture: TraceImage, measured: Measured | null): Transferable[] =>
  [picture, ...Object.values(measured?.traces ?? {})].map(({ rgba }) => rgba.buffer as ArrayBuffer)
