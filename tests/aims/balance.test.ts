// Balance for me on the demo footage: with a card it finds the truth, without one it says what it does not know.
import { demoShots } from '../../demo/shots'
import { balanceLines, isSure, solveAims, type BalanceLine } from '@core/aims'
import { buildChain, setParameter, type GradeDocument } from '@core/grade'
import type { Frame } from '@core/image'
import {
  gradedPicture,
  measureFrame,
  nothingPointed,
  readCard,
  standardById,
  type HouseStandard,
  type Pointed,
} from '@core/readings'
import { areaIn, corrected, correctLight, demoFrame, differenceOf, none, shownBy, truthOf, withFault } from './faults'
import { randomFrom } from '../support/pictures'

function balance(
  source: Frame,
  grade: GradeDocument,
  pointed: Pointed,
  standard: HouseStandard = standardById('broad-day'),
): { readonly lines: readonly BalanceLine[]; readonly grade: GradeDocument } {
  const lines = balanceLines(measureFrame(gradedPicture(source, 10, grade, none), pointed), standard, pointed)
  return {
    lines,
    grade: solveAims({ grade, lut: none, frame: source, aims: lines.flatMap((l) => l.aim ?? []), locked: new Set() })
      .grade,
  }
}

test(
  'with a card, exposure comes within 0.15 stop and white within 8 mired of the truth, in every ' + 'demo shot',
  async () => {
    for (const { id } of demoShots) {
      const { source, grade } = await demoFrame(id)
      const truth = truthOf(id)
      const area = areaIn(truth.patches.leadFrame['greyCard']!)
      const found = balance(source, grade, { card: area, subjects: [] })
      const right = corrected(id, grade)
      const numbers = (g: GradeDocument): { stops: number; mired: number; card: number } => {
        const of = (kind: string, key: string): number => Number(g.steps.find((s) => s.kind === kind)!.params[key])
        return {
          stops: of('exposure', 'exposureStops'),
          mired: of('white-balance', 'temperatureMired'),
          card: readCard({ source, chain: buildChain(g, none) }, area)!.exposureStops,
        }
      }
      const is = numbers(found.grade)
      const was = numbers(right)
      expect(Math.abs(is.stops - was.stops)).toBeLessThan(0.15)
      expect(Math.abs(is.card)).toBeLessThan(0.15)
      expect(Math.abs(is.mired - was.mired)).toBeLessThan(8)
      expect(found.lines.map((l) => l.stage)).toEqual(
        [...found.lines.map((l) => l.stage)].sort(
          (a, b) => ['tone', 'balance', 'saturation'].indexOf(a) - ['tone', 'balance', 'saturation'].indexOf(b),
        ),
      )
    }
  },
)

test('without a card it either comes within a median ΔE2000 of 3, or says that it is unsure', async () => {
  const random = randomFrom(7)
  const within = (low: number, high: number): number => low + random() * (high - low)
  const sure: number[] = []
  let unsure = 0
  for (const { id } of demoShots.slice(0, 5)) {
    const shot = await demoFrame(id, 320)
    const { frame, grade } = correctLight(shot.source, corrected(id, shot.grade))
    const right = shownBy(grade, frame)
    for (let n = 0; n < 4; n++) {
      const wrong = withFault(frame, {
        stops: within(-2, 2),
        mired: within(-60, 60),
        tint: within(-10, 10),
        contrast: within(0.6, 1.5),
      })
      const found = balance(wrong, grade, nothingPointed)
      if (isSure(found.lines)) sure.push(differenceOf(right, shownBy(found.grade, wrong), grade.show.displayId))
      else unsure++
    }
  }
  sure.sort((a, b) => a - b)
  expect(sure[Math.floor(sure.length / 2)] ?? 0).toBeLessThanOrEqual(3)
  expect(sure.length + unsure).toBe(20)
  // Brightness without any measured light is the standard's wish, and is called that.
  expect(unsure).toBe(20)
})

test(
  'a scene without a true white is not stretched, a standard that asks for nothing moves nothing, ' +
    'and what lies inside is held',
  async () => {
    const { source, grade } = await demoFrame('potter')
    const area = areaIn(truthOf('potter').patches.leadFrame['greyCard']!)
    const pointed = { card: area, subjects: [] }
    const dark = balance(source, setParameter(grade, 'exposure', 'exposureStops', -3), nothingPointed)
    expect(dark.lines.find((l) => l.id === 'white')).toMatchObject({
      aim: null,
      evidence: expect.stringContaining('no true white') as string,
    })
    expect(balance(source, grade, pointed, standardById('as-lit')).lines).toEqual([])
    const once = balance(source, grade, pointed)
    const again = balance(source, once.grade, pointed)
    expect(again.lines.find((l) => l.id === 'black')!.evidence).toContain('held there')
    const step = (g: GradeDocument, kind: string): unknown => g.steps.find((s) => s.kind === kind)!.params
    expect(Number((step(again.grade, 'exposure') as { exposureStops: number }).exposureStops)).toBeCloseTo(
      Number((step(once.grade, 'exposure') as { exposureStops: number }).exposureStops),
      1,
    )
  },
)

test('skin follows its own card in hue, and nothing is asked of its brightness', async () => {
  const { source, grade } = await demoFrame('potter')
  const { leadFrame } = truthOf('potter').patches
  const found = balance(source, grade, {
    card: null,
    subjects: [{ name: 'Ember', area: areaIn(leadFrame['skin']!), card: { luma: 0.5, chroma: 0.12, hueDegrees: 125 } }],
  })
  const skin = found.lines.find((l) => l.id === 'skin-Ember')!
  expect(skin.aim!.want).toEqual({ kind: 'skin', area: areaIn(leadFrame['skin']!), hueDegrees: 125 })
  expect(skin.aim!.rank).toBe(3)
})
