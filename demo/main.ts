// bin/demo: starts the project's own database and server with the demo project, and stops both on Ctrl-C.
import { rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { join, resolve } from 'node:path'
import { seedDemo } from './seed'
import { clusterFolder, ClusterError, requireWritable, startCluster, type Cluster } from '../server/db/cluster'
import { NewerDatabaseError } from '../server/db/migrate'
import { asProblem } from '../server/problem'
import { mediaFolderOf, readDays, readPort, type Settings } from '../server/settings'
import { startServer, type RunningServer } from '../server/start'

const projectFolder = resolve(import.meta.dirname, '..', '..')
const dataFolder = resolve(process.env['PALE_DATA'] ?? join(projectFolder, '.data', 'demo'))
const say = (text: string): void => console.log(text)

let cluster: Cluster | undefined
let server: RunningServer | undefined
let stopping = false

async function stop(code: number): Promise<void> {
  if (stopping) return
  stopping = true
  try {
    await server?.stop()
  } finally {
    cluster?.stop()
    process.exit(code)
  }
}

/** Fails with a sentence before anything is started when the port is taken. */
function requireFreePort(host: string, port: number): Promise<void> {
  return new Promise((done, fail) => {
    const trial = createServer()
    trial.once('error', () =>
      fail(
        new ClusterError(
          `Port ${port} is taken by another program; stop it, or choose another with PALE_PORT=4181 bin/demo.`,
        ),
      ),
    )
    trial.listen(port, host, () => trial.close(() => done()))
  })
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => void stop(0))

try {
  const host = process.env['PALE_HOST'] ?? '127.0.0.1'
  const port = readPort(process.env['PALE_PORT'] ?? '4180')
  requireWritable(dataFolder)
  await requireFreePort(host, port)
  if (process.argv.includes('--reset')) {
    const folder = clusterFolder(dataFolder)
    // A database still running on the old data is stopped first.
    ;(await startCluster(dataFolder)).stop()
    rmSync(folder, { recursive: true, force: true })
    rmSync(dataFolder, { recursive: true, force: true })
    say('The demo data starts over.')
  }
  cluster = await startCluster(dataFolder)
  const settings: Settings = {
    dataFolder,
    mediaFolder: mediaFolderOf(process.env, dataFolder),
    removedDays: readDays(process.env['PALE_REMOVED_DAYS']),
    host,
    port,
    databaseUrl: cluster.url,
    webFolder: join(projectFolder, 'dist', 'web'),
  }
  server = await startServer(settings)
  await seedDemo(server.context, join(projectFolder, 'demo', 'footage'))
  say(`Pale Meridian is at ${server.address}  (Ctrl-C stops it)`)
} catch (error) {
  const sentence = isSentence(error) ? error.message : plainSentence(error)
  console.error(sentence)
  await stop(1)
}

function isSentence(error: unknown): error is Error {
  return error instanceof ClusterError || error instanceof RangeError || error instanceof NewerDatabaseError
}

function plainSentence(error: unknown): string {
  const { code } = error as { code?: string }
  if (code === 'EADDRINUSE') return 'The port is taken by another program; choose another with PALE_PORT=4181 bin/demo.'
  const problem = asProblem(error)
  return problem.code === 'internal'
    ? `It could not be started: ${error instanceof Error ? error.message : String(error)}`
    : `${problem.message} ${problem.hint ?? ''}`
}
