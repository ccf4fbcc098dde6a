// Hundreds of frames asked for at once: a few decoders work, the rest wait or are told to come back, and all stop when
// the page goes.
import { execFileSync } from 'node:child_process'
import { readdirSync, readFileSync } from 'node:fs'
import { mkdtempSync, rmSync } from 'node:fs'
import { availableParallelism, tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import type { ShotDetail } from '@contracts/responses'
import { importInto, startBareServer, type BareServer } from '../support/bare-server'
import { untilWorkIsDone } from '../support/unfinished-work'
import { until } from '../support/until'

let server: BareServer
let folder: string
beforeAll(async () => {
  server = await startBareServer()
  folder = mkdtempSync(join(tmpdir(), 'pale-many-'))
}, 60_000)
afterAll(async () => {
  await server.dispose()
  rmSync(folder, { recursive: true, force: true })
})

/** Decoders of single frames that this server has running. */
function decoders(): number {
  let count = 0
  for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name))) {
    try {
      const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8')
      if (line.startsWith('ffmpeg') && line.includes(server.dataFolder) && line.includes('-frames:v')) count++
    } catch {
      // It ended meanwhile.
    }
  }
  return count
}

test('four hundred distinct frames', async () => {
  const clip = join(folder, 'long.mov')
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-f', 'lavfi', '-i', 'testsrc2=size=640x360:rate=24:duration=20'],
    ...['-c:v', 'libx264', '-g', '240', '-pix_fmt', 'yuv420p', clip],
  ])
  const id = await importInto(server.address, readFileSync(clip), 'long.mov')
  const shot = async (): Promise<ShotDetail> =>
    (await (await fetch(`${server.address}/api/shots/${id}`)).json()) as ShotDetail
  // The survey goes on to look for the brightest light, with a decoder of the same kind.
  await untilWorkIsDone(server.dataFolder)
  const { hash } = (await shot()).media
  const gone = new AbortController()
  const refused: Response[] = []
  const ask = async (n: number): Promise<void> => {
    const path = `${server.address}/api/media/${hash}/frames/${n}?range=legal`
    const response = await fetch(path, { signal: gone.signal }).catch(() => null)
    if (response && response.status !== 200) refused.push(response)
  }
  const answers = Array.from({ length: 400 }, (_, n) => ask(n))
  let most = 0
  let healthMs = 0
  await until('decoders work, and some requests are told to come back', async () => {
    most = Math.max(most, decoders())
    const asked = performance.now()
    expect((await fetch(`${server.address}/api/health`)).ok).toBe(true)
    healthMs = Math.max(healthMs, performance.now() - asked)
    return most > 0 && refused.length > 20
  })
  for (let n = 0; n < 10; n++) {
    await pause(50)
    most = Math.max(most, decoders())
  }
  expect(most).toBeLessThanOrEqual(Math.max(2, availableParallelism()))
  expect(healthMs).toBeLessThan(10_000)
  gone.abort()
  await Promise.all(answers)
  for (const response of refused) {
    expect(response.status).toBe(503)
    expect(response.headers.get('retry-after')).toBe('2')
  }
  // The page is gone: what waited is not decoded any more.
  await until('no decoder is left', () => decoders() === 0, { withinMs: 5000 })
  await pause(300)
  expect(decoders()).toBe(0)
  expect((await fetch(`${server.address}/api/media/${hash}/frames/399?range=legal`)).status).toBe(200)
}, 120_000)
