// The connection pool and transactions.
import pg from 'pg'
import type { Logger } from 'pino'

export type Pool = pg.Pool
/** Something SQL can be sent to: the pool, or a client inside a transaction. */
export type Queryable = Pick<pg.PoolClient, 'query'>

/** The row of a statement that always gives one. */
export function onlyRow<T>({ rows }: { readonly rows: readonly T[] }): T {
  const [row] = rows
  if (row === undefined) throw new Error('A statement that always gives a row gave none.')
  return row
}

const mostConnections = 10

export function openPool(connectionString: string, log: Logger): Pool {
  const pool = new pg.Pool({
    connectionString,
    max: mostConnections,
    // A machine that is busy rendering may take seconds to begin a connection: those that are there are kept.
    connectionTimeoutMillis: 20_000,
    idleTimeoutMillis: 600_000,
    statement_timeout: 30_000,
  })
  // An idle connection that breaks (database stopped) must not end the process; the next query reports it.
  pool.on('error', (err) => log.warn({ code: (err as { code?: string }).code }, 'a database connection broke'))
  return pool
}

/**
 * Opens connections as far as there is room for them, so that nobody's first save waits for one. None is held: some
 * belong to the queue for good, and whoever waited for those would keep all others from everyone.
 */
export async function openAllConnections(pool: Pool): Promise<void> {
  await Promise.allSettled(Array.from({ length: mostConnections }, () => pool.query('SELECT 1')))
}

const deadlock = '40P01'
const mostTries = 4

/**
 * Runs `work` in one transaction: committed when it returns, rolled back when it throws. It is run again where the
 * database broke a deadlock, so it must do nothing but send SQL.
 */
export async function transaction<T>(pool: Pool, work: (client: Queryable) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await transactionOnce(pool, work)
    } catch (error) {
      if ((error as { code?: unknown } | null)?.code !== deadlock || tries === mostTries) throw error
    }
  }
}

async function transactionOnce<T>(pool: Pool, work: (client: Queryable) => Promise<T>): Promise<T> {
  const client = await pool.connect()
  try {
    await client.query('BEGIN')
    const result = await work(client)
    await client.query('COMMIT')
    client.release()
    return result
  } catch (error) {
    // A broken connection is closed instead of being returned to the pool.
    await client.query('ROLLBACK').then(
      () => client.release(),
      (failure: unknown) => client.release(failure as Error),
    )
    throw error
  }
}
