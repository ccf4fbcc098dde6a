// Playing on the Bench: the clock, the loop, direction, the grade while playing, the exact frame on pause, and the clip
// trace.
import type { Page } from '@playwright/test'
import type { ShotDetail } from '@contracts/responses'
import { expect, test } from './program'
import {
  address,
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
  expect(page.getByRole('slider', { name: 'Frame' })).toHaveAttribute('data-traced', '1')

test.beforeEach(async ({ page }) => {
  // Proxies are made in the background; playing waits for one.
  await expect
    .poll(
      async () => (await demoShot('Glaze shelf')).proxy !== null && (await demoShot('Courtyard walk')).proxy !== null,
    )
    .toBe(true)
  await openBench(page, 'Glaze shelf')
})
test.afterEach(() => resetShot('Glaze shelf'))

test('plays to the end by the clock, then measures the exact frame', async ({ page }) => {
  await goToFrame(page, 0)
  await page.keyboard.press('Space')
  await expect(page.getByTestId('play')).toHaveAccessibleName('pause')
  await expect(page.getByTestId('play')).toHaveAccessibleName('play')
  const { shown, dropped } = await counts(page)
  // Every frame of the five seconds was either shown or counted as dropped.
  expect(shown + dropped).toBeGreaterThanOrEqual(116)
  expect(shown + dropped).toBeLessThanOrEqual(120)
  // How many are shown is the machine's affair; that it played, and to the end, is not.
  expect(shown).toBeGreaterThan(1)
  expect(await frameShown(page)).toBe(119)
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
  await expect.poll(async () => seen.add(await frameShown(page)).size, { intervals: [50] }).toBeGreaterThan(3)
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
  await expect(page.getByTestId('picture')).toHaveAttribute('data-settled', 'true')
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
  await expect.poll(lit).toBeLessThan(clipping / 2)
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

test('three moments of the shot follow a control beside the picture; a press goes there', async ({ page }) => {
  await openBench(page, 'Courtyard walk')
  await page.keyboard.press('Shift+R')
  const moments = page.getByTestId('live-moments')
  await expect(moments.getByRole('listitem')).toHaveCount(3)
  const light = (id: string): Promise<number> =>
    moments.locator(`[data-moment="${id}"] canvas`).evaluate((element) => {
      const canvas = element as HTMLCanvasElement
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height)
      return data.reduce((sum, v) => sum + v, 0) / data.length
    })
  await expect.poll(async () => (await light('brightest')) - (await light('darkest'))).toBeGreaterThan(15)
  const before = [await light('darkest'), await light('brightest')] as const
  await type(page, 'exposureStops', '-1.5')
  await expect.poll(() => light('darkest')).toBeLessThan(before[0] - 15)
  await expect.poll(() => light('brightest')).toBeLessThan(before[1] - 15)
  await moments.locator('[data-moment="darkest"]').click()
  await expect(page.getByTestId('frame')).toContainText(/^\d+ \//)
  await expect(page.getByTestId('frame')).not.toContainText(/^12 /)
  await page.keyboard.press('Shift+R')
  await expect(moments).toHaveCount(0)
  await resetShot('Courtyard walk')
})

test('temperature and saturation are marked along the clip as exposure is', async ({ page }) => {
  await resetShot('Courtyard walk')
  await openBench(page, 'Courtyard walk')
  await page.getByTestId('marked-control').selectOption({ label: 'Temperature' })
  await goToFrame(page, 5)
  await page.getByRole('button', { name: 'mark frame 5' }).click()
  await goToFrame(page, 60)
  await page.getByRole('button', { name: 'mark frame 60' }).click()
  await type(page, 'temperatureMired', '-30')
  await goToFrame(page, 30)
  await expect(field(page, 'temperatureMired')).toHaveValue(/^−1\d\.\d$/)
  await expect(page.getByTestId('marked-control')).toContainText('Temperature · 2')
  await openBench(page, 'Courtyard walk', 'hue')
  await page.getByRole('button', { name: /^mark frame/ }).click()
  await expect(page.getByTestId('keyframes')).toContainText('12: 100 %')
  await saved(page)
  const { id } = await demoShot('Courtyard walk')
  const shot = (await (await fetch(`${address()}/api/shots/${id}`)).json()) as ShotDetail
  const { animation } = shot.revision.grade
  expect(animation.map((m) => [m.key, m.keyframes.length])).toEqual([
    ['temperatureMired', 2],
    ['saturation', 1],
  ])
  await resetShot('Courtyard walk')
})
