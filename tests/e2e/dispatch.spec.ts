// Projects, import, and taking things away.
import { readFileSync, writeFileSync } from 'node:fs'
import { expect, test } from '@playwright/test'
import { decode } from 'fast-png'
import { address, demoShot, openBench, resetShot, saved, type } from './bench-page'

test('a project of one’s own: make it, add a clip, and a file that is none', async ({ page }, info) => {
  await page.goto(address())
  await page.getByLabel('New project').fill('Kiln notes')
  await page.getByRole('button', { name: 'Make it' }).click()
  await expect(page.getByText('No shots yet.')).toBeVisible()
  const bad = info.outputPath('not-a-clip.mov')
  writeFileSync(bad, 'only text')
  await page.locator('input[type=file]').setInputFiles([bad, 'demo/footage/potter.mov'])
  await expect(page.getByRole('alert')).toContainText('"not-a-clip.mov" is not a video that can be read.')
  await expect(page.getByRole('link', { name: 'potter.mov' })).toBeVisible()
  await expect(page.getByRole('row')).toHaveCount(2)
  await page.getByRole('button', { name: 'Close this message' }).click()
  await page.getByRole('link', { name: 'potter.mov' }).click()
  await expect(page.getByTestId('reading-middle')).toContainText('%')
})

test('the frame, the LUT and the clip can be taken away', async ({ page }) => {
  test.setTimeout(180_000)
  await resetShot('Potter at the bench')
  await openBench(page, 'Potter at the bench')
  await type(page, 'exposureStops', '0.7')
  await page.locator('[data-station="regions"]').click()
  await page.getByRole('button', { name: 'Add a region' }).click()
  await type(page, 'exposureStops', '0.4')
  await saved(page)
  await page.getByRole('link', { name: 'Dispatch' }).click()

  const [still] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Take the PNG' }).click()])
  const png = decode(readFileSync(await still.path()))
  expect(png).toMatchObject({ width: 960, height: 540, depth: 16 })
  expect(still.suggestedFilename()).toBe('Potter at the bench frame 24.png')

  await expect(page.getByTestId('lut-carries')).toHaveText('A LUT sees one pixel at a time. Not carried: region "Region 1".')
  await expect(page.getByTestId('lut-error')).toContainText('mean ΔE2000')
  const [lut] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Take the .cube' }).click()])
  expect(readFileSync(await lut.path(), 'utf8')).toContain('LUT_3D_SIZE 33')

  await page.getByRole('button', { name: 'Render' }).click()
  const newest = page.getByTestId('render').first()
  await expect(newest.getByRole('progressbar')).toBeVisible()
  await newest.getByRole('button', { name: 'Cancel' }).click()
  await expect(newest).toHaveAttribute('data-state', 'cancelled')
  await page.getByRole('button', { name: 'Render' }).click()
  await expect(newest).toHaveAttribute('data-state', 'done', { timeout: 120_000 })
  const [clip] = await Promise.all([page.waitForEvent('download'), newest.getByRole('link', { name: 'Take the file' }).click()])
  expect(clip.suggestedFilename()).toBe('Potter at the bench graded.mp4')
  expect(readFileSync(await clip.path()).subarray(4, 8).toString()).toBe('ftyp')
  expect((await demoShot('Potter at the bench')).revisionDepth).toBeGreaterThan(1)
})
