// What is removed can be brought back; later it goes with all that nobody else uses, and with nothing more.
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { ProjectSummary, ShotDetail } from '@contracts/responses'
import { importInto, startBareServer, type BareServer } from '../support/bare-server'
import { until } from '../support/until'

let server: BareServer
beforeAll(async () => {
  server = await startBareServer()
}, 60_000)
afterAll(() => server.dispose())

const api = (path: string, method = 'GET'): Promise<Response> =>
  fetch(`${server.address}/api${path}`, {
    method,
    ...(method === 'POST' ? { headers: { 'content-type': 'application/json' }, body: '{}' } : {}),
  })
const projects = async (): Promise<readonly ProjectSummary[]> =>
  (await (await api('/projects')).json()) as readonly ProjectSummary[]
const shotOf = async (id: string): Promise<ShotDetail> => (await (await api(`/shots/${id}`)).json()) as ShotDetail
const imported = async (clip: string): Promise<ShotDetail> => {
  const id = await importInto(server.address, readFileSync(`demo/footage/${clip}`), clip)
  return until('the proxy is made', async () => {
    const shot = await shotOf(id)
    return shot.proxy && shot
  })
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
