// bin/screens: one current picture of each main view, from the demo data, at 1280×800.
import { mkdirSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { startChromium } from '../support/chromium'
import { startDemoInstance } from '../support/demo-instance'

const folder = 'docs/screenshots'
mkdirSync(folder, { recursive: true })
const instance = await startDemoInstance()
const browser = await startChromium()
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  const take = async (name: string): Promise<void> => {
    await page.waitForFunction(() => [...document.images].every((i) => i.complete && i.naturalWidth > 0))
    // No tip in the way, no row lit.
    await page.mouse.move(640, 799)
    await page.waitForTimeout(700)
    await page.screenshot({ path: `${folder}/${name}.png` })
    console.log(`${folder}/${name}.png`)
  }
  await page.goto(instance.address)
  await page.getByText('Ashglaze').waitFor()
  await page.waitForLoadState('networkidle')
  await take('projects')
  await page.getByText('Ashglaze').click()
  await page.getByRole('link', { name: 'Glaze shelf' }).waitFor()
  await page.waitForLoadState('networkidle')
  await take('reel')
  await page.getByRole('button', { name: 'Contact sheet' }).click()
  await page.waitForLoadState('networkidle')
  await take('contact-sheet')
  await page.getByRole('button', { name: 'Table' }).click()
  // Cuts and the clip trace need the proxies that are made in the background.
  await page.getByText(/under way/).waitFor({ state: 'detached', timeout: 120_000 })
  await page.locator('[data-shot="Ashglaze assembly"]').scrollIntoViewIfNeeded().catch(() => undefined)
  await page.keyboard.press('End')
  await page.getByRole('button', { name: 'Cut into shots' }).click()
  await page.getByRole('button', { name: 'Find cuts' }).click()
  await page.getByText('8 cuts found').waitFor()
  await take('cut')
  await page.goBack()
  await page.getByRole('link', { name: 'Courtyard walk' }).click()
  await settled(page)
  await page.locator('.timeline[data-traced="1"]').waitFor()
  await take('bench-trace')
  await page.getByRole('link', { name: 'Reel' }).click()
  await page.getByRole('link', { name: 'Glaze shelf' }).click()
  await settled(page)
  await type(page, 'exposureStops', '0.15')
  await page.locator('[data-station="shape"]').click()
  await type(page, 'contrast', '1.12')
  const curve = page.getByTestId('tone-curve')
  const box = (await curve.boundingBox())!
  await curve.click({ position: { x: box.width * 0.36, y: box.height * 0.67 } })
  await settled(page)
  await take('bench')
  await page.getByRole('link', { name: 'Next shot' }).click()
  await settled(page)
  await page.locator('[data-station="show"]').click()
  await page.getByRole('combobox', { name: 'Way', exact: true }).click({ force: true })
  await page.getByRole('option', { name: 'rolloff' }).click()
  await type(page, 'sceneMaximumStops', '8.2')
  await settled(page)
  await take('bench-show')
  await page.getByRole('link', { name: 'Next shot' }).click()
  await settled(page)
  await part(page, [0.43, 0.45], [0.48, 0.52])
  await page.getByRole('combobox', { name: 'a subject' }).selectOption('new')
  await page.getByPlaceholder('Name').fill('Potter')
  await page.getByRole('button', { name: 'keep' }).click()
  await part(page, [0.72, 0.84], [0.79, 0.93])
  await page.getByRole('button', { name: 'grey card' }).click()
  await page.locator('[data-reading="cardWhite"]').waitFor()
  await page.getByTestId('outside').filter({ hasText: 'outside' }).waitFor()
  await take('bench-readings')
  await page.getByRole('button', { name: 'let go' }).click()
  await page.locator('[data-station="regions"]').click()
  await page.getByRole('button', { name: 'Add a region' }).click()
  await type(page, 'exposureStops', '0.6')
  await page.locator('.overlay .body').press('Shift+ArrowUp')
  await settled(page)
  await take('bench-region')
  await page.keyboard.press('Escape')
  await page.getByRole('combobox', { name: 'Instrument in this place' }).nth(1).selectOption('histogram')
  await page.getByRole('combobox', { name: 'Instrument in this place' }).nth(2).selectOption('chromaticity')
  await page.getByRole('combobox', { name: 'marks' }).selectOption('stops')
  await page.locator('[data-station="level"]').click()
  await settled(page)
  await take('bench-stops')
  await page.getByRole('link', { name: 'Standards' }).click()
  await page.getByRole('button', { name: 'Copy to change' }).waitFor()
  await take('standards')
  await page.getByRole('link', { name: 'Dispatch' }).click()
  await page.getByTestId('lut-error').waitFor()
  await page.getByRole('button', { name: 'Render' }).click()
  await page.getByRole('progressbar').waitFor()
  await take('dispatch')
  await page.getByRole('link', { name: 'Cameras' }).click()
  await page.getByRole('img', { name: /Log 420/ }).waitFor()
  await take('cameras')
  await page.getByRole('link', { name: 'Compare' }).click()
  await page.getByTestId('sentences').waitFor()
  await take('compare')
} finally {
  await browser.close()
  await instance.dispose()
}

/** The picture is at its finest and its readings are taken. */
async function settled(page: Page): Promise<void> {
  await page.waitForTimeout(100)
  await page.locator('canvas[data-settled="true"]').waitFor()
  await page.getByTestId('outside').filter({ hasText: /within|outside/ }).waitFor()
}

/** Draws a part on the picture, between places in shares of it. */
async function part(page: Page, from: readonly [number, number], to: readonly [number, number]): Promise<void> {
  const box = (await page.getByTestId('picture').boundingBox())!
  await page.mouse.move(box.x + box.width * from[0], box.y + box.height * from[1])
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * to[0], box.y + box.height * to[1], { steps: 4 })
  await page.mouse.up()
  await settled(page)
}

async function type(page: Page, key: string, value: string): Promise<void> {
  const input = page.locator(`[data-control="${key}"] input`)
  await input.fill(value)
  await input.press('Enter')
}
