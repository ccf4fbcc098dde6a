import { wipePolygon } from './wipe'

test.each([
  [{ position: 0.25, degrees: 0 }, 2, 'polygon(0.00% 0.00%, 25.00% 0.00%, 25.00% 100.00%, 0.00% 100.00%)'],
  // Turned by a quarter, what lay at the left lies above.
  [{ position: 0.5, degrees: 90 }, 2, 'polygon(0.00% 0.00%, 100.00% 0.00%, 100.00% 50.00%, 0.00% 50.00%)'],
  [{ position: 0.5, degrees: 45 }, 1, 'polygon(0.00% 0.00%, 100.00% 0.00%, 0.00% 100.00%)'],
  [{ position: 1, degrees: 0 }, 1.78, 'polygon(0.00% 0.00%, 100.00% 0.00%, 100.00% 100.00%, 0.00% 100.00%)'],
])('%j', (wipe, aspect, polygon) => {
  expect(wipePolygon(wipe, aspect)).toBe(polygon)
})
