// The guides of docs/adding-*.md, followed word for word in a copy of the project: what they add is on the screen and
// in the shell.
import { execFile, execFileSync } from 'node:child_process'
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join, resolve } from 'node:path'
import { promisify } from 'node:util'
import { expect, test } from '@playwright/test'
import { encode as encodePng } from 'fast-png'
import type { LutSummary, ShotDetail } from '@contracts/responses'
import { startDemoInstance, type DemoInstance } from '../support/demo-instance'
import { followGuide } from '../support/guide'
import {
  address,
  changed,
  choose,
  control,
  demoShot,
  meanColour,
  openBench,
  regionPage,
  saved,
  type,
} from './bench-page'

const shot = 'Glaze shelf'
const run = promisify(execFile)
let folder = ''
let instance: DemoInstance
const followed: Record<string, ReturnType<typeof followGuide>> = {}
const at = (name: string): string => join(folder, name)

test.describe.configure({ mode: 'serial' })
test.beforeAll(async () => {
  test.setTimeout(400_000)
  folder = mkdtempSync(join(tmpdir(), 'pale-guides-'))
  const files = execFileSync('git', ['ls-files', '-co', '--exclude-standard', '-z'], { encoding: 'utf8' }).split('\0')
  for (const file of files.filter((f) => f !== '' && !f.startsWith('docs/screenshots'))) {
    mkdirSync(dirname(at(file)), { recursive: true })
    cpSync(file, at(file))
  }
  symlinkSync(resolve('node_modules'), at('node_modules'))
  for (const name of ['step', 'reading', 'format', 'view'])
    followed[name] = followGuide(folder, `docs/adding-a-${name}.md`)
  const vite = [resolve('node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'error']
  await run(process.execPath, vite, { cwd: folder })
  await run(process.execPath, [...vite, '-c', 'vite.node.config.ts'], { cwd: folder })
  instance = await startDemoInstance(folder)
  process.env['PALE_TEST_ADDRESS'] = instance.address
})
test.afterAll(async () => {
  await instance.dispose()
  rmSync(folder, { recursive: true, force: true })
})

const detail = async (): Promise<ShotDetail> =>
  (await (await fetch(`${address()}/api/shots/${(await demoShot(shot)).id}`)).json()) as ShotDetail
/** The parameters of the shot's Flare steps: of the whole picture, then of regions. */
const flares = async (): Promise<readonly (readonly [string, unknown])[]> =>
  (await detail()).revision.grade.steps
    .filter((s) => s.kind === 'flare')
    .map((s) => [s.regionId === undefined ? 'whole' : 'region', s.params['flarePercent']] as const)
const pale = async (...args: string[]): Promise<string> =>
  (await run(process.execPath, [at('dist/node/pale.js'), ...args], { maxBuffer: 1e8 })).stdout
/** Outside its standard or not: what was measured is printed. */
const measured = (...args: string[]): Promise<string> => pale('measure', ...args, '--json').catch(printed)
const printed = (e: { stdout: string; stderr: string }): string => {
  if (e.stdout === '') throw new Error(e.stderr)
  return e.stdout
}
function grey(): string {
  const [width, height] = [64, 32]
  const data = new Uint16Array(width * height * 3)
  for (let i = 0; i < data.length; i++) data[i] = Math.floor(i / 3) % width < 32 ? 20000 : 40000
  writeFileSync(at('grey.png'), encodePng({ width, height, data, depth: 16, channels: 3 }))
  return at('grey.png')
}

test('a step kind is one file and one line', () => {
  expect(followed['step']).toEqual({ created: ['core/grade/steps/flare.ts'], changed: ['core/grade/steps/kinds.ts'] })
})

test('its scale changes the picture, and is saved, undone, and carried by a region', async ({ page }) => {
  await openBench(page, shot)
  // Stored before the kind was there: the grade stays valid and gets the step.
  expect(await flares()).toEqual([['whole', 0]])
  await expect(control(page, 'flarePercent')).toHaveAttribute('aria-valuenow', '0')
  const before = await meanColour(page)
  await type(page, 'flarePercent', '4')
  const after = await changed(page, before)
  expect(after[1]).toBeLessThan(before[1])
  await saved(page)
  expect(await flares()).toEqual([['whole', 4]])
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(control(page, 'flarePercent')).toHaveAttribute('aria-valuenow', '0')
  await expect.poll(async () => (await flares())[0]?.[1] ?? 0).toBe(0)
  await page.locator('[data-station="regions"]').click()
  await choose(page, 'add-region', 'Ellipse')
  await regionPage(page, 'level')
  const untouched = await meanColour(page)
  await type(page, 'flarePercent', '5')
  const inside = await changed(page, untouched)
  expect(inside[1]).toBeLessThan(untouched[1])
  await saved(page)
  expect(await flares()).toContainEqual(['region', 5])
})

test('the shell reads a grade with the new kind', async () => {
  const { grade } = (await detail()).revision
  const plain = { ...grade, regions: [], steps: grade.steps.filter((s) => s.regionId === undefined) }
  const withFlare = {
    ...plain,
    steps: plain.steps.map((s) => (s.kind === 'flare' ? { ...s, params: { flarePercent: 5 } } : s)),
  }
  writeFileSync(at('plain.json'), JSON.stringify({ ...plain, steps: plain.steps.filter((s) => s.kind !== 'flare') }))
  writeFileSync(at('flare.json'), JSON.stringify(withFlare))
  const black = async (name: string): Promise<number> => {
    const told = JSON.parse(await measured(grey(), '--grade', at(name))) as Measured
    return told.readings.find((r) => r.id === 'black')!.value
  }
  expect(await black('flare.json')).toBeLessThan(await black('plain.json'))
})

interface Measured {
  readonly readings: readonly { readonly id: string; readonly value: number; readonly sentence: string }[]
}
test('a reading is on the Bench and in the shell', async ({ page }) => {
  const told = JSON.parse(await measured(grey())) as Measured
  const found = told.readings.find((r) => r.id === 'evenness')
  expect(found?.value).toBeCloseTo(1, 1)
  await openBench(page, shot)
  await page.getByRole('region', { name: 'Readings' }).getByRole('button', { name: 'all', exact: true }).click()
  await expect(page.locator('[data-reading="evenness"]')).toContainText('stops')
})

test('a LUT format is taken by the program and by the shell', async ({ page }) => {
  writeFileSync(at('darker.txt'), 'curve\n0\n0.25\n0.5\n')
  await page.goto(`${address()}/luts/inspect`)
  await page.locator('input[type="file"]').first().setInputFiles(at('darker.txt'))
  await expect(page.getByText('darker').first()).toBeVisible()
  const luts = (await (await fetch(`${address()}/api/luts`)).json()) as LutSummary[]
  const darker = luts.find((l) => l.name === 'darker')
  expect(darker?.format).toBe('curve')

  const { grade } = (await detail()).revision
  const plain = { ...grade, regions: [], steps: grade.steps.filter((s) => s.regionId === undefined) }
  const lut = {
    id: 'halved',
    kind: 'lut',
    name: 'LUT',
    enabled: true,
    strength: 1,
    side: 'display',
    params: { lutHash: darker!.hash },
  }
  writeFileSync(at('plain.json'), JSON.stringify(plain))
  writeFileSync(at('with-lut.json'), JSON.stringify({ ...plain, steps: [...plain.steps, lut] }))
  const measure = ['measure', grey(), '--grade', at('with-lut.json'), '--lut']
  const told = JSON.parse(await pale(...measure, at('darker.txt'), '--json').catch(printed)) as Measured
  const undone = JSON.parse(await measured(grey(), '--grade', at('plain.json'))) as Measured
  const black = (of: Measured): number => of.readings.find((r) => r.id === 'black')!.value
  expect(black(told)).toBeCloseTo(black(undone) / 2, 2)

  writeFileSync(at('broken.txt'), 'curve\n0\nabc\n')
  const refused = await pale(...measure, at('broken.txt')).catch((e: { stderr: string }) => e.stderr)
  expect(refused).toMatch(/line 3.*not a number that can be used/i)
})

test('a view is reached by the header', async ({ page }) => {
  await openBench(page, shot)
  await page.getByRole('navigation').getByRole('link', { name: 'Stills' }).click()
  await expect(page.getByRole('heading', { name: 'Stills' })).toBeVisible()
  await expect(page.getByRole('img', { name: shot, exact: true })).toBeVisible()
})
