// What a worker thread keeps and reads for all of its work: LUTs by their hash, and frames as they left the decoder.
import { existsSync, readFileSync } from 'node:fs'
import { LRUCache } from 'lru-cache'
import { parseLutFile } from '@core/formats'
import { type GradeDocument, type LutFinder } from '@core/grade'
import { smallFrameOfDecoded, type DecodedPicture, type Frame } from '@core/image'
import { unpackLut, type Lut } from '@core/luts'
import { packedBeside } from '../store/store'

/** A decoded frame as it left the decoder, and how it is to be read. */
export type SourceFrame = DecodedPicture
export interface LutPath {
  readonly hash: string
  readonly path: string
}
export interface GradeTask {
  readonly source: SourceFrame
  /** Frames before and after it, where the grade looks at them. */ readonly around?: readonly {
    readonly away: number
    readonly source: SourceFrame
  }[]
  readonly grade: GradeDocument
  readonly luts: readonly LutPath[]
}

const lutCache = new LRUCache<string, Lut>({ max: 8 })

export const decodeText = (bytes: Uint8Array): string =>
  Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length).toString('utf8')

/** A kept LUT by its path: packed where it was packed, else as it came. */
function readLut(path: string): Lut {
  const packed = packedBeside(path)
  const bytes = readFileSync(existsSync(packed) ? packed : path)
  return unpackLut(bytes) ?? parseLutFile(bytes, decodeText).lut
}

export function lutFinder(paths: readonly LutPath[]): LutFinder {
  const byHash = new Map(paths.map((p) => [p.hash, p.path]))
  return (hash) => {
    const path = byHash.get(hash)
    if (!path) return undefined
    const known = lutCache.get(hash) ?? readLut(path)
    lutCache.set(hash, known)
    return known
  }
}

/** The task's frame and those about it, made no larger than asked. */
export function framesOf(
  { source, around }: Pick<GradeTask, 'source' | 'around'>,
  maxWidth = Infinity,
  maxHeight = Infinity,
): Frame {
  const sized = (of: SourceFrame): Frame => smallFrameOfDecoded(of, maxWidth, maxHeight)
  return around?.length
    ? { ...sized(source), around: new Map(around.map((a) => [a.away, sized(a.source)])) }
    : sized(source)
}
