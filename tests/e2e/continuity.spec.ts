// Continuity on the real interface: a scene with its course, two shots held against each other and matched, played
// across a cut, noted, and kept on the shelf.
import type { Locator, Page } from '@playwright/test'
import type { ShotDetail, ShotFindings, ShotSummary } from '@contracts/responses'
import { expect, test } from './program'
import { address, control, demoShot, resetShot, saved } from './bench-page'

const phone = 'Market table, phone'
const old = 'Market table, old camera'

async function openScene(page: Page, scene = 'all'): Promise<void> {
  const { projectId } = await demoShot(phone)
  await page.goto(`${address()}/projects/${projectId}/continuity?scene=${scene}`)
}
const picture = (page: Page, name: string): Locator => page.locator(`[data-shot="${name}"] .shot`)
const held = async (page: Page): Promise<void> => {
  await picture(page, phone).click()
  await page.keyboard.press('r')
  await expect(picture(page, phone)).toContainText('Reference')
  await picture(page, old).click()
}

test('the course of a scene, its jumps ranked, and a press leads to the cut', async ({ page }) => {
  const { sceneId } = await demoShot(phone)
  await openScene(page, sceneId ?? 'all')
  await expect(page.getByRole('row', { name: /^Exposure/ })).toContainText(/\d %/)
  const jumps = page.getByTestId('jumps').getByRole('button')
  await expect(jumps.first()).toContainText(/^\s*\d+\.\d×/)
  const sizes = (await jumps.allInnerTexts()).map((t) => Number(/([\d.]+)×/.exec(t)![1]))
  expect(sizes.length).toBeGreaterThan(1)
  expect(sizes).toEqual([...sizes].sort((a, b) => b - a))
  await jumps.first().click()
  // The shot after the cut is chosen, the one before it held.
  await expect(page.getByText(/^Reference: /)).toBeVisible()
  await expect(page.getByTestId('pair-stage')).toHaveAttribute('data-settled', 'true')
})

test('two cameras on one table: what both show, matched in place, undone', async ({ page }) => {
  for (const name of [phone, old]) await resetShot(name)
  await openScene(page)
  await held(page)
  const match = page.getByTestId('pair-match')
  await expect(match).toContainText(/ΔE [2-9]\.\d over \d+ shared surfaces/)
  const swatches = match.getByRole('list', { name: 'Surfaces seen in both' }).getByRole('button')
  const count = await swatches.count()
  expect(count).toBeGreaterThan(5)
  // A pair that is struck is asked no more, and can be taken in again.
  await swatches.first().click()
  await expect(match).toContainText(`over ${count - 1} shared surfaces`)
  await match
    .getByRole('button', { name: /left out/ })
    .last()
    .click()
  await expect(match).toContainText(`over ${count} shared surfaces`)
  for (const mode of ['Wipe', 'Blink', 'Side by side']) {
    await page.getByRole('button', { name: mode, exact: true }).click()
    await expect(page.getByTestId('compare')).toBeVisible()
  }
  await match.getByRole('button', { name: 'Apply', exact: true }).click()
  await saved(page)
  await expect(match).toContainText('they are alike already')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(match).toContainText(/ΔE [2-9]\.\d over/)
  await resetShot(old)
})

test('swatches of another picture are paired: theirs on the left, ours on the right; taken and undone', async ({
  page,
}) => {
  const kiln = 'Kiln at night'
  for (const name of [kiln, old]) await resetShot(name)
  await openScene(page)
  await picture(page, kiln).click()
  await page.keyboard.press('r')
  await picture(page, old).click()
  const pairs = page.getByTestId('swatch-pairs')
  await pairs.getByRole('button', { name: 'Pair swatches' }).click()
  const stage = page.getByTestId('pair-stage')
  await expect(page.getByTestId('compare')).toBeVisible({ timeout: 30_000 })
  await expect(stage).toHaveAttribute('data-settled', 'true')
  const drag = async (x: number, y: number): Promise<void> => {
    const { x: left, y: top, width, height } = (await stage.boundingBox())!
    await page.mouse.move(left + x * width, top + y * height)
    await page.mouse.down()
    await page.mouse.move(left + (x + 0.03) * width, top + (y + 0.06) * height, { steps: 3 })
    await page.mouse.up()
  }
  await expect(page.getByText('Drag on the reference first.')).toBeVisible()
  await drag(0.2, 0.6)
  await expect(page.getByText('Now drag on this shot')).toBeVisible()
  await drag(0.7, 0.6)
  await expect(pairs).toContainText(/ΔE \d+\.\d → \d+\.\d over 1 pair\./)
  await drag(0.8, 0.3)
  await drag(0.3, 0.3)
  await expect(pairs).toContainText(/over 2 pairs\./)
  await pairs.getByRole('button', { name: /Remove pair 2/ }).click()
  await expect(pairs).toContainText(/over 1 pair\./)
  const before = (await demoShot(old)).headId
  await pairs.getByRole('button', { name: 'Apply', exact: true }).click()
  await saved(page)
  expect((await demoShot(old)).headId).not.toBe(before)
  await expect(pairs).toContainText(/over 1 pair\./)
  // Another reference has other places: the pairs go.
  await picture(page, phone).click()
  await expect(pairs.getByRole('button', { name: /Remove pair/ })).toHaveCount(0)
  for (const name of [kiln, old]) await resetShot(name)
})

test('one patch is measured in both; an edit in place is seen in the course', async ({ page }) => {
  await resetShot(old)
  await openScene(page)
  await held(page)
  const stage = page.getByTestId('pair-stage')
  await expect(stage).toHaveAttribute('data-settled', 'true')
  const box = (await stage.boundingBox())!
  await page.mouse.move(box.x + box.width * 0.6, box.y + box.height * 0.3)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * 0.68, box.y + box.height * 0.4, { steps: 4 })
  await page.mouse.up()
  await expect(page.getByText(/^ΔE \d+\.\d in this patch$/)).toBeVisible()
  const exposure = page.getByRole('row', { name: /^Exposure/ })
  await expect(exposure).toContainText(/%/)
  const shots = await page.locator('.course .shot .name').allInnerTexts()
  const at = shots.findIndex((name) => name.includes(old))
  const value = (): Promise<string> => exposure.getByRole('cell').nth(at).innerText()
  await expect.poll(value).toMatch(/%/)
  const before = await value()
  await control(page, 'exposureStops').focus()
  for (let i = 0; i < 5; i++) await page.keyboard.press('Shift+ArrowRight')
  await saved(page)
  await expect.poll(value).not.toBe(before)
  await resetShot(old)
})

test('a cut plays again and again; what is said meanwhile is a flag on the Reel', async ({ page }) => {
  for (const name of [phone, old]) await expect.poll(async () => (await demoShot(name)).proxy !== null).toBe(true)
  await openScene(page)
  await picture(page, old).click()
  await page.keyboard.press('x')
  const played = page.getByTestId('scene-played')
  const names = new Set<string>()
  await expect.poll(async () => names.add((await played.innerText()).split(' · ')[0]!).size).toBe(2)
  expect([...names].sort()).toEqual([old, phone].sort())
  await page.keyboard.press('n')
  await page.getByTestId('note-entry').getByRole('textbox').fill('the cloth goes yellow')
  // It plays on.
  await expect(played).toBeVisible()
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await page.getByRole('button', { name: 'Notes', exact: true }).click()
  await expect(page.getByTestId('moment-note')).toContainText('the cloth goes yellow')
  const { projectId } = await demoShot(old)
  await page.goto(`${address()}/projects/${projectId}/reel`)
  const flag = page.getByRole('link', { name: /1 note/ })
  await expect(flag).toHaveAttribute('href', /frame=\d+/)
  await openScene(page)
  await page.getByRole('button', { name: 'Notes', exact: true }).click()
  await page.getByRole('button', { name: 'Remove: the cloth goes yellow' }).click()
  await expect(page.getByTestId('moment-note')).toHaveCount(0)
})

test('a still is kept with its grade, named, found, held, carried and removed', async ({ page }) => {
  await resetShot(old)
  await openScene(page)
  await picture(page, phone).click()
  await page.keyboard.press('s')
  await page.getByRole('button', { name: 'Shelf', exact: true }).click()
  const still = page.locator('[data-still]')
  await expect(still).toHaveCount(1)
  await still.getByRole('textbox', { name: 'Name of the still' }).fill('Noon')
  await still.getByRole('textbox', { name: 'Name of the still' }).press('Enter')
  await page.getByRole('searchbox', { name: 'Find a still' }).fill('dusk')
  await expect(page.getByText('No still fits these words.')).toBeVisible()
  await page.getByRole('button', { name: 'Show all' }).click()
  await picture(page, old).click()
  await page.locator('[data-still="Noon"]').getByRole('button', { name: 'Make reference: Noon' }).click()
  await expect(page.getByText('Reference: Noon')).toBeVisible()
  const before = (await demoShot(old)).headId
  await page.locator('[data-still="Noon"]').getByRole('button', { name: 'Carry here' }).click()
  const carried = page.locator(`[data-proposal="${old}"]`)
  await expect(carried).toHaveAttribute('data-state', 'proposed')
  expect((await demoShot(old)).headId).toBe(before)
  await carried.getByRole('button', { name: 'Accept', exact: true }).click()
  await expect.poll(async () => (await demoShot(old)).headId).not.toBe(before)
  await page.getByTestId('proposals').getByRole('button', { name: 'Close' }).click()
  await page.locator('[data-still="Noon"]').getByRole('button', { name: 'Remove' }).click()
  await expect(still).toHaveCount(0)
  await resetShot(old)
})

test('a first pass over the reel by one key: few decisions, each shot good or left with a reason', async ({ page }) => {
  const { projectId } = await demoShot(phone)
  const { shots } = (await (await fetch(`${address()}/api/projects/${projectId}/reel`)).json()) as {
    shots: readonly ShotSummary[]
  }
  for (const { name } of shots) await resetShot(name)
  await openScene(page)
  await picture(page, phone).waitFor()
  let decisions = 1
  await page.keyboard.press('f')
  const panel = page.getByTestId('proposals')
  await expect(panel).toHaveAttribute('aria-label', 'First pass, each scene to its first shot')
  await expect(panel.getByRole('status')).toContainText(`${shots.length} of ${shots.length}`, { timeout: 180_000 })
  const decide = async (button: Locator): Promise<void> => {
    decisions++
    await button.click()
  }
  await decide(panel.getByRole('button', { name: /^Accept (it|all)/ }))
  await expect(panel.getByRole('button', { name: /^Accept all 0/ })).toBeDisabled({ timeout: 60_000 })
  const rows = panel.locator('[data-proposal]')
  for (const row of await rows.all()) {
    const leave = row.getByRole('button', { name: /^(Accept and ignore|Ignore)$/ })
    const accept = row.getByRole('button', { name: 'Accept', exact: true })
    if (await leave.isVisible()) {
      await decide(leave)
      await expect(row.getByText('Ignored: ')).toBeVisible()
    } else if (await accept.isVisible()) await decide(accept)
  }
  await expect(panel.getByRole('status')).toContainText('nothing to decide')
  expect(decisions).toBeLessThan(20)
  const waiversOf = async (id: string): Promise<ShotDetail['waivers']> =>
    ((await (await fetch(`${address()}/api/shots/${id}`)).json()) as ShotDetail).waivers
  for (const row of await rows.all()) {
    await expect(row).toHaveAttribute('data-state', /accepted|nothing/)
    await expect(row).toContainText(/All good\.|Ignored: \S+ \S+ \S+/)
    await expect(row.locator('input')).toHaveCount(0)
  }
  const apprentice = shots.find((s) => s.name === 'Apprentice')!
  expect(await waiversOf(apprentice.id)).toMatchObject([
    { reading: 'black', reason: expect.stringContaining('dark, not black') },
  ])
  const { findings } = (await (await fetch(`${address()}/api/shots/${apprentice.id}/findings`)).json()) as ShotFindings
  expect(findings.find((f) => f.id === 'black')!.value).toBeGreaterThan(0.08)
  await panel.getByRole('button', { name: /^Undo (it|all)/ }).click()
  for (const { id } of shots) await expect.poll(() => waiversOf(id)).toEqual([])
})

test('a first pass over a scene: each shot listed, accepted together, undone together', async ({ page }) => {
  const { sceneId, projectId } = await demoShot(phone)
  const { shots } = (await (await fetch(`${address()}/api/projects/${projectId}/reel`)).json()) as {
    shots: { name: string; sceneId: string | null }[]
  }
  const names = shots.filter((s) => s.sceneId === sceneId).map((s) => s.name)
  expect(names.length).toBeGreaterThan(2)
  for (const name of names) await resetShot(name)
  const heads = async (): Promise<readonly string[]> =>
    Promise.all(names.map(async (name) => (await demoShot(name)).headId))
  const before = await heads()
  await openScene(page, sceneId ?? 'all')
  await picture(page, phone).click()
  await page.keyboard.press('r')
  await page.getByRole('button', { name: 'First pass' }).click()
  const panel = page.getByTestId('proposals')
  await expect(panel).toHaveAttribute('aria-label', `First pass, to ${phone}`)
  await expect(panel.locator(`[data-proposal="${old}"]`)).toContainText(`Matched to ${phone}: ΔE`)
  await expect(panel.getByRole('status')).toContainText(`${names.length} of ${names.length}`)
  expect(await heads()).toEqual(before)
  await panel
    .getByRole('button', { name: /^Accept/ })
    .first()
    .click()
  await expect(panel.locator(`[data-proposal="${old}"]`)).toHaveAttribute('data-state', 'accepted')
  await expect(panel.getByRole('button', { name: /^Undo (it|all)/ })).toBeEnabled()
  await expect.poll(async () => (await heads()).filter((h, i) => h !== before[i]).length).toBeGreaterThan(0)
  await panel.getByRole('button', { name: /^Undo (it|all)/ }).click()
  await expect.poll(heads).toEqual(before)
})
