// What was drawn or read for mattes, kept by all that it depends on: a hand changes one thing at a time.
import { LRUCache } from 'lru-cache'
import type { KeyedRows, KeyPlanes } from '../regions'

export interface MatteCache {
  readonly mattes: LRUCache<string, Float32Array>
  readonly planes: LRUCache<string, KeyPlanes>
  readonly keys: LRUCache<string, KeyedRows>
}

/** So many of a kind, as long as they are not too large together: all that a picture of twelve keys and a few frames about it needs, also of a large still. */
const keptUpTo = <T extends object>(max: number, maxSize: number, bytes: (value: T) => number): LRUCache<string, T> => new LRUCache({ max, maxSize, sizeCalculation: (value) => bytes(value) + 1 })

export const matteCache = (): MatteCache => ({
  mattes: keptUpTo(32, 120e6, (matte) => matte.byteLength),
  planes: keptUpTo(12, 320e6, ({ l }) => l.byteLength * 3),
  keys: keptUpTo(24, 120e6, ({ values }) => values.byteLength),
})
