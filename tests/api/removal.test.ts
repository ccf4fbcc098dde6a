// What is removed can be brought back; later it goes with all that nobody else uses, and with nothing more.
import pg from 'pg'
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { setShow } from '@core/grade'
import type { LutSummary, ProjectSummary, RenderSummary, RevisionState, ShotDetail } from '@contracts/responses'
import { importInto, startBareServer, type BareServer } from '../support/bare-server'
import { databaseUrl } from '../support/database'
import { untilWorkIsDone } from '../support/unfinished-work'
import { until } from '../support/until'

let server: BareServer
beforeAll(async () => {
  server = await startBareServer()
}, 60_000)
afterAll(() => server.dispose())

const api = (path: string, method = 'GET', body: object = {}): Promise<Response> =>
  fetch(`${server.address}/api${path}`, {
    method,
    ...(method === 'POST' ? { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) } : {}),
  })
const projects = async (): Promise<readonly ProjectSummary[]> =>
  (await (await api('/projects')).json()) as readonly ProjectSummary[]
const shotOf = async (id: string): Promise<ShotDetail> => (await (await api(`/shots/${id}`)).json()) as ShotDetail
const imported = async (clip: string): Promise<ShotDetail> => {
  const id = await importInto(server.address, readFileSync(`demo/footage/${clip}`), clip)
  // Media that are still being worked on are not collected.
  await untilWorkIsDone(server.dataFolder)
  return shotOf(id)
}
const names = (folder: string): readonly string[] => readdirSync(join(server.dataFolder, folder))

test('a project is removed, brought back, removed again and collected', async () => {
  const kept = await imported('potter.mov')
  const going = await imported('market-phone.mov')
  expect((await api(`/projects/${going.projectId}`, 'DELETE')).status).toBe(204)
  expect((await projects()).map((p) => p.id)).toEqual([kept.projectId])
  expect((await api(`/projects/${going.projectId}`, 'DELETE')).status).toBe(404)
  expect((await api(`/projects/${going.projectId}/restore`, 'POST')).status).toBe(204)
  expect(await projects()).toHaveLength(2)

  // A start of every day takes nothing that is used, and nothing that can be brought back.
  await server.restart()
  await api(`/projects/${going.projectId}`, 'DELETE')
  await server.kill()
  await server.restart()
  expect((await shotOf(going.id)).id).toBe(going.id)
  expect(existsSync(join(server.dataFolder, 'media', going.media.hash))).toBe(true)

  // A file that no row knows of, such as a kill leaves.
  writeFileSync(join(server.dataFolder, 'media', 'f'.repeat(64)), 'left')
  await server.kill()
  await server.restart({ PALE_REMOVED_DAYS: '0' })
  await until('it is collected', () => !names('media').includes(going.media.hash))
  expect((await api(`/shots/${going.id}`)).status).toBe(404)
  expect((await api(`/projects/${going.projectId}/restore`, 'POST')).status).toBe(404)
  await until('its proxy went too', () => names('proxies').length === 1)
  expect(names('media')).toEqual([kept.media.hash])
  expect(names('proxies')).toEqual([`${kept.media.hash}.mp4`])
  expect((await api(`/media/${kept.media.hash}/frames/3?range=${kept.media.range}`)).status).toBe(200)
}, 180_000)

test('a LUT is removed and brought back; one that a grade uses stays for it, another goes', async () => {
  const bring = async (n: number): Promise<LutSummary> => {
    const entries = Array.from({ length: 8 }, (_, i) => `${(i & 1) / n} ${(i >> 1) & 1} ${i >> 2}`)
    const cube = `LUT_3D_SIZE 2\n${entries.join('\n')}\n`
    const made = await fetch(`${server.address}/api/luts?name=Removal%20${n}.cube`, { method: 'POST', body: cube })
    return (await made.json()) as LutSummary
  }
  const [used, unused] = [await bring(2), await bring(3)]
  const listed = async (): Promise<readonly LutSummary[]> =>
    ((await (await api('/luts')).json()) as LutSummary[]).filter((l) => l.name.startsWith('Removal'))
  const [project] = await projects()
  const reel = (await (await api(`/projects/${project?.id}/reel`)).json()) as { shots: { id: string }[] }
  const { id, revision } = await shotOf(reel.shots[0]?.id ?? '')
  const saved = await api(`/shots/${id}/revisions`, 'POST', {
    parentId: revision.headId,
    summary: 'LUT',
    grade: setShow(revision.grade, { method: 'lut', lutHash: used.hash }),
  })
  expect(saved.status).toBe(200)

  expect((await api(`/luts/${unused.hash}`, 'DELETE')).status).toBe(204)
  expect((await api(`/luts/${unused.hash}`, 'DELETE')).status).toBe(404)
  expect((await listed()).map((l) => [l.name, l.removed])).toEqual([
    ['Removal 2', false],
    ['Removal 3', true],
  ])
  expect((await api(`/luts/${unused.hash}/restore`, 'POST')).status).toBe(204)
  // To import it once more is to bring it back, too.
  await api(`/luts/${unused.hash}`, 'DELETE')
  await bring(3)
  expect((await listed()).map((l) => l.removed)).toEqual([false, false])

  for (const lut of [used, unused]) await api(`/luts/${lut.hash}`, 'DELETE')
  await server.kill()
  await server.restart({ PALE_REMOVED_DAYS: '0' })
  await until('it is collected', async () => (await listed()).length === 1)
  expect((await listed()).map((l) => l.hash)).toEqual([used.hash])
  await until('its files went', () => names('luts').every((name) => !name.startsWith(unused.hash)))
  expect(names('luts').filter((name) => name.startsWith(used.hash))).toHaveLength(2)
  expect((await api(`/revisions/${((await saved.json()) as RevisionState).headId}/still.png?frame=3`)).status).toBe(200)
}, 180_000)

test('a render is removed while it runs, and brought back as cancelled; later it goes with its file', async () => {
  const [project] = await projects()
  const reel = (await (await api(`/projects/${project?.id}/reel`)).json()) as { shots: { id: string }[] }
  const { revision } = await shotOf(reel.shots[0]?.id ?? '')
  const start = async (): Promise<string> =>
    ((await (await api('/renders', 'POST', { revisionId: revision.headId })).json()) as RenderSummary).id
  const render = async (id: string): Promise<RenderSummary> =>
    (await (await api(`/renders/${id}`)).json()) as RenderSummary
  const listed = async (): Promise<readonly string[]> =>
    ((await (await api(`/projects/${project?.id}/renders`)).json()) as RenderSummary[]).map((r) => r.id)
  const stopped = await start()
  expect((await api(`/renders/${stopped}`, 'DELETE')).status).toBe(204)
  expect(await listed()).toEqual([])
  await api(`/renders/${stopped}/restore`, 'POST')
  expect(await listed()).toEqual([stopped])
  expect((await render(stopped)).state).toBe('cancelled')
  const done = await start()
  await until('it is rendered', async () => (await render(done)).state === 'done')
  expect(names('renders')).toContain(`${done}.mp4`)
  await api(`/renders/${done}`, 'DELETE')
  await server.kill()
  await server.restart({ PALE_REMOVED_DAYS: '0' })
  await until('it is collected', async () => (await api(`/renders/${done}`)).status === 404)
  await until('its file went', () => !names('renders').includes(`${done}.mp4`))
}, 180_000)

test('rows of the queue that nobody will take up go; what waits for its time stays', async () => {
  const db = new pg.Client(databaseUrl(server.dataFolder))
  await db.connect()
  try {
    const add = async (task: string, runAt: string): Promise<string> => {
      const { rows } = await db.query<{ id: string }>(
        `SELECT id FROM graphile_worker.add_job ($1, run_at := ${runAt}, max_attempts := 1)`,
        [task],
      )
      return rows[0]?.id ?? ''
    }
    await server.kill()
    const [failed, left, waiting] = [
      await add('import', 'now()'),
      await add('import', 'now()'),
      await add('import', `now() + interval '1 day'`),
    ]
    await db.query('UPDATE graphile_worker._private_jobs SET attempts = 1 WHERE id = ANY ($1::bigint[])', [
      [failed, left],
    ])
    await db.query(
      `UPDATE graphile_worker._private_jobs SET locked_by = 'gone', locked_at = now() - interval '5 hours'
        WHERE id = $1`,
      [left],
    )
    await server.restart()
    const { rows } = await db.query<{ id: string }>(
      'SELECT id FROM graphile_worker.jobs WHERE id = ANY ($1::bigint[])',
      [[failed, left, waiting]],
    )
    expect(rows.map((row) => row.id)).toEqual([waiting])
  } finally {
    await db.end()
  }
}, 60_000)

test('an upload that the disk has no room for is refused at its beginning', async () => {
  const response = await fetch(`${server.address}/api/uploads`, {
    method: 'POST',
    headers: { 'tus-resumable': '1.0.0', 'upload-length': String(250 * 1024 ** 3), 'upload-metadata': 'filename YQ==' },
  })
  // Where a quarter of a terabyte is free there is nothing to refuse.
  if (response.status === 201) return
  expect(response.status).toBe(507)
  expect(await response.json()).toMatchObject({
    error: { code: 'disk_full', message: expect.stringMatching(/^This needs 268\.4 GB, and the disk has room for/) },
  })
})
