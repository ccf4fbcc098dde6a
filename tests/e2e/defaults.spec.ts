// What shots have of their project: changed on the Reel, followed on the Bench, taken back as one.
import type { Page } from '@playwright/test'
import { address, changed, demoShot, meanColour, openBench, resetShot, saved, station } from './bench-page'
import { expect, test } from './program'

async function choose(page: Page, label: string, option: RegExp): Promise<void> {
  await page.getByRole('combobox', { name: label, exact: true }).click({ force: true })
  await page.getByRole('option', { name: option }).first().click()
}
const shown = async (name: string): Promise<string> => {
  const { id } = await demoShot(name)
  const { revision } = (await (await fetch(`${address()}/api/shots/${id}`)).json()) as {
    revision: { grade: { show: { method: string } } }
  }
  return revision.grade.show.method
}

test('a project’s rendering moves every shot that follows, and one act takes it back', async ({ page }) => {
  const { projectId } = await demoShot('Glaze shelf')
  await resetShot('Glaze shelf')
  await page.goto(`${address()}/projects/${projectId}/reel`)
  await choose(page, 'Rendering', /^print$/)
  await expect(page.getByTestId('defaults-moved')).toContainText(/\d+ shots follow/)
  await expect.poll(() => shown('Glaze shelf')).toBe('print')
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(page.getByTestId('defaults-moved')).toHaveCount(0)
  await expect.poll(() => shown('Glaze shelf')).toBe('rendered')
})

test('a shot may differ, and takes what its project says again', async ({ page }) => {
  await resetShot('Glaze shelf')
  await openBench(page, 'Glaze shelf', 'level')
  await station(page, 'show').click()
  await expect(page.getByTestId('follow-method')).toHaveCount(0)
  const before = await meanColour(page)
  await choose(page, 'Rendering', /^straight$/)
  await changed(page, before)
  const straight = await meanColour(page)
  await page.getByTestId('follow-method').click()
  await changed(page, straight)
  await expect(page.getByTestId('follow-method')).toHaveCount(0)
  await saved(page)
  expect(await shown('Glaze shelf')).toBe('rendered')
})
