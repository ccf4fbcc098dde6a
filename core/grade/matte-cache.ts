// What was drawn or read for mattes, kept by all that it depends on: a hand changes one thing at a time.
import { LRUCache } from 'lru-cache'
import { freshRoom, reusedRoom, type KeyedRows, type KeyPlanes, type MatteRoom } from '../regions'

export interface MatteCache {
  readonly mattes: LRUCache<string, Float32Array>
  readonly planes: LRUCache<string, KeyPlanes>
  readonly keys: LRUCache<string, KeyedRows>
  readonly room: MatteRoom
  /** What was pushed out may be written over from now on: nothing of the last picture is looked at any more. */
  readonly nextPicture: () => void
}

/**
 * So many of a kind, as long as they are not too large together: all that a picture of twelve keys and a few frames
 * about it needs, also of a large still.
 */
const keptUpTo = <T extends object>(
  max: number,
  maxSize: number,
  bytes: (value: T) => number,
  dispose?: (value: T) => void,
): LRUCache<string, T> =>
  new LRUCache({ max, maxSize, sizeCalculation: (value) => bytes(value) + 1, ...(dispose ? { dispose } : {}) })

const cacheIn = (room: MatteRoom, nextPicture: () => void, leave?: (matte: Float32Array) => void): MatteCache => ({
  mattes: keptUpTo(32, 120e6, (matte) => matte.byteLength, leave),
  planes: keptUpTo(12, 320e6, ({ l }) => l.byteLength * 3),
  keys: keptUpTo(24, 120e6, ({ values }) => values.byteLength),
  room,
  nextPicture,
})

export const matteCache = (): MatteCache => cacheIn(freshRoom, () => undefined)

/** For picture after picture, each begun with nextPicture(): memory of mattes is used again. */
export function playedMatteCache(): MatteCache {
  const room = reusedRoom()
  let left: Float32Array[] = []
  return cacheIn(
    room,
    () => {
      left.forEach(room.give)
      left = []
    },
    (matte) => left.push(matte),
  )
}
