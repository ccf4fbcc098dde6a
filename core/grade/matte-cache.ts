// What was drawn or read for mattes, kept by all that it depends on: a hand changes one thing at a time.
import { LRUCache } from 'lru-cache'
import type { KeyedRows, KeyPlanes } from '../regions'

export interface MatteCache {
  readonly mattes: LRUCache<string, Float32Array>
  readonly planes: LRUCache<string, KeyPlanes>
  readonly keys: LRUCache<string, KeyedRows>
}

/** Bytes of each kind that are kept: those of two dozen regions at 960×540, and not much of a large still. */
const mostBytes = 48e6

const keptBySize = <T extends object>(bytes: (value: T) => number): LRUCache<string, T> => new LRUCache({ maxSize: mostBytes, sizeCalculation: (value) => bytes(value) + 1 })

export const matteCache = (): MatteCache => ({
  mattes: keptBySize((matte) => matte.byteLength),
  planes: keptBySize(({ l }) => l.byteLength * 3),
  keys: keptBySize(({ values }) => values.byteLength),
})
