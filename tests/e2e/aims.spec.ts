// Long: one panel from the first aim to the last, on the same shots.
// Aims: said by a key, a handle, a reading or a part of the picture; shown before they are kept; never over a hand's
// work unseen.
import type { Page } from '@playwright/test'
import type { ShotDetail } from '@contracts/responses'
import { expect, test } from './program'
import {
  address,
  choose,
  control,
  demoShot,
  drawPart,
  field,
  meanColour,
  openBench,
  reading,
  regionPage,
  resetShot,
  saved,
  showStraight,
  station,
  type,
} from './bench-page'

const tab = (page: Page) => page.getByTestId('aims-tab')
const status = (page: Page) => page.getByTestId('aims-status')
const line = (page: Page, id: string) => page.locator(`[data-aim="${id}"]`)
/** White as the waveform states it. */
const white = async (page: Page): Promise<number> =>
  Number((await page.getByTestId('waveform-figure').innerText()).split('–')[1]!.replace('%', '').trim())
const fresh = (page: Page): Promise<void> => expect(page.getByTestId('outside')).toContainText(/good|attention/)

/** As it came: without a grade, and without what was pointed out in it. */
const reset = async (): Promise<void> => {
  await resetShot('Potter at the bench')
  await fetch(`${address()}/api/shots/${(await demoShot('Potter at the bench')).id}/card`, { method: 'DELETE' })
}
test.beforeEach(reset)
test.afterAll(reset)

test('the standard sets the aims; lines are refused, controls are held, nothing is saved until it is kept', async ({
  page,
}) => {
  await openBench(page, 'Potter at the bench')
  await drawPart(page, 0.72, 0.84, 0.79, 0.93)
  await page.getByRole('button', { name: 'grey card', exact: true }).click()
  await page.getByRole('button', { name: 'clear' }).click()
  await fresh(page)
  await tab(page).click()
  await page.getByRole('button', { name: 'to the standard' }).click()
  await expect(status(page)).toHaveText(/all met|not met/)
  await expect(line(page, 'card')).toContainText('Card')
  await expect(line(page, 'white-balance')).toContainText('neutral')
  // The controls show what is proposed; the record knows nothing of it yet.
  await expect(field(page, 'exposureStops')).toHaveValue(/^\+0\.[67]\d$/)
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled()
  await line(page, 'white-balance').getByRole('checkbox').uncheck()
  await expect(field(page, 'tint')).toHaveValue('0.0')
  await line(page, 'white-balance').getByRole('checkbox').check()
  await expect(field(page, 'tint')).toHaveValue(/^\+[78]\.\d$/)
  await page.locator('[data-control-lock="exposure"]').click()
  await expect(field(page, 'exposureStops')).toHaveValue('0.00')
  await expect(status(page)).toContainText('not met')
  await page.locator('[data-control-lock="exposure"]').click()
  await expect(field(page, 'exposureStops')).toHaveValue(/^\+0\.[67]\d$/)
  await expect(page.getByRole('button', { name: 'Apply', exact: true })).toBeEnabled()
  await page.getByRole('button', { name: 'Apply', exact: true }).click()
  await saved(page)
  await page.getByRole('link', { name: 'Record' }).click()
  const entry = page.locator('[data-revision="2"]').first()
  await expect(entry).toContainText(/Aims to the standard.*Exposure 0\.00 stops → \+0\.[67]\d stops/)
  await expect(entry).toContainText(/Card at 0\.00 stops; .*Card neutral/)
})

test('without a card it says what it does not know; taken back, all is as it was', async ({ page }) => {
  await openBench(page, 'Potter at the bench')
  await type(page, 'exposureStops', '0.2')
  await saved(page)
  await fresh(page)
  await tab(page).click()
  await page.getByRole('button', { name: 'to the standard' }).click()
  await expect(status(page)).toHaveText(/all met|not met/)
  await expect(page.getByTestId('aims')).toContainText('No grey card is pointed out.')
  await page.getByRole('button', { name: 'Discard' }).click()
  await expect(field(page, 'exposureStops')).toHaveValue('+0.20')
  await expect(field(page, 'tint')).toHaveValue('0.0')
})

test('Balance for me: a card gives one sure choice; it is shown, taken by its number, and undone as one', async ({
  page,
}) => {
  await openBench(page, 'Potter at the bench')
  await drawPart(page, 0.72, 0.84, 0.79, 0.93)
  await page.getByRole('button', { name: 'grey card', exact: true }).click()
  await page.getByRole('button', { name: 'clear' }).click()
  await fresh(page)
  await page.keyboard.press('n')
  const choices = page.getByTestId('balance').locator('[data-choice]')
  await expect(choices).toHaveCount(1)
  await expect(page.getByTestId('balance')).toContainText('The card lies')
  // It is looked at before it is taken: the controls show it, the record knows nothing of it.
  await expect(field(page, 'exposureStops')).toHaveValue(/^\+0\.[67]\d$/)
  await expect(field(page, 'contrast')).toHaveCount(0)
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled()
  await page.keyboard.press('Escape')
  await expect(field(page, 'exposureStops')).toHaveValue('0.00')
  await page.keyboard.press('n')
  await expect(choices).toHaveCount(1)
  await page.keyboard.press('1')
  await saved(page)
  await expect(field(page, 'exposureStops')).toHaveValue(/^\+0\.[67]\d$/)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(field(page, 'exposureStops')).toHaveValue('0.00')
  await expect(field(page, 'tint')).toHaveValue('0.0')
})

test('a grey card that nobody pointed at is found and offered beside the others; taken, it is pointed out', async ({
  page,
}) => {
  await resetShot('Kiln at night')
  await openBench(page, 'Kiln at night')
  await fresh(page)
  await page.keyboard.press('n')
  const card = page.locator('[data-choice="card"]')
  await expect(card).toBeVisible()
  expect(await page.getByTestId('balance').locator('[data-choice]').first().getAttribute('data-choice')).not.toBe(
    'card',
  )
  await card.hover()
  await expect(page.getByTestId('balance')).toContainText('What looks like a grey card was found at the right')
  await card.click()
  await saved(page)
  // The night was shot 0.3 stops too dark, and its fire is far from the card.
  const { id } = await demoShot('Kiln at night')
  const pointedCard = async (): Promise<ShotDetail['card']> =>
    ((await (await fetch(`${address()}/api/shots/${id}`)).json()) as ShotDetail).card
  await expect.poll(pointedCard).not.toBeNull()
  const pointed = await pointedCard()
  expect(pointed?.area.left).toBeGreaterThan(0.71)
  expect(pointed?.area.right).toBeLessThan(0.82)
  await fetch(`${address()}/api/shots/${id}/card`, { method: 'DELETE' })
  await resetShot('Kiln at night')
})

test('without evidence Balance offers three to choose from, and what is right already comes first', async ({
  page,
}) => {
  await resetShot('Window bench')
  await openBench(page, 'Window bench')
  await fresh(page)
  await page.keyboard.press('n')
  const choices = page.getByTestId('balance').locator('[data-choice]')
  await expect(choices.first()).toBeVisible()
  // The window is light, no white: nothing is brought down for it.
  await expect(field(page, 'exposureStops')).toHaveValue('0.00')
  await page.locator('[data-choice="darker"]').hover()
  await expect(field(page, 'exposureStops')).toHaveValue('−0.67')
  await page.keyboard.press('Escape')
  await expect(choices).toHaveCount(0)
  await expect(field(page, 'exposureStops')).toHaveValue('0.00')
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled()
})

test('a handle on the waveform is dragged, by mouse or by keys, to where white should sit', async ({ page }) => {
  await openBench(page, 'Potter at the bench')
  await fresh(page)
  const handle = page.locator('[data-handle="white"]')
  const before = await white(page)
  const at = (await handle.boundingBox())!
  await page.mouse.move(at.x + 12, at.y + 12)
  await page.mouse.down()
  await page.mouse.move(at.x + 12, at.y - 4, { steps: 6 })
  await page.mouse.up()
  await expect(status(page)).toHaveText('all met')
  const wanted = Number(await page.getByLabel('White, wanted').inputValue())
  expect(wanted).toBeGreaterThan(before + 5)
  await expect.poll(async () => Math.abs((await white(page)) - wanted)).toBeLessThan(0.5)
  await handle.focus()
  await page.keyboard.press('ArrowDown')
  await expect(page.getByLabel('White, wanted')).not.toHaveValue(String(wanted))
  await page.getByLabel('White, wanted').fill('91')
  await page.getByLabel('White, wanted').press('Enter')
  await expect.poll(async () => Math.abs((await white(page)) - 91)).toBeLessThan(0.5)
  await page.keyboard.press('Escape')
})

test('a reading proposes its aim; a part of the picture says what it is; aims that exclude each other say why', async ({
  page,
}) => {
  await openBench(page, 'Potter at the bench')
  await fresh(page)
  await page.getByRole('button', { name: 'all', exact: true }).click()
  await page.locator('[data-reading="black"]').click()
  await page.getByRole('button', { name: 'Aim: Black at 4.0 %' }).click()
  await expect(status(page)).toHaveText('all met')
  await drawPart(page, 0.05, 0.4, 0.12, 0.5)
  await page.getByLabel('Says what this part should be.').selectOption('white')
  await drawPart(page, 0.06, 0.42, 0.13, 0.52)
  await page.getByLabel('Says what this part should be.').selectOption('black')
  await expect(status(page)).toContainText('not met')
  await expect(page.getByTestId('aims')).toContainText(/needs .+ than .+ allows?/)
  await page.getByRole('button', { name: 'Discard' }).click()
})

test('zones are added, tinted and removed; a decision list comes in and goes out', async ({ page }, info) => {
  await openBench(page, 'Potter at the bench', 'shape')
  await page.getByRole('button', { name: 'curves and zones', exact: true }).click()
  await page.getByLabel('+ zone').selectOption('Darks')
  await saved(page)
  await fresh(page)
  const before = await reading(page, 'black')
  await type(page, 'exposureStops', '1')
  await expect.poll(() => reading(page, 'black')).toBeGreaterThan(before + 1)
  // Its centre and its reach stand over the picture's own tones, for the hand and for keys.
  const box = (await page.getByTestId('zone-field').boundingBox())!
  const centre = page.locator('[data-handle="centre"]')
  await expect(centre).toHaveAttribute('aria-valuenow', '-3')
  await centre.hover()
  await page.mouse.down()
  await page.mouse.move(box.x + (box.width * (-4 + 7.4)) / 15.8, box.y + 10, { steps: 4 })
  await page.mouse.up()
  await expect(centre).toHaveAttribute('aria-valuenow', '-4')
  await page.locator('[data-handle="edge"]').press('Shift+ArrowRight')
  await expect(field(page, 'widthStops')).toHaveValue('4.0')
  await page.getByRole('button', { name: 'remove', exact: true }).click()
  await expect.poll(async () => Math.abs((await reading(page, 'black')) - before)).toBeLessThan(0.2)
  await page.keyboard.press('6')
  await page.getByRole('button', { name: 'decision list', exact: true }).click()
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Read .cc .ccc .cdl' }).click()
  await (
    await chooser
  ).setFiles({ name: 'broken.cdl', mimeType: 'application/xml', buffer: Buffer.from('<ColorDecisionList>') })
  await expect(page.getByRole('alert').filter({ hasText: 'broken.cdl' })).toContainText('not sound XML')
  const again = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Read .cc .ccc .cdl' }).click()
  await (
    await again
  ).setFiles({
    name: 'warm.cc',
    mimeType: 'application/xml',
    buffer: Buffer.from(
      '<ColorCorrection id="warm"><SOPNode><Slope>1.1 1 0.9</Slope><Offset>0 0 0</Offset><Power>1 1 ' +
        '1</Power></SOPNode></ColorCorrection>',
    ),
  })
  await expect(page.getByTestId('cdl')).toContainText('slope 1.100 1.000 0.900')
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: '.ccc', exact: true }).click()
  const path = info.outputPath('out.ccc')
  await (await download).saveAs(path)
  expect((await import('node:fs')).readFileSync(path, 'utf8')).toContain('<Slope>1.1 1 0.9</Slope>')
})

test(
  'the skin on the vectorscope is turned to where it should lie, by mouse or keys; further in or ' +
    'out it is its chroma too',
  async ({ page }) => {
    await openBench(page, 'Potter at the bench')
    await drawPart(page, 0.42, 0.42, 0.5, 0.56)
    await page.getByRole('combobox', { name: 'a subject' }).selectOption('new')
    await page.getByPlaceholder('Name').fill('Ember')
    await page.keyboard.press('Enter')
    await page.getByRole('button', { name: 'clear' }).click()
    const handle = page.locator('[data-handle="skin-Ember"]')
    await expect(handle).toBeVisible()
    const hue = async (): Promise<number> => Number(await handle.getAttribute('aria-valuenow'))
    const before = await hue()
    await handle.focus()
    for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowRight')
    await expect(status(page)).toHaveText('all met')
    await expect(line(page, 'skin-Ember')).toContainText('°')
    await handle.blur()
    await expect.poll(async () => Math.abs((await hue()) - (before - 4))).toBeLessThan(0.6)
    // What was asked for is the hue alone: saturation is not touched.
    await expect(page.locator('[data-control-lock]')).toHaveCount(2)
    await handle.focus()
    await page.keyboard.press('Shift+ArrowUp')
    await expect(page.locator('[data-control-lock="saturation"]')).toBeVisible()
    await page.getByRole('button', { name: 'Discard' }).click()
    const subjects = (await (
      await fetch(`${address()}/api/shots/${(await demoShot('Potter at the bench')).id}`)
    ).json()) as { subjects: { id: string; name: string }[] }
    expect(subjects.subjects.map((s) => s.name)).toContain('Ember')
  },
)

test('a colour is remembered, and another shot brought to it', async ({ page }) => {
  await resetShot('Window bench')
  await openBench(page, 'Potter at the bench')
  await drawPart(page, 0.05, 0.45, 0.15, 0.6)
  await page.getByLabel('Says what this part should be.').selectOption('remember')
  await openBenchWithin(page, 'Window bench')
  await drawPart(page, 0.45, 0.45, 0.55, 0.55)
  await page.getByLabel('Says what this part should be.').selectOption('same')
  await expect(line(page, 'part-same')).toContainText('Same as Potter at the bench, frame 24')
  await expect(status(page)).toHaveText(/all met|not met/)
  await page.getByRole('button', { name: 'Apply', exact: true }).click()
  await saved(page)
  await resetShot('Window bench')
})

/** To another shot within the page, as a person goes: what is remembered stays. */
async function openBenchWithin(page: Page, name: string): Promise<void> {
  await page.getByRole('link', { name: 'Reel' }).click()
  await page.getByRole('link', { name, exact: true }).click()
  await expect(page.getByTestId('reading-middle')).toContainText('%')
}

test(
  'the whole clip is kept inside the standard, with its trace before and after; kept steps come ' + 'back as a recipe',
  async ({ page }) => {
    await showStraight('Courtyard walk')
    await openBench(page, 'Courtyard walk')
    await type(page, 'exposureStops', '1.5')
    await saved(page)
    await tab(page).click()
    await expect(page.getByRole('button', { name: 'whole clip' })).toBeEnabled({ timeout: 60_000 })
    await expect(page.getByText(/Analysing \d+ %/)).toHaveCount(0)
    await page.getByRole('button', { name: 'whole clip' }).click()
    await expect(status(page)).toHaveText('all met')
    await expect(line(page, 'clip-white')).toContainText('at most')
    await page.getByRole('button', { name: 'Apply', exact: true }).click()
    await saved(page)
    await page.keyboard.press('6')
    await page.getByRole('button', { name: 'recipes', exact: true }).click()
    await page.getByRole('button', { name: 'New recipe' }).click()
    await page.getByPlaceholder('Recipe name').fill('Courtyard sun')
    await page.getByRole('button', { name: /^Save \d+ steps?$/ }).click()
    await resetShot('Courtyard walk')
    await page.reload()
    await page.keyboard.press('6')
    await page.getByRole('button', { name: 'recipes', exact: true }).click()
    await page.getByRole('option', { name: 'Courtyard sun' }).click()
    await page.getByRole('button', { name: 'Apply' }).click()
    // Where the pixels leave open which log it is, a recipe asks; it stays as it is read.
    const { guess, read } = await demoShot('Courtyard walk')
    if (guess!.alike.length > 1 && guess!.alike.includes(read.encodingId))
      await page.getByTestId('placing').getByRole('button', { name: 'Apply', exact: true }).click()
    await saved(page)
    await page.getByRole('button', { name: 'Remove', exact: true }).click()
    await expect(page.getByText('Courtyard sun')).toHaveCount(0)
    await resetShot('Courtyard walk')
  },
)

test('a recipe with a region asks where it sits, shows it there, and keeps nothing before it is told to', async ({
  page,
}) => {
  await resetShot('Courtyard walk')
  await openBench(page, 'Courtyard walk', 'regions')
  await choose(page, 'add-region', 'Ellipse')
  await regionPage(page, 'level')
  await type(page, 'exposureStops', '1.5')
  await saved(page)
  await station(page, 'look').click()
  await page.getByRole('button', { name: 'recipes', exact: true }).click()
  await page.getByRole('button', { name: 'New recipe' }).click()
  await page.getByPlaceholder('Recipe name').fill('Lit middle')
  for (const name of ['Shape', 'Hue', 'Look'])
    await page.getByTestId('recipes').getByRole('button', { name, exact: true }).click()
  await page.getByTestId('recipes').getByRole('button', { name: 'Regions', exact: true }).click()
  await page.getByRole('button', { name: 'Save 1 step', exact: true }).click()
  await resetShot('Courtyard walk')
  await openBench(page, 'Courtyard walk', 'look')
  const before = await meanColour(page, 0, 0, 0.2, 1)
  await page.getByRole('button', { name: 'recipes', exact: true }).click()
  await page.getByRole('option', { name: 'Lit middle' }).click()
  await page.getByRole('button', { name: 'Apply' }).click()
  await expect(page.getByTestId('placing')).toContainText('asks where it sits')
  await type(page, 'place-centreX', '10')
  await expect.poll(async () => (await meanColour(page, 0, 0, 0.2, 1))[1]).toBeGreaterThan(before[1] + 5)
  // Left: the picture is as it was, and the shot has no edit.
  await control(page, 'place-centreX').press('Escape')
  await expect.poll(async () => (await meanColour(page, 0, 0, 0.2, 1))[1]).toBeCloseTo(before[1], 0)
  await page.getByRole('button', { name: 'Apply' }).click()
  await page.getByTestId('placing').getByRole('button', { name: 'Discard' }).click()
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled()
  await page.getByRole('button', { name: 'Apply' }).click()
  await type(page, 'place-centreX', '10')
  await page.getByTestId('placing').getByRole('button', { name: 'Apply', exact: true }).click()
  await saved(page)
  await page.reload()
  await expect.poll(async () => (await meanColour(page, 0, 0, 0.2, 1))[1]).toBeGreaterThan(before[1] + 5)
  await page.getByRole('button', { name: 'recipes', exact: true }).click()
  await page.getByRole('option', { name: 'Lit middle' }).click()
  await page.getByRole('button', { name: 'Remove', exact: true }).click()
  await resetShot('Courtyard walk')
})

test(
  'where nothing has settled the encoding, a recipe asks for it once, shows the answer, and keeps ' +
    'it with its steps',
  async ({ page }) => {
    await resetShot('Courtyard walk')
    const { id, guess } = await demoShot('Courtyard walk')
    // Read by one of several encodings that its pixels cannot tell apart.
    const [first, second] = guess!.alike
    expect(second).toBeDefined()
    await fetch(`${address()}/api/shots/changes`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ shotIds: [id], read: { encodingId: first } }),
    })
    await openBench(page, 'Courtyard walk', 'look')
    const readAs = async (): Promise<string> =>
      ((await (await fetch(`${address()}/api/shots/${id}`)).json()) as ShotDetail).revision.grade.read.encodingId
    expect(await readAs()).toBe(first)
    const before = await meanColour(page)
    await page.getByRole('button', { name: 'recipes', exact: true }).click()
    await page.getByRole('option', { name: 'Documentary neutral' }).click()
    await page.getByRole('button', { name: 'Apply' }).click()
    const placing = page.getByTestId('placing')
    await expect(placing).toContainText('asks how this footage is to be read')
    await placing.getByRole('combobox', { name: 'Read as' }).click({ force: true })
    await page.getByRole('option').filter({ visible: true }).nth(1).click()
    await expect.poll(async () => meanColour(page)).not.toEqual(before)
    expect(await readAs()).toBe(first)
    await placing.getByRole('button', { name: 'Apply', exact: true }).click()
    await saved(page)
    expect(await readAs()).toBe(second)
    await page.getByRole('button', { name: 'Apply' }).click()
    await saved(page)
    await expect(placing).toHaveCount(0)
    await resetShot('Courtyard walk')
  },
)
