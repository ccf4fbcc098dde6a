// The server with the demo project, as a process of its own: whoever started it starts it again when it dies.
import { join } from 'node:path'
import { seedHalfway } from './halfway'
import { seedDemo } from './seed'
import { NewerDatabaseError } from '../server/db/migrate'
import { asProblem } from '../server/problem'
import { readSettings } from '../server/settings'
import { startServer, type RunningServer } from '../server/start'
import { saySo } from './supervised'

let server: RunningServer | undefined
let stopping = false
async function stop(code: number): Promise<void> {
  if (stopping) return
  stopping = true
  try {
    await server?.stop()
  } finally {
    process.exit(code)
  }
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => void stop(0))
// Whoever started it is gone, and with it the database.
process.on('disconnect', () => void stop(0))

try {
  server = await startServer(readSettings(process.env))
  const { context, address } = server
  const footageFolder = join(import.meta.dirname, '..', '..', 'demo', 'footage')
  const untouched = await seedDemo(context, footageFolder)
  saySo({ kind: 'ready', address })
  // It comes while the first one is looked at; tests want that one alone.
  if (process.env['PALE_DEMO'] !== 'untouched')
    void seedHalfway(context, footageFolder, untouched).catch((error: unknown) =>
      context.log.warn({ err: error }, 'the second demo project could not be made; the next start tries again'),
    )
} catch (error) {
  saySo({ kind: 'fault', sentence: sentenceOf(error) })
  await stop(1)
}

function sentenceOf(error: unknown): string {
  if (error instanceof RangeError || error instanceof NewerDatabaseError) return error.message
  const { code } = error as { code?: string }
  if (code === 'EADDRINUSE') return 'The port is taken by another program; choose another with PALE_PORT=4181 bin/demo.'
  const { code: kind, message, hint } = asProblem(error)
  if (kind !== 'internal') return `${message} ${hint ?? ''}`.trim()
  return `It could not be started: ${error instanceof Error ? error.message : String(error)}`
}
