// Reads single frames for the routes: decoded planes, kept for a while because one frame is asked for in several forms.
import { availableParallelism } from 'node:os'
import { LRUCache } from 'lru-cache'
import { neighbourFrames, gradeAt, lutsOf, type GradeDocument } from '@core/grade'
import type { CodeRange } from '@core/image'
import { findMedia, type MediaRow } from '../db/media'
import type { Pool } from '../db/pool'
import { notFound } from '../problem'
import type { GradeTask, SourceFrame } from '../workers/frame-worker'
import { decodedPicture } from '@media/decode'
import { decodeFrames, isSmall, type FrameAsked } from '@media/single-frames'
import type { Store } from '../store/store'
import { openDecoders, type Asked } from './decoders'
import type { RequireOriginal } from './originals'

export interface FrameReader {
  /** Planes of one frame with how to read them. Throws a Problem for unknown media or frames. */
  readonly source: (hash: string, index: number, range: CodeRange, asked?: Asked) => Promise<SourceFrame>
  /** A frame's planes that were decoded for something else: the first look at a medium needs no decoder. */
  readonly remember: (hash: string, index: number, planes: Buffer) => void
  /** All that a worker needs to grade one frame. */
  readonly gradeTask: (
    hash: string,
    index: number,
    grade: GradeDocument,
    range?: ShotRange,
    asked?: Asked,
  ) => Promise<GradeTask>
}

/** The frames of the medium that a shot is. */
export interface ShotRange {
  readonly firstFrame: number
  readonly frameCount: number
}

interface FrameOfMedium extends FrameAsked {
  readonly hash: string
}
const errorOf = (error: unknown): Error => (error instanceof Error ? error : new Error(String(error)))

const planesKeptBytes = 192 * 1024 * 1024
/** Frames that may wait for a decoder: more than all views of a page ask for at once. */
const mostWaiting = 64

export function frameReader(pool: Pool, store: Store, requireOriginal: RequireOriginal): FrameReader {
  const media = new LRUCache<string, MediaRow>({ max: 64 })
  const planes = new LRUCache<string, Buffer>({
    maxSize: planesKeptBytes,
    sizeCalculation: (b) => Math.max(1, b.length),
  })
  const decoders = openDecoders<FrameOfMedium>({
    atOnce: Math.max(2, availableParallelism()),
    waiting: mostWaiting,
    decode: async (frames, { signal, byItself, onFrame }) => {
      const missing = await Promise.all(frames.map(({ hash }) => requireOriginal(hash).then(() => null, errorOf)))
      const there = [...frames.keys()].filter((n) => !missing[n])
      const decoded = await decodeFrames(
        there.flatMap((n) => frames[n] ?? []),
        { signal, yields: byItself, onFrame: (i, planesOfOne) => onFrame(there[i] ?? NaN, planesOfOne) },
      )
      return missing.map((error, n) => error ?? decoded[there.indexOf(n)] ?? new Error('A frame was left out.'))
    },
    sharesDecoder: isSmall,
  })

  async function mediaRow(hash: string): Promise<MediaRow> {
    const known = media.get(hash) ?? (await findMedia(pool, hash))
    if (!known) throw notFound('clip')
    media.set(hash, known)
    return known
  }

  async function decoded(row: MediaRow, index: number, asked?: Asked): Promise<Buffer> {
    const key = `${row.hash}:${index}`
    const known = planes.get(key)
    if (known) return known
    const { hash, facts, frameTimes } = row
    const bytes = await decoders.share(key, { hash, path: store.mediaPath(hash), facts, frameTimes, index }, asked)
    planes.set(key, bytes)
    return bytes
  }

  const source: FrameReader['source'] = async (hash, index, range, asked) => {
    const row = await mediaRow(hash)
    return decodedPicture(await decoded(row, index, asked), row.facts, range)
  }
  return {
    source,
    remember: (hash, index, bytes) => {
      planes.set(`${hash}:${index}`, bytes)
    },
    gradeTask: async (hash, index, grade, range, asked) => {
      const bounds = range ?? { firstFrame: 0, frameCount: (await mediaRow(hash)).frameTimes.length }
      const neighbours = neighbourFrames(grade, index, bounds.firstFrame, bounds.firstFrame + bounds.frameCount - 1)
      const [own, ...others] = await Promise.all(
        [0, ...neighbours].map((away) => source(hash, index + away, grade.read.range, asked)),
      )
      if (!own) throw notFound('frame')
      return {
        source: own,
        ...(others.length > 0 ? { around: others.map((of, i) => ({ away: neighbours[i] ?? 0, source: of })) } : {}),
        grade: gradeAt(grade, index),
        luts: lutPaths(grade, store),
      }
    },
  }
}

/** The files of the LUTs that a grade uses. */
export function lutPaths(grade: GradeDocument, store: Store): GradeTask['luts'] {
  return lutsOf(grade).map((hash) => ({ hash, path: store.lutPath(hash) }))
}
