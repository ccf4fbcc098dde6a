// Queries about LUTs: one row per distinct content.
import type { LutSummary } from '@contracts/index'
import type { Queryable } from './pool'

export async function listLuts(db: Queryable): Promise<readonly LutSummary[]> {
  const { rows } = await db.query<LutSummary>('SELECT hash, name, title, dimensions, size FROM luts ORDER BY name, hash LIMIT 1000')
  return rows
}

/** Adds a LUT; the same content under another name keeps its first name. */
export async function insertLut(db: Queryable, lut: LutSummary, actor: string): Promise<void> {
  await db.query(
    'INSERT INTO luts (hash, name, title, dimensions, size, actor) VALUES ($1, $2, $3, $4, $5, $6) ON CONFLICT (hash) DO NOTHING',
    [lut.hash, lut.name, lut.title, lut.dimensions, lut.size, actor],
  )
}

export async function findLut(db: Queryable, hash: string): Promise<LutSummary | undefined> {
  const { rows } = await db.query<LutSummary>('SELECT hash, name, title, dimensions, size FROM luts WHERE hash = $1', [hash])
  return rows[0]
}
