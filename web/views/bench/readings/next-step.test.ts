import type { Reading } from '@core/readings'
import { nextStep } from './next-step'

const reading = (id: string, weight: number, verdict: 'low' | 'high', value = 0.012): Reading =>
  ({
    id,
    name: id === 'black' ? 'Black' : 'White',
    value,
    weight,
    verdict,
    confidence: 1,
    detail: '',
    sentence: '',
    alarm: false,
    target: { low: 0, high: 1 },
  }) as unknown as Reading

test('how the file is read comes before all else', () => {
  expect(nextStep([reading('black', 1, 'low')], true, true)).toEqual({ kind: 'read' })
})

test('then what lies furthest outside', () => {
  const next = nextStep([reading('black', 1, 'low'), reading('white', 3, 'high', 0.99)], false, true)
  expect(next).toMatchObject({ kind: 'reading', key: 'white' })
  expect(next?.kind === 'reading' && next.words).toMatch(/^White: \d.* %?, ?high$/)
})

test('with nothing outside, the next shot; before anything is measured, nothing', () => {
  expect(nextStep([], false, true)).toEqual({ kind: 'done' })
  expect(nextStep([], false, false)).toBeNull()
})
