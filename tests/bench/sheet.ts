// How long a contact sheet of a hundred LUTs takes in the real interface, and whether the interface stays free
// meanwhile.
import type { Browser } from '@playwright/test'
import { printCube } from '@core/formats'
import { madeLuts } from '../support/made-luts'
import { until } from '../support/until'
import { rounds } from './effort'
import { median } from './median'

const wantedLuts = rounds(100, 14)
const turns = rounds(5)
/** What a hand needs at least from one page to the tab of the next, in ms. */
const handMs = 1000

async function sendLuts(address: string): Promise<void> {
  const made = madeLuts(7)
  const step = made.length / wantedLuts
  for (let i = 0; i < wantedLuts; i++) {
    const lut = made[Math.floor(i * step)]
    if (lut)
      await fetch(
        `${address}/api/luts?${new URLSearchParams({ name: lut.name.replaceAll('/', '-'), folder: 'Hundred' })}`,
        { method: 'POST', body: printCube(lut.make()) },
      )
  }
  await until('the LUTs are inspected', async () => {
    const luts = (await (await fetch(`${address}/api/luts`)).json()) as { expects: unknown }[]
    return luts.every((l) => l.expects !== null)
  })
}

export async function measureSheet(browser: Browser, address: string): Promise<string[]> {
  await sendLuts(address)
  return [
    `a second after the LUTs came: ${await measure(browser, address, handMs)}`,
    `in the moment they came: ${await measure(browser, address, 0)}`,
  ]
}

async function measure(browser: Browser, address: string, waitedMs: number): Promise<string> {
  const json = async <T>(path: string): Promise<T> => (await (await fetch(`${address}/api${path}`)).json()) as T
  const [project] = await json<{ id: string }[]>('/projects')
  const [shot] = (await json<{ shots: { id: string }[] }>(`/projects/${project?.id}/reel`)).shots
  const first: number[] = []
  const all: number[] = []
  const opening: number[] = []
  const blocked: number[] = []
  let total = 0
  for (let round = 0; round < turns; round++) {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await page.goto(`${address}/luts/inspect?shot=${shot?.id}`)
    await page.locator('[data-lut]').first().waitFor()
    await page.waitForTimeout(waitedMs)
    const seen = await page.evaluate(
      (least) =>
        new Promise<{ first: number; all: number; opening: number; blocked: number; total: number }>((done) => {
          // Opening the page is one task; from then on, while pictures come, the interface is to be free.
          let opening = 0
          let blocked = 0
          let rows = 0
          let opened = Infinity
          new PerformanceObserver((list) => {
            for (const task of list.getEntries())
              if (task.startTime >= opened) blocked = Math.max(blocked, task.duration)
              else opening = Math.max(opening, task.duration)
          }).observe({ type: 'longtask' })
          const start = performance.now()
          ;[...document.querySelectorAll<HTMLElement>('.parts a')].at(-1)?.click()
          const look = (): void => {
            const sheet = document.querySelector<HTMLElement>('[data-testid="contact-sheet"]')
            const tiles = [...document.querySelectorAll<HTMLElement>('[data-tile]')]
            const shown = tiles.filter((t) => t.dataset['seen'] === 'true').length
            const wanted = Number(sheet?.dataset['total'] ?? 0)
            if (opened === Infinity && tiles.length > 0) opened = performance.now()
            if (rows === 0 && tiles.length > 12 && tiles.slice(0, 12).every((t) => t.dataset['seen'] === 'true'))
              rows = performance.now() - start
            if (wanted > least && shown === wanted)
              done({ first: rows, all: performance.now() - start, opening, blocked, total: wanted })
            else requestAnimationFrame(look)
          }
          look()
        }),
      wantedLuts,
    )
    first.push(seen.first)
    all.push(seen.all)
    opening.push(seen.opening)
    blocked.push(seen.blocked)
    total = seen.total
    await page.close()
  }
  return (
    `${total} pictures: the first two rows after ${median(first).toFixed(0)} ms (bound 1000), all ` +
    `after ${median(all).toFixed(0)} ms (bound 6000); the interface thread was held for ` +
    `${median(opening).toFixed(0)} ms to open the page, and never longer than ` +
    `${Math.max(...blocked).toFixed(0)} ms while pictures came`
  )
}
