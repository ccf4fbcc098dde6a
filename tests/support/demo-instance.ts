// A whole running program for tests: its own database, data folder and port, started from the build as bin/demo does.
import { execFileSync, spawn, type ChildProcess } from 'node:child_process'
import { appendFileSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { clusterFolder, freePort, startCluster } from '../../server/db/cluster'

export interface DemoInstance {
  readonly address: string
  readonly dataFolder: string
  /** The server's process. */
  readonly pid: () => number
  /** Ends it as Ctrl-C does, database included. */
  readonly stop: () => Promise<void>
  /** Ends the server's process and the one that would start it again, without any warning; the database goes on. */
  readonly kill: () => Promise<void>
  /** Starts it again on the same data and port. */
  readonly restart: () => Promise<void>
  /** Stops and removes everything. */
  readonly dispose: () => Promise<void>
}

/**
 * From the folder that `make-seed` made, when PALE_TEST_SEED names one; from nothing otherwise. The build of `project`
 * is started: this one's, or that of a copy.
 */
export async function startDemoInstance(project = '.'): Promise<DemoInstance> {
  const dataFolder = mkdtempSync(join(tmpdir(), 'pale-test-'))
  const seed = process.env['PALE_TEST_SEED']
  if (seed) copySeed(seed, dataFolder)
  const port = await freePort()
  let child = await launchDemo(dataFolder, port, project)
  const end = async (signal: NodeJS.Signals): Promise<void> => {
    if (child.exitCode !== null || child.signalCode !== null) return
    const gone = new Promise((done) => child.once('exit', done))
    const server = serverOf(child)
    child.kill(signal)
    await gone
    if (signal === 'SIGKILL') process.kill(server, signal)
  }
  return {
    address: `http://127.0.0.1:${port}`,
    dataFolder,
    pid: () => serverOf(child),
    stop: () => end('SIGTERM'),
    kill: () => end('SIGKILL'),
    restart: async () => {
      child = await launchDemo(dataFolder, port, project)
    },
    dispose: async () => {
      const killed = child.signalCode === 'SIGKILL'
      await end('SIGTERM')
      // A killed server leaves its database running.
      if (killed) (await startCluster(dataFolder)).stop()
      rmSync(clusterFolder(dataFolder), { recursive: true, force: true })
      rmSync(dataFolder, { recursive: true, force: true })
    },
  }
}

/** The server is the one child that stays of the process that watches it (proc(5), task/children). */
function serverOf({ pid }: ChildProcess): number {
  const children = readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ').map(Number)
  const server = children.find((one) => readFileSync(`/proc/${one}/cmdline`, 'utf8').includes('demo-server.js'))
  if (server === undefined) throw new Error('The program has no server.')
  return server
}

/** Owners and modes are copied too: the database refuses a folder that is not its own. */
function copySeed(seed: string, dataFolder: string): void {
  if (!existsSync(seed)) throw new Error(`There is no folder ${seed} to start from.`)
  execFileSync('cp', ['-a', `${seed}/.`, dataFolder])
  const from = clusterFolder(seed)
  const to = clusterFolder(dataFolder)
  if (!existsSync(to)) execFileSync('cp', ['-a', from, to])
}

/** Resolves when it can be reached. What it logs is in test-results/server-….log. */
export function launchDemo(dataFolder: string, port: number, project = '.'): Promise<ChildProcess> {
  const child = spawn(process.execPath, [resolve(project, 'dist/node/demo.js')], {
    env: {
      ...process.env,
      PALE_DATA: dataFolder,
      PALE_PORT: String(port),
      PALE_LOG: 'error',
      PALE_DEMO: process.env['PALE_DEMO'] ?? 'untouched',
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  mkdirSync('test-results', { recursive: true })
  const log = join('test-results', `server-${child.pid}.log`)
  return new Promise((done, fail) => {
    let said = ''
    const timer = setTimeout(() => fail(new Error(`The program did not start in two minutes: ${said}`)), 120_000)
    const listen = (chunk: Buffer): void => {
      appendFileSync(log, chunk)
      said = (said + chunk.toString()).slice(-10_000)
      if (!said.includes('Pale Meridian is at')) return
      clearTimeout(timer)
      done(child)
    }
    child.stdout.on('data', listen)
    child.stderr.on('data', listen)
    child.once('exit', (code) => {
      clearTimeout(timer)
      fail(new Error(`The program ended with ${code}: ${said}`))
    })
  })
}
