// Starts everything a server process needs, and stops it again in order.
import { createServer, type Server } from 'node:http'
import type { Socket } from 'node:net'
import { setTimeout as delay } from 'node:timers/promises'
import { getRequestListener } from '@hono/node-server'
import pino, { type Logger } from 'pino'
import { useRunner } from '@media/child'
import { openRunner } from '@media/runner/client'
import { createApp } from './app'
import type { ServerContext } from './context'
import { migrate } from './db/migrate'
import { openPool } from './db/pool'
import { startJobs } from './jobs/queue'
import { findingsReader } from './services/findings'
import { frameReader } from './services/frames'
import { keepMediaRoom } from './services/media-room'
import { originalsGuard } from './services/originals'
import { previewReader } from './services/previews'
import { openSpace } from './store/space'
import { openStore } from './store/store'
import { ownHosts } from './security/guard'
import { ownAccounts, peerCheck } from './security/peer'
import type { Settings } from './settings'
import { warm } from './warm'
import { startFrameWorkers } from './workers/pool'

export interface RunningServer {
  readonly address: string
  readonly context: ServerContext
  readonly stop: () => Promise<void>
}

/** At its end the server waits so long for requests that are under way, and for the database to close. */
const lastRequestsMs = 1200
const lastQueriesMs = 500

export interface StartOptions {
  readonly log?: Logger
}

export async function startServer(settings: Settings, options: StartOptions = {}): Promise<RunningServer> {
  const log = options.log ?? pino({ level: process.env['PALE_LOG'] ?? 'warn' }, pino.destination(2))
  // What is stored is the account's own.
  process.umask(0o077)
  const pool = openPool(settings.databaseUrl, log)
  await migrate(pool)
  const store = await openStore(settings.dataFolder)
  const mediaRoom = await keepMediaRoom(store, settings.mediaFolder, log)
  const workers = startFrameWorkers()
  const runner = openRunner()
  useRunner(runner)
  const requireOriginal = originalsGuard(pool, store, workers)
  const frames = frameReader(pool, store, requireOriginal)
  const context: ServerContext = {
    pool,
    store,
    space: openSpace(settings.dataFolder, settings.quotaBytes),
    workers,
    frames,
    previews: previewReader(frames, workers),
    findings: findingsReader(frames, workers),
    requireOriginal,
    mediaFolder: settings.mediaFolder,
    attempts: new Set(),
    log,
  }
  const jobs = await startJobs(context, settings.removedDays)
  const app = createApp(context, ownHosts(settings.host, settings.port), settings.webFolder)
  const answer = getRequestListener(app.fetch)
  const isOwnPeer = peerCheck(ownAccounts(process.env))
  const verdicts = new WeakMap<Socket, Promise<boolean>>()
  const http = createServer((request, response) => {
    void verdicts.get(request.socket)?.then((own) => {
      if (own) return answer(request, response)
      response
        .writeHead(403, { 'content-type': 'text/plain', connection: 'close' })
        .end('This program belongs to another account of this machine.\n')
      return undefined
    })
  })
  http.on('connection', (socket) => verdicts.set(socket, isOwnPeer(socket)))
  const server = await listen(http, settings)
  void warm(pool).catch((error: unknown) => log.warn({ err: error }, 'what saving needs could not be tried'))
  return {
    address: `http://${settings.host}:${settings.port}/`,
    context,
    stop: async () => {
      // Requests under way, a save among them, come to their end; what takes longer is cut off.
      const closed = new Promise((resolve) => server.close(resolve))
      server.closeIdleConnections()
      await Promise.race([closed, delay(lastRequestsMs)])
      server.closeAllConnections()
      await jobs.stop().catch((error: unknown) => log.warn({ err: error }, 'running work could not be put back'))
      await workers.close()
      useRunner(null)
      runner.close()
      await mediaRoom.close()
      await Promise.race([pool.end(), delay(lastQueriesMs)])
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
