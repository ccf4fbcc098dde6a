// Every view and dialog against the rules of WCAG 2.2 AA that a program can check.
import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { address, demoShot, openBench, resetShot } from './bench-page'
import { sentencesIn } from '../support/sentences'
import { expect, test } from './program'

/** What is wrong, as one line for each place. */
async function faults(page: Page): Promise<readonly string[]> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
    .analyze()
  const tips = await page.locator('[data-tip]').evaluateAll((all) => all.map((e) => e.getAttribute('data-tip') ?? ''))
  const long = tips.filter((words) => sentencesIn(words) > 2).map((words) => `more than two sentences: ${words}`)
  return [
    ...long,
    ...violations.flatMap(({ id, impact, nodes }) =>
      nodes.map(
        ({ target, failureSummary = '' }) =>
          `${impact} ${id}: ${target.join(' ')} (${failureSummary.split('\n')[1]?.trim()})`,
      ),
    ),
  ]
}

test.beforeEach(() => resetShot('Potter at the bench'))

const views: readonly (readonly [string, () => Promise<string>])[] = [
  ['Projects', () => Promise.resolve('/')],
  ['Reel', async () => `/projects/${(await demoShot('Potter at the bench')).projectId}/reel`],
  ['Continuity', async () => `/projects/${(await demoShot('Potter at the bench')).projectId}/continuity`],
  ['Dispatch', async () => `/shots/${(await demoShot('Potter at the bench')).id}/dispatch`],
  ['Record', async () => `/shots/${(await demoShot('Potter at the bench')).id}/record`],
  ['the grade sheet', async () => `/shots/${(await demoShot('Potter at the bench')).id}/sheet`],
  ['cutting', async () => `/shots/${(await demoShot('Potter at the bench')).id}/cut`],
  ['LUTs', () => Promise.resolve('/luts/inspect')],
  ['the contact sheet', () => Promise.resolve('/luts/sheet')],
  ['Cameras', () => Promise.resolve('/cameras')],
  ['looking up', () => Promise.resolve('/cameras/lookup')],
  ['measuring', () => Promise.resolve('/cameras/measure')],
  ['Standards', () => Promise.resolve('/standards')],
  ['the glossary', () => Promise.resolve('/glossary')],
  ['nowhere', () => Promise.resolve('/no/such/place')],
]
for (const [name, path] of views)
  test(`${name} has no fault that can be found by rule`, async ({ page }) => {
    await page.goto(`${address()}${await path()}`)
    await expect(page.locator('main, [role="main"]').first()).toBeVisible()
    // What is listed is there, or was asked for and is none.
    await expect(page.locator('h1').first()).toBeAttached()
    await page.waitForLoadState('load')
    await expect(page.locator('main').first()).not.toBeEmpty()
    expect(await faults(page)).toEqual([])
  })

test('the Bench has none, at any of its stations', async ({ page }) => {
  test.slow()
  await openBench(page, 'Potter at the bench')
  for (const key of ['1', '2', '3', '4', '5', '6', '7', '8']) {
    await page.keyboard.press(key)
    await expect(page.locator('[role="tab"][aria-selected="true"]').first()).toBeVisible()
    expect([key, await faults(page)]).toEqual([key, []])
  }
})

test('what opens over the Bench has none', async ({ page }) => {
  await openBench(page, 'Potter at the bench')
  await page.keyboard.press('?')
  await expect(page.getByRole('region', { name: 'Keys', exact: true })).toBeVisible()
  expect(['keys', await faults(page)]).toEqual(['keys', []])
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+k')
  await expect(page.getByRole('dialog', { name: 'Commands' }).getByRole('option').first()).toBeVisible()
  expect(['palette', await faults(page)]).toEqual(['palette', []])
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Tour' }).click()
  await expect(page.locator('.driver-popover')).toBeVisible()
  // At once, while the light still moves to its place.
  await expect(page.locator('.driver-active-element')).not.toHaveAttribute('aria-expanded', { timeout: 1 })
  expect(['tour', await faults(page)]).toEqual(['tour', []])
})
