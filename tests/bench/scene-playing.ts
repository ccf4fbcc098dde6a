// A reel of twelve shots played in the real browser: what is on screen at each cut, frame by frame.
import type { Browser } from '@playwright/test'
import type { ProjectSummary, ShotSummary } from '@contracts/responses'
import { smoke } from './effort'

interface Seen {
  readonly places: readonly number[]
  /** When each of them came, in milliseconds. */
  readonly times: readonly number[]
  readonly begins: readonly number[]
}

export async function measureScenePlaying(browser: Browser, address: string): Promise<readonly string[]> {
  const projects = (await (await fetch(`${address}/api/projects`)).json()) as ProjectSummary[]
  const project = projects.find((p) => p.name === 'Ashglaze')
  if (!project) throw new Error('The demo project is missing.')
  const { shots } = (await (await fetch(`${address}/api/projects/${project.id}/reel`)).json()) as {
    shots: ShotSummary[]
  }
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  try {
    const rounds: Seen[] = []
    for (let round = 0; round < (smoke ? 1 : 3); round++) {
      await page.goto(`${address}/projects/${project.id}/continuity?scene=all&shot=${shots[0]?.id ?? ''}`)
      // The measuring of the shots goes on by itself; it is not what is measured here.
      await page.getByText(/measured$/).waitFor({ state: 'detached', timeout: 240_000 })
      await page.locator('[data-testid="pair-stage"][data-settled="true"]').waitFor({ timeout: 60_000 })
      rounds.push(await played(page))
    }
    const cuts = rounds.flatMap(({ places, begins }) =>
      begins
        .slice(1)
        // As far as it was played.
        .filter((at) => at <= Math.max(...places))
        .map((at) => missingAbout(places, at)),
    )
    const clean = cuts.filter((missing) => missing === 0).length
    const gaps = rounds.map(({ places }) => Math.max(0, ...places.slice(1).map((p, i) => p - (places[i] ?? 0) - 1)))
    // Shown in order but late, a picture is no gap in what is seen of the shot, yet one in time.
    const stood = rounds.map(({ times }) => Math.max(0, ...times.slice(1).map((t, i) => t - (times[i] ?? 0))))
    const shown = rounds.reduce((sum, { places }) => sum + places.length, 0)
    const due = rounds.reduce((sum, { places }) => sum + Math.max(...places) + 1, 0)
    return [
      `${shots.length} shots, 960×540, 24 frames a second, ${rounds.length} times:`,
      `  cuts without a dropped frame at them: ${clean} of ${cuts.length}, ` +
        `${((100 * clean) / Math.max(1, cuts.length)).toFixed(0)} % (bar 95)`,
      `  frames on screen: ${shown} of ${due}; longest gap ${Math.max(...gaps)} frames (bar 1)`,
      `  longest that one picture stood, round by round: ${stood.map((ms) => ms.toFixed(0)).join(', ')} ms`,
    ]
  } finally {
    await page.close()
  }
}

/** Frames of the two before and the two after a cut that were never on screen. */
const missingAbout = (places: readonly number[], at: number): number =>
  [at - 2, at - 1, at, at + 1].filter((p) => !places.includes(p)).length

async function played(page: Awaited<ReturnType<Browser['newPage']>>): Promise<Seen> {
  await page.locator('body').press('Space')
  return page.evaluate(
    (longest) =>
      new Promise<Seen>((done) => {
        const places: number[] = []
        const times: number[] = []
        let begins: number[] = []
        const began = performance.now()
        const look = (): void => {
          const element = document.querySelector<HTMLElement>('[data-testid="scene-played"]')
          const place = Number(element?.dataset['place'])
          if (element && place !== places.at(-1)) {
            places.push(place)
            times.push(performance.now())
          }
          if (element) begins = (element.dataset['begins'] ?? '').split(',').map(Number)
          const late = performance.now() - began
          if ((!element && places.length > 0) || late > longest) return done({ places, times, begins })
          requestAnimationFrame(look)
        }
        look()
      }),
    smoke ? 8000 : 120_000,
  )
}
