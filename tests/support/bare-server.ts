// The server alone, without demo data, on a database of its own: quick to start again, for tests that kill it.
import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { clusterFolder, freePort, startCluster } from '../../server/db/cluster'

export interface BareServer {
  readonly address: string
  readonly dataFolder: string
  readonly databaseUrl: string
  /** Ends the process without any warning; the database goes on. */
  readonly kill: () => Promise<void>
  readonly restart: (env?: Readonly<Record<string, string>>) => Promise<void>
  /** Stops and removes everything. */
  readonly dispose: () => Promise<void>
}

export async function startBareServer(): Promise<BareServer> {
  const dataFolder = mkdtempSync(join(tmpdir(), 'pale-bare-'))
  const database = await startCluster(dataFolder)
  const port = String(await freePort())
  let child: ChildProcess | null = null
  async function restart(env: Readonly<Record<string, string>> = {}): Promise<void> {
    await kill()
    child = spawn(process.execPath, [resolve('dist/node/server.js')], {
      env: {
        ...process.env,
        PALE_DATA: dataFolder,
        PALE_PORT: port,
        PALE_LOG: 'error',
        DATABASE_URL: database.url,
        ...env,
      },
      stdio: ['ignore', 'pipe', 'inherit'],
    })
    await once(child.stdout!, 'data')
  }
  async function kill(): Promise<void> {
    if (!child) return
    const gone = once(child, 'exit')
    child.kill('SIGKILL')
    await gone
    child = null
  }
  await restart()
  return {
    address: `http://127.0.0.1:${port}`,
    dataFolder,
    databaseUrl: database.url,
    kill,
    restart,
    dispose: async () => {
      await kill()
      database.stop()
      rmSync(clusterFolder(dataFolder), { recursive: true, force: true })
      rmSync(dataFolder, { recursive: true, force: true })
    },
  }
}

/** A project with one clip in it; returns the shot's id. */
export async function importInto(address: string, clip: Uint8Array, name: string): Promise<string> {
  const { id: projectId } = (await (
    await fetch(`${address}/api/projects`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name: 'Bare' }),
    })
  ).json()) as { id: string }
  return (
    (await (
      await fetch(`${address}/api/projects/${projectId}/shots?name=${encodeURIComponent(name)}`, {
        method: 'POST',
        body: clip as unknown as BodyInit,
      })
    ).json()) as { id: string }
  ).id
}
