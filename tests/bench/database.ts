// The server under a long film: 2,000 shots and 200,000 revisions, asked over HTTP as the page does.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setParameter } from '@core/grade'
import type { RevisionState, ShotDetail } from '@contracts/responses'
import { clusterFolder, freePort, startCluster } from '../../server/db/cluster'
import { startServer } from '../../server/start'
import { fillDatabase } from '../support/fill-database'
import { databaseUrl } from '../support/database'
import { rounds } from './effort'
import { median } from './median'

const size = { shots: rounds(2000, 60), revisions: rounds(100, 5) }
const asked = rounds(40, 3)

export async function measureDatabase(): Promise<readonly string[]> {
  const dataFolder = mkdtempSync(join(tmpdir(), 'pale-load-'))
  const cluster = await startCluster(dataFolder)
  const port = await freePort()
  const server = await startServer({
    dataFolder,
    mediaFolder: dataFolder,
    removedDays: 7,
    quotaBytes: null,
    host: '127.0.0.1',
    port,
    databaseUrl: cluster.url,
    webFolder: dataFolder,
  })
  try {
    const { projectId, shotIds } = await fillDatabase(databaseUrl(dataFolder), size.shots, size.revisions)
    const api = `http://127.0.0.1:${port}/api`
    const get = async <T>(path: string): Promise<T> => (await (await fetch(`${api}${path}`)).json()) as T
    const shotAt = (n: number): string => shotIds[(n * 37) % shotIds.length] ?? ''
    const timed = async (ask: (n: number) => Promise<unknown>): Promise<string> => {
      const ms: number[] = []
      for (let n = 0; n < asked; n++) {
        const start = performance.now()
        await ask(n)
        ms.push(performance.now() - start)
      }
      ms.sort((a, b) => a - b)
      return `${median(ms).toFixed(1)} ms, 95th percentile ${(ms[Math.floor(ms.length * 0.95)] ?? 0).toFixed(1)} ms`
    }
    async function save(n: number): Promise<void> {
      const { revision } = opened[n] as ShotDetail
      const grade = setParameter(revision.grade, 'exposure', 'exposureStops', 0.5 + n / 100)
      const body = JSON.stringify({ parentId: revision.headId, summary: 'Exposure', grade, alone: true })
      const headers = { 'content-type': 'application/json' }
      const answer = await fetch(`${api}/shots/${shotAt(n)}/revisions`, { method: 'POST', headers, body })
      if (answer.status !== 200) throw new Error(`A save was answered with ${answer.status}.`)
      ;(await answer.json()) as RevisionState
    }
    const opened: ShotDetail[] = []
    const position = (n: number): number => (n * 53) % Math.max(1, size.shots - 200)
    return [
      `${size.shots} shots, ${size.shots * size.revisions} revisions; each ${asked} times, over HTTP`,
      `a page of the Reel (200 shots): ${await timed((n) => get(`/projects/${projectId}/reel?after=${position(n)}`))}`,
      `opening a shot: ${await timed(async (n) => {
        opened[n] = await get<ShotDetail>(`/shots/${shotAt(n)}`)
      })}`,
      `saving: ${await timed(save)}`,
      `a page of the record (100 revisions), first asked: ${await timed((n) => get(`/shots/${shotAt(n)}/record`))}`,
      `the same, asked again: ${await timed((n) => get(`/shots/${shotAt(n)}/record`))}`,
    ]
  } finally {
    await server.stop()
    cluster.stop()
    rmSync(clusterFolder(dataFolder), { recursive: true, force: true })
    rmSync(dataFolder, { recursive: true, force: true })
  }
}
