// Queries about LUTs: one row per distinct content.
import type { LutInspection, LutSummary } from '@contracts/index'
import type { Queryable } from './pool'

/** Inspections of another version are made anew. */
export const inspectionVersion = 3

interface Row {
  readonly hash: string
  readonly name: string
  readonly title: string
  readonly dimensions: string
  readonly size: number
  readonly format: LutSummary['format']
  readonly folder: string
  readonly expects: LutSummary['expects']
  readonly removed: boolean
}
const columns =
  `hash, name, title, dimensions, size, format, folder, removed_at IS NOT NULL AS removed, ` +
  `CASE WHEN (inspection ->> 'version')::int = ` +
  `${inspectionVersion} THEN inspection -> 'expects' END AS expects`
function dimensionsOf(stored: string): LutSummary['dimensions'] {
  if (stored === 'sequence') return stored
  return stored === '1' ? 1 : 3
}
const summaryOf = ({ dimensions, ...row }: Row): LutSummary => ({
  ...row,
  dimensions: dimensionsOf(dimensions),
})

export async function listLuts(db: Queryable): Promise<readonly LutSummary[]> {
  const { rows } = await db.query<Row>(`SELECT ${columns} FROM luts ORDER BY folder, name, hash LIMIT 2000`)
  return rows.map(summaryOf)
}

/** Adds a LUT; the same content under another name keeps its first name, and what was removed is back. */
export async function insertLut(
  db: Queryable,
  lut: Omit<LutSummary, 'expects' | 'removed'>,
  actor: string,
): Promise<void> {
  await db.query(
    'INSERT INTO luts (hash, name, title, dimensions, size, format, folder, actor) VALUES ($1, $2, ' +
      '$3, $4, $5, $6, $7, $8) ON CONFLICT (hash) DO UPDATE SET removed_at = NULL',
    [lut.hash, lut.name, lut.title, String(lut.dimensions), lut.size, lut.format, lut.folder, actor],
  )
}

export async function findLut(db: Queryable, hash: string): Promise<LutSummary | undefined> {
  const { rows } = await db.query<Row>(`SELECT ${columns} FROM luts WHERE hash = $1`, [hash])
  return rows[0] && summaryOf(rows[0])
}

export async function findInspection(db: Queryable, hash: string): Promise<LutInspection | undefined> {
  const { rows } = await db.query<{ inspection: (LutInspection & { readonly version: number }) | null }>(
    'SELECT inspection FROM luts WHERE hash = $1',
    [hash],
  )
  const found = rows[0]?.inspection
  return found?.version === inspectionVersion ? found : undefined
}

export async function keepInspection(db: Queryable, hash: string, inspection: LutInspection): Promise<void> {
  await db.query('UPDATE luts SET inspection = $2 WHERE hash = $1', [
    hash,
    JSON.stringify({ version: inspectionVersion, ...inspection }),
  ])
}
