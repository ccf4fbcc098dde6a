// Playing and seeking in the real interface, and what memory they take over time.
import { execFileSync } from 'node:child_process'
import type { Browser, Page } from '@playwright/test'
import type { DemoInstance } from '../support/demo-instance'
import { until } from '../support/until'
import { tenSteps } from './kernel'
import { rounds } from './effort'
import { median, quantile } from './median'
import { openBench } from './slider'

/** How long the memory is watched while a shot plays in a loop. */
const minutes = Number(process.env['PALE_PLAY_MINUTES'] ?? rounds(1, 0.05))

export async function measurePlayback(browser: Browser, instance: DemoInstance): Promise<string[]> {
  const page = await openBench(browser, instance.address, () => tenSteps())
  const lines: string[] = []
  const seeks = await page.evaluate(seekInPage, rounds(40, 8))
  lines.push(
    `seek: the right frame on screen after a median of ${median(seeks.times).toFixed(0)} ms, 95th ` +
      `percentile ${quantile(seeks.times, 0.95).toFixed(0)} ms (${seeks.times.length} jumps, ` +
      `${seeks.wrong} to a wrong frame; bound 60)`,
  )
  await page.keyboard.press('g')
  await page.getByTestId('play').click()
  await page.waitForTimeout(rounds(4000, 1000))
  const before = await counts(page)
  const start = Date.now()
  const memory = [memoryNow(instance)]
  for (let i = 0; i < 4; i++) {
    await page.waitForTimeout((minutes * 60_000) / 4)
    memory.push(memoryNow(instance))
  }
  const after = await counts(page)
  const seconds = (Date.now() - start) / 1000
  lines.push(
    `${((after.shown - before.shown) / seconds).toFixed(1)} frames a second shown, ` +
      `${((after.dropped - before.dropped) / seconds).toFixed(1)} dropped, over ${seconds.toFixed(0)} s`,
  )
  lines.push(
    `memory over ${minutes} min of looping: tab ${memory.map((m) => m.tab).join(', ')} MB; server ` +
      `${memory.map((m) => m.server).join(', ')} MB`,
  )
  await page.close()
  return lines
}

/** Waits until nothing goes on in the background. */
export async function proxiesMade(address: string): Promise<void> {
  await until(
    'the proxies are made',
    async () => {
      const [project] = (await (await fetch(`${address}/api/projects`)).json()) as { id: string }[]
      const work = (await (await fetch(`${address}/api/projects/${project?.id}/work`)).json()) as unknown[]
      return work.length === 0
    },
    { withinMs: 600_000, everyMs: 500 },
  )
}

export async function counts(page: Page): Promise<{ shown: number; dropped: number }> {
  const [, shown, dropped] = /(\d+) shown · (\d+) dropped/.exec(await page.getByTestId('played').innerText()) ?? []
  return { shown: Number(shown), dropped: Number(dropped) }
}

/** Resident memory of the server's process and of the largest renderer, in MB. */
function memoryNow(instance: DemoInstance): { tab: number; server: number } {
  const processes = execFileSync('ps', ['-eo', 'pid,rss,args'], { encoding: 'utf8', maxBuffer: 1 << 24 })
    .split('\n')
    .map((line) => line.trim().split(/\s+/))
  const mb = (kb: string | undefined): number => Math.round(Number(kb ?? 0) / 1024)
  return {
    tab: Math.max(0, ...processes.filter((p) => p.includes('--type=renderer')).map(([, rss]) => mb(rss))),
    server: mb(processes.find(([pid]) => Number(pid) === instance.pid())?.[1]),
  }
}

/** Runs inside the page: jumps along the time line, each from the press until the frame is on the canvas. */
async function seekInPage(jumps: number): Promise<{ times: number[]; wrong: number }> {
  const line = document.querySelector<HTMLElement>('.timeline')
  const canvas = document.querySelector<HTMLCanvasElement>('[data-testid="picture"]')
  if (!line || !canvas) throw new Error('There is no time line.')
  line.setPointerCapture = () => undefined
  const rect = line.getBoundingClientRect()
  const times: number[] = []
  let wrong = 0
  const frames = Number(line.getAttribute('aria-valuemax')) + 1
  for (let i = 0; i < jumps; i++) {
    // Far jumps in an order without a pattern.
    const frame = (i * 29 + 11) % frames
    const start = performance.now()
    line.dispatchEvent(
      new PointerEvent('pointerdown', {
        clientX: rect.left + ((frame + 0.5) / frames) * rect.width,
        clientY: rect.top + 5,
        pointerId: 1,
        bubbles: true,
      }),
    )
    line.dispatchEvent(new PointerEvent('pointerup', { pointerId: 1, bubbles: true }))
    await new Promise<void>((done) => {
      const look = (): void => {
        if (canvas.dataset['frame'] === String(frame) || performance.now() - start > 3000) done()
        else requestAnimationFrame(look)
      }
      requestAnimationFrame(look)
    })
    if (canvas.dataset['frame'] !== String(frame)) wrong++
    if (i >= 5) times.push(performance.now() - start)
    // From rest: the exact frame has come meanwhile.
    while (canvas.dataset['settled'] !== 'true') await new Promise((done) => setTimeout(done, 50))
    await new Promise((done) => setTimeout(done, 100))
  }
  return { times, wrong }
}
