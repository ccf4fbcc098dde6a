// Playing on the Bench: the clock, the loop, direction, the grade while playing, the exact frame on pause, and the clip
// trace.
import type { Page } from '@playwright/test'
import { expect, test } from './program'
import {
  changed,
  control,
  demoShot,
  field,
  goToFrame,
  meanColour,
  openBench,
  resetShot,
  saved,
  tracePixels,
  type,
} from './bench-page'

const frameShown = async (page: Page): Promise<number> =>
  Number((await page.getByTestId('frame').innerText()).split('/')[0])
const counts = async (page: Page): Promise<{ shown: number; dropped: number }> => {
  const [, shown, dropped] = /(\d+) shown · (\d+) dropped/.exec(await page.getByTestId('played').innerText()) ?? []
  return { shown: Number(shown), dropped: Number(dropped) }
}
const traced = (page: Page): Promise<void> =>
  expect(page.getByRole('slider', { name: 'Frame' })).toHaveAttribute('data-traced', '1', { timeout: 60_000 })

test.beforeEach(async ({ page }) => {
  // Proxies are made in the background; playing waits for one.
  await expect
    .poll(
      async () => (await demoShot('Glaze shelf')).proxy !== null && (await demoShot('Courtyard walk')).proxy !== null,
      { timeout: 60_000 },
    )
    .toBe(true)
  await openBench(page, 'Glaze shelf')
})
test.afterEach(() => resetShot('Glaze shelf'))

test('plays to the end by the clock, then measures the exact frame', async ({ page }) => {
  await goToFrame(page, 0)
  await page.keyboard.press('Space')
  await expect(page.getByTestId('play')).toHaveAccessibleName('pause')
  await expect(page.getByTestId('play')).toHaveAccessibleName('play', { timeout: 20_000 })
  const { shown, dropped } = await counts(page)
  // Every frame of the three seconds was either shown or counted as dropped.
  expect(shown + dropped).toBeGreaterThanOrEqual(68)
  expect(shown + dropped).toBeLessThanOrEqual(72)
  // How many are shown is the machine's affair; that it played, and to the end, is not.
  expect(shown).toBeGreaterThan(1)
  expect(await frameShown(page)).toBe(71)
  await expect(page.getByTestId('picture')).toHaveAttribute('data-settled', 'true')
})

test('the picture and the instruments move with the frames, and follow the grade without stopping', async ({
  page,
}) => {
  await page.keyboard.press('g')
  await page.getByTestId('play').click()
  await expect.poll(async () => (await counts(page)).shown).toBeGreaterThan(6)
  const before = await page
    .getByTestId('picture')
    .evaluate((c) =>
      [...(c as HTMLCanvasElement).getContext('2d')!.getImageData(200, 200, 64, 64).data].reduce((a, b) => a + b, 0),
    )
  await control(page, 'exposureStops').focus()
  for (let i = 0; i < 6; i++) await page.keyboard.press('Shift+ArrowRight')
  await expect
    .poll(() =>
      page
        .getByTestId('picture')
        .evaluate((c) =>
          [...(c as HTMLCanvasElement).getContext('2d')!.getImageData(200, 200, 64, 64).data].reduce(
            (a, b) => a + b,
            0,
          ),
        ),
    )
    .toBeGreaterThan(before * 1.02)
  await expect(page.getByTestId('play')).toHaveAccessibleName('pause')
  expect(await tracePixels(page, 'waveform')).toBeGreaterThan(500)
  await page.getByTestId('play').click()
  await expect(page.getByTestId('picture')).toHaveAttribute('data-settled', 'true')
  await expect(page.getByTestId('play')).toHaveAccessibleName('play')
})

test('backward, and only the chosen piece again and again', async ({ page }) => {
  await goToFrame(page, 30)
  await page.keyboard.press('z')
  await goToFrame(page, 40)
  await page.keyboard.press('v')
  await page.keyboard.press('x')
  const seen = new Set<number>()
  await expect
    .poll(async () => seen.add(await frameShown(page)).size, { intervals: [50], timeout: 30_000 })
    .toBeGreaterThan(3)
  await page.keyboard.press('Space')
  expect(Math.min(...seen)).toBeGreaterThanOrEqual(30)
  expect(Math.max(...seen)).toBeLessThanOrEqual(40)
})

test('while scrubbing the proxy is shown, at rest the exact frame; both are the same picture', async ({ page }) => {
  await goToFrame(page, 50)
  const exact = await meanColour(page)
  await page.reload()
  let late = (): void => undefined
  const held = new Promise<void>((done) => {
    late = done
  })
  await page.route('**/frames/**', async (route) => {
    await held
    await route.continue()
  })
  await goToFrame(page, 50)
  // The proxy's own picture of that frame, not one it passed on the way.
  await expect(page.getByTestId('picture')).toHaveAttribute('data-frame', '50')
  await expect.poll(() => page.getByTestId('picture').evaluate((c) => (c as HTMLCanvasElement).width)).toBe(960)
  const early = await page.getByTestId('picture').evaluate((element) => {
    const { data } = (element as HTMLCanvasElement).getContext('2d')!.getImageData(0, 0, 960, 540)
    const sum = [0, 0, 0]
    for (let i = 0; i < data.length; i += 4) for (let c = 0; c < 3; c++) sum[c]! += data[i + c]!
    return sum.map((v) => (v * 4) / data.length)
  })
  early.forEach((v, c) => expect(Math.abs(v - exact[c]!)).toBeLessThan(1))
  late()
  await expect(page.getByTestId('picture')).toHaveAttribute('data-settled', 'true', { timeout: 30_000 })
})

test('the clip trace shows the walk into the sun; R goes to its moments; a grade changes it', async ({ page }) => {
  await openBench(page, 'Courtyard walk')
  await traced(page)
  await goToFrame(page, 0)
  const moments: number[] = []
  for (let i = 0; i < 3; i++) {
    await page.keyboard.press('r')
    moments.push(await frameShown(page))
  }
  expect(new Set(moments).size).toBeGreaterThan(1)
  // Where exposure moves is between shade and sun.
  expect(moments.some((m) => m > 15 && m < 60)).toBe(true)
  const lit = (): Promise<number> =>
    page.locator('.timeline canvas').evaluate((element) => {
      const canvas = element as HTMLCanvasElement
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, 4)
      let n = 0
      for (let i = 0; i < data.length; i += 4) if (data[i]! > 200) n++
      return n
    })
  const clipping = await lit()
  expect(clipping).toBeGreaterThan(100)
  await page.locator('body').click({ position: { x: 5, y: 790 } })
  await type(page, 'exposureStops', '-4')
  await expect.poll(lit, { timeout: 60_000 }).toBeLessThan(clipping / 2)
  await resetShot('Courtyard walk')
})

test(
  'exposure is marked at two frames and goes from one to the other, on the picture, the trace and ' + 'in the record',
  async ({ page }) => {
    await resetShot('Courtyard walk')
    await openBench(page, 'Courtyard walk')
    await goToFrame(page, 5)
    const early = await meanColour(page)
    await page.getByRole('button', { name: 'mark frame 5' }).click()
    await goToFrame(page, 60)
    const late = await meanColour(page)
    await page.getByRole('button', { name: 'mark frame 60' }).click()
    await type(page, 'exposureStops', '-2')
    const graded = await changed(page, late)
    expect(graded[1]).toBeLessThan(late[1] - 20)
    await goToFrame(page, 30)
    await expect(field(page, 'exposureStops')).toHaveValue(/^−0\.8\d$/)
    await goToFrame(page, 5)
    expect((await meanColour(page)).map(Math.round)).toEqual(early.map(Math.round))
    await expect(page.locator('.timeline [data-mark]')).toHaveCount(2)
    // Between keyframes the whole ramp is moved.
    await goToFrame(page, 30)
    await type(page, 'exposureStops', '0')
    await expect(page.getByTestId('keyframes')).toContainText(/60: −1\.1\d stops/)
    await page.getByRole('button', { name: 'Remove the mark at frame 5' }).click()
    await page.getByRole('button', { name: 'Remove the mark at frame 60' }).click()
    await expect(page.getByTestId('keyframes')).toContainText('Exposure is the same along the clip.')
    await saved(page)
    await resetShot('Courtyard walk')
  },
)
