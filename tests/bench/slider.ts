// How long a slider move takes until picture and scopes are on screen, in the real interface.
import type { Browser, Page } from '@playwright/test'
import { addRegion, setParameter, setShow, type GradeDocument } from '@core/grade'
import { tenSteps } from './kernel'
import { rounds } from './effort'
import { median, quantile } from './median'

export interface Samples {
  readonly times: number[]
  readonly puts: number
  readonly moves: number
  readonly settleMs: number
}

export async function measureSlider(browser: Browser, address: string): Promise<string[]> {
  const lines: string[] = []
  for (const [name, prepare] of [
    ['plain grade', (g: GradeDocument) => g],
    // As every shot was shown before there was a rendering.
    ['plain grade, shown straight', (g: GradeDocument) => setShow(g, { method: 'straight' })],
    ['ten steps', (): GradeDocument => tenSteps()],
    ['every step and a region', worked],
  ] as const) {
    const page = await openBench(browser, address, prepare)
    const samples = await page.evaluate(sampleInPage, {
      pressed: '[data-control="exposureStops"] [role="slider"]',
      presses: rounds(60, 12),
    })
    lines.push(
      `${name}: median ${median(samples.times).toFixed(1)} ms, 95th percentile ` +
        `${quantile(samples.times, 0.95).toFixed(1)} ms (${samples.times.length} moves)`,
    )
    lines.push(
      `${name}: a fast drag of ${samples.moves} moves in one second showed ${samples.puts} pictures; ` +
        `the last was on screen ${samples.settleMs.toFixed(0)} ms after the last move`,
    )
    await page.close()
  }
  return lines
}

function worked(grade: GradeDocument): GradeDocument {
  let g = setParameter(grade, 'white-balance', 'temperatureMired', 8)
  g = setParameter(g, 'white-balance', 'tint', 3)
  g = setParameter(g, 'contrast', 'contrast', 1.15)
  g = setParameter(g, 'tone-curve', 'points', [
    { x: 0.07, y: 0.07 },
    { x: 0.36, y: 0.34 },
    { x: 0.55, y: 0.57 },
    { x: 0.87, y: 0.86 },
  ])
  g = setParameter(g, 'saturation', 'saturation', 1.1)
  const added = addRegion(g)
  g = setParameter(added.grade, `${added.regionId}-exposure`, 'exposureStops', 0.5)
  return setParameter(g, `${added.regionId}-saturation`, 'saturation', 0.8)
}

/** A fresh page with a demo shot through a grade, at rest. */
export async function openBench(
  browser: Browser,
  address: string,
  prepare: (g: GradeDocument) => GradeDocument,
  station = 'level',
): Promise<Page> {
  const json = async <T>(path: string): Promise<T> => (await (await fetch(`${address}/api${path}`)).json()) as T
  const [project] = await json<{ id: string }[]>('/projects')
  const [shot] = (await json<{ shots: { id: string }[] }>(`/projects/${project?.id}/reel`)).shots
  // A page that was just closed may still be saving: then it is tried again on what it saved.
  for (let tries = 0; ; tries++) {
    const { revision } = await json<{ revision: { headId: string; grade: GradeDocument } }>(`/shots/${shot?.id}`)
    const kept = await fetch(`${address}/api/shots/${shot?.id}/revisions`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ parentId: revision.headId, summary: 'bench', grade: prepare(revision.grade) }),
    })
    if (kept.ok) break
    if (kept.status !== 409 || tries > 10)
      throw new Error(`The grade to be measured was refused: ${(await kept.text()).slice(0, 300)}`)
    await new Promise((done) => setTimeout(done, 300))
  }
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.goto(`${address}/shots/${shot?.id}/bench?station=${station}`)
  await page.locator('canvas[data-settled="true"]').waitFor()
  return page
}

/**
 * Runs inside the page: one arrow key at a time, from the press until the frame that shows picture and all three traces
 * is done.
 */
export async function sampleInPage({ pressed, presses }: { pressed: string; presses: number }): Promise<Samples> {
  let puts = 0
  let onShown: (at: number) => void = () => undefined
  const put = CanvasRenderingContext2D.prototype.putImageData
  CanvasRenderingContext2D.prototype.putImageData = function (
    this: CanvasRenderingContext2D,
    ...args: Parameters<typeof put>
  ) {
    const result = put.apply(this, args)
    if (++puts === canvases) void nextFrame().then((at) => onShown(at))
    return result
  } as typeof put
  // The time line's trace is drawn when the hand rests, lit pixels only when asked for: they are not waited for.
  const canvases = document.querySelectorAll('canvas:not(.timeline canvas, .lit)').length
  const nextFrame = (): Promise<number> =>
    new Promise((done) =>
      requestAnimationFrame(() => {
        const channel = new MessageChannel()
        channel.port1.onmessage = () => done(performance.now())
        channel.port2.postMessage(0)
      }),
    )
  const slider = document.querySelector<HTMLElement>(pressed)
  if (!slider) throw new Error(`There is no ${pressed}.`)
  const press = (right: boolean): void =>
    void slider.dispatchEvent(
      new KeyboardEvent('keydown', { key: right ? 'ArrowRight' : 'ArrowLeft', bubbles: true, cancelable: true }),
    )

  const times: number[] = []
  for (let i = 0; i < presses; i++) {
    puts = 0
    const start = performance.now()
    const shown = new Promise<number>((done) => {
      onShown = done
    })
    press(i % 20 < 10)
    const at = await shown
    if (i >= 10) times.push(at - start)
  }

  puts = 0
  const moves = 60
  for (let i = 0; i < moves; i++) {
    press(i % 30 < 15)
    await new Promise((done) => setTimeout(done, 1000 / moves))
  }
  const last = performance.now()
  const shown = Math.floor(puts / canvases)
  let seen = puts
  let settled = last
  // Until nothing new came for a while; the finer picture at rest comes later and is not counted.
  while (performance.now() - last < 120) {
    const now = await nextFrame()
    if (puts !== seen) {
      seen = puts
      settled = now
    }
  }
  return { times, puts: shown, moves, settleMs: settled - last }
}
