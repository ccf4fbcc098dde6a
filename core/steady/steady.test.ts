// A tone kept steady and a surface kept neutral, on scenes whose light is known on every frame: what is left of the
// change is measured on the picture as it is shown, where the surface truly lies.
import { displayById, encodingById, gamutById, lumaWeights, transformPixels } from '../colour'
import {
  compile,
  defaultGrade,
  executeExactly,
  gradeAt,
  keyframesOf,
  openingShow,
  restSize,
  setParameter,
  whiteBalanceMatrix,
  type GradeDocument,
} from '../grade'
import type { Frame } from '../image'
import { pixelsOf, type Area } from '../readings'
import { followSurface, keepSteady, withSteadied, type SurfaceSample } from './index'
import { framed } from '../../tests/guess/photographs'
import { plateLight } from '../../tests/guess/plate-light'
import { randomSource } from '../../tests/guess/scenes'
import { shoot } from '../../tests/guess/camera'

const size = { width: 480, height: 270 } as const
const none = (): undefined => undefined
const encodingId = 'log-420-95'
const opened = defaultGrade(encodingId, encodingById(encodingId).gamutIds[0], 'full')
const grade: GradeDocument = { ...opened, show: openingShow(opened.read, opened.show) }
const count = 36

interface Course {
  readonly stops?: (n: number) => number
  readonly mired?: (n: number) => number
  /** Something dark that passes over the picture: its left and right edge as shares, per frame. */
  readonly passes?: (n: number) => readonly [number, number] | null
}
/** The camera pans by this many pixels a frame. */
const pan = 0.8

function clip(scene: string, { stops, mired, passes }: Course): (n: number) => Frame {
  const light = plateLight(scene, 36)
  const random = randomSource(5)
  return (n) => {
    const seen = framed(light, { ...size, share: 0.7, x: 0.4, y: 0.5, mirrored: false, movedX: pan * n, movedY: 0 })
    const data = seen.data.map((v) => Math.max(v, 0) * 2 ** (stops?.(n) ?? 0))
    transformPixels(whiteBalanceMatrix(gamutById('bt709'), mired?.(n) ?? 0, 0), data)
    const bar = passes?.(n)
    if (bar)
      for (let p = 0; p < size.width * size.height; p++) {
        const x = (p % size.width) / size.width
        if (x > bar[0] && x < bar[1]) data.fill(0.01, p * 3, p * 3 + 3)
      }
    return shoot(
      { ...seen, data },
      {
        encodingId,
        range: 'full',
        flagged: 'full',
        bits: 10,
        exposureStops: 0,
        noiseBlack: 0.0005,
        noiseGrey: 0.002,
        noiseTrouble: 0,
        troublePhase: 0,
        troubleRate: 0,
      },
      random,
    )
  }
}
const lies = (area: Area, n: number): Area => {
  const by = (pan * n) / size.width
  return { ...area, left: area.left - by, right: area.right - by }
}

async function samplesOf(frames: readonly Frame[], area: Area, reference: number): Promise<readonly SurfaceSample[]> {
  const numbered = frames.map((picture, frame) => ({ frame, picture }))
  const found = new Map<number, SurfaceSample>()
  for (const way of [numbered.slice(reference + 1), numbered.slice(0, reference).toReversed()])
    for await (const sample of followSurface(numbered[reference]!, area, way)) found.set(sample.frame, sample)
  return [...found.values()].sort((a, b) => a.frame - b.frame)
}

/** Mean red, green and blue of an area as it is shown, 0..1. */
function shownIn(whole: Frame, document: GradeDocument, n: number, area: Area): readonly [number, number, number] {
  const { x0, x1, y0, y1 } = pixelsOf(area, whole)
  const data = new Uint16Array((x1 - x0) * (y1 - y0) * 3)
  for (let y = y0; y < y1; y++)
    data.set(whole.data.subarray((y * whole.width + x0) * 3, (y * whole.width + x1) * 3), (y - y0) * (x1 - x0) * 3)
  const frame: Frame = { ...whole, width: x1 - x0, height: y1 - y0, data }
  const shown = executeExactly(compile(gradeAt(document, n), none, frame, restSize), frame)
  const sum: [number, number, number] = [0, 0, 0]
  shown.data.forEach((code, i) => {
    sum[(i % 3) as 0 | 1 | 2] += code / (shown.data.length / 3) / 65535
  })
  return sum
}
const luma = lumaWeights(displayById(grade.show.displayId).lumaMatrix)
function lumas(frames: readonly Frame[], document: GradeDocument, area: Area): readonly number[] {
  return frames.map((frame, n) => {
    const [r, g, b] = shownIn(frame, document, n, lies(area, n))
    return luma.red * r + luma.green * g + luma.blue * b
  })
}
const spread = (values: readonly number[]): number => Math.max(...values) - Math.min(...values)
const stepId = (kind: string): string => grade.steps.find((s) => s.kind === kind)!.id
const area: Area = { left: 0.45, right: 0.55, top: 0.4, bottom: 0.55 }

test.each(['market-gamma', 'glaze-shelf', 'potter'])(
  '%s: a tone stays while the light goes up and down',
  async (scene) => {
    const at = clip(scene, { stops: (n) => 0.7 * Math.sin((n / count) * Math.PI * 1.5) })
    const frames = Array.from({ length: count }, (_, n) => at(n))
    const samples = await samplesOf(frames, area, 20)
    expect(samples).toHaveLength(count)
    // Whatever else is set stands: a stop of exposure by hand is kept on the frame that was pointed out.
    const set = setParameter(grade, stepId('exposure'), 'exposureStops', 0.4)
    const kept = keepSteady('tone', set, none, samples, 20)
    if (typeof kept === 'string') throw new Error(kept)
    const steadied = withSteadied(set, kept)
    const before = spread(lumas(frames, set, area))
    const after = lumas(frames, steadied, area)
    expect(before).toBeGreaterThan(0.08)
    expect(spread(after)).toBeLessThan(0.02)
    expect(Math.abs(after[20]! - lumas(frames, set, area)[20]!)).toBeLessThan(0.008)
    expect(kept.marks).toBeGreaterThan(2)
    expect(kept.marks).toBeLessThan(16)
    expect(kept.after).toBeLessThan(0.06)
    expect(kept.before).toBeGreaterThan(1)
    expect(keyframesOf(steadied, stepId('exposure'), 'exposureStops')?.keyframes).toHaveLength(kept.marks)
  },
)

test('a grey stays neutral while the light grows warmer, and exposure is left alone', async () => {
  const at = clip('market-gamma', { mired: (n) => -20 + (60 * n) / count })
  const frames = Array.from({ length: count }, (_, n) => at(n))
  const samples = await samplesOf(frames, area, 10)
  const kept = keepSteady('neutral', grade, none, samples, 10)
  if (typeof kept === 'string') throw new Error(kept)
  const steadied = withSteadied(grade, kept)
  for (const [n, frame] of frames.entries()) {
    const [r, g, b] = shownIn(frame, steadied, n, lies(area, n))
    expect(Math.max(r, g, b) - Math.min(r, g, b)).toBeLessThan(0.015)
  }
  expect(keyframesOf(steadied, stepId('white-balance'), 'temperatureMired')?.keyframes.length).toBeGreaterThan(1)
  expect(keyframesOf(steadied, stepId('exposure'), 'exposureStops')).toBeNull()
  expect(kept.before).toBeGreaterThan(30)
  expect(kept.after).toBeLessThan(3)
})

test('what passes over the surface is not followed', async () => {
  const at = clip('market-gamma', {
    stops: (n) => (0.5 * n) / count,
    passes: (n) => (n > 22 && n < 28 ? [(n - 22) * 0.12 - 0.1, (n - 22) * 0.12 + 0.08] : null),
  })
  const frames = Array.from({ length: count }, (_, n) => at(n))
  const kept = keepSteady('tone', grade, none, await samplesOf(frames, area, 5), 5)
  if (typeof kept === 'string') throw new Error(kept)
  const steadied = withSteadied(grade, kept)
  const free = lumas(frames, steadied, area).filter((_, n) => n <= 22 || n >= 28)
  expect(spread(free)).toBeLessThan(0.015)
  const marks = keyframesOf(steadied, stepId('exposure'), 'exposureStops')!.keyframes
  expect(spread(marks.map((m) => m.value))).toBeLessThan(0.6)
})

test('light that holds still gets no marks, and neither does what is too dark to tell', async () => {
  const at = clip('market-gamma', {})
  const frames = Array.from({ length: 12 }, (_, n) => at(n))
  const samples = await samplesOf(frames, area, 4)
  expect(keepSteady('tone', grade, none, samples, 4)).toBe('steady')
  const dark = samples.map((s) => ({ ...s, signal: [0.09, 0.09, 0.09] as const }))
  expect(keepSteady('tone', grade, none, dark, 4)).toBe('dark')
  expect(() => keepSteady('tone', grade, none, samples, 99)).toThrow(RangeError)
  const red = samples.map((s) => ({ ...s, signal: [0.6, 0.4, 0.35] as const }))
  expect(keepSteady('neutral', grade, none, red, 4)).toBe('coloured')
  const without = { ...grade, steps: grade.steps.filter((s) => s.kind !== 'exposure') }
  expect(keepSteady('tone', without, none, samples, 4)).toBe('none')
})

test('a picture without anything to follow is said to be one', async () => {
  const { width, height } = size
  const flat: Frame = { width, height, data: new Uint16Array(width * height * 3).fill(30000), low: 0, high: 1 }
  const following = followSurface({ frame: 3, picture: flat }, area, [{ frame: 4, picture: flat }])
  expect(await following.next()).toMatchObject({ value: { frame: 3 } })
  expect(await following.next()).toEqual({ done: true, value: 'flat' })
})
