// The Cameras view: the list, looking up, measuring, comparing, and encodings of one's own.
import { readFileSync, writeFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import type { ShotDetail } from '@contracts/responses'
import { importInto } from '../support/bare-server'
import { expect, test } from './program'
import { address, demoShot, openBench, resetShot, saved } from './bench-page'

interface Truth {
  readonly patches: {
    readonly leadFrame: Record<'greyCard' | 'white90' | 'black3', readonly (readonly [number, number])[]>
  }
}
const truth = (id: string): Truth => JSON.parse(readFileSync(`demo/footage/${id}.truth.json`, 'utf8')) as Truth

async function forget(): Promise<void> {
  for (const { id } of (await (await fetch(`${address()}/api/encodings`)).json()) as { id: string }[])
    await fetch(`${address()}/api/encodings/${id}`, { method: 'DELETE' })
}
test.beforeEach(forget)

const part = (page: Page, name: string): Promise<void> =>
  page.getByRole('navigation', { name: 'Cameras' }).getByRole('link', { name, exact: true }).click()

test('every encoding with its curve, gamut and levels, by mouse and by keys', async ({ page }) => {
  await page.goto(`${address()}/cameras`)
  await expect(page.getByRole('row', { name: /Log 420\/95/ })).toContainText(/95\s*420\s*598/)
  await expect(page.getByRole('img', { name: /Log 420\/95: black at code 95, grey at 420/ })).toBeVisible()
  await page.getByRole('button', { name: 'Log 420/95' }).press('ArrowDown')
  await expect(page.getByRole('heading', { name: 'Log 433/128' })).toBeVisible()
  await page.getByRole('button', { name: 'HLG' }).click()
  await expect(page.getByRole('img', { name: /Chromaticity of BT\.2020/ })).toBeVisible()
  await expect(page.getByRole('definition').filter({ hasText: '38.0 %' })).toBeVisible()
  expect(await page.evaluate(() => document.documentElement.scrollHeight)).toBe(800)
})

test(
  'a data sheet names its encoding; one that nobody published is fitted, kept, used, exported and ' + 'imported again',
  async ({ page }, info) => {
    await page.goto(`${address()}/cameras/lookup`)
    await page.getByRole('textbox', { name: '18 % grey' }).fill('41.1%')
    await page.getByRole('textbox', { name: 'Black' }).fill('95/1023')
    await expect(page.getByRole('listitem').first()).toContainText(/Log 420\/95.*fits/s)
    await page.getByRole('textbox', { name: '18 % grey' }).fill('middling')
    await expect(page.getByRole('alert')).toContainText('"middling" is no level')
    await page.getByRole('textbox', { name: '18 % grey' }).fill('44%')
    await page.getByRole('textbox', { name: 'Black' }).fill('7%')
    await page.getByRole('textbox', { name: '90 % white' }).fill('60%')
    await page.getByRole('textbox', { name: 'Name' }).fill('Kiln <b>cam</b>')
    await page.getByRole('button', { name: 'Keep as my own' }).click()
    await expect(page.getByRole('status').filter({ hasText: 'is kept' })).toContainText('Kiln <b>cam</b>')
    await part(page, 'Encodings')
    await expect(page.getByRole('row', { name: /Kiln/ })).toContainText(/72\s*450\s*614/)
    const download = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Export yours' }).click()
    const file = info.outputPath('encodings.json')
    await (await download).saveAs(file)
    await page.getByRole('row', { name: /Kiln/ }).getByRole('button', { name: 'Remove' }).click()
    await expect(page.getByRole('row', { name: /Kiln/ })).toHaveCount(0)
    await page.getByLabel('File of encodings').setInputFiles(file)
    await expect(page.getByRole('row', { name: /Kiln/ })).toBeVisible()
    writeFileSync(
      file,
      '{"kind":"pale-meridian-encodings","version":1,"encodings":[{"id":"own-x","name":"x","gamutId":"bt709",' +
        '"source":"","curve":{"family":"lin-log","a":1,"b":-1,"c":0,"d":0,"e":null,"f":null,"cut":0}}]}',
    )
    await page.getByLabel('File of encodings').setInputFiles(file)
    await expect(page.getByRole('alert')).toContainText('same sign')
    // Read offers it, and the grade carries it even after it is removed from the list.
    await resetShot('Glaze shelf')
    await openBench(page, 'Glaze shelf', 'read')
    await page.getByRole('combobox', { name: 'Encoding' }).click({ force: true })
    await page.getByRole('option', { name: 'Kiln <b>cam</b>' }).click()
    await saved(page)
    await forget()
    await page.reload()
    await expect(page.getByText('Your own: looked up')).toBeVisible()
    await resetShot('Glaze shelf')
  },
)

/** Draws a box over each named patch of the Glaze shelf's frame, in turn. */
async function drawPatches(page: Page, names: readonly (keyof Truth['patches']['leadFrame'])[]): Promise<void> {
  const { patches } = truth('glaze-shelf')
  const picture = page.getByRole('application')
  await expect(page.getByRole('img', { name: /Glaze shelf, frame/ })).toBeVisible()
  // A canvas is 300 wide until a picture is put there.
  await expect.poll(() => picture.locator('canvas').evaluate((c) => (c as HTMLCanvasElement).width)).not.toBe(300)
  const box = (await picture.boundingBox())!
  for (const name of names) {
    const corners = patches.leadFrame[name]
    const xs = corners.map((c) => c[0])
    const ys = corners.map((c) => c[1])
    const middle = { x: xs.reduce((a, b) => a + b) / 4, y: ys.reduce((a, b) => a + b) / 4 }
    await page.mouse.move(box.x + (middle.x - 0.006) * box.width, box.y + (middle.y - 0.012) * box.height)
    await page.mouse.down()
    await page.mouse.move(box.x + (middle.x + 0.006) * box.width, box.y + (middle.y + 0.012) * box.height, { steps: 3 })
    await page.mouse.up()
  }
}

test('a curve that nobody can name is estimated, narrows with each fact, and the shot is read by it', async ({
  page,
}) => {
  const shot = await demoShot('Glaze shelf')
  await page.goto(`${address()}/cameras/estimate?shot=${shot.id}&frame=${shot.leadFrame}`)
  const band = async (): Promise<number> =>
    Number(/±([\d.]+)/.exec(await page.getByTestId('band-at-grey').innerText())?.[1])
  await expect(page.getByTestId('noise')).toContainText('bands of tones')
  await expect(page.getByTestId('pointed')).toContainText('none')
  await expect(page.getByTestId('band-at-grey')).toBeVisible()
  const before = await band()
  await drawPatches(page, ['greyCard', 'white90'])
  await page.getByRole('textbox', { name: 'Light of patch 2' }).fill('0.9')
  await page.getByRole('textbox', { name: 'Light of patch 2' }).press('Enter')
  await expect(page.getByTestId('pointed')).toHaveText('2 patches')
  await expect.poll(band).toBeLessThan(before / 2)
  // The shot is written in Log 420/95: white, 2.32 stops over grey, lies at its code 598.
  const offNearWhite = async (): Promise<number> => {
    const row = (await page.getByRole('row', { name: /^\+2/ }).innerText()).split(/\s+/)
    return Math.abs(Number(row[1]) - (420 + ((598 - 420) * 2) / 2.32))
  }
  // A patch's first light narrows the band as much as its right one does: the answer to that one is waited for.
  await expect.poll(offNearWhite).toBeLessThan(25)
  await page.getByLabel('Name', { exact: true }).fill('Kiln camera')
  await page.getByRole('button', { name: 'Keep as my own' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Kiln camera' })).toContainText('read by it')
  expect((await demoShot('Glaze shelf')).read.encodingId).toMatch(/^own-kiln-camera-/)
  await resetShot('Glaze shelf')
})

test('patches on a frame fit a curve, and the known encoding is named', async ({ page }) => {
  const shot = await demoShot('Glaze shelf')
  await page.goto(`${address()}/cameras/measure?shot=${shot.id}&frame=${shot.leadFrame}`)
  const picture = page.getByRole('application')
  const lights = { black3: 0.03, greyCard: 0.18, white90: 0.9 } as const
  await drawPatches(page, ['black3', 'greyCard', 'white90'])
  await expect(page.getByText('1 more patch before a curve can be fitted.')).toBeVisible()
  const typed = Object.values(lights)
  for (let i = 0; i < 3; i++) {
    await page.getByRole('textbox', { name: `Light of patch ${i + 1}` }).fill(String(typed[i]))
    await page.getByRole('textbox', { name: `Light of patch ${i + 1}` }).press('Enter')
  }
  // The fourth from the keyboard: a box that the arrows move and Enter takes; it lies on the grey card again, one stop
  // is not asked of it.
  await picture.focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('textbox', { name: 'Light of patch 4' })).toBeVisible()
  await page.keyboard.press('Delete')
  await expect(page.getByRole('textbox', { name: 'Light of patch 4' })).toHaveCount(0)
  const codes = await page.locator('.fit tbody tr').allInnerTexts()
  const grey = Number(codes[1]!.split(/\s+/)[1])
  expect(Math.abs(grey - 0.410557 * 1023)).toBeLessThan(3)
})

test('a pasted table is fitted with its residuals, and a wrong line is named', async ({ page }) => {
  await page.goto(`${address()}/cameras/measure`)
  await page.getByRole('combobox', { name: 'Measure from' }).click({ force: true })
  await page.getByRole('option', { name: 'a pasted table' }).click()
  // Log 351/128 by its published numbers.
  const encode = (x: number): number =>
    x >= 0.0126 ? 0.36726845 * Math.log10(16.6480555556 * x + 1) + 0.12240537 : 2.19497755556 * x + 0.12512219
  const rows = [-5, -4, -3, -2, -1, 0, 1, 2, 3, 4].map(
    (s) => `${(encode(0.18 * 2 ** s) * 1023).toFixed(1)}, ${0.18 * 2 ** s}`,
  )
  await page.getByRole('textbox', { name: 'a pasted table' }).fill(rows.join('\n'))
  await expect(page.getByTestId('nearest')).toContainText('Log 351/128')
  await expect(page.getByTestId('fit-rms')).toContainText(/0\.0\d\d stops left over 10 patches/)
  await page.getByRole('textbox', { name: 'a pasted table' }).fill(`${rows[0]}\nnonsense here`)
  await expect(page.getByRole('alert')).toContainText('Line 2')
})

test(
  'one frame through every plausible encoding, with evidence; one click reads the shot by it, ' +
    'undone like any edit',
  async ({ page }) => {
    await resetShot('Glaze shelf')
    const shot = await demoShot('Glaze shelf')
    await openBench(page, 'Glaze shelf', 'read')
    await page.getByRole('link', { name: /Which encoding is it/ }).click()
    await page.waitForURL(/compare/)
    // The address alone brings it back.
    await page.reload()
    await expect(page.getByTestId('sentences')).toContainText('camera log')
    const cards = page.locator('.cards > li')
    await expect(cards).toHaveCount(9)
    await expect(cards.first()).toContainText(/stops from grey/)
    const pixels = await cards
      .first()
      .locator('canvas')
      .evaluate((c) => (c as HTMLCanvasElement).getContext('2d')!.getImageData(100, 60, 1, 1).data[3])
    expect(pixels).toBe(255)
    // The grey card at the left lies within a few hundredths of a stop of 18 % through the right encoding.
    const right = cards.filter({ hasText: 'Log 420/95' }).filter({ hasText: 'full range' })
    const box = (await right.locator('canvas').boundingBox())!
    await right.locator('canvas').click({ position: { x: box.width * 0.09, y: box.height * 0.74 } })
    await expect(right).toContainText(/The card lies [+−]0\.0\d stops from grey/)
    const other = cards.filter({ has: page.getByRole('button', { name: 'Read by this' }) }).first()
    const name = (await other.getByRole('heading').innerText()).split(/\s{2,}|\n/)[0]!
    await other.getByRole('button', { name: 'Read by this' }).click()
    await expect(page.getByRole('status').filter({ hasText: 'now read by' })).toBeVisible()
    await saved(page)
    await openBench(page, 'Glaze shelf', 'read')
    await expect(
      page.getByRole('combobox', { name: 'Encoding', exact: true }).locator('..').locator('..'),
    ).toContainText(name)
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect
      .poll(
        async () =>
          ((await (await fetch(`${address()}/api/shots/${shot.id}`)).json()) as { read: { encodingId: string } }).read
            .encodingId,
      )
      .toBe('log-420-95')
  },
)

test('a chart laid on by its corners tells exposure, white and a matrix, which are set and kept by name', async ({
  page,
}) => {
  // Wrong by 0.7 stops, 30 mired and 4 of tint, with a camera that mixes 0.15 of green into red (chart.test.ts).
  const id = await importInto(address(), readFileSync('tests/fixtures/chart.png'), 'chart.png')
  const shot = async (): Promise<ShotDetail> =>
    (await (await fetch(`${address()}/api/shots/${id}`)).json()) as ShotDetail
  await fetch(`${address()}/api/shots/changes`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ shotIds: [id], read: { encodingId: 'log-420-95' } }),
  })
  await page.goto(`${address()}/cameras/chart?shot=${id}`)
  const difference = (way: string): Promise<number> =>
    page
      .locator(`[data-way="${way}"] td`)
      .first()
      .textContent()
      .then((words) => Number(words))
  await expect(page.locator('[data-way="matched"]')).toBeVisible()
  expect(await difference('matched')).toBeGreaterThan(2)
  // Each corner by its own way: three by the pointer, the last by keys.
  const stage = (await page.getByRole('group', { name: /Chart in the picture/ }).boundingBox())!
  const corners = [
    { x: 0.25, y: 0.2 },
    { x: 0.75, y: 0.2 },
    { x: 0.75, y: 0.8 },
    { x: 0.25, y: 0.8 },
  ]
  for (const [i, corner] of corners.entries()) {
    const handle = page.locator(`[data-corner="${i + 1}"]`)
    const box = (await handle.boundingBox())!
    const to = { x: stage.x + corner.x * stage.width, y: stage.y + corner.y * stage.height }
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
    await page.mouse.down()
    await page.mouse.move(to.x - (i === 3 ? 0.04 * stage.width : 0), to.y, { steps: 4 })
    await page.mouse.up()
    if (i !== 3) continue
    await handle.focus()
    await page.keyboard.press('Shift+ArrowRight')
    await page.keyboard.press('Shift+ArrowRight')
  }
  await expect.poll(() => difference('matched')).toBeLessThan(1)
  expect(await difference('balanced')).toBeGreaterThan(await difference('matched'))
  await expect(page.getByTestId('patches').getByRole('listitem')).toHaveCount(24)
  await page.getByRole('button', { name: 'Set exposure and white' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'are set' })).toBeVisible()
  await page.getByRole('button', { name: 'Add the matrix' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'in the grade' })).toBeVisible()
  const { steps } = (await shot()).revision.grade
  const numbers = (kind: string): Record<string, unknown> => steps.find((s) => s.kind === kind)?.params ?? {}
  expect(Math.abs(Number(numbers('exposure')['exposureStops']) - 0.7)).toBeLessThan(0.15)
  expect(Math.abs(Number(numbers('camera-matrix')['redOfGreen']) - 0.15)).toBeLessThan(0.03)
  await page.getByRole('textbox', { name: 'Name of camera and light' }).fill('Ashglaze B, kiln light')
  await page.getByRole('button', { name: 'Keep the matrix' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'is kept' })).toContainText('Ashglaze B, kiln light')
  await openBench(page, 'Potter at the bench')
  await page.keyboard.press('Control+k')
  await page.keyboard.type('recipe kiln light')
  await expect(page.getByRole('option', { name: /Ashglaze B, kiln light/ })).toBeVisible()
})
