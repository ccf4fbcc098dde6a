// The Reel as a person uses it: finding, ordering, choosing, changing many shots, bringing files in, cutting a
// programme.
import { writeFileSync } from 'node:fs'
import type { Locator, Page } from '@playwright/test'
import type { ShotDetail } from '@contracts/responses'
import { expect, test } from './program'
import { address, field, openBench, resetShot, saved, showStraight, type } from './bench-page'

const row = (page: Page, name: string): Locator => page.locator(`[data-shot="${name}"]`)
const rows = (page: Page): Promise<string[]> =>
  page.locator('[data-shot]').evaluateAll((all) => all.map((e) => (e as HTMLElement).dataset['shot'] ?? ''))

async function project(name: string): Promise<string> {
  const response = await fetch(`${address()}/api/projects`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name }),
  })
  return ((await response.json()) as { id: string }).id
}
async function addClip(page: Page, id: string, files: string | string[]): Promise<void> {
  await page.goto(`${address()}/projects/${id}/reel`)
  await page.getByLabel('Footage files').setInputFiles(files)
}
async function demoReel(page: Page): Promise<void> {
  const projects = (await (await fetch(`${address()}/api/projects`)).json()) as { id: string; name: string }[]
  await page.goto(`${address()}/projects/${projects.find((p) => p.name === 'Ashglaze')!.id}/reel`)
  await expect(row(page, 'Glaze shelf')).toBeVisible()
}

test('every shot says what it is; words, scenes and columns find it', async ({ page }) => {
  await demoReel(page)
  await expect(row(page, 'Glaze shelf')).toContainText(
    /120 frames · 5\.0 s.*Workshop.*Log 420\/95.*Tern 40.*960×540 · 24 fps.*10 bit · 4:2:2 · full.*new/s,
  )
  for (const as of ['as shot', 'as graded'])
    await expect
      .poll(() =>
        row(page, 'Glaze shelf')
          .getByAltText(`Glaze shelf ${as}`)
          .evaluate((i) => (i as HTMLImageElement).naturalWidth),
      )
      .toBeGreaterThan(100)
  // Measured on the server, one shot after another and behind all else, and held against the standard of the scene.
  // Shown straight, the sunlit wall clips.
  await showStraight('Courtyard walk')
  await page.reload()
  await expect(page.locator('[data-standing="Courtyard walk"]')).toContainText(/\d needs? attention.*Clipped/s, {
    timeout: 180_000,
  })
  await page.getByRole('searchbox', { name: 'Filter' }).fill('hlg phone')
  expect(await rows(page)).toEqual(['Market table, phone'])
  await page.getByRole('searchbox', { name: 'Filter' }).fill('')
  await page.getByRole('button', { name: /^Portraits/ }).click()
  expect(await rows(page)).toEqual(['Potter at the bench', 'Apprentice'])
  await page.getByRole('button', { name: /^All shots/ }).click()
  await page.getByRole('button', { name: 'Shot', exact: true }).click()
  expect((await rows(page))[0]).toBe('Apprentice')
  await expect(page.getByRole('columnheader', { name: /Shot/ }).first()).toHaveAttribute('aria-sort', 'ascending')
  await resetShot('Courtyard walk')
})

test('a file comes in by the picker in pieces, and a bad one says why and can be put away', async ({ page }, info) => {
  const id = await project('Picker')
  const bad = info.outputPath('notes.mov')
  writeFileSync(bad, 'not a film\n'.repeat(500))
  await addClip(page, id, ['demo/footage/market-phone.mov', bad])
  await expect(row(page, 'market-phone.mov')).toBeVisible({ timeout: 60_000 })
  await expect(row(page, 'market-phone.mov')).toContainText(/HLG.*the file says so/s)
  await expect(page.getByRole('alert')).toContainText('"notes.mov" is not a video or picture that can be read.')
  await page.getByRole('button', { name: 'Dismiss' }).click()
  await expect(page.getByRole('alert')).toHaveCount(0)
  // The proxy comes by itself.
  await expect
    .poll(
      async () =>
        ((await (await fetch(`${address()}/api/projects/${id}/reel`)).json()) as { shots: { proxy: unknown }[] })
          .shots[0]?.proxy ?? null,
    )
    .not.toBeNull()
})

test('an upload that is cut off is gone on with', async ({ page }) => {
  const id = await project('Broken off')
  let broken = 0
  await page.route('**/api/uploads/*', (route) =>
    route.request().method() === 'PATCH' && broken++ < 2 ? route.abort() : route.continue(),
  )
  await addClip(page, id, 'demo/footage/yard-cloud.mov')
  await expect(row(page, 'yard-cloud.mov')).toBeVisible({ timeout: 60_000 })
  expect(broken).toBeGreaterThan(2)
})

test(
  'a programme is cut by its edit list, its pieces joined, put into a scene, changed together, ' +
    'ordered and removed',
  async ({ page }) => {
    const id = await project('Cutting')
    await addClip(page, id, 'demo/footage/assembly.mov')
    await expect(row(page, 'assembly.mov')).toBeVisible({ timeout: 60_000 })
    await row(page, 'assembly.mov').click()
    await page.getByRole('button', { name: 'Cut into shots' }).click()
    await page.getByLabel('Edit list').setInputFiles('demo/footage/assembly.edl')
    await expect(page.getByTestId('piece')).toHaveCount(9)
    await expect(page.getByRole('status')).toHaveText('9 events read.')
    await expect(page.getByTestId('piece').nth(4)).toContainText('dissolve, 16 frames')
    // By hand: a split, and the two joined again; a name.
    await page.getByLabel('Frame', { exact: true }).fill('20')
    await page.getByRole('button', { name: 'Split here' }).click()
    await expect(page.getByTestId('piece')).toHaveCount(10)
    await page.getByTestId('piece').first().getByRole('button', { name: 'Join with next' }).click()
    await page.getByLabel('Name of shot 1').fill('Opening')
    await page.getByTestId('make').click()
    await expect(row(page, 'Opening')).toBeVisible()
    expect(await rows(page)).toHaveLength(9)

    await row(page, 'Opening').click()
    await row(page, 'Potter at the bench').click({ modifiers: ['Shift'] })
    await expect(page.getByRole('toolbar')).toContainText('3 of 9 chosen')
    await page.getByLabel('New scene').fill('Morning')
    await page.getByLabel('New scene').press('Enter')
    await expect(page.getByRole('button', { name: /^Morning\s*3/ })).toBeVisible()
    await page.getByRole('toolbar').getByLabel('State').click({ force: true })
    await page.getByRole('option', { name: 'corrected' }).click()
    await expect(row(page, 'Opening')).toContainText('corrected')
    await page.getByRole('toolbar').getByLabel('Plays at').click({ force: true })
    await page.getByRole('option', { name: '48 fps, 200 %' }).click()
    await expect(row(page, 'Glaze shelf')).toContainText('plays at 200 % speed')

    // The keyboard: down, chosen with Space, moved with Alt, opened with Enter.
    await page.getByRole('button', { name: 'Table' }).focus()
    await page.locator('h1').click()
    await page.keyboard.press('Escape')
    await page.keyboard.press('Home')
    await page.keyboard.press('Alt+ArrowDown')
    await expect.poll(async () => (await rows(page)).slice(0, 2)).toEqual(['Glaze shelf', 'Opening'])
    await page.getByRole('button', { name: 'Remove', exact: true }).click()
    await page.getByRole('button', { name: 'Remove from the reel' }).click()
    await expect(row(page, 'Opening')).toHaveCount(0)
    await page.locator('h1').click()
    await page.keyboard.press('Home')
    await page.keyboard.press('Enter')
    await expect(page).toHaveURL(/\/bench/)
    await expect(page.getByTestId('timecode')).toContainText('01:00:0')
  },
)

/** A shot's grade with a lifted round region in the middle. */
async function withRegion(shotId: string): Promise<void> {
  const { revision, headId } = (await (await fetch(`${address()}/api/shots/${shotId}`)).json()) as ShotDetail
  const { grade } = revision
  const shape = { kind: 'ellipse', centreX: 0.5, centreY: 0.4, radiusX: 0.2, radiusY: 0.3, rotationDegrees: 0 }
  const component = { id: 'component-1', mode: 'add', invert: false, opacity: 1 }
  const region = { id: 'region-1', name: 'Face', enabled: true, invert: false, strength: 1 }
  const exposure = grade.steps.find((s) => s.kind === 'exposure')!
  const response = await fetch(`${address()}/api/shots/${shotId}/revisions`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      parentId: headId,
      summary: 'A face lifted',
      grade: {
        ...grade,
        steps: [...grade.steps, { ...exposure, id: 'lift', regionId: 'region-1', params: { exposureStops: 0.5 } }],
        regions: [
          { ...region, components: [{ ...component, source: { kind: 'shape', shape, inner: 0.02, outer: 0.05 } }] },
        ],
      },
    }),
  })
  expect(response.ok).toBe(true)
}

test('shots are dragged into a scene; a grade is carried to another and solved for it', async ({ page }) => {
  const id = await project('Dragging')
  await addClip(page, id, ['demo/footage/potter.mov', 'demo/footage/apprentice.mov'])
  for (const name of ['potter.mov', 'apprentice.mov']) await expect(row(page, name)).toBeVisible({ timeout: 60_000 })
  await row(page, 'potter.mov').click()
  await page.getByLabel('New scene').fill('Faces')
  await page.getByLabel('New scene').press('Enter')
  // The rows have taken their new places.
  await expect(page.getByRole('button', { name: /^Faces\s*1/ })).toBeVisible()
  await row(page, 'apprentice.mov').dragTo(page.getByRole('button', { name: /^Faces/ }))
  await expect(page.getByRole('button', { name: /^Faces\s*2/ })).toBeVisible()
  const read = async (name: string): Promise<{ id: string; revisionDepth: number }> => {
    const reel = (await (await fetch(`${address()}/api/projects/${id}/reel`)).json()) as {
      shots: { id: string; name: string; revisionDepth: number }[]
    }
    return reel.shots.find((s) => s.name === name)!
  }
  await withRegion((await read('potter.mov')).id)
  await page.reload()
  await row(page, 'potter.mov').click()
  await page.getByRole('button', { name: 'Copy grade' }).click()
  await row(page, 'apprentice.mov').click()
  await page.getByRole('button', { name: 'Paste grade of potter.mov' }).click()
  await page.getByRole('button', { name: 'Carry to 1 shot' }).click()
  const carried = page.locator('[data-proposal="apprentice.mov"]')
  await expect(carried).toContainText(/Face added/)
  // Another face in another place: where its region lies is asked, and nothing is changed before it is accepted.
  await expect(carried).toContainText('1 outline to accept or drag')
  await expect(page.getByRole('button', { name: 'Accept all 0' })).toBeDisabled()
  expect((await read('apprentice.mov')).revisionDepth).toBe(1)
  const outline = carried.locator('[data-place]')
  const box = (await outline.boundingBox())!
  const picture = (await carried.locator('.after').boundingBox())!
  const middle = [box.x + box.width / 2, box.y + box.height / 2] as const
  await page.mouse.move(...middle)
  await page.mouse.down()
  await page.mouse.move(middle[0] + picture.width * 0.1, middle[1], { steps: 4 })
  await page.mouse.up()
  await expect(outline).toHaveAttribute('data-open', 'false')
  await outline.press('Shift+ArrowDown')
  const moved = (await outline.boundingBox())!
  expect((moved.x - box.x) / picture.width).toBeCloseTo(0.1, 1)
  expect((moved.y - box.y) / picture.height).toBeCloseTo(0.05, 1)
  await page.getByRole('button', { name: 'Accept it' }).click()
  await expect(carried).toHaveAttribute('data-state', 'accepted')
  await expect.poll(async () => (await read('apprentice.mov')).revisionDepth).toBe(2)
})

test('two thousand shots scroll: only the rows in view exist', async ({ page }) => {
  const id = await project('Many')
  const response = await fetch(`${address()}/api/projects/${id}/shots?name=many.mov`, {
    method: 'POST',
    body: (await import('node:fs')).readFileSync('demo/footage/potter.mov') as unknown as BodyInit,
  })
  const shot = (await response.json()) as { id: string }
  const pieces = Array.from({ length: 2000 }, (_, i) => ({ first: i % 72, count: 1, name: `Shot ${i + 1}` }))
  await fetch(`${address()}/api/shots/${shot.id}/cut`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ pieces }),
  })
  await page.goto(`${address()}/projects/${id}/reel`)
  await expect(row(page, 'Shot 1')).toBeVisible()
  expect((await rows(page)).length).toBeLessThan(40)
  await expect(page.getByRole('button', { name: 'All shots 2000' })).toBeVisible()
  await page.locator('h1').click()
  await page.keyboard.press('End')
  await expect(row(page, 'Shot 2000')).toBeVisible()
  expect((await rows(page)).length).toBeLessThan(40)
  await page.keyboard.press('Control+a')
  await expect(page.getByRole('toolbar')).toContainText('2000 of 2000 chosen')
})

test(
  'two shots are linked: a correction goes to both, one made for this shot only stays, and they are ' + 'parted again',
  async ({ page }) => {
    for (const name of ['Potter at the bench', 'Window bench']) await resetShot(name)
    await demoReel(page)
    await page.locator('[data-shot="Potter at the bench"]').click()
    await page.locator('[data-shot="Window bench"]').click({ modifiers: ['Control'] })
    await page.getByRole('button', { name: 'Link', exact: true }).click()
    await expect(page.locator('[data-shot="Window bench"]')).toContainText('Set-up 1, 2 shots')
    await openBench(page, 'Window bench')
    await page.getByTestId('setup').click()
    await type(page, 'exposureStops', '0.3')
    await saved(page)
    await openBench(page, 'Potter at the bench')
    await expect(page.getByTestId('setup')).toHaveText('Set-up 1: all 2 shots')
    await expect(field(page, 'exposureStops')).toHaveValue('0.00')
    // Far too much for the other one as well: it is looked at by itself, and named.
    await type(page, 'exposureStops', '4')
    await saved(page)
    await expect(page.getByTestId('setup-worst')).toContainText(/Window bench is worst: .*The standard wants/, {})
    await type(page, 'exposureStops', '0.5')
    await saved(page)
    await expect(page.getByTestId('setup-worst')).toHaveCount(0)
    await openBench(page, 'Window bench')
    await expect(field(page, 'exposureStops')).toHaveValue('+0.80')
    await demoReel(page)
    await page.locator('[data-shot="Window bench"]').click()
    await page.getByRole('button', { name: 'Unlink' }).click()
    await expect(page.locator('[data-shot="Window bench"]')).not.toContainText('Set-up')
    for (const name of ['Potter at the bench', 'Window bench']) await resetShot(name)
  },
)
