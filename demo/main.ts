// bin/demo: starts the project's own database and server with the demo project, and stops both on Ctrl-C.
import { rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { join, resolve } from 'node:path'
import { clusterFolder, ClusterError, requireWritable, startCluster, type Cluster } from '../server/db/cluster'
import { readPort } from '../server/settings'
import { StartError, supervise, type Supervised } from './supervised'

const projectFolder = resolve(import.meta.dirname, '..', '..')
const dataFolder = resolve(process.env['PALE_DATA'] ?? join(projectFolder, '.data', 'demo'))
const say = (text: string): void => console.log(text)

let cluster: Cluster | undefined
let server: Supervised | undefined
let stopping = false
const reviveEveryMs = 1000

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
  keepUp(cluster)
  const { url } = cluster
  server = await supervise(
    join(import.meta.dirname, 'demo-server.js'),
    {
      DATABASE_URL: url,
      PALE_DATA: dataFolder,
      PALE_HOST: host,
      PALE_PORT: String(port),
      PALE_WEB: join(projectFolder, 'dist', 'web'),
    },
    { say, onGivenUp: () => void stop(1) },
  )
  say(`Pale Meridian is at ${server.address}  (Ctrl-C stops it)`)
} catch (error) {
  console.error(sentenceOf(error))
  await stop(1)
}

/** A database that died is started again; what was sent to it meanwhile was refused, and the pages try again. */
function keepUp(watched: Cluster): void {
  setInterval(() => {
    if (!stopping && watched.revive() === 'started') say('The database had ended and was started again.')
  }, reviveEveryMs)
}

function sentenceOf(error: unknown): string {
  if (error instanceof ClusterError || error instanceof RangeError || error instanceof StartError) return error.message
  return `It could not be started: ${error instanceof Error ? error.message : String(error)}`
}
