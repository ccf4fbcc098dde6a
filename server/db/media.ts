// Queries about stored media: one row per distinct content, and what was found by looking through it.
import type { GuessSummary, MediaFacts, ProxyFacts } from '@contracts/index'
import type { Cut } from '@core/footage'
import type { Queryable } from './pool'

export interface MediaRow {
  readonly hash: string
  readonly facts: MediaFacts
  readonly frameTimes: readonly number[]
}

export async function findMedia(db: Queryable, hash: string): Promise<MediaRow | undefined> {
  const { rows } = await db.query<MediaRow>(
    'SELECT hash, facts, frame_times AS "frameTimes" FROM media WHERE hash = $1',
    [hash],
  )
  return rows[0]
}

export async function insertMedia(db: Queryable, media: MediaRow, sizeBytes: number): Promise<void> {
  await db.query(
    'INSERT INTO media (hash, size_bytes, facts, frame_times) VALUES ($1, $2, $3, $4) ON CONFLICT (hash) DO NOTHING',
    [media.hash, sizeBytes, JSON.stringify(media.facts), media.frameTimes],
  )
}

/** @param likeness what files of one camera and setting share */
export async function keepGuess(db: Queryable, hash: string, guess: GuessSummary, likeness: string): Promise<void> {
  await db.query('UPDATE media SET guess = $2, likeness = $3 WHERE hash = $1', [hash, JSON.stringify(guess), likeness])
}

export async function findGuess(db: Queryable, hash: string): Promise<GuessSummary | null> {
  const { rows } = await db.query<{ guess: GuessSummary | null }>('SELECT guess FROM media WHERE hash = $1', [hash])
  return rows[0]?.guess ?? null
}

export async function keepProxy(db: Queryable, hash: string, proxy: ProxyFacts): Promise<void> {
  await db.query('UPDATE media SET proxy = $2 WHERE hash = $1', [hash, JSON.stringify(proxy)])
}

/** What a survey found of every frame, and the cuts. */
export interface Survey {
  readonly luma: readonly number[]
  readonly sharpness: readonly number[]
  readonly cuts: readonly Cut[]
}

export async function keepSurvey(db: Queryable, hash: string, { luma, sharpness, cuts }: Survey): Promise<void> {
  await db.query(
    'INSERT INTO surveys (media_hash, luma, sharpness, cuts) VALUES ($1, $2, $3, $4) ON CONFLICT ' +
      '(media_hash) DO UPDATE SET luma = $2, sharpness = $3, cuts = $4',
    [hash, luma, sharpness, JSON.stringify(cuts)],
  )
}

export async function findSurvey(db: Queryable, hash: string): Promise<Survey | undefined> {
  const { rows } = await db.query<Survey>('SELECT luma, sharpness, cuts FROM surveys WHERE media_hash = $1', [hash])
  return rows[0]
}
