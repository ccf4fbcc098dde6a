// Somebody who has never seen the program and knows only what is on the screen: from an empty start, with three clips
// of their own, to a scene that is balanced, matched and exported. Every click, key and entry is counted.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { expect, test, type Locator } from '@playwright/test'
import { startBareServer, type BareServer } from '../support/bare-server'

const mostActions = 25
let server: BareServer
let folder: string
test.beforeAll(async () => {
  process.env['PALE_WEB'] = resolve('dist/web')
  server = await startBareServer()
  folder = mkdtempSync(join(tmpdir(), 'pale-own-'))
})
test.afterAll(async () => {
  await server.dispose()
  rmSync(folder, { recursive: true, force: true })
})

/** Takes of one place by one camera, that say nothing of their encoding; the last two are darker, and greener. */
function ownClips(): readonly string[] {
  const faults = ['y=val', 'y=val-34', 'y=val-20:u=val-7:v=val-9']
  return faults.map((fault, n) => {
    const path = join(folder, `Bench take ${n + 1}.mov`)
    execFileSync('ffmpeg', [
      ...['-v', 'error', '-ss', String(n * 0.5), '-i', 'demo/footage/glaze-shelf.mov', '-frames:v', '36'],
      ...[
        '-vf',
        `lutyuv=${fault}`,
        '-c:v',
        'libx264',
        '-crf',
        '9',
        '-pix_fmt',
        'yuv422p10le',
        '-color_range',
        'pc',
        path,
      ],
    ])
    return path
  })
}

/** Mean luma of a clip's first frame, in display codes of 0..255. */
function lumaOf(path: string): number {
  const args = ['-v', 'error', '-i', path, '-frames:v', '1', '-f', 'rawvideo', '-pix_fmt', 'gray', 'pipe:1']
  const bytes = execFileSync('ffmpeg', args, { maxBuffer: 1 << 26 })
  return bytes.reduce((sum, v) => sum + v, 0) / bytes.length
}

test('from an empty start to a balanced, matched and exported scene', async ({ page }) => {
  test.setTimeout(900_000)
  const actions: string[] = []
  const act = async (what: string, does: () => Promise<unknown>): Promise<void> => {
    actions.push(what)
    await does()
  }
  const click = (what: string, where: Locator, options: Parameters<Locator['click']>[0] = {}): Promise<void> =>
    act(what, () => where.click(options))
  const shot = (n: number): Locator => page.locator(`[data-shot="Bench take ${n}.mov"]`)
  page.setDefaultTimeout(60_000)
  const ownPaths = ownClips()
  await page.goto(server.address)

  const files = page.waitForEvent('filechooser')
  await click('Choose files', page.getByRole('button', { name: 'Choose files' }))
  await act('three clips', async () => (await files).setFiles([...ownPaths]))
  for (const n of [1, 2, 3]) await expect(shot(n)).toBeVisible({ timeout: 120_000 })
  await click('first shot', shot(1))
  await click('to the last shot', shot(3), { modifiers: ['Shift'] })
  await click('encodings', page.getByRole('combobox', { name: 'Encoding' }), { force: true })
  await click('the one of the camera', page.getByRole('option', { name: 'Log 420/95' }))
  await click('scene name', page.getByPlaceholder('New scene'))
  await act('name', () => page.keyboard.type('Shelf'))
  await act('enter', () => page.keyboard.press('Enter'))
  await click('Balance for me', page.getByRole('button', { name: 'Balance for me' }))
  const balances = page.getByTestId('proposals')
  await expect(balances.getByRole('status')).toContainText('3 of 3', { timeout: 200_000 })
  await click('Accept all', balances.getByRole('button', { name: 'Accept all 3' }))
  await expect(balances.getByRole('status')).toContainText('nothing to decide')
  await click('the first again', shot(1))
  await click('Copy grade', page.getByRole('button', { name: 'Copy grade' }))
  await click('the second', shot(2))
  await click('to the third', shot(3), { modifiers: ['Shift'] })
  await click('Paste grade', page.getByRole('button', { name: 'Paste grade of Bench take 1.mov' }))
  await click('Carry', page.getByRole('button', { name: 'Carry to 2 shots' }))
  const carried = page.getByTestId('proposals')
  await expect(carried.getByRole('status')).toContainText('2 of 2')
  await click('Accept all', carried.getByRole('button', { name: 'Accept all 2' }))
  await expect(carried.getByRole('status')).toContainText('nothing to decide')
  await click('the first again', shot(1))
  await click('to the last shot', shot(3), { modifiers: ['Shift'] })
  await click('Render', page.getByRole('button', { name: 'Render' }))
  const renders = page.locator('[data-testid="render"][data-state="done"]')
  await expect(renders).toHaveCount(3, { timeout: 300_000 })
  const saved: string[] = []
  for (const n of [0, 1, 2]) {
    const download = page.waitForEvent('download')
    await click('Download', renders.nth(n).getByRole('link', { name: 'Download' }))
    const path = join(folder, `rendered ${n}.mp4`)
    await (await download).saveAs(path)
    saved.push(path)
  }
  expect(actions.length).toBeLessThanOrEqual(mostActions)
  test.info().annotations.push({ type: 'actions', description: `${actions.length}: ${actions.join(', ')}` })

  // What the person has then: pictures that agree in brightness. As shot, one take is most of a stop darker.
  const lumas = saved.map(lumaOf)
  expect(Math.max(...lumas) - Math.min(...lumas)).toBeLessThan(4)
})
