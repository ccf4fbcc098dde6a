// Instruments that answer: any of them anywhere, limited to a part, after any station, with marks, lit pixels, a
// reference, a window of their own.
import type { Page } from '@playwright/test'
import { expect, test } from './program'
import { drawOnPicture } from '../support/drawing'
import {
  changed,
  meanColour,
  openBench,
  reading,
  resetShot,
  saved,
  showStraight,
  station,
  tracePixels,
  type,
} from './bench-page'

test.beforeEach(() => showStraight('Courtyard walk'))
test.afterAll(() => resetShot('Courtyard walk'))

const settled = (page: Page): Promise<void> =>
  expect(page.getByTestId('picture')).toHaveAttribute('data-settled', 'true')
const place = (page: Page, n: number) => page.getByRole('combobox', { name: 'Instrument in this place' }).nth(n)

async function point(page: Page, x: number, y: number): Promise<void> {
  const box = (await page.getByTestId('picture').boundingBox())!
  await page.mouse.move(box.x + box.width * x, box.y + box.height * y)
}

test('any instrument in any place, each with its modes; the choice survives a reload', async ({ page }) => {
  await openBench(page, 'Courtyard walk')
  await settled(page)
  await place(page, 1).selectOption('histogram')
  await place(page, 2).selectOption('chromaticity')
  await expect.poll(() => tracePixels(page, 'histogram')).toBeGreaterThan(300)
  await expect.poll(() => tracePixels(page, 'chromaticity')).toBeGreaterThan(100)
  const luma = await tracePixels(page, 'waveform')
  await page.getByRole('button', { name: 'Settings of the waveform' }).click()
  await page.getByRole('button', { name: 'luma, Cb, Cr' }).click()
  await expect.poll(() => tracePixels(page, 'waveform')).toBeGreaterThan(luma)
  await page.getByRole('button', { name: '10-bit' }).click()
  await expect(page.getByRole('region', { name: 'Waveform' })).toContainText('940')
  await page.getByRole('button', { name: 'cd/m²' }).click()
  await expect(page.getByRole('region', { name: 'Waveform' })).toContainText('100')
  await page.reload()
  await settled(page)
  await expect(place(page, 1)).toHaveValue('histogram')
  await expect.poll(() => tracePixels(page, 'chromaticity')).toBeGreaterThan(100)
  // What is stored may be anything.
  await page.evaluate(() => {
    localStorage.setItem('pale-instrument-places', '["waveform","constructor",7]')
    localStorage.setItem('pale-instruments', '{"vectorZoom":99')
    localStorage.setItem('pale-graticules', '{"brightness":"x"}')
  })
  await page.reload()
  await settled(page)
  await expect(place(page, 1)).toHaveValue('parade')
})

test(
  'a part drawn on the picture limits the instruments and the Meridian to it, and touches neither ' +
    'grade nor picture',
  async ({ page }) => {
    await openBench(page, 'Courtyard walk')
    const before = await meanColour(page)
    const whole = await page.getByTestId('waveform-figure').innerText()
    const revision = await page.getByTestId('saved').innerText()
    // The sunlit wall.
    const sunlit = /^(9[5-9]|100)\.\d – 100\.0 %$/
    await drawOnPicture(page, [0.88, 0.1], [0.98, 0.3])
    await expect(page.getByTestId('part')).toBeVisible()
    await expect(page.getByTestId('waveform-figure')).toHaveText(sunlit)
    await expect(page.getByTestId('meridian-part')).toHaveCount(3)
    expect(await reading(page, 'black')).toBeLessThan(40)
    // By keys onto the shaded wall, larger; then an ellipse; then let go by a click.
    await page.getByTestId('part').focus()
    for (let i = 0; i < 60; i++) await page.keyboard.press('ArrowLeft')
    await expect(page.getByTestId('waveform-figure')).not.toHaveText(sunlit)
    const box = await page.getByTestId('waveform-figure').innerText()
    for (let i = 0; i < 10; i++) await page.keyboard.press('Shift+ArrowDown')
    await expect(page.getByTestId('waveform-figure')).not.toHaveText(box)
    expect((await meanColour(page)).map(Math.round)).toEqual(before.map(Math.round))
    await page.mouse.move(400, 200)
    await page.mouse.click(400, 200)
    await expect(page.getByTestId('part')).toHaveCount(0)
    await expect(page.getByTestId('waveform-figure')).toHaveText(whole)
    await page.keyboard.press('b')
    await expect(page.getByTestId('part')).toBeVisible()
    await page.keyboard.press('b')
    await expect(page.getByTestId('part')).toHaveCount(0)
    expect(await page.getByTestId('saved').innerText()).toBe(revision)
  },
)

test(
  'the place under the pointer is marked on every instrument, with its numbers; a place on an ' +
    'instrument lights its pixels',
  async ({ page }) => {
    await openBench(page, 'Courtyard walk')
    await settled(page)
    await point(page, 0.93, 0.2)
    await expect(page.getByTestId('probe')).toContainText('luma 100.0 %')
    await expect(page.getByTestId('probe')).toContainText(/\+[23]\.\d stops/)
    await expect(page.getByTestId('parade-mark')).toHaveCount(3)
    const mark = (await page.getByTestId('waveform-mark').boundingBox())!
    const plot = (await page.getByTestId('waveform-trace').boundingBox())!
    expect((mark.x + mark.width / 2 - plot.x) / plot.width).toBeCloseTo(0.93, 1)
    expect((mark.y + mark.height / 2 - plot.y) / plot.height).toBeLessThan(0.08)
    // The top of the waveform at the right is the sunlit wall.
    await page.mouse.move(plot.x + plot.width * 0.93, plot.y + plot.height * 0.045)
    await expect(page.getByTestId('probe')).toHaveCount(0)
    await expect(page.getByTestId('lit')).toHaveAttribute('data-lit', 'true')
    await expect(page.getByTestId('lit-note')).toContainText('% of the pixels')
    const lit = await page.getByTestId('lit').evaluate((e) => {
      const c = e as HTMLCanvasElement
      const x = Math.round(c.width * 0.93)
      const d = c.getContext('2d')!
      return [
        d.getImageData(x, Math.round(c.height * 0.2), 1, 1).data[0]!,
        d.getImageData(Math.round(c.width * 0.3), Math.round(c.height * 0.2), 1, 1).data[0]!,
      ]
    })
    expect(lit[0]!).toBeGreaterThan(200)
    expect(lit[1]!).toBe(0)
    await page.mouse.move(640, 790)
    await expect(page.getByTestId('lit')).toHaveAttribute('data-lit', 'false')
  },
)

test('marks on the picture change what is seen and nothing that is measured', async ({ page }) => {
  await openBench(page, 'Courtyard walk')
  const before = await meanColour(page)
  const black = await reading(page, 'black')
  const figure = await page.getByTestId('waveform-figure').innerText()
  const marks = page.getByRole('combobox', { name: 'Overlays' })
  for (const id of ['clipped', 'zebra', 'stops', 'luma', 'outOfGamut']) {
    await marks.selectOption(id)
    await expect(page.getByTestId('overlay-legend')).toBeVisible()
    await settled(page)
    if (id !== 'outOfGamut') expect((await meanColour(page)).some((v, c) => Math.abs(v - before[c]!) > 0.5)).toBe(true)
    expect(await reading(page, 'black')).toBe(black)
    expect(await page.getByTestId('waveform-figure').innerText()).toBe(figure)
  }
  await marks.selectOption('luma')
  await expect
    .poll(async () => {
      const [r, g, b] = await meanColour(page)
      return Math.max(r, g, b) - Math.min(r, g, b)
    })
    .toBeLessThan(0.01)
  await marks.selectOption('zebra')
  const narrow = await meanColour(page)
  await page.getByLabel('Zebra from, percent').fill('20')
  await page.getByLabel('Zebra from, percent').press('Enter')
  await changed(page, narrow)
  await page
    .getByTestId('picture')
    .focus()
    .catch(() => undefined)
  await marks.selectOption('')
  expect((await meanColour(page)).map(Math.round)).toEqual(before.map(Math.round))
})

test('instruments look after a station, in stops before Show; a held trace lies under the present one', async ({
  page,
}) => {
  await openBench(page, 'Courtyard walk')
  await settled(page)
  await page.getByRole('button', { name: 'Settings of the waveform' }).click()
  await page.getByRole('combobox', { name: 'Looks' }).selectOption('level')
  await expect(page.getByTestId('waveform-figure')).toHaveText('after Level, in stops')
  await expect(page.getByRole('region', { name: 'Waveform' })).toContainText('+4')
  await settled(page)
  const atLevel = await tracePixels(page, 'waveform')
  await page.getByRole('combobox', { name: 'Looks' }).selectOption('finish')
  await expect(page.getByTestId('waveform-figure')).toContainText('%')
  await settled(page)
  await page.keyboard.press('Escape')
  await expect(page.getByRole('combobox', { name: 'Looks' })).toBeHidden()
  await expect.poll(() => tracePixels(page, 'waveform')).not.toBe(atLevel)
  const alone = await tracePixels(page, 'waveform')
  await page.keyboard.press('y')
  await type(page, 'exposureStops', '-1.5')
  await settled(page)
  // The brighter trace that was held is still there, above the darker one.
  await expect.poll(() => tracePixels(page, 'waveform')).toBeGreaterThan(alone * 1.1)
  const both = await tracePixels(page, 'waveform')
  await page.mouse.click(640, 790)
  await page.keyboard.press('y')
  await expect.poll(() => tracePixels(page, 'waveform')).toBeLessThan(both * 0.95)
  await page.getByRole('button', { name: 'Settings of the waveform' }).click()
  const bare = await tracePixels(page, 'waveform')
  await page.getByRole('combobox', { name: 'of a shot' }).selectOption({ label: 'Window bench' })
  await expect.poll(() => tracePixels(page, 'waveform')).toBeGreaterThan(bare * 1.1)
})

test('the Meridian: a station is left out while held, its strength is dragged, what it lost is lit', async ({
  page,
}) => {
  await openBench(page, 'Courtyard walk')
  const neutral = await meanColour(page)
  await type(page, 'exposureStops', '1')
  const bright = await changed(page, neutral)
  const strength = page.getByRole('slider', { name: 'Strength of Level' })
  await expect(strength).toHaveAttribute('aria-valuenow', '100')
  const box = (await station(page, 'level').boundingBox())!
  await page.mouse.move(box.x + 60, box.y + 50)
  await page.mouse.down()
  await expect(station(page, 'level')).toContainText('left out')
  await expect.poll(async () => (await meanColour(page)).map(Math.round)).toEqual(neutral.map(Math.round))
  await page.mouse.up()
  await expect.poll(async () => (await meanColour(page)).map(Math.round)).toEqual(bright.map(Math.round))
  await saved(page)
  await strength.press('Home')
  await expect.poll(async () => (await meanColour(page)).map(Math.round)).toEqual(neutral.map(Math.round))
  for (let i = 0; i < 5; i++) await strength.press('Shift+ArrowRight')
  await expect(strength).toHaveAttribute('aria-valuenow', '50')
  await saved(page)
  const half = await meanColour(page)
  expect(half[1]).toBeGreaterThan(neutral[1] + 2)
  expect(half[1]).toBeLessThan(bright[1] - 2)
  const lost = page.locator('[data-loss="show"]')
  await lost.click()
  await expect(page.getByTestId('lit-note')).toContainText(/Show lost \d+\.\d+ % of the pixels/)
  await expect(page.getByTestId('lit')).toHaveAttribute('data-lit', 'true')
  // Another grade is another loss: the marks go.
  await type(page, 'exposureStops', '0.5')
  await expect(page.getByTestId('lit')).toHaveAttribute('data-lit', 'false')
})

test('an instrument in a window of its own follows the Bench', async ({ page, context }) => {
  await openBench(page, 'Courtyard walk')
  await settled(page)
  await page.getByRole('button', { name: 'Settings of the vectorscope' }).click()
  const opening = context.waitForEvent('page')
  await page.getByRole('button', { name: 'in a window of its own' }).click()
  const other = await opening
  await expect(other.getByTestId('vectorscope-figure')).toContainText('°')
  await expect.poll(() => tracePixels(other, 'vectorscope')).toBeGreaterThan(100)
  const figure = await other.getByTestId('vectorscope-figure').innerText()
  await page.keyboard.press('Escape')
  await type(page, 'temperatureMired', '30')
  await expect(other.getByTestId('vectorscope-figure')).not.toHaveText(figure)
  await expect
    .poll(
      async () =>
        (await other.getByTestId('vectorscope-figure').innerText()) ===
        (await page.getByTestId('vectorscope-figure').innerText()),
    )
    .toBe(true)
})
