// Memory that the picture threads share, where that is possible.
import { withTables, type Passes } from '@core/grade'
import type { Frame } from '@core/image'

/** One thread is enough for a single core; pages that are not isolated cannot share memory. */
export const canShare = (): boolean =>
  navigator.hardwareConcurrency > 1 && typeof SharedArrayBuffer === 'function' && crossOriginIsolated

export const sharedBytes = (length: number): ArrayBufferLike =>
  canShare() ? new SharedArrayBuffer(length) : new ArrayBuffer(length)

/** A copy of a frame. */
export function inSharedMemory(frame: Frame): Frame {
  const data = new Uint16Array(sharedBytes(frame.data.byteLength))
  data.set(frame.data)
  return { ...frame, data }
}

const sharedTables = new WeakMap<Float32Array, Float32Array>()
/** Passes to be sent: a table is copied once, and costs nothing to send after that. */
export const sharedPasses = <P extends Passes>(passes: P): P =>
  withTables(passes, (table) => {
    const known = sharedTables.get(table)
    if (known) return known
    if (canShare() && table.buffer instanceof SharedArrayBuffer) return table
    const shared = new Float32Array(sharedBytes(table.byteLength))
    shared.set(table)
    sharedTables.set(table, shared)
    return shared
  })
