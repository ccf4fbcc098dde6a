// The Projects view: what a project shows of itself, and what is done with one as a whole.
import { readFileSync } from 'node:fs'
import type { ProjectSummary } from '@contracts/responses'
import type { Locator, Page } from '@playwright/test'
import { address } from './bench-page'
import { expect, test } from './program'

const all = async (): Promise<readonly ProjectSummary[]> =>
  (await (await fetch(`${address()}/api/projects`)).json()) as ProjectSummary[]
const card = (page: Page, name: string): Locator =>
  page.locator('li.project').filter({ has: page.getByText(name, { exact: true }) })

test('a project is made, renamed, copied, archived, removed and restored', async ({ page }) => {
  await page.goto(`${address()}/`)
  await expect(card(page, 'Ashglaze')).toContainText(/of \d+ finished/)
  await card(page, 'Ashglaze').scrollIntoViewIfNeeded()
  await expect(async () => {
    const pictures = await card(page, 'Ashglaze')
      .locator('img')
      .evaluateAll((all) => all.map((i) => [i.getAttribute('src'), (i as HTMLImageElement).naturalWidth] as const))
    expect(pictures.filter(([, width]) => width > 0).length, JSON.stringify(pictures)).toBeGreaterThan(1)
  }).toPass({ timeout: 60_000 })
  await page.getByLabel('New project').fill('Second firing')
  await page.getByRole('button', { name: 'Create' }).click()
  await expect(page).toHaveURL(/\/reel/)
  await page.goto(`${address()}/`)
  await page.getByRole('button', { name: 'Rename Second firing' }).click()
  await page.getByRole('textbox', { name: 'New name of Second firing' }).fill('Third firing')
  await page.keyboard.press('Enter')
  await expect(card(page, 'Third firing')).toBeVisible()
  await page.getByRole('button', { name: 'Duplicate Third firing' }).click()
  await expect(card(page, 'Third firing, copy')).toBeVisible()
  await page.getByRole('button', { name: 'Archive Third firing, copy' }).click()
  await expect(card(page, 'Third firing, copy')).toHaveCount(0)
  await page.getByRole('button', { name: /^Archived, 1$/ }).click()
  await page.getByRole('button', { name: 'Unarchive Third firing, copy' }).click()
  await expect(page.getByRole('button', { name: 'Archive Third firing, copy' })).toBeVisible()
  for (const name of ['Third firing, copy', 'Third firing'])
    await page.getByRole('button', { name: `Remove ${name}`, exact: true }).click()
  await expect(card(page, 'Third firing')).toHaveCount(0)
  await page.getByRole('button', { name: 'Restore' }).click()
  await expect(card(page, 'Third firing')).toBeVisible()
  await page.getByRole('button', { name: 'Remove Third firing', exact: true }).click()
})

test('files that are dropped anywhere begin a project named after the first of them', async ({ page }) => {
  await page.goto(`${address()}/`)
  const bytes = [...readFileSync('demo/footage/potter.mov')]
  const files = await page.evaluateHandle((data) => {
    const transfer = new DataTransfer()
    transfer.items.add(new File([new Uint8Array(data)], 'Morning take.mov', { type: 'video/quicktime' }))
    return transfer
  }, bytes)
  await page.dispatchEvent('.page', 'drop', { dataTransfer: files })
  await expect(page).toHaveURL(/\/reel/)
  await expect(page.locator('[data-shot="Morning take.mov"]')).toBeVisible({ timeout: 30_000 })
  const made = (await all()).find((p) => p.name === 'Morning take')
  expect(made?.shotCount).toBe(1)
  await fetch(`${address()}/api/projects/${made?.id}`, { method: 'DELETE' })
})

test('the media folder begins a project too', async ({ page }) => {
  await page.goto(`${address()}/`)
  await page.getByRole('button', { name: 'From the media folder' }).click()
  await expect(page.getByRole('region', { name: 'Media folder' })).toBeVisible()
  const made = (await all()).find((p) => p.name === 'New project')
  await fetch(`${address()}/api/projects/${made?.id}`, { method: 'DELETE' })
})
