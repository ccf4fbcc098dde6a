// The room on the Bench: layouts, the divider, the whole screen, and the picture in a window of its own.
import type { Locator, Page } from '@playwright/test'
import { expect, test } from './program'
import { openBench, resetShot, saved, type } from './bench-page'

const shot = 'Market table, phone'
test.beforeEach(() => resetShot(shot))

const widthOf = async (part: Locator): Promise<number> => (await part.boundingBox())!.width
const picture = (page: Page): Locator => page.getByTestId('picture')
const meridianHeight = async (page: Page): Promise<number> =>
  (await page.getByRole('region', { name: 'Meridian' }).boundingBox())!.height

test('three layouts by key, kept over a reload; the Meridian folds and opens', async ({ page }) => {
  await openBench(page, shot)
  const balanced = await widthOf(picture(page))
  const usual = await meridianHeight(page)
  await page.keyboard.press('l')
  await expect.poll(() => widthOf(picture(page))).toBeGreaterThan(balanced * 1.15)
  expect(await meridianHeight(page)).toBeLessThan(usual / 3)
  await expect(page.getByRole('tab', { name: /^Level/ })).toBeVisible()
  await page.reload()
  await expect.poll(() => widthOf(picture(page))).toBeGreaterThan(balanced * 1.15)
  await page.keyboard.press('l')
  await expect.poll(() => widthOf(picture(page))).toBeLessThan(balanced * 0.85)
  await expect.poll(() => meridianHeight(page)).toBe(usual)
  await page.keyboard.press('k')
  await expect.poll(() => meridianHeight(page)).toBeGreaterThan(usual * 2)
  // Every button of the transport is there to be pressed, however small the picture is.
  await page.getByRole('button', { name: 'as shot' }).click()
  await expect(page.getByRole('button', { name: 'as shot' })).toHaveAttribute('aria-pressed', 'true')
})

test('the divider is dragged, moved by keys, and put back by a double click', async ({ page }) => {
  await openBench(page, shot)
  const divider = page.getByRole('separator', { name: 'Divider between picture and instruments' })
  const before = (await divider.boundingBox())!
  await page.mouse.move(before.x + 6, before.y + 100)
  await page.mouse.down()
  await page.mouse.move(before.x - 194, before.y + 100, { steps: 4 })
  await page.mouse.up()
  await expect.poll(async () => (await divider.boundingBox())!.x).toBeLessThan(before.x - 150)
  const dragged = (await divider.boundingBox())!.x
  await divider.focus()
  await page.keyboard.press('ArrowRight')
  await expect.poll(async () => (await divider.boundingBox())!.x).toBeGreaterThan(dragged + 5)
  await divider.dblclick()
  await expect.poll(async () => (await divider.boundingBox())!.x).toBeCloseTo(before.x, 0)
})

test('the picture has the whole screen with its keys; Esc gives the Bench back', async ({ page }) => {
  await openBench(page, shot)
  const before = await widthOf(picture(page))
  await page.keyboard.press('Shift+F')
  await expect.poll(() => widthOf(picture(page))).toBeGreaterThan(before * 1.6)
  await expect(page.getByRole('region', { name: 'Meridian' })).toBeHidden()
  const frame = page.getByTestId('frame')
  const at = await frame.textContent()
  await page.keyboard.press('d')
  await expect(frame).not.toHaveText(at ?? '')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('region', { name: 'Meridian' })).toBeVisible()
  await expect.poll(() => widthOf(picture(page))).toBe(before)
})

test('the picture in a window of its own follows the Bench', async ({ page, context }) => {
  await openBench(page, shot)
  const opening = context.waitForEvent('page')
  await page.getByRole('button', { name: 'Layout' }).click()
  await page.getByRole('button', { name: 'Picture in a window of its own' }).click()
  const window_ = await opening
  await expect(window_).toHaveTitle(new RegExp(`Picture · ${shot}`))
  const mean = (of: Page, id: string): Promise<number> =>
    of.getByTestId(id).evaluate((canvas) => {
      const { width, height } = canvas as HTMLCanvasElement
      const { data } = (canvas as HTMLCanvasElement).getContext('2d')!.getImageData(0, 0, width, height)
      return data.reduce((sum, v) => sum + v, 0) / data.length
    })
  const dark = await mean(window_, 'detached-picture')
  await type(page, 'exposureStops', '1')
  await saved(page)
  await expect.poll(() => mean(window_, 'detached-picture')).toBeGreaterThan(dark + 10)
  await expect
    .poll(async () => Math.abs((await mean(window_, 'detached-picture')) - (await mean(page, 'picture'))))
    .toBeLessThan(0.01)
})
