// Regions: drawn, keyed, cleaned, joined, followed and corrected, by mouse and by keys, and all of it undone.
import type { Locator, Page } from '@playwright/test'
import type { ShotDetail } from '@contracts/responses'
import type { GradeDocument } from '@core/grade'
import type { MatteComponent, ShapeSource } from '@core/regions'
import { drawOnPicture } from '../support/drawing'
import { expect, test } from './program'
import {
  address,
  choose,
  control,
  demoShot,
  field,
  goToFrame,
  meanColour,
  openBench,
  regionPage,
  resetShot,
  saved,
  type,
} from './bench-page'

const handle = (page: Page, name: string | RegExp): Locator =>
  page.getByTestId('region-overlay').getByLabel(name, typeof name === 'string' ? { exact: true } : {})
const gradeOf = async (shot: string): Promise<GradeDocument> =>
  ((await (await fetch(`${address()}/api/shots/${(await demoShot(shot)).id}`)).json()) as ShotDetail).revision.grade
const components = async (shot: string): Promise<readonly MatteComponent[]> =>
  (await gradeOf(shot)).regions[0]!.components
const shapeOf = async (shot: string): Promise<ShapeSource> => (await components(shot))[0]!.source as ShapeSource
async function dragBy(page: Page, target: Locator, dx: number, dy: number): Promise<void> {
  const box = (await target.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2 + dx, box.y + box.height / 2 + dy, { steps: 4 })
  await page.mouse.up()
}
async function undoAll(page: Page, shot: string): Promise<void> {
  await page.getByRole('button', { name: 'Undo' }).focus()
  await expect
    .poll(async () => {
      await saved(page)
      if ((await gradeOf(shot)).regions.length > 0) await page.keyboard.press('Control+z')
      return (await gradeOf(shot)).regions.length
    })
    .toBe(0)
}

test.describe.configure({ timeout: 240_000 })

test('shapes: moved, sized, turned, softened and drawn, by mouse, keys and numbers; tools act inside alone', async ({
  page,
}) => {
  const shot = 'Potter at the bench'
  await resetShot(shot)
  await openBench(page, shot, 'regions')
  const left = await meanColour(page, 0.1, 0.45, 0.15, 0.5)
  await choose(page, 'add-region', 'Ellipse')
  const corner = await meanColour(page, 0, 0, 0.05, 0.05)
  const centre = await meanColour(page, 0.48, 0.48, 0.52, 0.52)
  await regionPage(page, 'level')
  await type(page, 'exposureStops', '1.5')
  await expect.poll(async () => (await meanColour(page, 0.48, 0.48, 0.52, 0.52))[0] - centre[0]).toBeGreaterThan(15)
  for (const [c, v] of (await meanColour(page, 0, 0, 0.05, 0.05)).entries())
    expect(Math.abs(v - corner[c]!)).toBeLessThan(1)
  await regionPage(page, 'hue')
  await type(page, 'saturation', '0')
  await expect
    .poll(async () => {
      const c = await meanColour(page, 0.48, 0.48, 0.52, 0.52)
      return Math.max(...c) - Math.min(...c)
    })
    .toBeLessThan(8)

  await regionPage(page, 'components')
  const body = page.getByTestId('region-overlay').locator('.body')
  const at = async (): Promise<{ x: number; width: number }> => (await body.boundingBox())!
  const start = await at()
  await dragBy(page, body, -80, -30)
  expect((await at()).x - start.x).toBeCloseTo(-80, -1)
  await dragBy(page, handle(page, 'right edge'), 40, 0)
  expect((await at()).width - start.width).toBeCloseTo(80, -1)
  await dragBy(page, handle(page, 'Turn'), 70, 60)
  await expect(field(page, 'rotationDegrees')).not.toHaveValue('0.0')
  await handle(page, 'Outer softness').press('Shift+ArrowRight')
  await expect(field(page, 'outer')).toHaveValue('11.0')
  await handle(page, 'Inner softness').press('ArrowLeft')
  await expect(field(page, 'inner')).toHaveValue('6.5')
  // Off the edge of the frame, larger than it fits, the handles stay where the shape is.
  await type(page, 'centreX', '2')
  for (const key of ['o', 'o', 'Alt+ArrowLeft']) await page.getByRole('button', { name: 'alone' }).press(key)
  await expect.poll(async () => (await at()).width).toBeGreaterThan(start.width * 2)
  await page.getByRole('button', { name: 'alone' }).press('Shift+O')
  // Inside out: now the far corner is lit.
  const far = await meanColour(page, 0.9, 0, 1, 0.1)
  await page.getByRole('button', { name: 'inside out' }).click()
  await expect.poll(async () => (await meanColour(page, 0.9, 0, 1, 0.1))[0]).toBeGreaterThan(far[0] + 10)
  await page.getByRole('button', { name: 'inside out' }).click()

  // A polygon by clicks, taken away from the ellipse; a point by keys.
  await choose(page, 'add-component', 'Polygon')
  await page.getByRole('button', { name: 'draw it' }).click()
  for (const place of [
    [0.05, 0.2],
    [0.3, 0.2],
    [0.3, 0.9],
    [0.05, 0.9],
  ] as const)
    await drawOnPicture(page, place, place)
  await page.getByTestId('draw-layer').press('Enter')
  await expect(handle(page, /^Point \d/)).toHaveCount(4)
  await page.locator('[data-component="component-2"]').getByRole('button', { name: 'and', exact: true }).click()
  await handle(page, /^Point 2/).press('Enter')
  await expect(handle(page, /^Point \d/)).toHaveCount(5)
  await handle(page, /^Point 3/).press('Delete')
  await handle(page, /^Point 1/).press('Shift+ArrowLeft')
  await expect
    .poll(async () => (await components(shot)).map((p) => [p.mode, p.source.kind === 'shape' && p.source.shape.kind]))
    .toEqual([
      ['add', 'ellipse'],
      ['subtract', 'polygon'],
    ])
  await saved(page)
  // Inside it the picture is as it was.
  await expect
    .poll(async () => Math.max(...(await meanColour(page, 0.1, 0.45, 0.15, 0.5)).map((v, c) => Math.abs(v - left[c]!))))
    .toBeLessThan(1)
  await undoAll(page, shot)
  await expect(page.getByTestId('region-overlay')).toHaveCount(0)
})

test('a key is picked, narrowed, cleaned and measured; another region is everything but that', async ({ page }) => {
  const shot = 'Glaze shelf'
  await resetShot(shot)
  await openBench(page, shot, 'regions')
  await choose(page, 'add-region', 'Ellipse')
  await choose(page, 'add-component', 'Key')
  await page.getByTestId('key-add').click()
  await drawOnPicture(page, [0.2, 0.62], [0.25, 0.7])
  await page.keyboard.press('Escape')
  await expect(page.locator('[data-range="hue"] .values input').first()).toBeVisible()
  await expect(page.locator('[data-range="hue"] .bin').first()).toBeAttached()
  await regionPage(page, 'components')
  await page.locator('[data-component="component-1"]').getByRole('button', { name: 'Remove Ellipse' }).click()
  await choose(page, 'matte-view', 'Matte')
  // The blue jar and nothing else: white there, black on the wall.
  await expect.poll(async () => (await meanColour(page, 0.21, 0.6, 0.26, 0.7))[0]).toBeGreaterThan(225)
  expect((await meanColour(page, 0.5, 0.02, 0.6, 0.1))[0]).toBeLessThan(3)
  await regionPage(page, 'matte')
  const fact = async (id: string): Promise<number> =>
    Number.parseFloat((await page.locator(`[data-fresh="true"] [data-fact="${id}"]`).innerText()).replace('▲ ', ''))
  await expect.poll(() => fact('specks')).toBeGreaterThan(20)
  await page.getByTestId('clean').click()
  await expect.poll(() => fact('specks')).toBeLessThan(5)
  const coverage = await fact('coverage')
  expect(coverage).toBeGreaterThan(4)
  expect(coverage).toBeLessThan(10)
  await control(page, 'clean-grow').press('Shift+ArrowRight')
  await expect.poll(() => fact('coverage')).toBeGreaterThan(coverage)
  // What stands before the key moves its matte, and that is said; the look does not.
  await page.locator('[data-station="level"]').click()
  await type(page, 'exposureStops', '1')
  await page.locator('[data-station="regions"]').click()
  await expect.poll(() => fact('moved')).toBeGreaterThan(1)
  await regionPage(page, 'key')
  await page.locator('[data-range="lightness"]').getByRole('switch').press('Enter')
  await expect(page.locator('[data-range="lightness"]')).toContainText('any')
  await page.locator('[data-range="hue"] .end').nth(1).press('Shift+ArrowLeft')
  await saved(page)
  expect((await components(shot))[0]!.source).toMatchObject({ kind: 'key', key: { groups: [{ lightness: null }] } })

  await choose(page, 'add-region', 'Surroundings')
  await expect.poll(async () => (await meanColour(page, 0.21, 0.6, 0.26, 0.7))[0]).toBeLessThan(30)
  expect((await meanColour(page, 0.5, 0.02, 0.6, 0.1))[0]).toBeGreaterThan(252)
  // Instruments limited to the region at once, the region alone, and off.
  await page.getByRole('button', { name: 'alone' }).press('b')
  await expect(page.getByTestId('picture')).toHaveAttribute('data-settled', 'true')
  await page.getByRole('button', { name: 'alone' }).click()
  await page.getByRole('switch', { name: 'Region on' }).press('Enter')
  await saved(page)
  expect((await gradeOf(shot)).regions.map((r) => r.enabled)).toEqual([true, false])
  await resetShot(shot)
})

test('a shape is tracked, corrected at a frame, hidden and carried by keyframes; the track can be left', async ({
  page,
}) => {
  const shot = 'Yard under cloud'
  await expect.poll(async () => (await demoShot(shot)).proxy !== null).toBe(true)
  await resetShot(shot)
  await openBench(page, shot, 'regions')
  await choose(page, 'add-region', 'Ellipse')
  await regionPage(page, 'motion')
  await page.getByTestId('track-both').click()
  await expect(page.getByTestId('track-status')).toContainText('Follows from frame 0 to 119')
  await saved(page)
  const { motion } = await shapeOf(shot)
  expect(motion!.track).toMatchObject({ kind: 'similarity', reference: 36, first: 0 })
  expect(motion!.track!.values).toHaveLength(120 * 4)
  // The camera rolls: the shape turns with the picture.
  await goToFrame(page, 71)
  const turned = async (): Promise<number> => {
    const right = (await handle(page, 'right edge').boundingBox())!
    const left = (await handle(page, 'left edge').boundingBox())!
    return (Math.atan2(right.y - left.y, right.x - left.x) * 180) / Math.PI
  }
  await expect.poll(async () => Math.abs(await turned())).toBeGreaterThan(8)
  // A hand corrects this frame: a keyframe here and where it was drawn; the frame there stays as it was.
  await page.getByTestId('region-overlay').locator('.body').press('Shift+ArrowRight')
  await saved(page)
  expect((await shapeOf(shot)).motion!.keys.map((k) => k.frame)).toEqual([36, 71])
  await page.getByTestId('motion-strip').click({ position: { x: 1, y: 10 } })
  await expect(page.getByTestId('frame')).toContainText(/^0 \//)
  await page.getByTestId('hide').click()
  await saved(page)
  expect((await shapeOf(shot)).motion!.shown).toEqual([{ frame: 0, on: false }])
  await page.getByRole('button', { name: 'stays' }).click()
  await saved(page)
  expect((await shapeOf(shot)).motion).toBeUndefined()

  // By hand alone: two keyframes and what lies between.
  await page.getByTestId('keyframe').click()
  await goToFrame(page, 40)
  await page.getByTestId('keyframe').click()
  await regionPage(page, 'components')
  await type(page, 'centreX', '80')
  await goToFrame(page, 20)
  await expect(field(page, 'centreX')).not.toHaveValue('80.0')
  await expect
    .poll(async () => {
      const x = Number(await field(page, 'centreX').inputValue())
      return x > 50 && x < 80
    })
    .toBe(true)
  await undoAll(page, shot)
})

test(
  'a region of another shot is brought: a place is offered, its light is brought near, and nothing ' +
    'is kept before it is told to',
  async ({ page }) => {
    const from = 'Glaze shelf'
    const to = 'Window bench'
    const id = (await demoShot(from)).id
    await resetShot(from)
    const { revision } = (await (await fetch(`${address()}/api/shots/${id}`)).json()) as ShotDetail
    // An oval on the white jar that lifts it.
    const region = {
      id: 'region-1',
      name: 'White jar',
      enabled: true,
      invert: false,
      strength: 1,
      components: [
        {
          id: 'component-1',
          mode: 'add',
          invert: false,
          opacity: 1,
          source: {
            kind: 'shape',
            inner: 0.02,
            outer: 0.02,
            shape: { kind: 'ellipse', centreX: 0.51, centreY: 0.55, radiusX: 0.2, radiusY: 0.17, rotationDegrees: 0 },
          },
        },
      ],
    }
    const lift = {
      ...revision.grade.steps.find((s) => s.kind === 'exposure')!,
      id: 'region-1-exposure',
      regionId: 'region-1',
      params: { exposureStops: 0.4 },
    }
    const kept = await fetch(`${address()}/api/shots/${id}/revisions`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        parentId: revision.headId,
        summary: 'White jar',
        grade: { ...revision.grade, regions: [region], steps: [...revision.grade.steps, lift] },
      }),
    })
    expect(kept.ok).toBe(true)
    await resetShot(to)
    await openBench(page, to, 'regions')
    await choose(page, 'add-region', 'From another shot …')
    await choose(page, 'bring-shot', from)
    await page.getByRole('button', { name: 'Import', exact: true }).click()
    await expect(page.getByTestId('placing')).toContainText('asks where it sits')
    await expect(page.getByTestId('placing')).toContainText(/Found by its look.*Exposure [+−]\d\.\d\d stops/)
    await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled()
    await type(page, 'place-centreX', '30')
    await page.getByTestId('placing').getByRole('button', { name: 'Apply', exact: true }).click()
    await saved(page)
    const { regions, steps } = await gradeOf(to)
    expect(regions).toMatchObject([{ name: 'White jar', components: [{ source: { shape: { centreX: 0.3 } } }] }])
    expect(steps.find((s) => s.regionId === regions[0]!.id && s.kind === 'exposure')!.params['exposureStops']).not.toBe(
      0,
    )
    await resetShot(from)
    await resetShot(to)
  },
)
