// Curves: for each channel, and for colours; picked in the picture and dragged there; six quick colours on the same
// curves.
import type { Page } from '@playwright/test'
import { flickOnPicture, pickOnPicture } from '../support/drawing'
import { expect, test } from './program'
import { changed, control, meanColour, openBench, resetShot, saved, type } from './bench-page'

const page_ = (page: Page, name: string) => page.getByRole('button', { name, exact: true })
test.beforeEach(() => resetShot('Market table, old camera'))

test(
  'a tone picked in the picture is a point that follows the drag; one channel bends alone, as far ' + 'as its strength',
  async ({ page }) => {
    await openBench(page, 'Market table, old camera', 'shape')
    await page_(page, 'curves and zones').click()
    await expect(page.getByTestId('distribution')).toBeVisible()
    const points = page.getByTestId('tone-curve').locator('.point')
    const before = await meanColour(page)
    await page_(page, 'pick a tone').click()
    await pickOnPicture(page, [0.6, 0.12], 0.15)
    await expect(points).toHaveCount(3)
    const lifted = await changed(page, before)
    expect(lifted[1]).toBeGreaterThan(before[1] + 4)
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect(points).toHaveCount(2)
    await flickOnPicture(page, [0.6, 0.12], 0.15)
    await expect(points).toHaveCount(3)
    await changed(page, before)
    await page.keyboard.press('Escape')
    await expect(page.getByTestId('pick-layer')).toHaveCount(0)
    // Typed, the point goes where it is told.
    const x = Number(await page.getByTestId('point-x').inputValue())
    await page.getByTestId('point-y').fill(String(x))
    await page.getByTestId('point-y').press('Enter')
    await expect.poll(async () => Math.abs((await meanColour(page))[1] - before[1])).toBeLessThan(1)
    await page_(page, 'blue').click()
    await page.getByTestId('tone-curve').locator('.point').nth(1).press('Shift+ArrowDown')
    await expect.poll(async () => (await meanColour(page))[2] - before[2]).toBeLessThan(-2)
    const bent = await meanColour(page)
    // The channels are those of the working space: the display's red moves a little with its blue.
    expect(Math.abs(bent[0] - before[0])).toBeLessThan(Math.abs(bent[2] - before[2]) * 0.6)
    await type(page, 'blueStrength', '0')
    await expect.poll(async () => Math.abs((await meanColour(page))[2] - before[2])).toBeLessThan(1)
    await saved(page)
  },
)

test(
  'a colour picked in the picture becomes a hump; the drag changes that colour and leaves the ' +
    'others; width shapes it',
  async ({ page }) => {
    await openBench(page, 'Market table, old camera', 'hue')
    await page_(page, 'curves and colours').click()
    await page_(page, 'saturation by hue').click()
    // The blue vase at the left, the green one in the middle.
    const blue = (): Promise<[number, number, number]> => meanColour(page, 0.13, 0.4, 0.17, 0.5)
    const green = (): Promise<[number, number, number]> => meanColour(page, 0.69, 0.42, 0.73, 0.5)
    const spread = (c: readonly number[]): number => Math.max(...c) - Math.min(...c)
    const blueBefore = await blue()
    const greenBefore = await green()
    await page_(page, 'pick a colour').click()
    await pickOnPicture(page, [0.15, 0.45], -0.4)
    await expect.poll(async () => spread(await blue())).toBeLessThan(spread(blueBefore) * 0.6)
    expect(Math.abs(spread(await green()) - spread(greenBefore))).toBeLessThan(6)
    await expect(page.getByTestId('colour-curve').locator('.point')).toHaveCount(5)
    // So wide that green is taken along.
    await type(page, 'push-width', '140')
    await expect.poll(async () => spread(await green())).toBeLessThan(spread(greenBefore) * 0.93)
    // Narrow and far, it tears; that is said.
    await page_(page, 'hue by hue').click()
    await page_(page, 'pick a colour').click()
    await pickOnPicture(page, [0.15, 0.45], 0.35)
    await expect(page.getByTestId('torn')).toHaveCount(0)
    await type(page, 'push-width', '12')
    await expect(page.getByTestId('torn')).toBeVisible()
    await saved(page)
  },
)

test('a quick colour is the same curve, and clean ends and quiet noise are one press each', async ({ page }) => {
  await openBench(page, 'Market table, old camera', 'hue')
  const red = (): Promise<[number, number, number]> => meanColour(page, 0.13, 0.4, 0.17, 0.5)
  const before = await red()
  await page_(page, 'curves and colours').click()
  await page.getByRole('button', { name: 'Blue' }).click()
  await type(page, 'quick-lightnessByHue', '-1')
  await expect.poll(async () => (await red())[2]).toBeLessThan(before[2] * 0.9)
  // The curve that the scale moves is the one that is shown.
  await expect(page_(page, 'lightness by hue')).toHaveAttribute('aria-pressed', 'true')
  await expect(page.getByTestId('colour-curve').locator('.point')).toHaveCount(6)
  await expect(control(page, 'quick-lightnessByHue')).toHaveAttribute('aria-valuenow', '-1')
  await page_(page, 'whole').click()
  await page.getByRole('switch', { name: 'Keep blacks and whites clean' }).press('Enter')
  await page.getByRole('button', { name: /^Quiet noise colour as measured: \d+ %$/ }).waitFor({ timeout: 30_000 })
  await saved(page)
  await page.reload()
  await expect(page.getByRole('switch', { name: 'Keep blacks and whites clean' })).toBeChecked()
})
