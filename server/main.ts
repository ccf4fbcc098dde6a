// Runs one server process against an existing database.
import { startServer } from './start'
import { readSettings } from './settings'

try {
  const server = await startServer(readSettings(process.env))
  console.log(server.address)
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.once(signal, () => void server.stop().then(() => process.exit(0)))
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error))
  process.exit(1)
}
