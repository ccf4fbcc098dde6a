// The server is killed fifty times in the middle of saving: nothing that was answered as saved is ever lost.
import { setParameter, type GradeDocument } from '@core/index'
import type { RevisionState, ShotDetail, ShotRecord } from '@contracts/responses'
import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { clusterFolder, freePort, startCluster } from '../../server/db/cluster'
import { randomFrom } from '../support/pictures'

const dataFolder = mkdtempSync(join(tmpdir(), 'pale-killed-'))
let database: Awaited<ReturnType<typeof startCluster>>, child: ChildProcess, address = ''

/** The server alone, on a database of its own. */
async function start(port: string): Promise<void> {
  child = spawn(process.execPath, [resolve('dist/node/server.js')], { env: { ...process.env, PALE_DATA: dataFolder, PALE_PORT: port, PALE_LOG: 'error', DATABASE_URL: database.url }, stdio: ['ignore', 'pipe', 'inherit'] })
  await once(child.stdout!, 'data')
}
async function kill(): Promise<void> {
  const gone = once(child, 'exit')
  child.kill('SIGKILL')
  await gone
}
beforeAll(async () => {
  database = await startCluster(dataFolder)
  const port = String(await freePort())
  address = `http://127.0.0.1:${port}`
  await start(port)
}, 60_000)
afterAll(async () => {
  await kill()
  database.stop()
  rmSync(clusterFolder(dataFolder), { recursive: true, force: true })
  rmSync(dataFolder, { recursive: true, force: true })
})

test('killed at fifty random points, with saves under way: every one that was acknowledged is in the record, in order', async () => {
  const random = randomFrom(50), get = async <T>(path: string): Promise<T> => (await (await fetch(`${address}/api${path}`)).json()) as T
  const { id: projectId } = (await (await fetch(`${address}/api/projects`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ name: 'Killed' }) })).json()) as { id: string }
  const { id } = (await (await fetch(`${address}/api/projects/${projectId}/shots?name=potter.mov`, { method: 'POST', body: readFileSync('demo/footage/potter.mov') })).json()) as ShotDetail
  let { revision } = await get<ShotDetail>(`/shots/${id}`)
  const acknowledged: { readonly id: string; readonly grade: string }[] = []
  for (let round = 0; round < 50; round++) {
    let dead = false
    const saving = (async () => {
      let { headId: parentId } = revision, grade: GradeDocument = revision.grade
      for (let n = 0; !dead; n++) {
        grade = setParameter(grade, 'exposure', 'exposureStops', (round + n / 1000) / 50)
        const response = await fetch(`${address}/api/shots/${id}/revisions`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ parentId, summary: `round ${round}.${n}`, grade }) }).catch(() => null)
        if (!response?.ok) return
        // Only a whole answer counts as said.
        const state = await response.json().catch(() => null) as RevisionState | null
        if (!state) return
        acknowledged.push({ id: state.headId, grade: JSON.stringify(state.grade) })
        parentId = state.headId
      }
    })()
    await new Promise((done) => setTimeout(done, random() * 160))
    await kill()
    dead = true
    await saving
    await start(new URL(address).port)
    revision = (await get<ShotDetail>(`/shots/${id}`)).revision
    const last = acknowledged.at(-1)
    // The head is the last acknowledged revision, or stands on it: what was committed before its answer got through is there too.
    const { revisions } = await get<ShotRecord>(`/shots/${id}/record`), byId = new Map(revisions.map((r) => [r.id, r]))
    let at = byId.get(revision.headId)
    while (at && at.id !== last?.id) at = byId.get(at.parentId ?? '')
    expect(at?.id).toBe(last?.id)
  }
  const { revisions } = await get<ShotRecord>(`/shots/${id}/record`), places = new Map(revisions.map((r, i) => [r.id, i]))
  expect(acknowledged.length).toBeGreaterThan(25)
  let before = Infinity
  for (const { id: revisionId } of acknowledged) {
    const at = places.get(revisionId)
    expect(at).toBeDefined()
    // Newest first: later ones stand further up.
    expect(at!).toBeLessThan(before)
    before = at!
  }
  const kept = acknowledged[Math.floor(acknowledged.length / 2)]!
  expect(JSON.stringify(await get<GradeDocument>(`/shots/${id}/revisions/${kept.id}`))).toBe(kept.grade)
}, 240_000)
