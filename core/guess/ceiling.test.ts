import type { Frame } from '../image'
import { ceilingOf, codeCeilingOf, countCode, noCodes } from './ceiling'

/** A grey frame with so many bright pixels. */
function frame(bright: number, code: number, span: { low: number; high: number } = { low: 0, high: 1 }): Frame {
  const [width, height] = [200, 100]
  const data = new Uint16Array(width * height * 3).fill(20_000)
  data.fill(Math.round(((code - span.low) / (span.high - span.low)) * 65535), 0, bright * 3)
  return { width, height, data, ...span }
}

test('the ceiling is the brightest code that more than one value in ten thousand has', () => {
  expect(codeCeilingOf(frame(40, 0.9))).toBeCloseTo(0.9, 3)
  expect(codeCeilingOf(frame(1, 0.9))).toBeCloseTo(20_000 / 65535, 3)
  // Codes over white, as legal video has them.
  expect(codeCeilingOf(frame(40, 1.08, { low: -0.1, high: 1.1 }))).toBeCloseTo(1.08, 3)
})

test('codes of any size are counted, and none at all is black', () => {
  const counts = noCodes()
  for (const code of [-3, 0.5, 7]) countCode(counts, code)
  expect(counts.reduce((a, b) => a + b, 0)).toBe(3)
  expect(ceilingOf(noCodes())).toBe(0)
})
