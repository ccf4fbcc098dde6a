// What is called saved is saved: across reloads, tabs, and a killed server.
import { expect, test } from './program'
import { readFileSync } from 'node:fs'
import { importInto, startBareServer } from '../support/bare-server'
import { address, field, openBench, resetShot, saved, station, type } from './bench-page'

test.beforeEach(() => resetShot('Glaze shelf'))

test('undo, redo, close the tab, come back: all is there', async ({ page, context }) => {
  await openBench(page, 'Glaze shelf')
  for (const value of ['0.5', '1', '1.5']) {
    await type(page, 'exposureStops', value)
    await saved(page)
  }
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(field(page, 'exposureStops')).toHaveValue('+1.00')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(field(page, 'exposureStops')).toHaveValue('+0.50')
  await page.getByRole('button', { name: 'Redo' }).click()
  await expect(field(page, 'exposureStops')).toHaveValue('+1.00')
  const url = page.url()
  await page.close()
  const again = await context.newPage()
  await again.goto(url)
  await expect(field(again, 'exposureStops')).toHaveValue('+1.00')
  await again.getByRole('button', { name: 'Redo' }).click()
  await expect(field(again, 'exposureStops')).toHaveValue('+1.50')
  await expect(again.getByRole('button', { name: 'Redo' })).toBeDisabled()
})

test('an edit made right before the tab is closed is not lost', async ({ page, context }) => {
  await openBench(page, 'Glaze shelf')
  await type(page, 'exposureStops', '0.75')
  const url = page.url()
  await page.close({ runBeforeUnload: true })
  const again = await context.newPage()
  await expect(async () => {
    await again.goto(url)
    await expect(field(again, 'exposureStops')).toHaveValue('+0.75', { timeout: 2000 })
  }).toPass()
})

test(
  'a tab that could send nothing before it was gone loses nothing: it is gone on with, or put ' +
    'beside what came meanwhile',
  async ({ page, context }) => {
    const { id } = await openBench(page, 'Glaze shelf')
    const url = page.url()
    await page.route('**/revisions', (route) => route.abort())
    await type(page, 'exposureStops', '0.6')
    await expect(field(page, 'exposureStops')).toHaveValue('+0.60')
    await page.close()
    const second = await context.newPage()
    await second.goto(url)
    await expect(field(second, 'exposureStops')).toHaveValue('+0.60')
    await saved(second)
    // Once more, and another hand is quicker.
    await second.route('**/revisions', (route) => route.abort())
    await type(second, 'exposureStops', '1.1')
    await second.close()
    await resetShot('Glaze shelf')
    const third = await context.newPage()
    await third.goto(url)
    await expect(third.getByTestId('saved')).toContainText('changed elsewhere')
    // Undecided, it is still to be decided in the next tab.
    await third.close()
    const fourth = await context.newPage()
    await fourth.goto(url)
    await expect(fourth.getByTestId('saved')).toContainText('changed elsewhere')
    await fourth.getByRole('button', { name: 'Put mine on top' }).click()
    await saved(fourth)
    await expect(field(fourth, 'exposureStops')).toHaveValue('+1.10')
    expect(
      ((await (await fetch(`${address()}/api/shots/${id}`)).json()) as { revision: { canUndo: boolean } }).revision
        .canUndo,
    ).toBe(true)
  },
)

test('two tabs on one shot: the later one is told, and chooses', async ({ page, context }) => {
  await openBench(page, 'Glaze shelf')
  const other = await context.newPage()
  await openBench(other, 'Glaze shelf')
  await type(page, 'exposureStops', '1')
  await saved(page)
  await type(other, 'exposureStops', '-1')
  await expect(other.getByTestId('saved')).toContainText('changed elsewhere')
  await expect(other.getByRole('alert')).toContainText('This shot was changed elsewhere meanwhile.')
  await other.getByRole('button', { name: 'Put mine on top' }).click()
  await saved(other)
  await type(page, 'exposureStops', '2')
  await expect(page.getByTestId('saved')).toContainText('changed elsewhere')
  await page.getByRole('button', { name: 'Take the newer' }).click()
  await expect(field(page, 'exposureStops')).toHaveValue('−1.00')
  // Nothing was overwritten: the first tab's edit is one undo away.
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(field(page, 'exposureStops')).toHaveValue('+1.00')
})

test('kill -9 in mid-work: what was called saved is there, what was not is sent when the server is back', async ({
  page,
}) => {
  test.setTimeout(180_000)
  const server = await startBareServer()
  try {
    const id = await importInto(server.address, readFileSync('demo/footage/potter.mov'), 'potter.mov')
    await page.goto(`${server.address}/shots/${id}/bench?station=level`)
    await expect(page.getByTestId('reading-middle')).toContainText('%')
    await type(page, 'exposureStops', '0.5')
    await saved(page)
    await server.kill()
    await type(page, 'temperatureMired', '12')
    await expect(page.getByTestId('saved')).toContainText('not saved, trying again')
    await expect(page.locator('.notices').getByRole('alert')).toContainText('The server does not answer.')
    await server.restart()
    await saved(page)
    await page.reload()
    await expect(field(page, 'exposureStops')).toHaveValue('+0.50')
    await expect(field(page, 'temperatureMired')).toHaveValue('+12.0')
    // The clip it was looking through when it was killed is taken up again by the process that came after.
    await expect
      .poll(
        async () =>
          ((await (await fetch(`${server.address}/api/shots/${id}`)).json()) as { proxy: unknown }).proxy !== null,
      )
      .toBe(true)
  } finally {
    await server.dispose()
  }
})

test('the shot and station are in the address, and an address that is not there says so', async ({ page }) => {
  await openBench(page, 'Glaze shelf')
  await station(page, 'hue').click()
  await expect(page).toHaveURL(/station=hue/)
  await page.reload()
  await expect(station(page, 'hue')).toHaveAttribute('aria-selected', 'true')
  await page.goto(`${process.env['PALE_TEST_ADDRESS']}/shots/00000000-0000-4000-8000-000000000000/bench`)
  await expect(page.getByRole('alert')).toContainText('There is no such shot.')
  await page.goto(`${process.env['PALE_TEST_ADDRESS']}/nowhere/at/all`)
  await expect(page.getByRole('heading')).toHaveText('There is nothing at this address.')
})
