// The demo reel before and after a first pass by one key, with what is said of each shot.
import type { Browser, Page } from '@playwright/test'
import type { ProjectSummary, ShotSummary } from '@contracts/responses'
import { thumbnailAddress } from '../../web/api/thumbnail'

interface Passed {
  readonly before: ShotSummary
  readonly after: ShotSummary
  readonly said: string
}

export async function takeFirstPass(browser: Browser, address: string, path: string): Promise<void> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  const get = async <T>(of: string): Promise<T> => (await (await fetch(`${address}/api${of}`)).json()) as T
  const project = (await get<readonly ProjectSummary[]>('/projects')).find((p) => p.name === 'Ashglaze')
  if (!project) throw new Error('The demo project is missing.')
  const shotsNow = async (): Promise<readonly ShotSummary[]> =>
    (await get<{ shots: readonly ShotSummary[] }>(`/projects/${project.id}/reel`)).shots
  const before = await shotsNow()
  await page.goto(`${address}/projects/${project.id}/continuity?scene=all`)
  await page.locator('.course .shot').first().waitFor()
  await page.keyboard.press('f')
  const said = await accepted(page, before.length)
  const after = await shotsNow()
  await page.close()
  // A page of its own: the program's allows no styles but its own.
  const sheet = await browser.newPage({ viewport: { width: 1280, height: 100 } })
  await show(
    sheet,
    address,
    before.map((shot, i) => ({ before: shot, after: after[i] ?? shot, said: said.get(shot.name) ?? '' })),
  )
  await sheet.screenshot({ path, fullPage: true })
  console.log(path)
  await sheet.close()
  // As it was, for the pictures that follow.
  for (const { id, headId } of after.filter((s, i) => s.headId !== before[i]?.headId))
    await fetch(`${address}/api/shots/${id}/undo`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ expectedId: headId }),
    })
}

/** Accepts what is sure; what each shot's row says, by its name. */
async function accepted(page: Page, count: number): Promise<ReadonlyMap<string, string>> {
  const panel = page.getByTestId('proposals')
  await panel
    .getByRole('status')
    .filter({ hasText: `${count} of ${count}` })
    .waitFor({ timeout: 240_000 })
  await panel.getByRole('button', { name: /^Accept (it|all)/ }).click()
  await panel.getByRole('button', { name: /^Accept all 0/ }).waitFor()
  const said = new Map<string, string>()
  for (const row of await panel.locator('[data-proposal]').all()) {
    const outside = row.getByTestId('outside-reasons')
    const reason = (await outside.isVisible()) ? await outside.locator('input').first().inputValue() : ''
    const words = [await row.locator('.said > p').first().innerText(), reason && `Left: ${reason}`]
    said.set((await row.getAttribute('data-proposal')) ?? '', words.filter(Boolean).join(' '))
  }
  return said
}

async function show(page: Page, address: string, shots: readonly Passed[]): Promise<void> {
  const picture = async (of: ShotSummary): Promise<string> => {
    const { headId: revisionId, leadFrame: frame, firstFrame, frameCount } = of
    const at = thumbnailAddress({ revisionId, frame, as: 'graded', firstFrame, frameCount })
    const png = Buffer.from(await (await fetch(`${address}${at}`)).arrayBuffer())
    return `<img src="data:image/png;base64,${png.toString('base64')}">`
  }
  const figures: string[] = []
  for (const { before, after, said } of shots)
    figures.push(
      `<figure>${await picture(before)}${await picture(after)}` +
        `<figcaption><b>${before.name}</b> ${said}</figcaption></figure>`,
    )
  await page.setContent(`<style>
    body { margin: 8px; background: #3a3a3a; color: #ddd; font: 11px/1.35 'IBM Plex Sans', sans-serif; }
    main { display: grid; grid-template-columns: 1fr 1fr 1fr; gap: 10px; }
    figure { margin: 0; display: grid; grid-template-columns: 1fr 1fr; gap: 2px; }
    img { width: 100%; aspect-ratio: 16 / 9; object-fit: contain; background: #222; }
    figcaption { grid-column: 1 / -1; }
  </style><main>${figures.join('')}</main>`)
  await page.waitForFunction(() => [...document.images].every((i) => i.complete && i.naturalWidth > 0))
}
