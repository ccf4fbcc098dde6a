// bin/screens: one current picture of each main view, from the demo data, at 1280×800.
import { mkdirSync } from 'node:fs'
import type { Page } from '@playwright/test'
import type { ProjectSummary, ShotSummary } from '@contracts/responses'
import { startChromium } from '../support/chromium'
import { startDemoInstance } from '../support/demo-instance'
import { drawOnPicture, pickOnPicture } from '../support/drawing'
import { until } from '../support/until'
import { takeFirstPass } from './first-pass'
import { takeStrips } from './strips'

const folder = 'docs/screenshots'
mkdirSync(folder, { recursive: true })
await takeStrips()
// Views that show what was done are taken from the project that is half-way through.
process.env['PALE_DEMO'] = 'both'
const instance = await startDemoInstance()
const browser = await startChromium()
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  const take = async (name: string): Promise<void> => {
    // Those in view; others are loaded when they come into it.
    await page.waitForFunction(() =>
      [...document.images].every((i) => {
        const { top, bottom } = i.getBoundingClientRect()
        return bottom <= 0 || top >= innerHeight || (i.complete && i.naturalWidth > 0)
      }),
    )
    // No tip in the way, no row lit.
    await page.mouse.move(640, 799)
    await page.waitForTimeout(700)
    await page.screenshot({ path: `${folder}/${name}.png` })
    console.log(`${folder}/${name}.png`)
  }
  const halfway = await halfwayThrough(instance.address)
  await page.goto(instance.address)
  await page.getByText('Ashglaze, second week').waitFor()
  await page.waitForLoadState('networkidle')
  await take('projects')
  await page.goto(`${instance.address}/projects/${halfway.projectId}/reel`)
  await page.getByText('measuring').first().waitFor({ state: 'detached', timeout: 240_000 })
  await take('reel')
  await page.goto(`${instance.address}/projects/${halfway.projectId}/continuity?scene=all`)
  await page.locator('.course .shot').nth(1).click()
  await page.keyboard.press('r')
  await page.locator('.course .shot').nth(2).click()
  await page.getByTestId('jumps').getByRole('button').first().waitFor({ timeout: 240_000 })
  await page.getByText(/measured$/).waitFor({ state: 'detached', timeout: 240_000 })
  await page.locator('[data-testid="pair-stage"][data-settled="true"]').waitFor()
  await page.getByText('Looking for what both show').waitFor({ state: 'detached', timeout: 60_000 })
  await take('continuity')
  await takeFirstPass(browser, instance.address, `${folder}/first-pass.png`)
  await page.goto(`${instance.address}/shots/${halfway.id}/record`)
  await page.locator('[data-revision]').nth(2).waitFor()
  await take('record')
  await page.getByRole('link', { name: 'Dispatch' }).click()
  await page.getByTestId('lut-error').waitFor()
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await page.getByRole('progressbar').first().waitFor()
  await take('dispatch')
  await page.goto(instance.address)
  await page.getByText('Ashglaze', { exact: true }).click()
  await page.getByRole('link', { name: 'Glaze shelf' }).waitFor()
  // Cuts and the clip trace need the proxies that are made in the background.
  await page.getByText(/under way/).waitFor({ state: 'detached', timeout: 120_000 })
  await page
    .locator('[data-shot="Ashglaze assembly"]')
    .scrollIntoViewIfNeeded()
    .catch(() => undefined)
  await page.keyboard.press('End')
  await page.getByRole('button', { name: 'Cut into shots' }).click()
  await page.getByRole('button', { name: 'Find cuts' }).click()
  await page.getByText('8 cuts found').waitFor()
  await take('cut')
  await page.goBack()
  await page.getByRole('link', { name: 'Glaze shelf' }).click()
  await settled(page)
  await type(page, 'exposureStops', '0.15')
  await page.locator('[data-station="shape"]').click()
  await type(page, 'contrast', '1.12')
  await page.getByRole('button', { name: 'curves and zones', exact: true }).click()
  const curve = page.getByTestId('tone-curve')
  const box = (await curve.boundingBox())!
  await curve.click({ position: { x: box.width * 0.36, y: box.height * 0.67 } })
  await settled(page)
  await take('bench')
  await page.locator('[data-station="hue"]').click()
  await page.getByRole('button', { name: 'curves and colours', exact: true }).click()
  await page.getByRole('button', { name: 'saturation by hue' }).click()
  await page.getByRole('button', { name: 'pick a colour' }).click()
  await pickOnPicture(page, [0.18, 0.62], -0.1)
  await page.keyboard.press('Escape')
  await settled(page)
  await take('bench-curves')
  await page.getByRole('link', { name: 'LUTs' }).click()
  await page.locator('[data-lut="Log 351-128 to video"]').click()
  await page.getByTestId('lut-expects').waitFor()
  await take('luts')
  await page.getByRole('link', { name: 'Contact sheet' }).click()
  await page.waitForFunction(() => {
    const s = document.querySelector<HTMLElement>('[data-testid="contact-sheet"]')
    return s !== null && Number(s.dataset['total']) > 12 && s.dataset['done'] === s.dataset['total']
  })
  await page.waitForTimeout(300)
  await take('lut-sheet')
  await page.getByRole('link', { name: 'Bench' }).click()
  await settled(page)
  await page.getByRole('link', { name: 'Next shot' }).click()
  await settled(page)
  await page.locator('[data-station="show"]').click()
  await page.getByRole('combobox', { name: 'Rendering', exact: true }).click({ force: true })
  await page.getByRole('option', { name: 'rolloff' }).click()
  await type(page, 'sceneMaximumStops', '8.2')
  await settled(page)
  await take('bench-show')
  await page.getByRole('link', { name: 'Next shot' }).click()
  await settled(page)
  await drawOnPicture(page, [0.43, 0.45], [0.48, 0.52])
  await settled(page)
  await page.getByRole('combobox', { name: 'a subject' }).selectOption('new')
  await page.getByPlaceholder('Name').fill('Potter')
  await page.getByRole('button', { name: 'Create' }).click()
  await drawOnPicture(page, [0.72, 0.84], [0.79, 0.93])
  await settled(page)
  await page.getByRole('button', { name: 'grey card' }).click()
  await page.locator('[data-reading="cardWhite"]').waitFor()
  await page.getByTestId('outside').filter({ hasText: 'attention' }).waitFor()
  await take('bench-readings')
  await page.getByRole('button', { name: 'clear' }).click()
  await page.getByTestId('aims-tab').click()
  await page.getByRole('button', { name: 'to the standard' }).click()
  await page.getByTestId('aims-status').filter({ hasText: /met/ }).waitFor()
  await settled(page)
  await page.getByRole('button', { name: 'Apply', exact: true }).click()
  await page.getByRole('button', { name: 'Readings', exact: true }).click()
  await page.locator('[data-station="regions"]').click()
  await choose(page, 'add-region', 'Face')
  await page.locator('[data-component="component-2"] .what').click()
  await type(page, 'radiusX', '24')
  await type(page, 'radiusY', '27')
  await page.locator('[data-page="level"]').click()
  await type(page, 'exposureStops', '0.6')
  await page.locator('[data-page="components"]').click()
  await page.locator('[data-component="component-1"] .what').click()
  await page.locator('[data-page="key"]').click()
  await page.locator('[data-range="hue"] .bin').first().waitFor({ state: 'attached' })
  await settled(page)
  await take('bench-region')
  await page.keyboard.press('Escape')
  await page.getByRole('combobox', { name: 'Instrument in this place' }).nth(1).selectOption('histogram')
  await page.getByRole('combobox', { name: 'Instrument in this place' }).nth(2).selectOption('chromaticity')
  await page.getByRole('combobox', { name: 'Overlays' }).selectOption('stops')
  await page.locator('[data-station="level"]').click()
  await settled(page)
  await take('bench-stops')
  await page.getByRole('link', { name: 'Standards' }).click()
  await page.getByRole('button', { name: 'Copy to change' }).waitFor()
  await take('standards')
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

/** The shot of that project which has the most to show, once all is done there. */
async function halfwayThrough(address: string): Promise<ShotSummary> {
  const get = async <T>(path: string): Promise<T> => (await (await fetch(`${address}/api${path}`)).json()) as T
  return until(
    'the second project is made',
    async () => {
      const project = (await get<readonly ProjectSummary[]>('/projects')).find((p) => p.name.endsWith('second week'))
      if (project?.renders.done !== 2) return null
      const { shots } = await get<{ shots: readonly ShotSummary[] }>(`/projects/${project.id}/reel`)
      return shots.find(({ name }) => name === 'Potter at the bench') ?? null
    },
    { withinMs: 300_000 },
  )
}

/** The picture is at its finest and its readings are taken. */
async function settled(page: Page): Promise<void> {
  await page.waitForTimeout(100)
  await page.locator('canvas[data-settled="true"]').waitFor()
  await page
    .getByTestId('outside')
    .filter({ hasText: /good|attention/ })
    .waitFor()
}

async function choose(page: Page, testId: string, option: string): Promise<void> {
  await page.getByTestId(testId).locator('.el-select').click()
  await page.getByRole('option', { name: option, exact: true }).click()
}
async function type(page: Page, key: string, value: string): Promise<void> {
  const input = page.locator(`[data-control="${key}"] input`)
  await input.fill(value)
  await input.press('Enter')
}
