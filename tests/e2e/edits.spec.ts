// No edit is lost or lands where it does not belong: hands that leave a control, answers that come late, two Benches.
import type { Locator, Page } from '@playwright/test'
import type { ShotDetail } from '@contracts/responses'
import { drawOnPicture } from '../support/drawing'
import { expect, test } from './program'
import {
  address,
  choose,
  control,
  demoShot,
  field,
  openBench,
  regionPage,
  resetShot,
  saved,
  station,
  type,
} from './bench-page'

const shot = 'Market table, phone'
const other = 'Market table, old camera'
const detail = async (name: string): Promise<ShotDetail> =>
  (await (await fetch(`${address()}/api/shots/${(await demoShot(name)).id}`)).json()) as ShotDetail
test.beforeEach(async () => {
  await resetShot(shot)
  await resetShot(other)
})

/** Presses on a control, moves it, and leaves its station by key while the button is down. */
async function pressAndLeave(page: Page, target: Locator, key: string): Promise<void> {
  const box = (await target.boundingBox())!
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x + 24, y + 6, { steps: 3 })
  await page.keyboard.press(key)
  await page.mouse.up()
}
/** Another control is changed and saved, and is there after a reload. */
async function savesStill(page: Page): Promise<void> {
  await station(page, 'shape').click()
  await page.getByRole('button', { name: 'tone', exact: true }).click()
  await type(page, 'contrast', '1.21')
  await saved(page)
  expect((await detail(shot)).revision.grade.steps.find((s) => s.kind === 'contrast')?.params['contrast']).toBe(1.21)
}

test.describe('a gesture ends with its control', () => {
  test('a scale of Level that is left by key while it is dragged', async ({ page }) => {
    await openBench(page, shot)
    await pressAndLeave(page, control(page, 'exposureStops'), '3')
    await savesStill(page)
    const { steps } = (await detail(shot)).revision.grade
    expect(steps.find((s) => s.kind === 'exposure')?.params['exposureStops']).not.toBe(0)
  })

  test('a point of a curve', async ({ page }) => {
    await openBench(page, shot, 'shape')
    await page.getByRole('button', { name: 'curves and zones', exact: true }).click()
    await pressAndLeave(page, page.getByTestId('tone-curve').locator('.point').last(), '2')
    await savesStill(page)
  })

  test('the strength at a station', async ({ page }) => {
    await openBench(page, shot)
    await type(page, 'exposureStops', '0.5')
    await pressAndLeave(page, page.getByRole('slider', { name: /^Strength of Level/ }), ']')
    await expect(page.getByTestId('picture')).toHaveAttribute('aria-label', new RegExp(other))
    await page.goBack()
    await expect(page.getByTestId('reading-middle')).toContainText('%')
    await savesStill(page)
  })

  test('a handle of a region, and the range of a key', async ({ page }) => {
    await openBench(page, shot, 'regions')
    await choose(page, 'add-region', 'Ellipse')
    const handle = page.getByTestId('region-overlay').getByLabel('right edge', { exact: true })
    await pressAndLeave(page, handle, '2')
    await savesStill(page)
    await station(page, 'regions').click()
    await regionPage(page, 'key')
    await page.getByRole('button', { name: 'Add a key' }).click()
    await page.getByTestId('key-add').click()
    await drawOnPicture(page, [0.3, 0.4], [0.4, 0.5])
    const end = page.locator('[data-range="chroma"] .end').first()
    await expect(end).toBeAttached()
    await pressAndLeave(page, end, '2')
    await type(page, 'exposureStops', '0.33')
    await saved(page)
    await resetShot(shot)
  })
})

test('a late answer for the shot before leaves the open one on the Bench', async ({ page }) => {
  const [first, second] = [await demoShot(shot), await demoShot(other)]
  await openBench(page, shot)
  await page.goto(`${address()}/shots/${second.id}/bench`)
  await expect(page.getByTestId('reading-middle')).toContainText('%')
  let late = (): void => undefined
  const held = new Promise<void>((done) => {
    late = done
  })
  await page.route(`**/api/shots/${first.id}`, async (route) => {
    await held
    await route.continue()
  })
  const answered = page.waitForResponse((r) => r.url().endsWith(`/api/shots/${first.id}`))
  const asked = page.waitForRequest((r) => r.url().endsWith(`/api/shots/${first.id}`))
  await page.evaluate((to) => window.history.pushState({}, '', to), `/shots/${first.id}/bench`)
  await page.evaluate(() => window.dispatchEvent(new PopStateEvent('popstate', { state: {} })))
  await asked
  await page.goBack()
  await expect(page).toHaveURL(new RegExp(second.id))
  await expect(page.getByTestId('picture')).toHaveAttribute('aria-label', new RegExp(other))
  late()
  await answered
  await type(page, 'exposureStops', '0.4')
  await saved(page)
  await expect(page.getByTestId('picture')).toHaveAttribute('aria-label', new RegExp(other))
  const exposure = async (name: string): Promise<unknown> =>
    (await detail(name)).revision.grade.steps.find((s) => s.kind === 'exposure')?.params['exposureStops']
  expect([await exposure(shot), await exposure(other)]).toEqual([0, 0.4])
})

test("a shared look's strength that is turned before its shot is left is turned on that shot alone", async ({
  page,
}) => {
  const [first, second] = [await demoShot(shot), await demoShot(other)]
  await fetch(`${address()}/api/shots/changes`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ shotIds: [first.id, second.id], scene: { name: 'The market' } }),
  })
  await openBench(page, shot, 'look')
  await page.getByRole('button', { name: 'shared look', exact: true }).click()
  await page.getByLabel('Share a look …').selectOption({ label: 'Silver retained' })
  await page.getByRole('button', { name: 'on the scene The market' }).click()
  await expect(page.getByTestId('shared-look')).toContainText('on The market')
  await field(page, 'look-own-strength').fill('40')
  await field(page, 'look-own-strength').press('Enter')
  // At once, before the server has been asked.
  await page.locator('body').click({ position: { x: 300, y: 20 } })
  await page.keyboard.press(']')
  await expect(page.getByTestId('picture')).toHaveAttribute('aria-label', new RegExp(other))
  await expect.poll(async () => (await detail(shot)).look?.ownStrength).toBeCloseTo(0.4)
  expect((await detail(other)).look?.ownStrength).toBe(1)
  await expect(page.getByTestId('picture')).toHaveAttribute('aria-label', new RegExp(other))
  await station(page, 'level').click()
  await type(page, 'exposureStops', '0.2')
  await saved(page)
  const ofOther = (await detail(other)).revision.grade
  expect(ofOther.steps.find((s) => s.kind === 'exposure')?.params['exposureStops']).toBe(0.2)
  expect((await detail(shot)).revision.grade.steps.find((s) => s.kind === 'exposure')?.params['exposureStops']).toBe(0)
})

test('a track belongs to the component that was followed, and to no other shot', async ({ page }) => {
  const rolling = 'Yard under cloud'
  await resetShot(rolling)
  await openBench(page, rolling, 'regions')
  await choose(page, 'add-region', 'Ellipse')
  await choose(page, 'add-component', 'Rectangle')
  await page.locator('button.what').first().click()
  await regionPage(page, 'motion')
  await page.getByTestId('track-both').click()
  await regionPage(page, 'components')
  await page.locator('button.what').last().click()
  const trackedComponents = async (): Promise<readonly boolean[]> =>
    ((await detail(rolling)).revision.grade.regions[0]?.components ?? []).map(
      ({ source }) => source.kind === 'shape' && source.motion?.track !== undefined,
    )
  await expect.poll(trackedComponents).toEqual([true, false])
  await regionPage(page, 'motion')
  await page.getByTestId('track-both').click()
  await page.keyboard.press(']')
  await expect(page.getByTestId('picture')).not.toHaveAttribute('aria-label', new RegExp(rolling))
  const next = page.url().split('/shots/')[1]?.split('/')[0] ?? ''
  const later = async (): Promise<ShotDetail> =>
    (await (await fetch(`${address()}/api/shots/${next}`)).json()) as ShotDetail
  const regionsBefore = (await later()).revision.grade.regions.length
  await station(page, 'level').click()
  await type(page, 'exposureStops', '0.1')
  await saved(page)
  expect((await later()).revision.grade.regions).toHaveLength(regionsBefore)
  expect(await trackedComponents()).toEqual([true, false])
})

test('a detached instrument follows its own Bench and not another', async ({ page, context }) => {
  await openBench(page, shot)
  const opening = context.waitForEvent('page')
  await page.getByRole('button', { name: 'Settings of the waveform' }).click()
  await page.getByRole('button', { name: 'in a window of its own' }).click()
  const window_ = await opening
  await expect(window_).toHaveTitle(new RegExp(shot))
  const second = await context.newPage()
  await openBench(second, other)
  await type(second, 'exposureStops', '0.5')
  await saved(second)
  await expect(window_).toHaveTitle(new RegExp(shot))
  await type(page, 'exposureStops', '0.6')
  await saved(page)
  await expect(window_).toHaveTitle(new RegExp(shot))
})
