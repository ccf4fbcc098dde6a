import { clamp, clamp01, printNumber } from './index'

test('numbers are held within bounds', () => {
  expect([clamp(-3, -1, 2), clamp(0.5, -1, 2), clamp(9, -1, 2)]).toEqual([-1, 0.5, 2])
  expect([clamp01(-0.1), clamp01(0.4), clamp01(7)]).toEqual([0, 0.4, 1])
})

test('numbers are printed with a true minus sign, and zero has none', () => {
  expect([printNumber(-1.25, 1), printNumber(1.25, 1), printNumber(1.25, 1, true)]).toEqual(['−1.3', '1.3', '+1.3'])
  expect([printNumber(-0.04, 1), printNumber(0.04, 1, true)]).toEqual(['0.0', '0.0'])
})
