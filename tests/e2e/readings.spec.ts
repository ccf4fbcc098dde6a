// Readings against a house standard: ranked, opened, waived; cards and subjects pointed out in the picture; standards
// changed in their view.
import type { Page } from '@playwright/test'
import { expect, test } from './program'
import { address, demoShot, drawPart, openBench, resetShot, showStraight, type } from './bench-page'

test.beforeEach(async () => {
  await resetShot('Potter at the bench')
  const { id } = await demoShot('Potter at the bench')
  await fetch(`${address()}/api/shots/${id}/card`, { method: 'DELETE' })
})

const fresh = (page: Page): Promise<void> => expect(page.getByTestId('outside')).toContainText(/good|attention/)
/** How many readings need attention, as it is said. */
const said = (count: number): string =>
  count === 0 ? 'all good' : `${count} ${count === 1 ? 'needs' : 'need'} attention`
const row = (page: Page, id: string) => page.locator(`[data-reading="${id}"]`)

test('the card says by how much the shot is off; correcting by that takes it away', async ({ page }) => {
  await openBench(page, 'Potter at the bench')
  await drawPart(page, 0.72, 0.84, 0.79, 0.93)
  await page.getByRole('button', { name: 'grey card' }).click()
  // 0.7 stop under, and green: what the shot's truth file says.
  await expect(row(page, 'cardExposure')).toContainText(/−0\.[67]\d/)
  await expect(row(page, 'cardWhite')).toContainText(/cool by 4 mired, green by [78]\.\d/)
  await type(page, 'exposureStops', '0.7')
  await type(page, 'temperatureMired', '4')
  await type(page, 'tint', '8')
  await fresh(page)
  await page.getByRole('button', { name: 'all', exact: true }).click()
  await expect(row(page, 'cardExposure')).toContainText(/[−]?0\.0\d/)
  await expect(row(page, 'cardWhite')).not.toHaveClass(/off/)
  await page.reload()
  await fresh(page)
  await page.getByRole('button', { name: 'all', exact: true }).click()
  await expect(row(page, 'cardWhite')).toBeVisible()
})

test('a subject is sampled once, and every later change is held against their own card', async ({ page }) => {
  await openBench(page, 'Potter at the bench')
  await drawPart(page, 0.43, 0.45, 0.48, 0.52)
  await page.getByRole('combobox', { name: 'a subject' }).selectOption('new')
  await page.getByPlaceholder('Name').fill('Potter')
  await page.getByRole('button', { name: 'Create' }).click()
  await fresh(page)
  await page.getByRole('button', { name: 'all', exact: true }).click()
  // Other subjects of the project may lie in this shot as well.
  const ofPotter = (id: string) => row(page, id).filter({ hasText: 'Potter' })
  await expect(ofPotter('skinHue')).toContainText('Skin hue, Potter')
  await expect(ofPotter('skinLuma')).toContainText('The card says')
  await page.getByRole('button', { name: 'fewer' }).click()
  await type(page, 'tint', '-30')
  await fresh(page)
  await page.getByRole('button', { name: 'all', exact: true }).click()
  await expect(ofPotter('skinHue')).toHaveClass(/off/)
  await page.keyboard.press('Escape')
  // Choosing the subject on the picture measures it.
  await page.getByRole('button', { name: 'clear' }).click()
  await page.getByRole('button', { name: 'Potter', exact: true }).click()
  await expect(page.getByTestId('part-bar')).toContainText('luma')
  // What is no skin is no subject.
  await type(page, 'tint', '0')
  await drawPart(page, 0.15, 0.8, 0.25, 0.9)
  await page.getByRole('combobox', { name: 'a subject' }).selectOption('new')
  await page.getByPlaceholder('Name').fill('Cup')
  await page.getByRole('button', { name: 'Create' }).click()
  await expect(page.getByRole('alert')).toContainText('Nothing there has a colour of skin.')
})

test('a reading opens to its sentence and its why, is waived with a reason, and taken up again', async ({ page }) => {
  await openBench(page, 'Potter at the bench')
  await fresh(page)
  const before = Number((await page.getByTestId('outside').innerText()).split(' ')[0])
  const first = page.locator('[data-reading].off').first()
  const id = (await first.getAttribute('data-reading'))!
  await first.click()
  const detail = page.getByTestId('reading-detail')
  await expect(detail).toContainText('The standard wants')
  await expect(detail.getByRole('button', { name: 'ignore' })).toBeDisabled()
  await detail.getByPlaceholder('Reason').fill('The kiln glows')
  await detail.getByRole('button', { name: 'ignore' }).click()
  await expect(detail).toContainText('Ignored: The kiln glows')
  await expect(page.getByTestId('outside')).toHaveText(said(before - 1))
  await page.reload()
  await fresh(page)
  await expect(page.getByTestId('outside')).toHaveText(said(before - 1))
  await page.getByRole('button', { name: 'all', exact: true }).click()
  await row(page, id).click()
  await page.getByRole('button', { name: 'watch again' }).click()
  await expect(page.getByTestId('outside')).toHaveText(said(before))
})

test('the pixels behind a reading are lit, and go out with the next change', async ({ page }) => {
  await openBench(page, 'Potter at the bench')
  await fresh(page)
  await page.getByRole('button', { name: 'all', exact: true }).click()
  await row(page, 'noise').click()
  await page.getByRole('button', { name: 'show where' }).click()
  await expect(page.getByText(/Noise in shadows: \d+\.\d+ % of the pixels/)).toBeVisible()
  await page.getByRole('button', { name: 'show no more' }).click()
  await expect(page.getByText(/of the pixels$/)).toHaveCount(0)
  await page.getByRole('button', { name: 'show where' }).click()
  await expect(page.getByText(/Noise in shadows: /)).toHaveCount(2)
  await page.keyboard.press('Escape')
  await type(page, 'exposureStops', '0.3')
  await expect(page.getByText(/% of the pixels$/)).toHaveCount(0)
  await type(page, 'exposureStops', '0')
})

test('the worst frame of the clip is named, and one click goes there', async ({ page }) => {
  await showStraight('Courtyard walk')
  await openBench(page, 'Courtyard walk')
  await expect(page.locator('.timeline')).toHaveAttribute('data-traced', '1')
  await page.getByTestId('worst-clipped').click()
  await expect(page.getByTestId('worst-clipped')).toBeVisible()
  await expect(page.getByTestId('frame')).not.toContainText(/^12 /)
  await resetShot('Courtyard walk')
})

test('left alone, the whole clip is looked through, and a reading says where it is worst', async ({ page }) => {
  const shot = await demoShot('Courtyard walk')
  await fetch(`${address()}/api/shots/changes`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ shotIds: [shot.id], standardId: 'broad-day' }),
  })
  await openBench(page, 'Courtyard walk')
  await fresh(page)
  await page.getByRole('button', { name: 'all', exact: true }).click()
  const over = row(page, 'contrastRange')
  // Nobody touches anything: frame after frame is measured.
  await expect(page.getByTestId('clip-seen')).toContainText(/^\d+\/120$/)
  await expect(over).toContainText('⇥')
  await over.click()
  await expect(page.getByTestId('reading-detail')).toContainText(/frames of the clip, furthest outside at frame \d+/)
  await page.getByTestId('go-worst').click()
  await expect(page.getByTestId('frame')).not.toContainText(/^12 /)
})

test('a standard is copied, changed, saved, picked by a scene on the Reel, exported, and removed', async ({ page }) => {
  await page.goto(`${address()}/standards/broad-day`)
  await expect(page.getByRole('button', { name: 'Save' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Copy to change' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Ashglaze house')
  await page.getByLabel('Black, From', { exact: true }).fill('7')
  await page.getByLabel('Black, From', { exact: true }).press('Enter')
  await expect(page.getByRole('status').filter({ hasText: 'over' })).toContainText('Black: "from" lies over "to".')
  await expect(page.getByRole('button', { name: 'Save' })).toBeDisabled()
  await page.getByLabel('Black, To', { exact: true }).fill('12')
  await page.getByLabel('Black, To', { exact: true }).press('Enter')
  await expect(page.locator('[data-band="black"]')).toContainText('7.0–12.0 %')
  await page.getByLabel('Middle is held against the standard').check()
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'saved' }).filter({ hasNotText: 'not saved' })).toBeVisible()
  await page.reload()
  await expect(page.locator('[data-band="black"]')).toContainText('7.0–12.0 %')
  const id = page.url().split('/').at(-1)!
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Export' }).click()
  expect((await download).suggestedFilename()).toBe('Ashglaze house.json')
  const shot = await demoShot('Potter at the bench')
  await fetch(`${address()}/api/shots/changes`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ shotIds: [shot.id], standardId: id }),
  })
  await openBench(page, 'Potter at the bench')
  await expect(page.getByRole('link', { name: 'Ashglaze house' })).toBeVisible()
  await expect(page.getByTestId('standing-black')).toContainText('7.0–12.0')
  await page.getByRole('link', { name: 'Ashglaze house' }).click()
  await page.getByRole('button', { name: 'Remove' }).click()
  await page.getByRole('button', { name: 'Remove for good' }).click()
  await openBench(page, 'Potter at the bench')
  await expect(page.getByRole('link', { name: 'Common ground' })).toBeVisible()
})
