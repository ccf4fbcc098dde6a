// Eight people at once for a minute, each on a shot of their own: saves, exact frames, readings, and whether the server
// still answers. It runs in a process of its own, as it does for people.
import { setTimeout as pause } from 'node:timers/promises'
import { readdirSync, readFileSync } from 'node:fs'
import { Agent, request } from 'node:http'
import { join } from 'node:path'
import { setParameter, type GradeDocument } from '@core/grade'
import type { ShotDetail } from '@contracts/responses'
import { importInto, startBareServer } from '../support/bare-server'
import { until } from '../support/until'
import { rounds } from './effort'

const clients = 8
const seconds = rounds(60, 3)
const footage = 'demo/footage'

type Kind = 'saves' | 'frames of 960×540' | 'readings' | 'health'
const bars: Readonly<Record<Kind, { readonly share: number; readonly ms: number | null }>> = {
  saves: { share: 0.95, ms: 150 },
  'frames of 960×540': { share: 0.95, ms: 800 },
  readings: { share: 0.95, ms: null },
  health: { share: 0.99, ms: 50 },
}

export async function measureLoad(): Promise<readonly string[]> {
  const server = await startBareServer()
  try {
    const api = `${server.address}/api`
    const took: Record<Kind, number[]> = { saves: [], 'frames of 960×540': [], readings: [], health: [] }
    let busy = 0
    const timed = async (kind: Kind, path: string, body?: object): Promise<string> => {
      const start = performance.now()
      for (;;) {
        const { status, text, retryAfter } = await ask(`${api}${path}`, body)
        // Told to come back: the wait counts.
        if (status === 503) {
          busy++
          await pause(retryAfter * 1000)
          continue
        }
        if (status >= 300) throw new Error(`${kind}: ${status} ${text}`)
        took[kind].push(performance.now() - start)
        return text
      }
    }
    const clips = readdirSync(footage).filter((name) => name.endsWith('.mov'))
    const shots: ShotDetail[] = []
    for (let n = 0; n < clients; n++) {
      const name = clips[n % clips.length] ?? ''
      const id = await importInto(server.address, readFileSync(join(footage, name)), name)
      const detail = async (): Promise<ShotDetail> => (await (await fetch(`${api}/shots/${id}`)).json()) as ShotDetail
      await until('the proxies are made', async () => (await detail()).proxy !== null)
      shots.push(await detail())
    }
    const end = performance.now() + seconds * 1000
    const person = async ({ id, media, frameCount, revision }: ShotDetail, n: number): Promise<void> => {
      let { headId: parentId, grade }: { headId: string; grade: GradeDocument } = revision
      for (let step = 0; performance.now() < end; step++) {
        grade = setParameter(grade, 'exposure', 'exposureStops', ((step * 7 + n) % 40) / 20 - 1)
        const saved = await timed('saves', `/shots/${id}/revisions`, { parentId, summary: 'Exposure', grade })
        parentId = (JSON.parse(saved) as { headId: string }).headId
        const index = (step * 11 + n * 5) % frameCount
        await timed('frames of 960×540', `/media/${media.hash}/frames/${index}?range=${media.range}`)
        if (step % 4 === 0) await timed('readings', `/shots/${id}/findings`)
        await pause(250)
      }
    }
    const pulse = async (): Promise<void> => {
      while (performance.now() < end) {
        await timed('health', '/health')
        await pause(50)
      }
    }
    const before = processorTicks()
    await Promise.all([pulse(), ...shots.map(person)])
    const after = processorTicks()
    const stolen = (after.stolen - before.stolen) / (after.all - before.all)
    return [
      `${clients} people for ${seconds} s: each saves, looks at another frame, and measures every fourth time`,
      ...Object.entries(bars).map(([kind, { share, ms }]) => {
        const sorted = took[kind as Kind].sort((a, b) => a - b)
        const at = (part: number): string => (sorted[Math.floor(sorted.length * part)] ?? NaN).toFixed(0)
        const bar = ms === null ? '' : ` (bar ${ms} ms)`
        return `${kind}: ${sorted.length}, median ${at(0.5)} ms, ${share * 100}th percentile ${at(share)} ms${bar}`
      }),
      `told to come back: ${busy}`,
      // On a rented machine another's work may take it away: figures with more than a few percent say little.
      `taken by the machine's host meanwhile: ${(stolen * 100).toFixed(1)} % of the processors' time`,
    ]
  } finally {
    await server.dispose()
  }
}

/** Time of all processors since the machine started, and what its host took of it (proc(5), /proc/stat). */
function processorTicks(): { readonly all: number; readonly stolen: number } {
  const [line = ''] = readFileSync('/proc/stat', 'utf8').split('\n')
  const ticks = line.split(/\s+/).slice(1).map(Number)
  return { all: ticks.reduce((sum, n) => sum + n, 0), stolen: ticks[7] ?? 0 }
}

interface Answer {
  readonly status: number
  readonly text: string
  readonly retryAfter: number
}
const agent = new Agent({ keepAlive: true })

/** As light as can be: the people share the two cores with the server here, and would not elsewhere. */
function ask(url: string, body?: object): Promise<Answer> {
  const text = body && JSON.stringify(body)
  return new Promise((done, fail) => {
    const asked = request(url, {
      agent,
      method: text === undefined ? 'GET' : 'POST',
      ...(text === undefined
        ? {}
        : { headers: { 'content-type': 'application/json', 'content-length': Buffer.byteLength(text) } }),
    })
    asked.once('error', fail)
    asked.once('response', (response) => {
      const kept: Buffer[] = []
      const isText = !/octet-stream/.test(response.headers['content-type'] ?? '')
      response.on('data', (chunk: Buffer) => {
        if (isText) kept.push(chunk)
      })
      response.once('end', () =>
        done({
          status: response.statusCode ?? 0,
          text: Buffer.concat(kept).toString('utf8'),
          retryAfter: Number(response.headers['retry-after'] ?? 1),
        }),
      )
    })
    asked.end(text)
  })
}
