// What the tests do on the Bench, in a person's words.
import { expect, type Locator, type Page } from '@playwright/test'
import type { ShotDetail, ShotSummary } from '@contracts/responses'
import { drawOnPicture } from '../support/drawing'

export const address = (): string => process.env['PALE_TEST_ADDRESS'] ?? ''

/** A shot of the demo project by name. */
export async function demoShot(name: string): Promise<ShotSummary> {
  const projects = (await (await fetch(`${address()}/api/projects`)).json()) as { id: string; name: string }[]
  const { shots } = (await (
    await fetch(`${address()}/api/projects/${projects.find((p) => p.name === 'Ashglaze')!.id}/reel`)
  ).json()) as { shots: ShotSummary[] }
  return shots.find((s) => s.name === name)!
}

export async function openBench(page: Page, name: string, station = 'level', at = address()): Promise<ShotSummary> {
  const shot = await demoShot(name)
  await page.goto(`${at}/shots/${shot.id}/bench?station=${station}`)
  await expect(page.getByTestId('reading-middle')).toContainText('%')
  return shot
}

export const control = (page: Page, key: string): Locator => page.locator(`[data-control="${key}"] [role="slider"]`)
export const field = (page: Page, key: string): Locator => page.locator(`[data-control="${key}"] input`)
export const station = (page: Page, id: string): Locator => page.locator(`[data-station="${id}"]`)

export async function type(page: Page, key: string, value: string): Promise<void> {
  await field(page, key).fill(value)
  await field(page, key).press('Enter')
}

/** A reading as a number, once it has been measured. */
export async function reading(page: Page, id: string): Promise<number> {
  const text = await page.getByTestId(`reading-${id}`).innerText()
  return Number(text.replace('−', '-').replace('<', '').trim().split(/[\s%]/)[0])
}

/** Chooses from one of the lists in the page, by its test id. */
export async function choose(page: Page, testId: string, option: string): Promise<void> {
  await page.getByTestId(testId).locator('.el-select').click()
  await page.getByRole('option', { name: option, exact: true }).click()
}
/** The Regions station's pages. */
export const regionPage = (page: Page, id: string): Promise<void> => page.locator(`[data-page="${id}"]`).click()

export const saved = (page: Page): Promise<void> => expect(page.getByTestId('saved')).toHaveText(/^saved \d\d:/)

/** Mean R, G, B (0..255) of a part of the picture's canvas, in shares of it, once the picture has come to rest. */
export async function meanColour(
  page: Page,
  left = 0,
  top = 0,
  right = 1,
  bottom = 1,
): Promise<[number, number, number]> {
  await expect(page.getByTestId('picture')).toHaveAttribute('data-settled', 'true')
  return page.getByTestId('picture').evaluate(
    (element, [l, t, r, b]) => {
      const canvas = element as HTMLCanvasElement
      const x = Math.round(l! * canvas.width)
      const y = Math.round(t! * canvas.height)
      const { data } = canvas
        .getContext('2d')!
        .getImageData(
          x,
          y,
          Math.max(1, Math.round((r! - l!) * canvas.width)),
          Math.max(1, Math.round((b! - t!) * canvas.height)),
        )
      const sum: [number, number, number] = [0, 0, 0]
      for (let i = 0; i < data.length; i += 4) for (let c = 0; c < 3; c++) sum[c]! += data[i + c]!
      return sum.map((v) => (v * 4) / data.length) as [number, number, number]
    },
    [left, top, right, bottom],
  )
}

/** Waits until the picture's mean colour has become another one than `before`. */
export async function changed(page: Page, before: readonly number[]): Promise<[number, number, number]> {
  await expect.poll(async () => (await meanColour(page)).some((v, c) => Math.abs(v - before[c]!) > 0.05)).toBe(true)
  return meanColour(page)
}

/** To a frame of a shot that begins with its footage, by the time line's keys. */
export async function goToFrame(page: Page, frame: number): Promise<void> {
  const line = page.getByRole('slider', { name: 'Frame' })
  await line.press('Home')
  for (let i = 0; i < Math.floor(frame / 10); i++) await line.press('Shift+ArrowRight')
  for (let i = 0; i < frame % 10; i++) await line.press('ArrowRight')
  await expect(page.getByTestId('frame')).toContainText(new RegExp(`^${frame} /`))
}

/** Back to the shot's first revision. */
export async function resetShot(name: string): Promise<void> {
  const { id } = await demoShot(name)
  for (;;) {
    const shot = (await (await fetch(`${address()}/api/shots/${id}`)).json()) as {
      revision: { headId: string; canUndo: boolean }
    }
    if (!shot.revision.canUndo) return
    await fetch(`${address()}/api/shots/${id}/undo`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ expectedId: shot.revision.headId }),
    })
  }
}

/** Back to the shot's first revision, and shown straight on top of it: so that what is bright clips. */
export async function showStraight(name: string): Promise<void> {
  await resetShot(name)
  const { id } = await demoShot(name)
  const { revision } = (await (await fetch(`${address()}/api/shots/${id}`)).json()) as ShotDetail
  const { headId: parentId, grade } = revision
  const kept = await fetch(`${address()}/api/shots/${id}/revisions`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      parentId,
      summary: 'Straight',
      grade: { ...grade, show: { ...grade.show, method: 'straight' } },
    }),
  })
  expect(kept.ok).toBe(true)
}

/** The number of bright pixels of an instrument's trace. */
export function tracePixels(page: Page, name: string): Promise<number> {
  return page.getByTestId(`${name}-trace`).evaluate((element) => {
    const canvas = element as HTMLCanvasElement
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height)
    let lit = 0
    for (let i = 3; i < data.length; i += 4) if (data[i]! > 0) lit++
    return lit
  })
}

/** Draws a part on the picture to be measured; places in shares of the frame. */
export async function drawPart(page: Page, left: number, top: number, right: number, bottom: number): Promise<void> {
  await drawOnPicture(page, [left, top], [right, bottom])
  await expect(page.getByTestId('part-bar')).toContainText('luma')
}
