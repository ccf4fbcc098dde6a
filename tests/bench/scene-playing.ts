// A reel of twelve shots played in the real browser: what is on screen at each cut, frame by frame.
import type { Browser } from '@playwright/test'
import type { ProjectSummary, ShotSummary } from '@contracts/responses'
import { seenHeader } from '@contracts/seen'
import { smoke } from './effort'
import { watchStolen } from './stolen'

interface Seen {
  readonly places: readonly number[]
  /** When each of them came, in milliseconds. */
  readonly times: readonly number[]
  readonly begins: readonly number[]
  /** The share of processor time that others took meanwhile. */
  readonly stolen: number
}

export async function measureScenePlaying(browser: Browser, address: string): Promise<readonly string[]> {
  const projects = (await (await fetch(`${address}/api/projects`)).json()) as ProjectSummary[]
  const project = projects.find((p) => p.name === 'Ashglaze')
  if (!project) throw new Error('The demo project is missing.')
  const shots = await twelveShots(address, project.id)
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  try {
    const rounds: Seen[] = []
    for (let round = 0; round < (smoke ? 1 : 4); round++) {
      await page.goto(`${address}/projects/${project.id}/continuity?scene=all&shot=${shots[0]?.id ?? ''}`)
      // The measuring of the shots goes on by itself; it is not what is measured here.
      await page.getByText(/measured$/).waitFor({ state: 'detached', timeout: 240_000 })
      await page.locator('[data-testid="pair-stage"][data-settled="true"]').waitFor({ timeout: 60_000 })
      rounds.push(await played(page))
    }
    const each = rounds.map(factsOf)
    const sum = (pick: (f: Facts) => number): number => each.reduce((total, f) => total + pick(f), 0)
    const cuts = sum((f) => f.cuts)
    const clean = sum((f) => f.clean)
    return [
      `${shots.length} shots, 960×540, 24 frames a second, ${rounds.length} times:`,
      `  cuts without a dropped frame at them: ${clean} of ${cuts}, ` +
        `${((100 * clean) / Math.max(1, cuts)).toFixed(0)} % (bar 95)`,
      `  frames on screen: ${sum((f) => f.shown)} of ${sum((f) => f.due)}; ` +
        `longest gap ${Math.max(...each.map((f) => f.longestGap))} frames (bar 1)`,
      ...each.map(
        (f, i) =>
          `  round ${i + 1}: ${f.shown} of ${f.due} frames, longest gap ${f.longestGap}, ${f.clean} of ${f.cuts} ` +
          `cuts; longest that a picture stood ${f.longestMs.toFixed(0)} ms; ${(100 * f.stolen).toFixed(1)} % of ` +
          'processor time taken by other machines',
      ),
    ]
  } finally {
    await page.close()
  }
}

async function reelOf(address: string, projectId: string): Promise<readonly ShotSummary[]> {
  const answer = await fetch(`${address}/api/projects/${projectId}/reel`)
  return ((await answer.json()) as { shots: ShotSummary[] }).shots
}

/** The reel's shots, its longest cut in two: twelve. */
async function twelveShots(address: string, projectId: string): Promise<readonly ShotSummary[]> {
  const shots = await reelOf(address, projectId)
  const longest = shots.reduce((a, b) => (b.frameCount > a.frameCount ? b : a))
  const { firstFrame, frameCount } = longest
  const half = frameCount >> 1
  const cut = await fetch(`${address}/api/shots/${longest.id}/cut`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...seenHeader({ frameCount, firstFrame }) },
    body: JSON.stringify({
      pieces: [
        { first: firstFrame, count: half },
        { first: firstFrame + half, count: frameCount - half },
      ],
    }),
  })
  if (!cut.ok) throw new Error(`The longest shot could not be cut: ${cut.status}.`)
  return reelOf(address, projectId)
}

interface Facts {
  readonly cuts: number
  readonly clean: number
  readonly shown: number
  readonly due: number
  readonly longestGap: number
  readonly longestMs: number
  readonly stolen: number
}

function factsOf({ places, times, begins, stolen }: Seen): Facts {
  const last = Math.max(...places)
  // As far as it was played.
  const cuts = begins.slice(1).filter((at) => at <= last)
  const steps = (list: readonly number[]): readonly number[] => list.slice(1).map((v, i) => v - (list[i] ?? 0))
  return {
    cuts: cuts.length,
    clean: cuts.filter((at) => missingAbout(places, at) === 0).length,
    shown: places.length,
    due: last + 1,
    longestGap: Math.max(0, ...steps(places).map((step) => step - 1)),
    longestMs: Math.max(0, ...steps(times)),
    stolen,
  }
}

/** Frames of the two before and the two after a cut that were never on screen. */
const missingAbout = (places: readonly number[], at: number): number =>
  [at - 2, at - 1, at, at + 1].filter((p) => !places.includes(p)).length

async function played(page: Awaited<ReturnType<Browser['newPage']>>): Promise<Seen> {
  const stolen = watchStolen()
  await page.locator('body').press('Space')
  const seen = await page.evaluate(
    (longest) =>
      new Promise<Omit<Seen, 'stolen'>>((done) => {
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
  return { ...seen, stolen: stolen() ?? 0 }
}
