// Balance for me: from the key to its choices on the Bench, and shot by shot for the Reel.
import type { Browser } from '@playwright/test'
import type { ShotSummary } from '@contracts/responses'
import { rounds } from './effort'
import { median, quantile } from './median'

export async function measureProposal(browser: Browser, address: string): Promise<readonly string[]> {
  const json = async <T>(path: string): Promise<T> => (await (await fetch(`${address}/api${path}`)).json()) as T
  const projects = await json<readonly { id: string; name: string }[]>('/projects')
  const demo = projects.find((p) => p.name === 'Ashglaze')
  const { shots } = await json<{ shots: readonly ShotSummary[] }>(`/projects/${demo?.id}/reel`)
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  const times: number[] = []
  const checked: number[] = []
  for (const { id } of shots.slice(0, rounds(5))) {
    await page.goto(`${address}/shots/${id}/bench?station=level`)
    await page.locator('canvas[data-settled="true"]').waitFor()
    // The clip's darkest and brightest frames join in once they are known.
    await page.waitForTimeout(rounds(12_000, 3000))
    const begun = performance.now()
    await page.keyboard.press('n')
    await page.locator('[data-testid="balance"] [data-choice]').first().waitFor()
    times.push(performance.now() - begun)
    await page.locator('[data-testid="balance"][data-checked="true"]').waitFor()
    checked.push(performance.now() - begun)
  }
  await page.close()
  const reel: number[] = []
  for (const { id } of shots.slice(0, rounds(shots.length, 2))) {
    const begun = performance.now()
    const answer = await fetch(`${address}/api/shots/${id}/balance`)
    if (!answer.ok) throw new Error(await answer.text())
    await answer.arrayBuffer()
    reel.push(performance.now() - begun)
  }
  return [
    `from the key to the choices for the frame in view: median ${median(times).toFixed(0)} ms, ` +
      `longest ${Math.max(...times).toFixed(0)} ms (bar 400 ms)`,
    `until they are good for the clip's extremes as well, clips of five seconds: median ` +
      `${median(checked).toFixed(0)} ms, longest ${Math.max(...checked).toFixed(0)} ms (bar 3 s for ten seconds)`,
    `for the Reel: median ${(median(reel) / 1000).toFixed(2)} s a shot, 95th percentile ` +
      `${(quantile(reel, 0.95) / 1000).toFixed(2)} s (bar 2 s)`,
  ]
}
