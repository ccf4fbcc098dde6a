// Queries about stored media: one row per distinct content.
import type { MediaFacts } from '@contracts/index'
import type { Queryable } from './pool'

export interface MediaRow { readonly hash: string; readonly facts: MediaFacts; readonly frameTimes: readonly number[] }

export async function findMedia(db: Queryable, hash: string): Promise<MediaRow | undefined> {
  const { rows } = await db.query<MediaRow>('SELECT hash, facts, frame_times AS "frameTimes" FROM media WHERE hash = $1', [hash])
  return rows[0]
}

export async function insertMedia(db: Queryable, media: MediaRow, sizeBytes: number): Promise<void> {
  await db.query(
    'INSERT INTO media (hash, size_bytes, facts, frame_times) VALUES ($1, $2, $3, $4) ON CONFLICT (hash) DO NOTHING',
    [media.hash, sizeBytes, JSON.stringify(media.facts), media.frameTimes],
  )
}
