// Regions: how long a drag of a shape or of a key's edge takes until picture, matte and instruments are on screen;
// playing with three tracked ones; following.
import type { Browser } from '@playwright/test'
import {
  addComponent,
  addRegion,
  changeComponent,
  changeShapeSource,
  keyComponent,
  setParameter,
  type GradeDocument,
} from '@core/grade'
import { fitKey, freshKey, startTracker, usualCleaning, type Track } from '@core/regions'
import { card, clipSize, frameOf, madeClips } from '../support/made-clips'
import { rounds } from './effort'
import { median, quantile } from './median'
import { counts } from './playback'
import { openBench, sampleInPage } from './slider'

/** What was measured before left regions. */
const plain = (grade: GradeDocument): GradeDocument => ({
  ...grade,
  regions: [],
  steps: grade.steps.filter((s) => s.regionId === undefined),
})

/** An oval that is lighter, and a cleaned key within an oval that is paler. */
function twoRegions(given: GradeDocument): GradeDocument {
  const first = addRegion(plain(given))
  const second = addRegion(setParameter(first.grade, `${first.regionId}-exposure`, 'exposureStops', 0.5))
  const keyed = addComponent(
    setParameter(second.grade, `${second.regionId}-saturation`, 'saturation', 0.5),
    second.regionId,
    keyComponent('', { mode: 'intersect' }),
  )
  // The blue jar on the shelf, as a pick on it finds it.
  const samples = [
    {
      mode: 'add' as const,
      colours: [
        [0.28, -0.004, -0.086],
        [0.3, -0.004, -0.09],
        [0.25, 0.001, -0.07],
        [0.35, -0.01, -0.114],
      ] as const,
    },
  ]
  return changeComponent(keyed.grade, second.regionId, keyed.componentId, (p) => ({
    ...p,
    source: { kind: 'key', key: { ...freshKey, samples, groups: fitKey(samples) }, cleaning: usualCleaning },
  }))
}

function threeTracked(grade: GradeDocument): GradeDocument {
  return [0.25, 0.5, 0.75].reduce((g, centreX, n) => {
    const { grade: added, regionId } = addRegion(g)
    const track: Track = {
      kind: 'similarity',
      reference: 0,
      first: 0,
      values: Array.from({ length: 72 }, (_, f) => [1 + f * 0.002, f * 0.001, f * 0.001, 0]).flat(),
      quality: Array.from({ length: 72 }, () => [1, 0.1]).flat(),
    }
    const followed = changeShapeSource(added, regionId, 'component-1', (s) => ({
      ...s,
      shape: { kind: 'ellipse', centreX, centreY: 0.5, radiusX: 0.2, radiusY: 0.25, rotationDegrees: 0 },
      motion: { track, keys: [], path: 'smooth', roll: false, shown: [], fadeFrames: 0, aspect: 16 / 9 },
    }))
    return setParameter(followed, `${regionId}-exposure`, 'exposureStops', n === 1 ? -0.5 : 0.4)
  }, plain(grade))
}

export async function measureRegions(browser: Browser, address: string): Promise<readonly string[]> {
  const lines: string[] = []
  for (const [name, component, pageId, pressed] of [
    ['a shape', 'component-1', 'components', '[data-testid="region-overlay"] .body'],
    ['an edge of a key', 'component-2', 'key', '[data-range="hue"] .end:nth-of-type(2)'],
  ] as const) {
    const page = await openBench(browser, address, twoRegions, 'regions')
    await page.locator('.which .el-select').click()
    await page.getByRole('option', { name: 'Region 2', exact: true }).click()
    await page.locator(`[data-component="${component}"] .what`).click()
    await page.locator(`[data-page="${pageId}"]`).click()
    await page.locator(pressed).first().waitFor({ state: 'attached' })
    await page.locator('canvas[data-settled="true"]').waitFor()
    const { times } = await page.evaluate(sampleInPage, { pressed, presses: rounds(60, 12) })
    lines.push(
      `drag of ${name}, two regions, one keyed and cleaned: median ${median(times).toFixed(1)} ms, 95th ` +
        `percentile ${quantile(times, 0.95).toFixed(1)} ms (bound 60)`,
    )
    await page.close()
  }
  const page = await openBench(browser, address, threeTracked, 'level')
  await page.keyboard.press('g')
  await page.getByTestId('play').click()
  await page.waitForTimeout(rounds(3000, 1000))
  const before = await counts(page)
  const start = Date.now()
  await page.waitForTimeout(rounds(15_000, 1000))
  const after = await counts(page)
  const seconds = (Date.now() - start) / 1000
  lines.push(
    `playing with three tracked regions: ${((after.shown - before.shown) / seconds).toFixed(1)} ` +
      `frames a second shown, ${((after.dropped - before.dropped) / seconds).toFixed(1)} dropped (bound ` +
      '24)',
  )
  await page.close()
  return [...lines, ...following()]
}

/** The tracker alone, on one core, frame after frame. */
function following(): readonly string[] {
  const allowed = new Uint8Array(clipSize.width * clipSize.height)
  for (let y = card.top; y < card.bottom; y++)
    allowed.fill(1, y * clipSize.width + card.left, y * clipSize.width + card.right)
  return madeClips
    .filter((c) => !c.vanishes)
    .map((clip) => {
      const frames = Array.from({ length: rounds(clip.frames, 4) }, (_, n) => frameOf(clip, n))
      const tracker = startTracker(frames[0]!, { kind: clip.kind, allowed })
      const times: number[] = []
      for (const frame of frames.slice(1)) {
        const begun = performance.now()
        tracker?.next(frame)
        times.push(performance.now() - begun)
      }
      return (
        `following ${clip.kind}, ${clip.name}: ${(1000 / median(times)).toFixed(0)} frames a second ` +
        '(median; bound 24)'
      )
    })
}
