// Aims on the demo footage: random faults are taken away, every reachable aim is met, and what cannot be met is said.
import { demoShots } from '../../demo/shots'
import { solveAims, wholeClipAims, type Aim, type ControlId } from '@core/aims'
import { setParameter, setStep, type GradeDocument } from '@core/grade'
import type { Frame } from '@core/image'
import { percentileOf, lumaHistogram, standardById } from '@core/readings'
import { displayById, lumaWeights } from '@core/colour'
import { randomFrom } from '../support/pictures'
import {
  aimsOf,
  areaIn,
  corrected,
  correctLight,
  demoFrame,
  differenceOf,
  none,
  shownBy,
  truthOf,
  withFault,
} from './faults'
import { thorough } from '../support/thorough'

const level = (id: string, share: number, value: number, rank: 1 | 2 | 3 = 1): Aim => ({
  id,
  name: id,
  rank,
  want: { kind: 'level', share, value },
})
const free: ReadonlySet<ControlId> = new Set()
const measured = (grade: GradeDocument, frame: Frame, share: number): number =>
  percentileOf(
    lumaHistogram({ shown: shownBy(grade, frame), luma: lumaWeights(displayById(grade.show.displayId).lumaMatrix) }),
    share,
  )

// A hundred in a thorough run.
const faults = thorough ? 100 : 40

test(
  'random faults on correct pictures are taken away by the aims read off them: median ΔE2000 at ' +
    'most 1, worst at most 3',
  async () => {
    const random = randomFrom(29)
    const differences: number[] = []
    const within = (low: number, high: number): number => low + random() * (high - low)
    for (const { id } of demoShots) {
      const shot = await demoFrame(id, 320)
      const { frame, grade } = correctLight(shot.source, corrected(id, shot.grade))
      const aims = aimsOf(frame, grade, truthOf(id).patches.leadFrame)
      const right = shownBy(grade, frame)
      for (let n = 0; n < faults / demoShots.length; n++) {
        const wrong = withFault(frame, {
          stops: within(-2, 2),
          mired: within(-60, 60),
          tint: within(-10, 10),
          contrast: within(0.6, 1.5),
        })
        differences.push(
          differenceOf(
            right,
            shownBy(solveAims({ grade, lut: none, frame: wrong, aims, locked: free }).grade, wrong),
            grade.show.displayId,
          ),
        )
      }
    }
    differences.sort((a, b) => a - b)
    expect(differences.length).toBeGreaterThanOrEqual(faults)
    console.log(
      `aims: median ΔE2000 ${differences[differences.length >> 1]!.toFixed(2)}, ` +
        `worst ${differences.at(-1)!.toFixed(2)}`,
    )
    expect(differences[differences.length >> 1]).toBeLessThanOrEqual(1)
    expect(differences.at(-1)).toBeLessThanOrEqual(3)
  },
)

describe('levels', () => {
  test.each(['potter', 'glaze-shelf', 'yard-cloud', 'courtyard', 'market-phone'])(
    'of %s are met within 0.3 %% on every pixel of the frame, and only what was asked for moves',
    async (id) => {
      const { source, grade } = await demoFrame(id)
      const aims = [level('black', 0.001, 0.04), level('middle', 0.5, 0.4), level('white', 0.999, 0.93)]
      const found = solveAims({ grade, lut: none, frame: source, aims, locked: free })
      expect(found.met).toBe(true)
      for (const { want } of aims)
        if (want.kind === 'level')
          expect(Math.abs(measured(found.grade, source, want.share) - want.value)).toBeLessThan(0.003)
      expect(new Set(found.moves.map((m) => m.control))).toEqual(new Set(['blackOffset', 'contrast', 'exposure']))
      const untouched = (g: GradeDocument): unknown =>
        g.steps.filter((s) => !['exposure', 'contrast', 'black-offset'].includes(s.kind))
      expect(untouched(found.grade)).toEqual(untouched(grade))
      // The same question has the same answer.
      expect(solveAims({ grade, lut: none, frame: source, aims, locked: free })).toEqual(found)
    },
  )

  test('what is locked stays; the rest does what it can, and the sentence says who stands in the way', async () => {
    const { source, grade } = await demoFrame('potter')
    const aims = [level('Black', 0.001, 0.03), level('White', 0.999, 0.95), level('Middle', 0.5, 0.75, 2)]
    const found = solveAims({ grade, lut: none, frame: source, aims, locked: new Set<ControlId>(['contrast']) })
    expect(found.met).toBe(false)
    expect(found.grade.steps.find((s) => s.kind === 'contrast')).toEqual(grade.steps.find((s) => s.kind === 'contrast'))
    const unmet = found.aims.filter((a) => !a.met)
    expect(unmet.length).toBeGreaterThan(0)
    for (const { why } of unmet)
      expect(why).toMatch(
        /^(Black|White|Middle) at \d+\.\d % needs .+ than ((Black|White|Middle) at .+ allows|the other aims allow)\.$/,
      )
    // A lower rank gives way further.
    const gap = (id: string): number => {
      const a = found.aims.find((r) => r.aim.id === id)!.goals[0]!
      return Math.abs(a.after! - a.wanted)
    }
    expect(gap('Middle')).toBeGreaterThan(gap('White'))
    const locked = solveAims({
      grade,
      lut: none,
      frame: source,
      aims: [aims[2]!],
      locked: new Set<ControlId>(['exposure']),
    })
    expect([locked.met, locked.moves.length, locked.aims[0]!.why]).toEqual([
      false,
      0,
      'Middle at 75.0 %: the controls that reach it are locked or switched off.',
    ])
  })

  test('a control that is switched off, or at its end, is said to be', async () => {
    const { source, grade } = await demoFrame('potter')
    const off = solveAims({
      grade: setStep(grade, 'exposure', { enabled: false }),
      lut: none,
      frame: source,
      aims: [level('Middle', 0.5, 0.7)],
      locked: free,
    })
    expect(off.aims[0]!.why).toMatch(/locked or switched off/)
    const far = solveAims({
      grade,
      lut: none,
      frame: source,
      aims: [{ id: 'c', name: 'Colour', rank: 1, want: { kind: 'chroma', value: 0.9 } }],
      locked: free,
    })
    expect(far.aims[0]!.why).toMatch(/saturation is at its end, 300 %/)
    expect(far.moves[0]!.to).toBe(3)
  })
})

test(
  'a neutral picked in two places, skin, and a colour taken over from another frame are met within ' +
    'their tolerances',
  async () => {
    const { source, grade } = await demoFrame('potter')
    const { leadFrame } = truthOf('potter').patches
    const card = areaIn(leadFrame['greyCard']!)
    const skin = areaIn(leadFrame['skin']!)
    const neutral = solveAims({
      grade,
      lut: none,
      frame: source,
      locked: free,
      aims: [
        { id: 'n', name: 'Neutral', rank: 1, want: { kind: 'neutral', areas: [card, areaIn(leadFrame['white90']!)] } },
      ],
    })
    expect(neutral.met).toBe(true)
    expect(Number(neutral.grade.steps.find((s) => s.kind === 'white-balance')!.params['tint'])).toBeCloseTo(8, 0)
    const own = solveAims({
      grade,
      lut: none,
      frame: source,
      locked: free,
      aims: [
        {
          id: 's',
          name: 'Skin',
          rank: 1,
          want: { kind: 'skin', area: skin, hueDegrees: 126, luma: 0.3, chroma: 0.14 },
        },
      ],
    })
    expect(own.aims[0]!.goals.map((g) => g.met)).toEqual([true, true, true])
    const same = solveAims({
      grade,
      lut: none,
      frame: source,
      locked: free,
      aims: [
        {
          id: 'm',
          name: 'As there',
          rank: 1,
          want: { kind: 'colour', areas: [skin], luma: 0.32, cb: -0.03, cr: 0.045 },
        },
      ],
    })
    expect(same.met).toBe(true)
    const foot = solveAims({
      grade,
      lut: none,
      frame: source,
      locked: free,
      aims: [{ id: 'f', name: 'Blue foot', rank: 1, want: { kind: 'level', share: 0.01, channel: 2, value: 0.14 } }],
    })
    expect(foot.met).toBe(true)
    expect(foot.moves.map((m) => m.control).sort()).toEqual(['shadowsMired', 'shadowsTint'])
  },
)

test('the smallest change is made: an aim that is met already moves nothing', async () => {
  const { source, grade } = await demoFrame('glaze-shelf')
  const moved = setParameter(grade, 'exposure', 'exposureStops', 0.4)
  const found = solveAims({
    grade: moved,
    lut: none,
    frame: source,
    aims: [level('Middle', 0.5, measured(moved, source, 0.5))],
    locked: free,
  })
  expect(found.met).toBe(true)
  expect(Math.abs((found.moves[0]?.to ?? 0.4) - 0.4)).toBeLessThan(0.01)
})

test('a bound on another frame of the clip is kept; where it is kept already, nothing moves for it', async () => {
  const shot = await demoFrame('courtyard')
  const { frame: source, grade } = correctLight(shot.source, shot.grade)
  const bright = withFault(source, { stops: 1.5, mired: 0, tint: 0, contrast: 1 })
  const aims: Aim[] = [
    {
      id: 'b',
      name: 'White, frame 60',
      rank: 2,
      frame: 60,
      want: { kind: 'level', share: 0.999, value: 0.95, bound: 'most' },
    },
  ]
  const dim = setParameter(grade, 'exposure', 'exposureStops', -3)
  expect(
    solveAims({
      grade: setParameter(grade, 'exposure', 'exposureStops', -8),
      lut: none,
      frame: source,
      frames: new Map([[60, bright]]),
      aims,
      locked: free,
    }).moves,
  ).toEqual([])
  const found = solveAims({
    grade: dim,
    lut: none,
    frame: source,
    frames: new Map([[60, bright]]),
    aims: [...aims, level('Middle', 0.5, 0.3)],
    locked: free,
  })
  expect(measured(found.grade, bright, 0.999)).toBeLessThan(0.954)
  // No further than the bound asks.
  const held = solveAims({ grade, lut: none, frame: source, frames: new Map([[60, bright]]), aims, locked: free })
  expect(held.met).toBe(true)
  // The end gives way, not the whole picture.
  expect(held.moves.map((m) => m.control)).toContain('highlights')
  expect(held.moves.some((m) => m.control === 'contrast')).toBe(false)
  expect(measured(held.grade, bright, 0.999)).toBeGreaterThan(0.9)
  expect(
    wholeClipAims(
      [
        { low: 0.1, middle: 0.4, high: 0.8, balance: [0, 0, 0], clipped: 0, crushed: 0 },
        undefined,
        { low: 0, middle: 0.4, high: 0.9, balance: [0, 0, 0], clipped: 0, crushed: 0.1 },
      ],
      100,
      standardById('broad-day'),
    ),
  ).toMatchObject([
    { name: 'White, frame 2', frame: 102, want: { value: 0.97, bound: 'most' } },
    { name: 'Black, frame 2', frame: 102, want: { value: 0.02, bound: 'least' } },
  ])
})

test('a fire that stands at the top already is not brought down by the bounds of its clip', () => {
  const trace = (low: number, high: number) =>
    ({ low, middle: 0.4, high, balance: [0, 0, 0], clipped: 0, crushed: 0 }) as const
  const bounds = (now?: readonly ReturnType<typeof trace>[]) =>
    wholeClipAims([trace(0.001, 1)], 0, standardById('broad-day'), now).map(({ want }) => 'value' in want && want.value)
  expect(bounds()).toEqual([0.97, 0.02])
  expect(bounds([trace(0.001, 1)])).toEqual([1, 0.001])
  expect(bounds([trace(0.1, 0.8)])).toEqual([0.97, 0.02])
})
