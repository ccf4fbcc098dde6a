// The program's role in its database: it owns what is its own, and reaches nothing of the machine.
import pg from 'pg'
import { applicationRole, asApplication } from '../../server/db/application-role'
import { startBareServer, type BareServer } from '../support/bare-server'
import { databaseUrl } from '../support/database'

let server: BareServer
beforeAll(async () => {
  server = await startBareServer()
}, 60_000)
afterAll(() => server.dispose())

async function asked<T extends object>(url: string, sql: string): Promise<readonly T[]> {
  const client = new pg.Client(url)
  await client.connect()
  try {
    return (await client.query<T>(sql)).rows
  } finally {
    await client.end()
  }
}
const strangers = `
  SELECT c.relname FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
    JOIN pg_roles r ON r.oid = c.relowner
   WHERE n.nspname IN ('public', 'graphile_worker') AND c.relkind IN ('r', 'v', 'S', 'c')
     AND r.rolname <> '${applicationRole}'`

test('it is no superuser, and reads no file and runs no program through the database', async () => {
  const [role] = await asked<{ rolsuper: boolean }>(
    server.databaseUrl,
    'SELECT rolsuper FROM pg_roles WHERE rolname = current_user',
  )
  expect(role).toEqual({ rolsuper: false })
  for (const sql of [
    `SELECT pg_read_file('/etc/hostname')`,
    `COPY (SELECT 1) TO PROGRAM 'true'`,
    `COPY projects (name) FROM '/etc/hostname'`,
    `SELECT lo_import('/etc/hostname')`,
    'CREATE ROLE another SUPERUSER',
    'ALTER SYSTEM SET log_directory = 1',
  ])
    await expect(asked(server.databaseUrl, sql)).rejects.toThrow(/permission denied|must be superuser/)
})

test('a database of before, whose tables are those of the superuser, is handed over whole', async () => {
  const admin = databaseUrl(server.dataFolder)
  expect(await asked(admin, strangers)).toEqual([])
  await asked(
    admin,
    `DO $$ DECLARE o regclass; BEGIN
      FOR o IN SELECT c.oid FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
        WHERE n.nspname IN ('public', 'graphile_worker') AND c.relkind IN ('r', 'v')
      LOOP EXECUTE format('ALTER TABLE %s OWNER TO pale', o); END LOOP;
      ALTER SCHEMA graphile_worker OWNER TO pale; END $$`,
  )
  expect((await asked(admin, strangers)).length).toBeGreaterThan(20)
  const url = await asApplication(admin)
  expect(await asked(admin, strangers)).toEqual([])
  await server.restart({ DATABASE_URL: url })
  const made = await fetch(`${server.address}/api/projects`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: '{"name":"After"}',
  })
  expect(made.status).toBe(201)
})
