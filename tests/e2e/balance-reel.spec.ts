// Balance for me over chosen shots: a list of before and after, accepted, changed or refused.
import { address, demoShot, resetShot, showStraight } from './bench-page'
import { expect, test } from './program'

const names = ['Potter at the bench', 'Apprentice', 'Kiln at night'] as const
interface Told {
  readonly revision: { readonly summary: string; readonly grade: { readonly steps: readonly Step[] } }
}
interface Step {
  readonly kind: string
  readonly params: Readonly<Record<string, number>>
}
const detail = async (name: string): Promise<Told> =>
  (await (await fetch(`${address()}/api/shots/${(await demoShot(name)).id}`)).json()) as Told
const tint = async (name: string): Promise<number | undefined> =>
  (await detail(name)).revision.grade.steps.find((s) => s.kind === 'white-balance')?.params['tint']

test('chosen shots are balanced as a list; what is refused and what needs nothing stays as it was', async ({
  page,
}) => {
  test.setTimeout(420_000)
  for (const name of names) await resetShot(name)
  const { projectId } = await demoShot(names[0])
  await page.goto(`${address()}/projects/${projectId}/reel`)
  await page.locator(`[data-shot="${names[0]}"]`).click()
  for (const name of names.slice(1)) await page.locator(`[data-shot="${name}"]`).click({ modifiers: ['Control'] })
  await page.getByRole('button', { name: 'Balance for me' }).click()
  const panel = page.getByTestId('proposals')
  const row = (name: string) => panel.locator(`[data-proposal="${name}"]`)
  // The Reel measures all its shots meanwhile, on the same threads.
  await expect(panel.getByRole('status')).toContainText('3 of 3 · 2 to decide', { timeout: 200_000 })
  await expect(row('Kiln at night')).toHaveAttribute('data-state', 'nothing')
  expect(await tint(names[0])).toBe(0)

  // Green light in the workshop: the proposal takes it away, and both pictures are there to be looked at.
  await expect(row(names[0])).toContainText('green by')
  for (const picture of await row(names[0]).locator('img').all())
    await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(100)

  // Another view, and back: the list is still there.
  await page.getByRole('link', { name: 'Standards' }).click()
  await page.waitForURL(/standards/)
  await page.goBack()
  await expect(row(names[0])).toBeVisible()
  const choices = row(names[0]).getByRole('group').getByRole('button')
  await choices.last().click()
  await expect(row(names[0])).toContainText('Two thirds of a stop')
  await choices.first().click()
  await row(names[0]).getByRole('button', { name: 'Accept', exact: true }).click()
  await expect(row(names[0])).toHaveAttribute('data-state', 'accepted')
  expect(await tint(names[0])).toBeGreaterThan(5)
  expect((await detail(names[0])).revision.summary).toBe('Balance for me')
  await row(names[1]).getByRole('button', { name: 'Refuse' }).click()
  expect(await tint(names[1])).toBe(0)
  await expect(panel.getByRole('button', { name: /^Accept all 0/ })).toBeDisabled()
  await panel.getByRole('button', { name: 'Close' }).click()
  await expect(panel).toHaveCount(0)
  await resetShot(names[0])
})

test('a shot that was changed meanwhile keeps its change, and says so', async ({ page }) => {
  test.setTimeout(540_000)
  await resetShot(names[0])
  const { projectId } = await demoShot(names[0])
  await page.goto(`${address()}/projects/${projectId}/reel`)
  await page.locator(`[data-shot="${names[0]}"]`).click()
  await page.getByRole('button', { name: 'Balance for me' }).click()
  const row = page.getByTestId('proposals').locator(`[data-proposal="${names[0]}"]`)
  await expect(row).toHaveAttribute('data-state', 'proposed', { timeout: 200_000 })
  await showStraight(names[0])
  const { revision } = await detail(names[0])
  await row.getByRole('button', { name: 'Accept', exact: true }).click()
  await expect(row).toContainText('changed elsewhere meanwhile')
  expect((await detail(names[0])).revision).toEqual(revision)
  await row.getByRole('button', { name: 'Try again' }).click()
  await expect(row).toHaveAttribute('data-state', 'proposed', { timeout: 200_000 })
  await resetShot(names[0])
})
