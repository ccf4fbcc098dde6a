import { readingKey, type Reading } from '@core/readings'
import { mostHelpfulFirst, standingOf, targetLabel } from './standing'

const reading = (id: Reading['id'], more: Partial<Reading> = {}): Reading =>
  ({ id, name: id, value: 0, weight: 0, verdict: 'none', target: null, alarm: false, ...more }) as unknown as Reading
const none: ReadonlySet<string> = new Set()
const off = reading('white', { weight: 2 })
const alarmed = reading('banding', { alarm: true })
const met = reading('black', { verdict: 'met' })
const note = reading('noise')

test('a reading outside its target is off until it is ignored', () => {
  expect(standingOf(off, none)).toBe('off')
  expect(standingOf(off, new Set([readingKey(off)]))).toBe('waived')
  expect([met, note].map((r) => standingOf(r, none))).toEqual(['met', 'note'])
})

test('what is off stands first, then alarms, then notes, and what is met last', () => {
  expect(mostHelpfulFirst([met, note, alarmed, off], none)).toEqual([off, alarmed, note, met])
  expect(mostHelpfulFirst([met, note, off], new Set([readingKey(off)]))).toEqual([note, off, met])
})

test('a target is said in few characters', () => {
  const aimed = (id: Reading['id'], low: number, high: number): string =>
    targetLabel(reading(id, { target: { low, high } } as Partial<Reading>))
  expect(aimed('white', 0.9, 0.97)).toBe('90–97')
  expect(aimed('clipped', 0, 0.005)).toBe('≤ 0.5')
  expect(aimed('black', 0, 0.02)).toBe('0–2')
  expect(targetLabel(note)).toBe('')
})
