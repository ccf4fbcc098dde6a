// Commands: the palette, keys that are changed, and the sheet of keys.
import { readFileSync, writeFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { address, control, openBench, resetShot, saved, station } from './bench-page'
import { expect, test } from './program'

test.beforeEach(() => resetShot('Potter at the bench'))

const palette = (page: Page) => page.getByRole('dialog', { name: 'Commands' })
async function type(page: Page, words: string): Promise<void> {
  await page.keyboard.press('Control+k')
  await expect(palette(page).getByRole('option').first()).toBeVisible()
  await page.keyboard.type(words)
}

test('the palette opens stations, shots, views, recipes and LUTs by a part of their names, by keys alone', async ({
  page,
}) => {
  await openBench(page, 'Potter at the bench')
  await type(page, 'stations hue')
  await expect(palette(page).getByRole('option', { selected: true })).toContainText('Hue')
  await expect(palette(page).getByRole('option', { selected: true })).toContainText('4')
  await page.keyboard.press('Enter')
  await expect(palette(page)).toHaveCount(0)
  await expect(station(page, 'hue')).toHaveAttribute('aria-selected', 'true')
  // Letters that are typed are words, not keys of the Bench.
  await type(page, 'n')
  await expect(page.getByTestId('balance')).toHaveCount(0)
  await page.keyboard.press('Escape')
  await expect(palette(page)).toHaveCount(0)

  await type(page, 'recipe')
  const recipe = (await palette(page).getByRole('option', { selected: true }).locator('.name').textContent())!.trim()
  await page.keyboard.press('Enter')
  await expect(station(page, 'look')).toHaveAttribute('aria-selected', 'true')
  await saved(page)
  expect(recipe.length).toBeGreaterThan(0)

  await type(page, 'shot window')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('img', { name: /Window bench/ }).first()).toBeVisible()
  await type(page, 'view reel')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/reel/)
  await type(page, 'project ashglaze')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/reel/)
  await type(page, 'no such thing')
  await expect(palette(page).getByRole('status')).toHaveText('Nothing has these words in its name.')
  await page.keyboard.press('Enter')
  await expect(palette(page)).toBeVisible()
})

test('a key is changed, taken from another command, exported, reset and imported again', async ({ page }, info) => {
  await openBench(page, 'Potter at the bench')
  await page.keyboard.press('?')
  const sheet = page.getByRole('region', { name: 'Keys', exact: true })
  await expect(sheet).toBeVisible()
  // It fits the screen.
  expect(await page.evaluate(() => document.documentElement.scrollHeight)).toBe(800)
  const box = (await sheet.boundingBox())!
  expect(box.y).toBeGreaterThanOrEqual(0)
  await sheet.getByRole('button', { name: 'Hue: 4. Change it' }).click()
  await page.keyboard.press('2')
  await expect(sheet.getByRole('status')).toHaveText('2 is now “Hue”; “Level” has no key.')
  await sheet.getByRole('button', { name: 'Level: no key. Change it' }).click()
  await page.keyboard.press('F5')
  await expect(sheet.getByRole('status')).toContainText('F5 belongs to the page')
  const download = page.waitForEvent('download')
  await sheet.getByRole('button', { name: 'Export' }).click()
  const file = info.outputPath('keys.json')
  await (await download).saveAs(file)
  expect((JSON.parse(readFileSync(file, 'utf8')) as Record<string, string>)['station-hue']).toBe('2')
  await sheet.getByRole('button', { name: 'Close', exact: true }).click()
  await page.keyboard.press('2')
  await expect(station(page, 'hue')).toHaveAttribute('aria-selected', 'true')
  await page.reload()
  await expect(control(page, 'saturation').or(control(page, 'exposureStops')).first()).toBeVisible()
  await page.keyboard.press('1')
  await expect(station(page, 'read')).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('2')
  await expect(station(page, 'hue')).toHaveAttribute('aria-selected', 'true')

  await page.keyboard.press('?')
  await sheet.getByRole('button', { name: 'Reset all' }).click()
  await expect(sheet.getByRole('button', { name: 'Level: 2. Change it' })).toBeVisible()
  await sheet.getByLabel('File of keys').setInputFiles(file)
  await expect(sheet.getByRole('button', { name: 'Hue: 2. Change it' })).toBeVisible()
  const wrong = info.outputPath('wrong.json')
  writeFileSync(wrong, 'no keys')
  await sheet.getByLabel('File of keys').setInputFiles(wrong)
  await expect(sheet.getByRole('status')).toContainText('“wrong.json” holds no keys')
  await expect(sheet.getByRole('button', { name: 'Hue: 2. Change it' })).toBeVisible()
})

test('what is held ends when its key is let go, whatever else was pressed meanwhile', async ({ page }) => {
  await openBench(page, 'Potter at the bench')
  const picture = page.getByTestId('picture')
  await page.keyboard.down('q')
  await expect(picture).toHaveAttribute('aria-label', /as shot/)
  await page.keyboard.down('Shift')
  await page.keyboard.up('q')
  await page.keyboard.up('Shift')
  await expect(picture).not.toHaveAttribute('aria-label', /as shot/)
})

test('the palette stands on every view', async ({ page }) => {
  for (const path of ['/', '/luts/inspect', '/cameras', '/standards']) {
    await page.goto(`${address()}${path}`)
    await expect(page.locator('main').first()).toBeVisible()
    await page.keyboard.press('Control+k')
    await expect(palette(page).getByRole('option').first()).toBeVisible()
    await page.keyboard.press('Control+k')
    await expect(palette(page)).toHaveCount(0)
  }
})

test('the tour has seven stops, is left and gone on with, and ends', async ({ page }) => {
  await openBench(page, 'Potter at the bench')
  const stop = page.locator('.driver-popover')
  await page.getByRole('button', { name: 'Tour' }).click()
  await expect(stop).toContainText('The picture')
  await expect(stop).toContainText('1 of 7')
  await stop.getByRole('button', { name: 'Next', exact: true }).click()
  await expect(stop).toContainText('2 of 7')
  await stop.getByRole('button', { name: 'Next', exact: true }).click()
  await expect(stop).toContainText('3 of 7')
  await page.keyboard.press('Escape')
  await expect(stop).toHaveCount(0)
  await page.reload()
  await expect(page.locator('canvas[data-settled="true"]')).toBeVisible()
  await page.getByRole('button', { name: 'Tour' }).click()
  await expect(stop).toContainText('3 of 7')
  for (const at of [4, 5, 6, 7]) {
    await stop.getByRole('button', { name: 'Next', exact: true }).click()
    await expect(stop).toContainText(`${at} of 7`)
    const box = (await stop.boundingBox())!
    expect([at, box.x >= 0 && box.y >= 0 && box.x + box.width <= 1280 && box.y + box.height <= 800]).toEqual([at, true])
  }
  await stop.getByRole('button', { name: 'Done' }).click()
  await expect(stop).toHaveCount(0)
  await page.getByRole('button', { name: 'Tour' }).click()
  await expect(stop).toContainText('1 of 7')
})
