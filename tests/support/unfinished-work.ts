// Imports, surveys and the like that a server has not come to the end of: what it goes on with by itself.
import pg from 'pg'
import { databaseUrl } from './database'
import { until } from './until'

/** Waits until a server on this data has nothing more to do. */
export async function untilWorkIsDone(dataFolder: string): Promise<void> {
  const db = new pg.Client(databaseUrl(dataFolder))
  await db.connect()
  try {
    await until('nothing is left to do', async () => {
      const { rows } = await db.query("SELECT 1 FROM work WHERE state IN ('queued', 'running') LIMIT 1")
      return rows.length === 0
    })
  } finally {
    await db.end()
  }
}
