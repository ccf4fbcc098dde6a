// Queries about stored media: one row per distinct content, and what was found by looking through it.
import type { GuessSummary, MediaFacts, ProxyFacts } from '@contracts/index'
import type { Cut } from '@core/footage'
import type { Seal } from '../services/originals'
import type { Queryable } from './pool'

export interface MediaRow {
  readonly hash: string
  readonly sizeBytes: number
  readonly facts: MediaFacts
  readonly frameTimes: readonly number[]
  /** How a linked original looked when it was last known to be the right one. */
  readonly seal?: Seal | null
}

export async function findMedia(db: Queryable, hash: string): Promise<MediaRow | undefined> {
  const { rows } = await db.query<MediaRow>(
    'SELECT hash, size_bytes::float8 AS "sizeBytes", facts, frame_times AS "frameTimes", seal ' +
      'FROM media WHERE hash = $1',
    [hash],
  )
  return rows[0]
}

export async function insertMedia(db: Queryable, media: MediaRow): Promise<void> {
  await db.query(
    'INSERT INTO media (hash, size_bytes, facts, frame_times, seal) VALUES ($1, $2, $3, $4, $5) ' +
      'ON CONFLICT (hash) DO UPDATE SET seal = $5',
    [media.hash, media.sizeBytes, JSON.stringify(media.facts), media.frameTimes, media.seal ?? null],
  )
}

export async function keepSeal(db: Queryable, hash: string, seal: Seal): Promise<void> {
  await db.query('UPDATE media SET seal = $2 WHERE hash = $1', [hash, seal])
}

/** @param likeness what files of one camera and setting share */
export async function keepGuess(db: Queryable, hash: string, guess: GuessSummary, likeness: string): Promise<void> {
  await db.query('UPDATE media SET guess = $2, likeness = $3 WHERE hash = $1', [hash, JSON.stringify(guess), likeness])
}

/** The whole clip was looked through: its brightest light is higher than a few places said. */
export async function keepCeiling(db: Queryable, hash: string, codeCeiling: number): Promise<void> {
  await db.query(
    "UPDATE media SET guess = jsonb_set(guess, '{codeCeiling}', to_jsonb($2::float8)) " +
      'WHERE hash = $1 AND guess IS NOT NULL',
    [hash, codeCeiling],
  )
}

export async function findGuess(db: Queryable, hash: string): Promise<GuessSummary | null> {
  const { rows } = await db.query<{ guess: GuessSummary | null }>('SELECT guess FROM media WHERE hash = $1', [hash])
  return rows[0]?.guess ?? null
}

export async function keepProxy(db: Queryable, hash: string, proxy: ProxyFacts): Promise<void> {
  await db.query('UPDATE media SET proxy = $2 WHERE hash = $1', [hash, JSON.stringify(proxy)])
}

/** Forgets that there is a proxy. False where none was known. */
export async function forgetProxy(db: Queryable, hash: string): Promise<boolean> {
  const { rowCount } = await db.query('UPDATE media SET proxy = NULL WHERE hash = $1 AND proxy IS NOT NULL', [hash])
  return rowCount === 1
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
