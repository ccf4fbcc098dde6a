// Projects, import, and taking things away.
import { readFileSync, writeFileSync } from 'node:fs'
import { expect, test } from './program'
import { decode } from 'fast-png'
import { address, choose, demoShot, openBench, regionPage, resetShot, saved, type } from './bench-page'
import { drawOnPicture } from '../support/drawing'

/** A shot of twelve frames in a project of its own. */
async function shortShot(name: string): Promise<string> {
  const send = async (path: string, body: BodyInit): Promise<unknown> => {
    const r = await fetch(`${address()}/api${path}`, {
      method: 'POST',
      headers: typeof body === 'string' ? { 'content-type': 'application/json' } : {},
      body,
    })
    return r.status === 204 ? null : r.json()
  }
  const project = (await send('/projects', JSON.stringify({ name }))) as { id: string }
  const shot = (await send(
    `/projects/${project.id}/shots?name=short.mov`,
    readFileSync('demo/footage/potter.mov'),
  )) as { id: string }
  await send(`/shots/${shot.id}/cut`, JSON.stringify({ pieces: [{ first: 0, count: 12, name }] }))
  return ((await (await fetch(`${address()}/api/projects/${project.id}/reel`)).json()) as { shots: { id: string }[] })
    .shots[0]!.id
}

test('a project of one’s own: make it, add a clip, and a file that is none', async ({ page }, info) => {
  await page.goto(address())
  await page.getByLabel('New project').fill('Kiln notes')
  await page.getByRole('button', { name: 'Create' }).click()
  await expect(page.getByText('No shots yet.')).toBeVisible()
  const bad = info.outputPath('not-a-clip.mov')
  writeFileSync(bad, 'only text')
  await page.locator('input[type=file]').setInputFiles([bad, 'demo/footage/potter.mov'])
  await expect(page.getByRole('alert')).toContainText('"not-a-clip.mov" is not a video or picture that can be read.')
  await expect(page.getByRole('link', { name: 'potter.mov' })).toBeVisible()
  await expect(page.getByRole('row')).toHaveCount(2)
  await page.getByRole('button', { name: 'Dismiss' }).click()
  await page.getByRole('link', { name: 'potter.mov' }).click()
  await expect(page.getByTestId('reading-middle')).toContainText('%')
})

test('a project is taken off the list, and brought back', async ({ page }) => {
  await page.goto(address())
  await page.getByLabel('New project').fill('To be removed')
  await page.getByRole('button', { name: 'Create' }).click()
  await expect(page.getByText('No shots yet.')).toBeVisible()
  await page.goto(address())
  const card = page.getByRole('link', { name: /To be removed/ })
  await page.getByRole('button', { name: 'Remove To be removed' }).click()
  await expect(page.getByRole('status')).toContainText('“To be removed” was removed; it is kept for a week.')
  await expect(card).toBeHidden()
  await page.getByRole('button', { name: 'Restore' }).click()
  await expect(card).toBeVisible()
  await expect(page.getByRole('status')).toBeHidden()
})

test('what is on screen is what is delivered: the browser’s picture equals the server’s within 1/255', async ({
  page,
}) => {
  test.setTimeout(240_000)
  await resetShot('Glaze shelf')
  const { leadFrame } = await openBench(page, 'Glaze shelf')
  await type(page, 'exposureStops', '0.4')
  await page.locator('[data-station="regions"]').click()
  await choose(page, 'add-region', 'Ellipse')
  await regionPage(page, 'level')
  await type(page, 'exposureStops', '-0.8')
  // A key that is cleaned and steadied over time, and a step that looks at neighbours.
  await regionPage(page, 'shape')
  await type(page, 'localContrast', '-40')
  await regionPage(page, 'components')
  await choose(page, 'add-component', 'Key')
  await page.getByTestId('key-add').click()
  await drawOnPicture(page, [0.2, 0.62], [0.25, 0.7])
  await expect(page.locator('[data-range="hue"] .shape').first()).toBeVisible()
  await regionPage(page, 'components')
  await page.getByRole('button', { name: 'within' }).click()
  await regionPage(page, 'matte')
  await page.getByTestId('clean').click()
  await saved(page)
  await expect(page.getByTestId('picture')).toHaveAttribute('data-settled', 'true')
  const shown = Buffer.from(
    await page.getByTestId('picture').evaluate((element) => {
      const canvas = element as HTMLCanvasElement
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height)
      let text = ''
      for (let i = 0; i < data.length; i += 8190) text += btoa(String.fromCharCode(...data.subarray(i, i + 8190)))
      return text
    }),
    'base64',
  )
  const { headId } = await demoShot('Glaze shelf')
  const still = decode(
    new Uint8Array(
      await (await fetch(`${address()}/api/revisions/${headId}/still.png?frame=${leadFrame}`)).arrayBuffer(),
    ),
  )
  expect(shown.length).toBe(still.width * still.height * 4)
  let worst = 0
  for (let p = 0; p < still.width * still.height; p++)
    for (let c = 0; c < 3; c++) worst = Math.max(worst, Math.abs(shown[p * 4 + c]! - still.data[p * 3 + c]! / 257))
  // Half a code is the rounding of the canvas itself.
  expect(worst).toBeLessThanOrEqual(0.51)
})

test('the frame, the LUT and the clip can be taken away', async ({ page }) => {
  test.setTimeout(180_000)
  await resetShot('Potter at the bench')
  await openBench(page, 'Potter at the bench')
  await type(page, 'exposureStops', '0.7')
  await page.locator('[data-station="regions"]').click()
  await choose(page, 'add-region', 'Ellipse')
  await regionPage(page, 'level')
  await type(page, 'exposureStops', '0.4')
  await saved(page)
  await page.getByRole('link', { name: 'Dispatch' }).click()

  const [still] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Download PNG' }).click(),
  ])
  const png = decode(readFileSync(await still.path()))
  expect(png).toMatchObject({ width: 960, height: 540, depth: 16 })
  expect(still.suggestedFilename()).toBe('Potter at the bench frame 24.png')

  await expect(page.getByTestId('lut-carries')).toHaveText(
    'A LUT sees one pixel at a time. Not carried: region "Region 1".',
  )
  await expect(page.getByTestId('lut-error')).toContainText('mean ΔE 2000')
  const [lut] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Download LUT' }).click(),
  ])
  expect(readFileSync(await lut.path(), 'utf8')).toContain('LUT_3D_SIZE 33')

  await page.getByRole('button', { name: 'Render', exact: true }).click()
  const newest = page.getByTestId('render').first()
  await expect(newest.getByRole('progressbar')).toBeVisible()
  await newest.getByRole('button', { name: 'Cancel' }).click()
  await expect(newest).toHaveAttribute('data-state', 'cancelled')
  // A piece of twelve frames is rendered to its end.
  const short = await shortShot('Short piece')
  await page.goto(`${address()}/shots/${short}/dispatch`)
  await page.getByRole('button', { name: 'Render', exact: true }).click()
  await expect(newest).toHaveAttribute('data-state', 'done')
  const [clip] = await Promise.all([
    page.waitForEvent('download'),
    newest.getByRole('link', { name: 'Download file' }).click(),
  ])
  // What came instead is in the message when it is no clip.
  expect(
    readFileSync(await clip.path())
      .subarray(4, 200)
      .toString(),
  ).toMatch(/^ftyp/)
  expect(clip.suggestedFilename()).toBe('Short piece graded.mp4')
  await newest.getByRole('button', { name: 'Remove the render of Short piece' }).click()
  await expect(page.getByText('“Render of Short piece” was removed; it is kept for a week.')).toBeVisible()
  const listed = page.getByTestId('render').filter({ hasText: 'Short piece' })
  await expect(listed).toHaveCount(0)
  await page.getByRole('button', { name: 'Restore' }).click()
  await expect(listed).toHaveCount(1)
  expect((await demoShot('Potter at the bench')).revisionDepth).toBeGreaterThan(1)
})
