// The Bench: reading, measuring, correcting, looks, regions, frames.
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from './program'
import {
  changed,
  choose,
  control,
  demoShot,
  field,
  goToFrame,
  meanColour,
  openBench,
  reading,
  resetShot,
  saved,
  station,
  tracePixels,
  type,
} from './bench-page'

test.beforeEach(async () => {
  for (const name of ['Glaze shelf', 'Window bench', 'Potter at the bench']) await resetShot(name)
})

test('from the projects to a picture that is already normal', async ({ page }) => {
  await page.goto(process.env['PALE_TEST_ADDRESS']!)
  await page.getByRole('link', { name: /Ashglaze/ }).click()
  await expect(page.getByRole('row')).toHaveCount(12)
  await expect(page.locator('[data-shot="Glaze shelf"]')).toContainText('Log 420/95')
  await page.getByRole('link', { name: 'Glaze shelf' }).click()
  await expect(page.getByTestId('reading-middle')).toContainText('%')
  // The grey card at the left reads R = G = B at the display's code for 18 %: 0.18^(1/2.4) = 48.9 %.
  const card = await meanColour(page, 0.06, 0.68, 0.12, 0.8)
  for (const channel of card) expect(Math.abs(channel - 255 * 0.18 ** (1 / 2.4))).toBeLessThan(2)
})

test('a shot is opened at its lead frame, and no other frame is fetched for it', async ({ page }) => {
  const asked: string[] = []
  page.on('request', (request) => {
    const [, of = ''] = /\/api\/media\/(\w+\/frames\/\d+)\?/.exec(request.url()) ?? []
    if (of && !request.url().includes('size=')) asked.push(of)
  })
  await openBench(page, 'Yard under cloud')
  await page.getByRole('link', { name: 'Next shot' }).click()
  await expect(page).toHaveURL(/frame=12/)
  const leads = [await demoShot('Yard under cloud'), await demoShot('Courtyard walk')]
  const wanted = leads.map(({ media, leadFrame }) => `${media.hash}/frames/${leadFrame}`)
  // The canvas of the shot before may still stand there, settled.
  await expect.poll(() => asked).toContain(wanted[1])
  await expect(page.locator('canvas[data-settled="true"]')).toBeVisible()
  // The very first request of a worker that is being started is not always told to the test.
  expect(asked.filter((of) => !wanted.includes(of))).toEqual([])
})

test('nothing scrolls at 1280×800, and no surface beside the picture has a tint', async ({ page }) => {
  await openBench(page, 'Glaze shelf')
  for (const id of ['read', 'level', 'shape', 'hue', 'regions', 'look', 'show', 'finish']) {
    await station(page, id).click()
    if (id === 'regions') await choose(page, 'add-region', 'Ellipse')
    const overflow = await page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('.bench, .work, .panel, .readings, .upper, .lower, .column')]
        .filter((e) => e.scrollHeight > e.clientHeight + 1 || e.scrollWidth > e.clientWidth + 1)
        .map((e) => e.className),
    )
    expect(overflow, id).toEqual([])
    expect(
      await page.evaluate(() => [document.documentElement.scrollHeight, document.documentElement.scrollWidth]),
    ).toEqual([800, 1280])
  }
  const tinted = await page.evaluate(() =>
    [...document.querySelectorAll('body *')]
      .map((e) => [e.className, getComputedStyle(e).backgroundColor] as const)
      .filter(([, colour]) => {
        const [r, g, b, a] = (colour.match(/[\d.]+/g) ?? []).map(Number)
        return a !== 0 && !(r === g && g === b) && colour !== 'rgb(233, 226, 207)'
      }),
  )
  expect(tinted).toEqual([])
})

test('a wrong encoding bends the picture, the right one brings it back, as shot shows the code values', async ({
  page,
}) => {
  await openBench(page, 'Glaze shelf', 'read')
  const right = await meanColour(page)
  await page.getByRole('combobox', { name: 'Encoding' }).click({ force: true })
  await page.getByRole('option', { name: 'Log 285/95' }).click()
  const wrong = await changed(page, right)
  expect(wrong[1] - right[1]).toBeGreaterThan(20)
  await page.getByRole('combobox', { name: 'Encoding' }).click({ force: true })
  await page.getByRole('option', { name: 'Log 420/95' }).click()
  await changed(page, wrong)
  await expect.poll(async () => Math.abs((await meanColour(page))[0] - right[0])).toBeLessThan(0.6)
  await page.getByRole('button', { name: 'as shot' }).click()
  const asShot = await changed(page, right)
  expect(Math.max(...asShot) - Math.min(...asShot)).toBeLessThan(Math.max(...right) - Math.min(...right))
  await page.getByRole('button', { name: 'as shot' }).click()
  await changed(page, asShot)
  await page.locator('body').press('q', { delay: 600 })
  await expect.poll(async () => Math.abs((await meanColour(page))[0] - right[0])).toBeLessThan(0.6)
})

test('a drag moves picture, scopes and readings while the button is down', async ({ page }) => {
  await openBench(page, 'Glaze shelf')
  const before = await reading(page, 'middle')
  const pixels = await tracePixels(page, 'waveform')
  const picture = await meanColour(page)
  const box = (await control(page, 'exposureStops').boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * 0.7, box.y + box.height / 2, { steps: 12 })
  await expect.poll(() => reading(page, 'middle')).toBeGreaterThan(before + 10)
  expect(await tracePixels(page, 'waveform')).not.toBe(pixels)
  await changed(page, picture)
  await expect(page.getByTestId('saved')).toHaveText('not saved yet')
  await page.mouse.up()
  await saved(page)
})

test('every correction does what it says', async ({ page }) => {
  await openBench(page, 'Glaze shelf')
  const neutral = await meanColour(page)
  await type(page, 'exposureStops', '1')
  const brighter = await changed(page, neutral)
  expect(brighter[1]).toBeGreaterThan(neutral[1] + 20)
  await type(page, 'exposureStops', '0')
  await changed(page, brighter)
  await type(page, 'temperatureMired', '30')
  const warm = await changed(page, neutral)
  expect(warm[0] - warm[2]).toBeGreaterThan(neutral[0] - neutral[2] + 5)
  await type(page, 'temperatureMired', '0')
  await changed(page, warm)
  await type(page, 'tint', '15')
  const magenta = await changed(page, neutral)
  expect(magenta[1] - (magenta[0] + magenta[2]) / 2).toBeLessThan(neutral[1] - (neutral[0] + neutral[2]) / 2 - 3)
  await type(page, 'tint', '0')
  await changed(page, magenta)
  await station(page, 'shape').click()
  const dark = await reading(page, 'black')
  const white = await reading(page, 'white')
  await type(page, 'contrast', '0.6')
  await expect.poll(() => reading(page, 'white')).toBeLessThan(white - 5)
  expect(await reading(page, 'black')).toBeGreaterThan(dark)
  await type(page, 'contrast', '1')
  await station(page, 'hue').click()
  await type(page, 'saturation', '0')
  await expect
    .poll(async () => {
      const c = await meanColour(page)
      return Math.max(...c) - Math.min(...c)
    })
    .toBeLessThan(0.5)
})

test('absurd numbers are held to the control’s range, and words change nothing', async ({ page }) => {
  await openBench(page, 'Glaze shelf')
  await type(page, 'exposureStops', '1e9')
  await expect(field(page, 'exposureStops')).toHaveValue('+8.00')
  await type(page, 'exposureStops', 'NaN')
  await expect(field(page, 'exposureStops')).toHaveValue('+8.00')
  await type(page, 'exposureStops', '−0,5')
  await expect(field(page, 'exposureStops')).toHaveValue('−0.50')
  await page.getByRole('button', { name: 'Exposure', exact: true }).dblclick()
  await expect(field(page, 'exposureStops')).toHaveValue('0.00')
})

test('the tone curve: add, drag and remove points, by mouse and by keys', async ({ page }) => {
  await openBench(page, 'Glaze shelf', 'shape')
  await page.getByRole('button', { name: 'curves and zones', exact: true }).click()
  const before = await meanColour(page)
  const points = page.getByTestId('tone-curve').locator('.point')
  await expect(points).toHaveCount(2)
  const box = (await page.getByTestId('tone-curve').boundingBox())!
  await page.mouse.move(box.x + box.width * 0.45, box.y + box.height * 0.55)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * 0.45, box.y + box.height * 0.4, { steps: 5 })
  await page.mouse.up()
  await expect(points).toHaveCount(3)
  const lifted = await changed(page, before)
  expect(lifted[1]).toBeGreaterThan(before[1])
  await points.nth(1).press('Shift+ArrowDown')
  await changed(page, lifted)
  await points.nth(1).press('Enter')
  await expect(points).toHaveCount(4)
  await points.nth(2).press('Delete')
  await points.nth(1).press('Delete')
  await expect(points).toHaveCount(2)
  await expect.poll(async () => Math.abs((await meanColour(page))[1] - before[1])).toBeLessThan(0.6)
  await saved(page)
})

test('a LUT: import, strength, and a bad file refused with its line', async ({ page }, info) => {
  await openBench(page, 'Glaze shelf', 'look')
  const before = await meanColour(page)
  const swap = info.outputPath('swapped.cube')
  writeFileSync(
    swap,
    'TITLE "Red and blue exchanged"\nLUT_3D_SIZE 2\n0 0 0\n0 0 1\n0 1 0\n0 1 1\n1 0 0\n1 0 1\n1 1 0\n1 1 1\n',
  )
  await page.locator('input[type=file][accept*=".cube"]').setInputFiles(swap)
  const exchanged = await changed(page, before)
  expect(Math.abs(exchanged[0] - before[2])).toBeLessThan(0.7)
  expect(Math.abs(exchanged[2] - before[0])).toBeLessThan(0.7)
  await type(page, 'lut-strength', '50')
  const half = await changed(page, exchanged)
  expect(Math.abs(half[0] - (before[0] + before[2]) / 2)).toBeLessThan(0.7)
  await type(page, 'lut-strength', '0')
  await expect.poll(async () => Math.abs((await meanColour(page))[0] - before[0])).toBeLessThan(0.6)
  const bad = join(info.outputDir, 'bad.cube')
  writeFileSync(bad, 'LUT_3D_SIZE 300\n0 0 0\n')
  await page.locator('input[type=file][accept*=".cube"]').setInputFiles(bad)
  await expect(page.getByRole('alert')).toContainText('bad.cube: Line 1: A size of 300 is refused')
  await expect(page.getByRole('combobox', { name: 'LUT', exact: true })).toBeVisible()
  await saved(page)
})

test('stepping along the frames by key, button and line; the lead frame', async ({ page }) => {
  const shot = await openBench(page, 'Window bench')
  await expect(page.getByTestId('timecode')).toHaveText('00:00:01:16')
  const before = await meanColour(page)
  await page.locator('body').press('Shift+D')
  await expect(page.getByTestId('timecode')).toHaveText('00:00:02:04')
  await changed(page, before)
  await page.locator('body').press('s')
  await expect(page.getByTestId('timecode')).toHaveText('00:00:02:03')
  await page.getByRole('button', { name: 'One frame on' }).click()
  await expect(page).toHaveURL(/frame=52/)
  await page.getByRole('slider', { name: 'Frame' }).press('End')
  await expect(page.getByRole('button', { name: 'One frame on' })).toBeDisabled()
  await page.locator('body').press('d')
  await expect(page).toHaveURL(/frame=119/)
  await page.getByRole('button', { name: 'set lead' }).click()
  await expect(page.getByRole('button', { name: 'this is the lead frame' })).toBeDisabled()
  expect((await demoShot('Window bench')).leadFrame).toBe(119)
  await goToFrame(page, shot.leadFrame)
  await page.getByRole('button', { name: 'set lead' }).click()
})

test('the whole Bench by keyboard', async ({ page }) => {
  await openBench(page, 'Glaze shelf')
  await page.locator('body').press('?')
  await expect(page.getByRole('region', { name: 'Keys' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('region', { name: 'Keys' })).toHaveCount(0)
  await page.locator('body').press('4')
  await expect(station(page, 'hue')).toHaveAttribute('aria-selected', 'true')
  await page.locator('body').press('2')
  await control(page, 'exposureStops').focus()
  await page.keyboard.press('Shift+ArrowRight')
  await expect(field(page, 'exposureStops')).toHaveValue('+0.50')
  await page.keyboard.press('Alt+ArrowRight')
  await expect(field(page, 'exposureStops')).toHaveValue('+0.51')
  await saved(page)
  // One revision, or two where the machine took its time between the keys.
  await page.keyboard.press('Control+z')
  await expect(field(page, 'exposureStops')).toHaveValue(/^(0\.00|\+0\.50)$/)
  await page.keyboard.press('Control+Shift+z')
  await expect(field(page, 'exposureStops')).toHaveValue('+0.51')
  await page.keyboard.press('f')
  await expect(page.getByRole('region', { name: 'Waveform' })).toBeVisible()
  await expect(page.getByRole('region', { name: 'Parade' })).toHaveCount(0)
  await page.keyboard.press(']')
  await expect(page.locator('.shot')).toHaveText('Window bench')
  // Every control can be reached with Tab, and the focus is seen.
  await page.keyboard.press('Tab')
  const outline = await page.evaluate(() => getComputedStyle(document.activeElement!).outlineStyle)
  expect(outline).toBe('solid')
})
