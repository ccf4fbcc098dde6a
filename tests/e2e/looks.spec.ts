// Shared looks and intent on the real interface: shared from a recipe, edited in one shot, seen in another; taken out;
// the words of a scene beside the picture.
import { expect, test } from './program'
import { address, demoShot, meanColour, openBench, resetShot, saved, type } from './bench-page'

const spread = (c: readonly number[]): number => Math.max(...c) - Math.min(...c)

test(
  'a look shared with the scene: edited in one shot, it is edited in the other; a shot is taken out ' +
    'and keeps its picture',
  async ({ page }) => {
    const first = await demoShot('Potter at the bench')
    const second = await demoShot('Apprentice')
    for (const name of ['Potter at the bench', 'Apprentice']) await resetShot(name)
    // Both in one scene.
    await fetch(`${address()}/api/shots/changes`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ shotIds: [first.id, second.id], scene: { name: 'Portraits' } }),
    })
    await openBench(page, 'Apprentice')
    const plain = await meanColour(page)
    await openBench(page, 'Potter at the bench', 'look')
    await page.getByRole('button', { name: 'shared look', exact: true }).click()
    await page.getByLabel('Share a look …').selectOption({ label: 'Silver retained' })
    await page.getByRole('button', { name: 'on the scene Portraits' }).click()
    await expect(page.getByTestId('shared-look')).toContainText('on Portraits')
    // Numbered where another test of this program has shared the recipe already.
    const { name: look } = (await fetch(`${address()}/api/shots/${first.id}`).then((r) => r.json())).look
    expect(look).toMatch(/^Silver retained( \d+)?$/)
    await expect(page.getByTestId('shared-look').locator('[data-control="saturation"]').first()).toBeVisible()
    // An edit of the look in this shot …
    await type(page, 'contrast', '0.9')
    await saved(page)
    await openBench(page, 'Apprentice', 'look')
    const carried = await meanColour(page)
    expect(spread(carried)).toBeLessThan(spread(plain) * 0.85)
    await page.getByRole('button', { name: 'shared look', exact: true }).click()
    await expect(page.getByTestId('shared-look').locator('[data-control="contrast"] input')).toHaveValue('0.90')
    // … and how much of it this other shot takes.
    await type(page, 'look-own-strength', '50')
    await expect.poll(async () => spread(await meanColour(page))).toBeGreaterThan(spread(carried) + 1)
    const half = await meanColour(page)
    await page.getByRole('button', { name: 'Take this shot out' }).click()
    await expect(page.getByRole('button', { name: 'Put it back' })).toBeVisible()
    await expect.poll(async () => (await meanColour(page)).every((v, c) => Math.abs(v - half[c]!) < 0.6)).toBe(true)
    await page.getByRole('link', { name: 'Reel' }).click()
    await expect(page.locator('[data-look="Apprentice"]')).toHaveText(`out of ${look}`)
    await expect(page.locator('[data-look="Potter at the bench"]')).toHaveText(look)
    // What the scene should feel like stands beside the picture.
    await page
      .getByRole('navigation', { name: 'Scenes' })
      .getByRole('button', { name: /^Portraits/ })
      .click()
    await page.getByLabel(/^What Portraits should feel like/).fill('Early, cold, one warm lamp')
    // The list is drawn anew meanwhile: what is being written stays.
    await page.locator('[data-shot="Apprentice"]').dispatchEvent('click')
    await expect(page.getByLabel(/^What Portraits should feel like/)).toHaveValue('Early, cold, one warm lamp')
    await Promise.all([
      page.waitForResponse((r) => r.url().endsWith('/intent') && r.ok()),
      page.getByLabel(/^What Portraits should feel like/).blur(),
    ])
    // So do pictures: one is brought, one that is none is refused in words.
    const bring = async (name: string, buffer: Buffer, mimeType: string): Promise<void> => {
      const asked = page.waitForEvent('filechooser')
      await page.getByRole('button', { name: 'Add pictures' }).click()
      await (await asked).setFiles([{ name, mimeType, buffer }])
    }
    await bring('Frosty window.png', await page.locator('[data-shot="Apprentice"]').screenshot(), 'image/png')
    await expect(page.getByTestId('scene-pictures').getByRole('img', { name: 'Frosty window.png' })).toBeVisible()
    await bring('Odd.png', Buffer.from('no picture at all'), 'image/png')
    await expect(page.getByText('"Odd.png" is no picture that can be read here.')).toBeVisible()
    await openBench(page, 'Potter at the bench', 'look')
    await page.getByTestId('intent-picture').click()
    await expect(page.getByTestId('compare')).toHaveAttribute('data-mode', 'side')
    await page.getByLabel('compare', { exact: true }).selectOption('none')
    await expect(page.getByTestId('intent')).toHaveText('Early, cold, one warm lamp')
    await expect(page.getByTestId('intent')).toBeVisible()
    await page.getByRole('button', { name: 'shared look', exact: true }).click()
    await page.getByRole('button', { name: 'Off the scene' }).click()
    await expect(page.getByTestId('shared-look')).toContainText('No look is shared here')
  },
)
