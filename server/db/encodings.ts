// Queries about encodings of the user's own.
import type { EncodingDefinition } from '@core/colour'
import type { Queryable } from './pool'

export async function listEncodings(db: Queryable): Promise<readonly EncodingDefinition[]> {
  const { rows } = await db.query<{ definition: EncodingDefinition }>(
    'SELECT definition FROM own_encodings ORDER BY name, id LIMIT 500',
  )
  return rows.map((r) => r.definition)
}

/** Adds one. False when the id is taken by a different definition; an equal one may come again. */
export async function insertEncoding(db: Queryable, definition: EncodingDefinition, actor: string): Promise<boolean> {
  const { rowCount } = await db.query(
    `INSERT INTO own_encodings (id, name, definition, actor) VALUES ($1, $2, $3, $4)
     ON CONFLICT (id) DO UPDATE SET name = own_encodings.name WHERE own_encodings.definition = EXCLUDED.definition`,
    [definition.id, definition.name, JSON.stringify(definition), actor],
  )
  return rowCount === 1
}

export async function deleteEncoding(db: Queryable, id: string): Promise<boolean> {
  const { rowCount } = await db.query('DELETE FROM own_encodings WHERE id = $1', [id])
  return rowCount === 1
}
