// The server is killed while it imports what was accepted: after the next start every upload is one shot, never none
// and never two.
import type { ShotSummary, WorkSummary } from '@contracts/responses'
import { encode } from 'fast-png'
import pg from 'pg'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { startBareServer, type BareServer } from '../support/bare-server'
import { databaseUrl } from '../support/database'
import { randomFrom } from '../support/pictures'
import { thorough } from '../support/thorough'
import { until } from '../support/until'

let server: BareServer
beforeAll(async () => {
  server = await startBareServer()
}, 60_000)
afterAll(() => server.dispose())

const kills = thorough ? 72 : 8
const api = (path: string): string => `${server.address}/api${path}`
const json = async <T>(path: string, body?: unknown): Promise<T> => {
  const response = await fetch(
    api(path),
    body === undefined
      ? {}
      : { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) },
  )
  if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`)
  return (await response.json()) as T
}

async function upload(name: string, bytes: Uint8Array): Promise<string> {
  const made = await fetch(api('/uploads'), {
    method: 'POST',
    headers: {
      'tus-resumable': '1.0.0',
      'upload-length': String(bytes.length),
      'upload-metadata': `filename ${Buffer.from(name).toString('base64')}`,
      'content-type': 'application/offset+octet-stream',
    },
    body: bytes as unknown as BodyInit,
  })
  expect(made.status).toBe(201)
  return made.headers.get('location')!.split('/').at(-1)!
}

/** A picture that no other round has. */
const picture = (round: number, n: number): Uint8Array =>
  encode({
    width: 64,
    height: 36,
    depth: 8,
    channels: 3,
    data: Uint8Array.from({ length: 64 * 36 * 3 }, (_, i) => (i * 7 + n * 31 + round * 13) % 251),
  })

test(
  'killed at random points of an import: one shot for each upload that was accepted',
  async () => {
    const random = randomFrom(7)
    const { id: project } = await json<{ id: string }>('/projects', { name: 'Killed' })
    const clip = readFileSync('demo/footage/potter.mov')
    let importMs = 1500
    for (let round = 0; round < kills; round++) {
      const pictures = round % 2 === 0
      const uploads: string[] = []
      if (pictures) for (let n = 0; n < 6; n++) uploads.push(await upload(`kiln.${n}.png`, picture(round, n)))
      else uploads.push(await upload('potter.mov', clip))
      const began = performance.now()
      await json(`/projects/${project}/imports`, { uploads, pictures, name: pictures ? `kiln ${round}.png` : 'potter' })
      await new Promise((done) => setTimeout(done, random() * importMs))
      await server.kill()
      await server.restart()
      await until('the import is done', async () => {
        const imports = (await json<readonly WorkSummary[]>(`/projects/${project}/work`)).filter(
          (w) => w.kind === 'import',
        )
        const failed = imports.find((w) => w.state === 'failed')
        if (failed) throw new Error(`round ${round}: ${failed.error}`)
        return imports.length === 0
      })
      importMs = (importMs + Math.min(4000, performance.now() - began)) / 2
      const { shots } = await json<{ shots: readonly ShotSummary[] }>(`/projects/${project}/reel`)
      expect(shots).toHaveLength(round + 1)
    }
    // What was imported is no longer kept as an upload, but for what a kill left to be swept.
    expect(readdirSync(join(server.dataFolder, 'uploads')).length).toBeLessThan(kills * 14)
  },
  kills * 30_000,
)

test('killed between the taking of a job and its beginning: the import is done after the next start', async () => {
  const { id: project } = await json<{ id: string }>('/projects', { name: 'Taken' })
  const uploads = [await upload('potter.mov', readFileSync('demo/footage/potter.mov'))]
  await json(`/projects/${project}/imports`, { uploads, pictures: false, name: 'potter' })
  await server.kill()
  // What such a kill leaves: the row waits, and the queue's job was spent on a process that is gone.
  const db = new pg.Client(databaseUrl(server.dataFolder))
  await db.connect()
  try {
    const waiting = await db.query(
      `UPDATE work SET state = 'queued', attempt = NULL WHERE kind = 'import' AND state <> 'done' AND project_id = $1`,
      [project],
    )
    expect(waiting.rowCount).toBe(1)
    await db.query(
      `UPDATE graphile_worker._private_jobs SET attempts = max_attempts, locked_at = now(), locked_by = 'gone'`,
    )
  } finally {
    await db.end()
  }
  await server.restart()
  await until('the import is done', async () => {
    const work = await json<readonly WorkSummary[]>(`/projects/${project}/work`)
    return work.every((w) => w.kind !== 'import')
  })
  expect((await json<{ shots: readonly ShotSummary[] }>(`/projects/${project}/reel`)).shots).toHaveLength(1)
}, 180_000)
