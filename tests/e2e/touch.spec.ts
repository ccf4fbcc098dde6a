// A tablet: no mouse and no keyboard, 1024 wide. Fingers tap, drag scales, points and the time line.
import type { Page } from '@playwright/test'
import { expect, test } from './program'
import { field, meanColour, openBench, resetShot, saved, station } from './bench-page'

test.use({ hasTouch: true, viewport: { width: 1024, height: 768 } })

/** One finger from a place to another. */
async function drag(page: Page, from: readonly [number, number], to: readonly [number, number]): Promise<void> {
  const client = await page.context().newCDPSession(page)
  const send = (type: 'touchStart' | 'touchMove' | 'touchEnd', touchPoints: { x: number; y: number }[]) =>
    client.send('Input.dispatchTouchEvent', { type, touchPoints })
  await send('touchStart', [{ x: from[0], y: from[1] }])
  for (let i = 1; i <= 6; i++)
    await send('touchMove', [{ x: from[0] + ((to[0] - from[0]) * i) / 6, y: from[1] + ((to[1] - from[1]) * i) / 6 }])
  await send('touchEnd', [])
  await client.detach()
}

test('a shot is opened, exposed, bent and scrubbed by fingers, and nothing is cut off', async ({ page }) => {
  const name = 'Market table, old camera'
  await resetShot(name)
  await openBench(page, name)
  await station(page, 'level').tap()
  const before = await meanColour(page)
  const scale = (await page.locator('[data-control="exposureStops"] [role="slider"]').boundingBox())!
  const y = scale.y + scale.height / 2
  await drag(page, [scale.x + scale.width / 2, y], [scale.x + scale.width * 0.62, y])
  await expect.poll(async () => Number(await field(page, 'exposureStops').inputValue())).toBeGreaterThan(0.3)
  await expect.poll(async () => (await meanColour(page))[1]).toBeGreaterThan(before[1] + 3)
  await saved(page)
  await station(page, 'shape').tap()
  await page.getByRole('button', { name: 'curves and zones' }).tap()
  const points = page.getByTestId('tone-curve').locator('.point')
  const curve = (await page.getByTestId('tone-curve').boundingBox())!
  await drag(
    page,
    [curve.x + curve.width * 0.5, curve.y + curve.height * 0.5],
    [curve.x + curve.width * 0.5, curve.y + curve.height * 0.3],
  )
  await expect(points).toHaveCount(3)
  const line = (await page.getByRole('slider', { name: 'Frame' }).boundingBox())!
  await drag(page, [line.x + 20, line.y + 20], [line.x + line.width * 0.9, line.y + 20])
  await expect.poll(async () => Number((await page.getByTestId('frame').innerText()).split('/')[0])).toBeGreaterThan(50)
  // Nothing lies outside the page, and no row of controls is cut off.
  const cut = await page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('button, select, input')]
      .filter((e) => e.checkVisibility() && !e.closest('.visually-hidden'))
      .filter((e) => {
        const box = e.getBoundingClientRect()
        return box.width > 1 && (box.right > innerWidth + 1 || box.left < -1)
      })
      .map((e) => e.getAttribute('aria-label') ?? e.textContent.trim()),
  )
  expect(cut).toEqual([])
})
