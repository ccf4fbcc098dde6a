// A large clip from its first second: on the Reel with its thumbnail, and on the Bench while its proxy is being made.
import { execFileSync } from 'node:child_process'
import { linkSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Browser } from '@playwright/test'
import type { ProjectSummary, WorkSummary } from '@contracts/responses'
import { rounds, smoke } from './effort'
import { median } from './median'

const seconds = rounds(60, 2)
const size = smoke ? '1280x720' : '3840x2160'

/** Two seconds of noise and colours at 53 Mbit/s, again and again. */
function makeClip(folder: string): string {
  const [once, whole] = [join(folder, 'once.mov'), join(folder, 'whole.mov')]
  const ffmpeg = (...args: readonly string[]): void =>
    void execFileSync('ffmpeg', ['-v', 'error', '-nostdin', '-y', ...args], { stdio: 'ignore' })
  ffmpeg(
    ...['-f', 'lavfi', '-i', `testsrc2=s=${size}:r=24:d=2,noise=alls=12:allf=t`],
    ...['-c:v', 'libx264', '-preset', 'ultrafast', '-b:v', '53M', '-pix_fmt', 'yuv420p10le', '-g', '24', once],
  )
  ffmpeg('-stream_loop', String(seconds / 2 - 1), '-i', once, '-c', 'copy', whole)
  return whole
}

export async function measureLargeClip(
  browser: Browser,
  { address, dataFolder }: { readonly address: string; readonly dataFolder: string },
): Promise<readonly string[]> {
  const folder = mkdtempSync(join(tmpdir(), 'pale-large-'))
  const times = { reel: [] as number[], bench: [] as number[] }
  try {
    const clip = makeClip(folder)
    mkdirSync(join(dataFolder, 'library'), { recursive: true })
    for (let round = 0; round < rounds(3); round++) {
      // Another file of the same pictures, as far as anybody can see.
      const path = join(folder, `round-${round}.mov`)
      execFileSync('ffmpeg', [
        '-v',
        'error',
        '-nostdin',
        '-i',
        clip,
        '-c',
        'copy',
        '-metadata',
        `comment=${round}`,
        path,
      ])
      linkSync(path, join(dataFolder, 'library', `large-${round}.mov`))
      const { reel, bench } = await fromFirstSecond(browser, address, `large-${round}.mov`)
      times.reel.push(reel)
      times.bench.push(bench)
    }
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
  const said = (all: readonly number[]): string =>
    `${(median(all) / 1000).toFixed(2)} s (${all.map((t) => (t / 1000).toFixed(2)).join(', ')})`
  return [
    `${seconds} s of ${size}, 10 bits, linked:`,
    `    on the Reel with its thumbnail on screen: ${said(times.reel)} (bar 3 s)`,
    `    from the click to its frame on the Bench, its proxy still being made: ${said(times.bench)} (bar 1 s)`,
  ]
}

async function fromFirstSecond(
  browser: Browser,
  address: string,
  path: string,
): Promise<{ readonly reel: number; readonly bench: number }> {
  const api = `${address}/api`
  const made = await fetch(`${api}/projects`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name: path }),
  })
  const { id } = (await made.json()) as ProjectSummary
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  try {
    await page.goto(`${address}/projects/${id}/reel`)
    await page.getByRole('button', { name: 'From the media folder' }).click()
    const link = page.locator('li', { hasText: path }).getByRole('button', { name: 'Link' })
    await link.waitFor()
    const begun = performance.now()
    await link.click()
    await page.waitForFunction(
      () => [...document.querySelectorAll<HTMLImageElement>('[data-shot] img')].some((i) => i.naturalWidth > 0),
      undefined,
      { polling: 20 },
    )
    const reel = performance.now() - begun
    const clicked = performance.now()
    await page.locator('[data-shot]').dblclick()
    // The first picture is what is waited for; a finer one comes when the hand rests.
    await page.waitForFunction(
      () => (document.querySelector<HTMLCanvasElement>('[data-testid="picture"]')?.width ?? 300) !== 300,
      undefined,
      { polling: 20 },
    )
    const bench = performance.now() - clicked
    const work = (await (await fetch(`${api}/projects/${id}/work`)).json()) as WorkSummary[]
    if (!smoke && !work.some(({ kind, state }) => kind === 'survey' && state !== 'failed'))
      throw new Error('Its proxy was made before it was looked at.')
    return { reel, bench }
  } finally {
    await page.close()
    // What goes on with this one is not to disturb the next.
    for (const { id: one } of (await (await fetch(`${api}/projects/${id}/work`)).json()) as WorkSummary[])
      await fetch(`${api}/work/${one}`, { method: 'DELETE' })
  }
}
