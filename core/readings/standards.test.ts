import { readingKind, readingKinds, type ReadingId } from './kinds'
import {
  defaultStandardId,
  houseStandards,
  isShippedStandard,
  standardById,
  stepsOutside,
  verdictOf,
} from './standards'

test('every standard has a name of its own, and targets that lie in order', () => {
  expect(new Set(houseStandards.map((s) => s.name)).size).toBe(houseStandards.length)
  for (const { targets } of houseStandards) {
    for (const [id, target] of Object.entries(targets)) {
      expect(readingKind(id as ReadingId).targeted).toBe(true)
      expect(target.low).toBeLessThan(target.high)
      expect(target.tolerance).toBeGreaterThanOrEqual(0)
    }
    if (targets.black && targets.white) expect(targets.black.high).toBeLessThan(targets.white.low)
  }
})

test(
  'no standard asks one brightness of every complexion: skin luma stands only where a way of ' + 'lighting is meant',
  () => {
    expect(houseStandards.filter((s) => s.targets.skinLuma).map((s) => s.id)).toEqual(['key-lit', 'night'])
  },
)

test('verdicts', () => {
  const { black, white } = standardById('broad-day').targets
  expect([0.0185, 0.0195, 0.03, 0.0505, 0.06].map((v) => verdictOf(v, black))).toEqual([
    'low',
    'met',
    'met',
    'met',
    'high',
  ])
  expect(verdictOf(0.99, white)).toBe('high')
  expect(verdictOf(0.5, standardById('as-lit').targets.white)).toBeNull()
})

test('how far outside: nothing within the tolerance, then in steps of the kind', () => {
  const target = { low: 0.02, high: 0.05, tolerance: 0.001 }
  expect(stepsOutside('black', 0.0505, target)).toBe(0)
  expect(stepsOutside('black', 0.09, target)).toBeCloseTo(2, 9)
})

test("an id that is not known falls back; one of the user's own is found first", () => {
  expect(isShippedStandard('nonsense')).toBe(false)
  expect(standardById('nonsense').id).toBe(defaultStandardId)
  const own = { id: 'mine', name: 'Mine', tip: '', targets: {} }
  expect(standardById('mine', [own])).toBe(own)
})

test('every kind says why it matters', () => {
  for (const { why, tip } of readingKinds) for (const words of [why, tip]) expect(words).toMatch(/^[A-Z].{20,}\.$/)
})
