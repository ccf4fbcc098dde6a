// The program works as a role of its own that is no superuser: it owns its tables, and can read no file of the machine
// and run no program through the database (PostgreSQL, chapter 22).
import { randomBytes } from 'node:crypto'
import pg from 'pg'

export const applicationRole = 'pale_app'
const schemas = ['public', 'graphile_worker'] as const

// Everything in the program's schemas that belongs to somebody else, with the words that change its owner. A sequence
// of a column goes with its table.
const foreignObjects = `
  WITH
    rooms AS (
      SELECT
        oid
      FROM
        pg_namespace
      WHERE
        nspname = ANY ($1::text[])
    ),
    app AS (
      SELECT
        oid
      FROM
        pg_roles
      WHERE
        rolname = $2
    )
  SELECT
    'SCHEMA' AS kind,
    format('%I', nspname) AS name
  FROM
    pg_namespace,
    app
  WHERE
    pg_namespace.oid IN (TABLE rooms)
    AND nspowner <> app.oid
  UNION ALL
  SELECT
    CASE
      WHEN relkind = 'c' THEN 'TYPE'
      ELSE 'TABLE'
    END,
    pg_class.oid::regclass::text
  FROM
    pg_class,
    app
  WHERE
    relnamespace IN (TABLE rooms)
    AND relowner <> app.oid
    AND relkind IN ('r', 'p', 'v', 'm', 'S', 'c')
    AND NOT EXISTS (
      SELECT
        1
      FROM
        pg_depend d
      WHERE
        d.objid = pg_class.oid
        AND relkind = 'S'
        AND d.deptype IN ('a', 'i')
    )
  UNION ALL
  SELECT
    'ROUTINE',
    pg_proc.oid::regprocedure::text
  FROM
    pg_proc,
    app
  WHERE
    pronamespace IN (TABLE rooms)
    AND proowner <> app.oid
  UNION ALL
  SELECT
    CASE
      WHEN typtype = 'd' THEN 'DOMAIN'
      ELSE 'TYPE'
    END,
    pg_type.oid::regtype::text
  FROM
    pg_type,
    app
  WHERE
    typnamespace IN (TABLE rooms)
    AND typowner <> app.oid
    AND typtype IN ('d', 'e')
`

/**
 * Sees to it that the role is there and owns the program's database and all in it, and gives it a new password. Takes
 * the address that the superuser connects to, and gives the role's.
 */
export async function asApplication(adminUrl: string): Promise<string> {
  const password = randomBytes(24).toString('hex')
  const admin = new pg.Client({ connectionString: adminUrl })
  await admin.connect()
  try {
    await admin.query('BEGIN')
    const { rowCount } = await admin.query('SELECT 1 FROM pg_roles WHERE rolname = $1', [applicationRole])
    const verb = rowCount === 0 ? 'CREATE' : 'ALTER'
    await admin.query(
      `${verb} ROLE ${applicationRole} LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE NOREPLICATION PASSWORD '${password}'`,
    )
    await admin.query(`ALTER DATABASE postgres OWNER TO ${applicationRole}`)
    const { rows } = await admin.query<{ kind: string; name: string }>(foreignObjects, [schemas, applicationRole])
    for (const { kind, name } of rows) await admin.query(`ALTER ${kind} ${name} OWNER TO ${applicationRole}`)
    await admin.query('COMMIT')
  } finally {
    await admin.end()
  }
  const url = new URL(adminUrl)
  url.username = applicationRole
  url.password = password
  return url.href
}
