// Two processes on one data folder: neither destroys what the other has under way, and the second says so.
import { execFileSync, spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import pg from 'pg'
import type { RenderSummary, ShotDetail } from '@contracts/responses'
import { freePort } from '../../server/db/cluster'
import { startBareServer, type BareServer } from '../support/bare-server'
import { startDemoInstance } from '../support/demo-instance'
import { until } from '../support/until'

interface Ended {
  readonly code: number | null
  readonly said: string
}

async function runToEnd(program: string, env: Record<string, string>): Promise<Ended> {
  const child = spawn(process.execPath, [resolve('dist/node', program)], {
    env: { ...process.env, PALE_LOG: 'error', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (chunk: Buffer) => {
      said += chunk.toString()
    })
  const [code] = (await once(child, 'exit')) as [number | null]
  return { code, said }
}

describe('a second server', () => {
  let server: BareServer
  beforeAll(async () => {
    server = await startBareServer()
  }, 60_000)
  afterAll(() => server.dispose())

  test('that fails for its port leaves what the first has under way', async () => {
    const incoming = join(server.dataFolder, 'incoming')
    const [own] = readdirSync(incoming)
    writeFileSync(join(incoming, own!, 'half'), 'half')
    // What a process left behind that is gone is of no use to anybody.
    mkdirSync(join(incoming, '1-1'))
    writeFileSync(join(incoming, '1-1', 'left'), 'left')
    const second = await runToEnd('server.js', {
      PALE_DATA: server.dataFolder,
      PALE_PORT: new URL(server.address).port,
      DATABASE_URL: server.databaseUrl,
    })
    expect(second.code).toBe(1)
    expect(existsSync(join(incoming, own!, 'half'))).toBe(true)
    expect(existsSync(join(incoming, '1-1'))).toBe(false)
    expect((await fetch(`${server.address}/api/health`)).ok).toBe(true)
  })

  test('of an older version refuses a database that a newer one made', async () => {
    const db = new pg.Client(server.databaseUrl)
    await db.connect()
    await db.query(`INSERT INTO migrations (number, name) VALUES (9999, 'later')`)
    const second = await runToEnd('server.js', {
      PALE_DATA: server.dataFolder,
      PALE_PORT: String(await freePort()),
      DATABASE_URL: server.databaseUrl,
    })
    await db.query('DELETE FROM migrations WHERE number = 9999')
    await db.end()
    expect(second).toMatchObject({ code: 1 })
    expect(second.said).toContain('The database was made by a newer version of this program')
  })

  const nobody = Number(execFileSync('id', ['-u', 'nobody'], { encoding: 'utf8' }))
  const asRoot = process.getuid?.() === 0
  // Only root can become somebody else to try it.
  ;(asRoot ? test : test.skip)('another account of the machine is not answered', () => {
    const asked = spawnSync(
      process.execPath,
      [
        '-e',
        `fetch('${server.address}/api/projects').then(async (r) => console.log(r.status + ' ' + (await r.text())))`,
      ],
      { uid: nobody, cwd: '/', encoding: 'utf8' },
    )
    expect(asked.stdout).toContain('403 This program belongs to another account')
  })
})

test('a second demo on the same data is refused with a sentence; the first goes on, and ends in time', async () => {
  const first = await startDemoInstance()
  try {
    for (const args of [{}, { PALE_DATA: `${first.dataFolder}/.` }]) {
      const second = await runToEnd('demo.js', {
        PALE_DATA: first.dataFolder,
        PALE_PORT: String(await freePort()),
        ...args,
      })
      expect(second.code).toBe(1)
      expect(second.said).toMatch(
        /The data in .* are in use by another running program \(process \d+\); use that one, stop it first/,
      )
    }
    expect((await fetch(`${first.address}/api/health`)).ok).toBe(true)
    const get = async <T>(path: string): Promise<T> => (await (await fetch(`${first.address}/api${path}`)).json()) as T
    const shotId = (await get<{ firstShotId: string }[]>('/projects'))[0]!.firstShotId
    const { revision } = await get<ShotDetail>(`/shots/${shotId}`)
    const render = (await (
      await fetch(`${first.address}/api/renders`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ revisionId: revision.headId }),
      })
    ).json()) as RenderSummary
    const renderNow = (): Promise<RenderSummary> => get(`/renders/${render.id}`)
    await until('the render runs', async () => (await renderNow()).framesDone > 0)
    const asked = performance.now()
    await first.stop()
    expect(performance.now() - asked).toBeLessThan(5000)
    await first.restart()
    // What was under way is taken up again by itself.
    await until('the render is done', async () => (await renderNow()).state === 'done')
  } finally {
    await first.dispose()
  }
}, 240_000)
