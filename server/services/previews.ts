// Frames as they are sent to pages: small, in codes. A few are kept, because the frame that will be looked at first is
// made while its clip comes in.
import { LRUCache } from 'lru-cache'
import type { CodeRange } from '@core/image'
import type { FrameWorkers } from '../workers/pool'
import type { Asked } from './decoders'
import type { FrameReader } from './frames'

export type Preview = Awaited<ReturnType<FrameWorkers['previewFrame']>>

/** For the Bench, and for the tiles of a contact sheet. */
export const previewSizes = {
  bench: { maxWidth: 960, maxHeight: 540 },
  sheet: { maxWidth: 192, maxHeight: 108 },
} as const
export type PreviewSize = keyof typeof previewSizes

export interface PreviewReader {
  /** Throws a Problem for unknown media or frames, and the signal's reason when it is given up. */
  readonly of: (hash: string, index: number, range: CodeRange, size: PreviewSize, asked?: Asked) => Promise<Preview>
  /** Begins to make what a page will ask for next. */
  readonly prepare: (hash: string, index: number, range: CodeRange) => void
}

const kept = 8

export function previewReader(frames: FrameReader, workers: Pick<FrameWorkers, 'previewFrame'>): PreviewReader {
  const prepared = new LRUCache<string, Promise<Preview>>({ max: kept })
  const make = async (
    hash: string,
    index: number,
    range: CodeRange,
    size: PreviewSize,
    asked?: Asked,
  ): Promise<Preview> =>
    workers.previewFrame({ source: await frames.source(hash, index, range, asked), ...previewSizes[size] })
  const keyOf = (hash: string, index: number, range: CodeRange): string => `${hash} ${index} ${range}`

  return {
    of: async (hash, index, range, size, asked) => {
      const known = size === 'bench' ? prepared.get(keyOf(hash, index, range)) : undefined
      return (await known?.catch(() => undefined)) ?? make(hash, index, range, size, asked)
    },
    prepare: (hash, index, range) => {
      const key = keyOf(hash, index, range)
      const preview = make(hash, index, range, 'bench')
      prepared.set(key, preview)
      preview.catch(() => prepared.delete(key))
    },
  }
}
