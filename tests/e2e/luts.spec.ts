// LUTs: brought in together, told for what they are, put where they belong, seen on one picture; bad ones refused by
// name.
import { execFileSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { expect, test } from './program'
import { address, demoShot, meanColour, openBench, resetShot, saved, showStraight, type } from './bench-page'

/** The way of another shot's camera to the display, as a .cube. */
async function conversionOf(name: string, path: (name: string) => string): Promise<string> {
  await showStraight(name)
  const { revision } = (await (await fetch(`${address()}/api/shots/${(await demoShot(name)).id}`)).json()) as {
    revision: { grade: object }
  }
  writeFileSync(path('grade.json'), JSON.stringify(revision.grade))
  execFileSync(process.execPath, [
    'dist/node/pale.js',
    'bake',
    '--grade',
    path('grade.json'),
    '--size',
    '33',
    path('baked.cube'),
  ])
  return readFileSync(path('baked.cube'), 'utf8')
}

test(
  'several files at once: read by content, refused with a reason, inspected, and put in Show for ' +
    'what they were made for',
  async ({ page }, info) => {
    await showStraight('Glaze shelf')
    const shot = await demoShot('Glaze shelf')
    await openBench(page, 'Glaze shelf')
    const plain = await meanColour(page)
    await page.getByRole('link', { name: 'LUTs' }).click()
    const file = (name: string, body: string): string => {
      const path = info.outputPath(name)
      writeFileSync(path, body)
      return path
    }
    const conversion = await conversionOf('Kiln at night', (name) => info.outputPath(name))
    await page
      .getByLabel('LUT files')
      .setInputFiles([
        file('other camera.cube', conversion),
        file('curve.csv', 'in,out\n0,0\n1,0.9\n'),
        file('broken.cube', 'LUT_3D_SIZE 4096\n0 0 0\n'),
      ])
    await expect(page.getByText('1 file was refused')).toBeVisible({ timeout: 30_000 })
    await expect(page.getByText(/broken: Line 1: A size of 4096|broken\.cube: Line 1: A size of 4096/)).toBeVisible()
    await page.locator('[data-lut="other camera"]').click()
    const expects = page.getByTestId('lut-expects')
    await expect(expects).toHaveAttribute('data-kind', 'conversion')
    await expect(expects).toHaveAttribute('data-certain', 'true')
    await expect(expects).toContainText('Made for Log 407/95; this shot is Log 420/95: converted on the way in.')
    await expect(page.locator('[data-colour="skin-4"]')).toContainText('×')
    await page.getByTestId('lattice').press('ArrowLeft')
    // Put where it belongs, the picture stays nearly what it was: the same light, by another camera's conversion.
    await page.getByRole('button', { name: 'Place in Show' }).click()
    await saved(page)
    await page.goto(`${address()}/shots/${shot.id}/bench?station=show`)
    const through = await meanColour(page)
    through.forEach((v, c) => expect(Math.abs(v - plain[c]!)).toBeLessThan(3))
    await expect(page.getByTestId('show-fault')).toHaveCount(0)
    await page.getByRole('combobox', { name: 'Made for', exact: true }).click({ force: true })
    await page.getByRole('option', { name: 'working log' }).click()
    await expect(page.getByTestId('show-fault')).toContainText('was made for Log 407/95, and is given working log')
    await saved(page)
    // Taken off the list, it goes on in the grade that uses it.
    await page.getByRole('link', { name: 'LUTs' }).click()
    const inList = page.locator('[data-lut="other camera"]')
    await inList.click()
    await page.getByRole('button', { name: 'Remove', exact: true }).click()
    await expect(page.getByText('“other camera” was removed; it is kept for a week.')).toBeVisible()
    await expect(inList).toHaveCount(0)
    await page.goto(`${address()}/shots/${shot.id}/bench?station=show`)
    await expect(page.getByTestId('show-fault')).toContainText('was made for Log 407/95')
    await expect(page.getByText('other camera').filter({ visible: true }).first()).toBeVisible()
    await page.getByRole('link', { name: 'LUTs' }).click()
    await resetShot('Glaze shelf')
  },
)

test(
  'a conversion put in Look is told; a second LUT stands behind the first; the other interpolation ' + 'has a number',
  async ({ page }) => {
    await resetShot('Glaze shelf')
    await openBench(page, 'Glaze shelf', 'look')
    const before = await meanColour(page)
    const choose = async (name: string): Promise<void> => {
      await page.getByRole('listbox', { name: 'LUTs on this shot' }).getByRole('option', { name, exact: true }).click()
    }
    await choose('Log 351-128 to video')
    await expect(page.getByTestId('lut-fault')).toContainText('contains a conversion')
    await choose('Kiln silver')
    await expect(page.getByTestId('lut-fault')).toHaveCount(0)
    await expect(page.getByTestId('between')).toContainText(/ΔE 2000 \d\.\d+ in the mean/)
    const spread = (c: readonly number[]): number => Math.max(...c) - Math.min(...c)
    await expect.poll(async () => spread(await meanColour(page))).not.toBeCloseTo(spread(before), 0)
    const one = await meanColour(page)
    await page.getByRole('button', { name: '+ another' }).click()
    await choose('Pale dust')
    await expect.poll(async () => (await meanColour(page)).some((v, c) => Math.abs(v - one[c]!) > 0.5)).toBe(true)
    await type(page, 'lut-strength', '0')
    await expect.poll(async () => (await meanColour(page)).every((v, c) => Math.abs(v - one[c]!) < 0.3)).toBe(true)
    await saved(page)
    await resetShot('Glaze shelf')
  },
)

test(
  'the contact sheet: every LUT and recipe on this picture, sorted by what was measured, two held ' + 'side by side',
  async ({ page }) => {
    const shot = await demoShot('Window bench')
    await page.goto(`${address()}/luts/sheet?shot=${shot.id}`)
    const sheet = page.getByTestId('contact-sheet')
    const tiles = page.getByRole('option')
    await expect.poll(async () => Number(await sheet.getAttribute('data-total'))).toBeGreaterThan(18)
    await expect
      .poll(async () => (await sheet.getAttribute('data-done')) === (await sheet.getAttribute('data-total')))
      .toBe(true)
    await page.getByRole('combobox', { name: 'Sorted by' }).click({ force: true })
    await page.getByRole('option', { name: 'saturation', exact: true }).click()
    const saturations = await tiles.evaluateAll((all) =>
      all.flatMap((t) => {
        const found = /sat\. ([\d.]+)/.exec(t.textContent ?? '')
        return found ? [Number(found[1])] : []
      }),
    )
    // The plain picture stays first; the others rise.
    expect(saturations.length).toBeGreaterThan(18)
    expect(saturations.slice(1)).toEqual([...saturations.slice(1)].sort((a, b) => a - b))
    await tiles.first().focus()
    await page.keyboard.press('q')
    await page.keyboard.press('ArrowRight')
    await page.keyboard.press('e')
    await expect(page.locator('[data-held="q"]')).toContainText('as it is')
    await expect(page.locator('[data-held="e"]')).toBeVisible()
    // At no strength every picture is the plain one.
    await type(page, 'sheet-strength', '0')
    await expect
      .poll(async () => {
        const paled = await tiles.evaluateAll((all) =>
          all.flatMap((t) => {
            const found = /sat\. ([\d.]+)/.exec(t.textContent ?? '')
            return found ? [Number(found[1])] : []
          }),
        )
        return paled.length > 18 ? Math.max(...paled) - Math.min(...paled) : Infinity
      })
      .toBeLessThan(0.15)
  },
)

test('the grade goes out as a LUT for a declared place, with its error, in three formats', async ({ page }) => {
  await resetShot('Glaze shelf')
  await openBench(page, 'Glaze shelf')
  await type(page, 'exposureStops', '0.5')
  await saved(page)
  await page.getByRole('link', { name: 'Dispatch' }).click()
  const choose = async (label: string, option: string): Promise<void> => {
    await page.getByTestId('lut-export').getByRole('combobox', { name: label, exact: true }).click({ force: true })
    await page.getByRole('option', { name: option, exact: true }).click()
  }
  const error = async (): Promise<number> => {
    await expect(page.getByTestId('lut-error')).toContainText('mean')
    return Number(/mean ΔE 2000 ([\d.]+)/.exec(await page.getByTestId('lut-error').innerText())![1])
  }
  const plain = await error()
  await choose('Shaper', 'a shaper')
  await expect.poll(error).toBeLessThan(plain)
  await choose('Output', 'the same, under a conversion')
  await expect(page.getByTestId('lut-carries')).toContainText('Not carried: Show')
  await choose('Format', 'Hald picture, .png')
  await expect(page.getByTestId('lut-export').getByText('36 × 36 × 36')).toBeVisible()
  const [hald] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Download LUT' }).click(),
  ])
  expect(hald.suggestedFilename()).toBe('Glaze shelf.png')
  await resetShot('Glaze shelf')
})
