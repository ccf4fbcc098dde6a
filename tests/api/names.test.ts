// What was kept under names of an earlier version is found under those of today.
import { readFileSync } from 'node:fs'
import pg from 'pg'
import { databaseUrl } from '../support/database'

const migration = readFileSync('server/db/migrations/014_names.sql', 'utf8')
let client: pg.Client
beforeAll(async () => {
  client = new pg.Client({ connectionString: databaseUrl() })
  await client.connect()
})
afterAll(() => client.end())

const first = async (sql: string, values: readonly unknown[] = []): Promise<Record<string, unknown>> =>
  (await client.query<Record<string, unknown>>(sql, [...values])).rows[0]!

test('recipes, standards and ignored readings keep what they were set to', async () => {
  await client.query('BEGIN')
  try {
    const step = (kind: string, params: object): object => ({ kind, name: kind, strength: 1, side: 'scene', params })
    const steps = [step('exposure', { exposureStops: 1 }), step('saturation', { saturation: 0.5, quiet: 0.8 })]
    const renamed = [steps[0], step('saturation', { saturation: 0.5, vibrance: 0.8 })]
    const project = await first("INSERT INTO projects (name) VALUES ('Names') RETURNING id")
    await client.query(
      "INSERT INTO recipes (name, note, steps, regions, actor) VALUES ('Names', '', $1, '[]', 'you')",
      [JSON.stringify(steps)],
    )
    await client.query("INSERT INTO looks (project_id, name, steps, actor) VALUES ($1, 'Names', $2, 'you')", [
      project['id'],
      JSON.stringify(steps),
    ])
    const definition = { targets: { black: { low: 0, high: 0.05 }, spread: { low: 4, high: 8 } } }
    await client.query(
      "INSERT INTO own_standards (id, name, definition, actor) VALUES ('own-names', 'Names', $1, 'you')",
      [JSON.stringify(definition)],
    )
    const shot = await first('SELECT id FROM shots LIMIT 1')
    await client.query(
      `INSERT INTO waivers (shot_id, reading, waived, reason, actor) VALUES ($1, 'spread', true, 'fog', 'you')`,
      [shot['id']],
    )
    await client.query(migration)
    expect((await first("SELECT steps FROM recipes WHERE name = 'Names'"))['steps']).toEqual(renamed)
    expect((await first("SELECT steps FROM looks WHERE name = 'Names'"))['steps']).toEqual(renamed)
    expect((await first("SELECT definition FROM own_standards WHERE id = 'own-names'"))['definition']).toEqual({
      targets: { black: definition.targets.black, contrastRange: definition.targets.spread },
    })
    const waiver = await first('SELECT reading FROM waivers WHERE shot_id = $1 ORDER BY id DESC LIMIT 1', [shot['id']])
    expect(waiver['reading']).toBe('contrastRange')
    // Still append-only.
    await expect(client.query("UPDATE waivers SET reason = 'no' WHERE reading = 'contrastRange'")).rejects.toThrow(
      'append-only',
    )
  } finally {
    await client.query('ROLLBACK')
  }
})
