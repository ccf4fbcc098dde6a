// Starts everything a server process needs, and stops it again in order.
import { createServer, type Server } from 'node:http'
import { getRequestListener } from '@hono/node-server'
import pino, { type Logger } from 'pino'
import { createApp } from './app'
import type { ServerContext } from './context'
import { migrate } from './db/migrate'
import { openPool } from './db/pool'
import { startJobs } from './jobs/queue'
import { findingsReader } from './services/findings'
import { frameReader } from './services/frames'
import { openStore } from './store/store'
import { ownHosts } from './security/guard'
import type { Settings } from './settings'
import { startFrameWorkers } from './workers/pool'

export interface RunningServer {
  readonly address: string
  readonly context: ServerContext
  readonly stop: () => Promise<void>
}

export interface StartOptions {
  readonly log?: Logger
  /** The built frame-worker.js, when it does not lie beside the running build. */
  readonly workerFile?: string
}

export async function startServer(settings: Settings, options: StartOptions = {}): Promise<RunningServer> {
  const log = options.log ?? pino({ level: process.env['PALE_LOG'] ?? 'warn' }, pino.destination(2))
  const pool = openPool(settings.databaseUrl, log)
  await migrate(pool)
  const store = await openStore(settings.dataFolder)
  const workers = startFrameWorkers(options.workerFile)
  const frames = frameReader(pool, store)
  const context: ServerContext = {
    pool,
    store,
    workers,
    frames,
    findings: findingsReader(frames, workers),
    mediaFolder: settings.mediaFolder,
    log,
  }
  const jobs = await startJobs(context)
  const app = createApp(context, ownHosts(settings.host, settings.port), settings.webFolder)
  const answer = getRequestListener(app.fetch)
  const server = await listen(
    createServer((request, response) => void answer(request, response)),
    settings,
  )
  return {
    address: `http://${settings.host}:${settings.port}/`,
    context,
    stop: async () => {
      server.closeAllConnections()
      await new Promise((resolve) => server.close(resolve))
      await jobs.stop()
      await workers.close()
      await pool.end()
    },
  }
}

function listen(server: Server, { host, port }: Settings): Promise<Server> {
  // Longer than any page rests between two requests, so that a connection is not closed under one.
  server.keepAliveTimeout = 65_000
  return new Promise((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, host, () => resolve(server))
  })
}
