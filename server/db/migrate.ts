// Applies the numbered SQL migrations that a database does not have yet, all in one transaction.
import { transaction, type Pool } from './pool'

// Vite puts the SQL into the build, so that the server runs from anywhere.
const files = import.meta.glob<string>('./migrations/*.sql', { query: '?raw', import: 'default', eager: true })

export interface Migration {
  readonly number: number
  readonly name: string
  readonly sql: string
}

export function migrationsFrom(sources: Readonly<Record<string, string>>): readonly Migration[] {
  const list = Object.entries(sources).map(([path, sql]) => {
    const name = path.slice(path.lastIndexOf('/') + 1)
    const number = /^(\d{3})_[a-z0-9_]+\.sql$/.exec(name)?.[1]
    if (!number) throw new RangeError(`The migration "${name}" is not named NNN_name.sql.`)
    return { number: Number(number), name, sql }
  })
  list.sort((a, b) => a.number - b.number)
  list.forEach((m, i) => {
    if (m.number !== i + 1)
      throw new RangeError(`The migrations must be numbered without gaps; "${m.name}" is not number ${i + 1}.`)
  })
  return list
}

/** The database holds what this version does not know, and would lose or misread. */
export class NewerDatabaseError extends Error {}

// Any fixed number: one migrator at a time.
const lockKey = 7_041_001

/** Returns the names of the migrations applied now. Throws NewerDatabaseError. */
export async function migrate(pool: Pool, migrations = migrationsFrom(files)): Promise<readonly string[]> {
  return transaction(pool, async (client) => {
    await client.query('SELECT pg_advisory_xact_lock($1)', [lockKey])
    await client.query(
      'CREATE TABLE IF NOT EXISTS migrations (number integer PRIMARY KEY, name text NOT NULL, ' +
        'applied_at timestamptz NOT NULL DEFAULT now())',
    )
    const { rows } = await client.query<{ number: number }>('SELECT number FROM migrations')
    const done = new Set(rows.map((r) => r.number))
    const newer = rows.filter((r) => r.number > migrations.length).length
    if (newer > 0)
      throw new NewerDatabaseError(
        `The database was made by a newer version of this program (${newer} steps ahead). Start that version, or ` +
          'choose another folder with PALE_DATA.',
      )
    const missing = migrations.filter((m) => !done.has(m.number))
    for (const m of missing) {
      await client.query(m.sql)
      await client.query('INSERT INTO migrations (number, name) VALUES ($1, $2)', [m.number, m.name])
    }
    return missing.map((m) => m.name)
  })
}
