// Show and both schools: displays, shoulders, LUTs in Read and Show, steps moved across Show, and what is lost by it.
import { writeFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { expect, test } from './program'
import { changed, meanColour, openBench, reading, resetShot, saved, showStraight, station, type } from './bench-page'

test.beforeEach(async () => {
  await resetShot('Glaze shelf')
  await showStraight('Window bench')
})

async function choose(page: Page, label: string, option: RegExp | string): Promise<void> {
  await page.getByRole('combobox', { name: label, exact: true }).click({ force: true })
  await page.getByRole('option', { name: option }).first().click()
}

test('a shoulder brings the window back, and the ledger says so', async ({ page }) => {
  await openBench(page, 'Window bench', 'show')
  await expect(page.locator('[data-loss="show"]')).toContainText(/lost \d/)
  const clipped = await reading(page, 'clipped')
  const before = await meanColour(page)
  await choose(page, 'Rendering', 'rolloff')
  await changed(page, before)
  expect(await reading(page, 'clipped')).toBeLessThan(clipped / 2)
  await type(page, 'sceneMaximumStops', '9')
  await expect.poll(() => reading(page, 'clipped')).toBeLessThan(0.5)
  await expect(page.getByTestId('accuracy')).toContainText(/At most ΔE 2000 0\.0/)
  const rolled = await meanColour(page)
  await choose(page, 'Rendering', 'print')
  await changed(page, rolled)
  await choose(page, 'Gamut', 'compress')
  await expect(page.locator('[data-control="gamutLimit"]')).toBeVisible()
  await saved(page)
})

test('the same grade on other displays; a brighter one is previewed, and says so', async ({ page }) => {
  await openBench(page, 'Glaze shelf', 'show')
  await expect(page.getByTestId('mapped')).toHaveCount(0)
  const middle = await reading(page, 'middle')
  await choose(page, 'Display', /PQ, 1000/)
  await expect(page.getByTestId('mapped')).toHaveText('mapped preview of PQ, 1000 cd/m²')
  // The signal measured is the display's own: on PQ, diffuse white sits at 58 % and the middle of the picture lower.
  await expect.poll(() => reading(page, 'white')).toBeLessThan(70)
  const picture = await meanColour(page)
  expect(picture[1]).toBeGreaterThan(40)
  await choose(page, 'Display', /gamma 2\.2/)
  await expect(page.getByTestId('mapped')).toHaveCount(0)
  await expect.poll(() => reading(page, 'middle')).toBeLessThan(middle)
  await saved(page)
})

test('moving a step across Show is one action, undone as one, and its price is shown', async ({ page }) => {
  await openBench(page, 'Window bench', 'level')
  await type(page, 'exposureStops', '-7')
  await saved(page)
  await expect.poll(() => reading(page, 'clipped')).toBeLessThan(1)
  const before = await meanColour(page)
  await page.getByRole('button', { name: 'move after Show' }).click()
  await changed(page, before)
  await expect(page.getByTestId('ledger-change')).toContainText(/clipped .* → \d/)
  const [, from, to] = /clipped ([<\d. ]+) → ([<\d. ]+) %/.exec(await page.getByTestId('ledger-change').innerText())!
  expect(Number(to)).toBeGreaterThan(Number(from!.replace('<', '')) + 3)
  await station(page, 'finish').click()
  await expect(page.getByText('After Show stand: Exposure.')).toBeVisible()
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(async () => Math.abs((await meanColour(page))[0] - before[0])).toBeLessThan(0.6)
})

test('display-referred: every step acts on the display signal', async ({ page }) => {
  await openBench(page, 'Glaze shelf', 'show')
  await choose(page, 'Steps act on', /the display signal/)
  await station(page, 'level').click()
  await expect(page.getByText('display side')).toBeVisible()
  await expect(page.getByRole('button', { name: 'move before Show' })).toBeVisible()
})

test('conversion by a supplied LUT, in Show and in Read', async ({ page }, info) => {
  // A table that turns the picture round: what it shows can come from nowhere else.
  const inverted = Array.from({ length: 8 }, (_, i) => [i & 1, (i >> 1) & 1, i >> 2].map((v) => 1 - v).join(' '))
  const file = info.outputPath('negative.cube')
  writeFileSync(file, `LUT_3D_SIZE 2\n${inverted.join('\n')}\n`)
  await openBench(page, 'Glaze shelf', 'show')
  const straight = await meanColour(page)
  await choose(page, 'Rendering', 'LUT')
  await page.getByLabel('LUT file').setInputFiles(file)
  await changed(page, straight)
  await expect(page.getByTestId('accuracy')).toContainText('exact')
  await station(page, 'read').click()
  const shown = await meanColour(page)
  await choose(page, 'Convert by', 'supplied LUT')
  await page.getByLabel('LUT file').setInputFiles(file)
  await changed(page, shown)
  await choose(page, 'It returns', 'Gamma 2.4')
  await saved(page)
})
