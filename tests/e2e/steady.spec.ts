// A drawn part kept as it is along the clip: a tone by marks of exposure, a surface neutral by marks of its balance.
import type { ShotDetail } from '@contracts/responses'
import { expect, test } from './program'
import { address, demoShot, goToFrame, openBench, resetShot, saved } from './bench-page'

const shot = 'Window bench'
test.beforeEach(async ({ page }) => {
  await expect.poll(async () => (await demoShot(shot)).proxy !== null).toBe(true)
  await resetShot(shot)
  await openBench(page, shot)
})
test.afterEach(() => resetShot(shot))

test('without a part it says what to draw; with one, growing light is held by marks, and undone', async ({ page }) => {
  await page.keyboard.press('2')
  const keep = page.getByRole('button', { name: 'Keep this tone steady' })
  await expect(page.getByText('Draw a part on the picture first (B)')).toBeVisible()
  await keep.click({ force: true })
  await expect(page.getByTestId('steady-told')).toHaveCount(0)
  await goToFrame(page, 20)
  await page.keyboard.press('b')
  await keep.click()
  const told = page.getByTestId('steady-told')
  await expect(told).toContainText(/\d+ marks: this tone stays within 0\.0\d stop; it moved by 0\.[12]\d\./, {})
  const marks = page.getByTestId('keyframes').locator('[data-mark]')
  expect(await marks.count()).toBeGreaterThan(1)
  await saved(page)
  const { id } = await demoShot(shot)
  const { revision } = (await (await fetch(`${address()}/api/shots/${id}`)).json()) as ShotDetail
  expect(revision.grade.animation).toMatchObject([{ key: 'exposureStops', path: 'linear' }])
  // As the light grows, less exposure is wanted.
  const values = revision.grade.animation[0]!.keyframes.map((m) => m.value)
  expect(values.at(-1)).toBeLessThan(values[0]! - 0.1)
  await page.keyboard.press('ControlOrMeta+z')
  await expect(marks).toHaveCount(0)
  await expect(told).toHaveCount(0)
})

test('a surface is kept neutral by temperature and tint; it is asked for from the palette too', async ({ page }) => {
  await page.keyboard.press('2')
  await page.keyboard.press('b')
  await page.keyboard.press('ControlOrMeta+k')
  await page.keyboard.type('Keep this neutral')
  await expect(page.getByRole('option', { name: /Keep this neutral/ })).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('steady-told')).toContainText(/within \d+ mired of neutral|holds still already/, {})
})
