import { defaultStandardId, houseStandards, isStandardId, standardById, verdictOf } from './standards'

test('every standard has a name of its own and bands that lie in order', () => {
  expect(new Set(houseStandards.map((s) => s.name)).size).toBe(houseStandards.length)
  for (const { black, white } of houseStandards) {
    for (const band of [black, white]) if (band) expect(band.low).toBeLessThan(band.high)
    if (black && white) expect(black.high).toBeLessThan(white.low)
  }
})

test('verdicts', () => {
  const { black, white } = standardById('broad-day')
  expect([0.019, 0.0195, 0.03, 0.0505, 0.06].map((v) => verdictOf(v, black))).toEqual(['low', 'met', 'met', 'met', 'high'])
  expect(verdictOf(0.99, white)).toBe('high')
  expect(verdictOf(0.5, standardById('as-lit').white)).toBeNull()
})

test('an id that is not known falls back', () => {
  expect(isStandardId('nonsense')).toBe(false)
  expect(standardById('nonsense').id).toBe(defaultStandardId)
})
