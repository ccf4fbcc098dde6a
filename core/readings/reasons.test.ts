import type { Finding } from './reading'
import { reasonToStay } from './reasons'

const found = (id: Finding['id'], value: number): Finding => ({ id, value, confidence: 1, detail: '' })
const high = (id: Finding['id']) => ({ ...found(id, 0.14), verdict: 'high' })

test('a black that is high may stay where nothing in the scene is black', () => {
  expect(reasonToStay(high('black'), [found('noBlack', -3.33)])).toBe(
    'The darkest half percent lies 3.33 stops under grey: dark, not black.',
  )
  // Something lies six stops down: it is black, and it was lifted.
  expect(reasonToStay(high('black'), [found('noBlack', -6)])).toBe('')
  expect(reasonToStay(high('black'), [])).toBe('')
  expect(reasonToStay({ ...high('black'), verdict: 'low' }, [found('noBlack', -3)])).toBe('')
})

test('a white that is low may stay where nothing in the scene is white', () => {
  const low = { ...found('white', 0.6), verdict: 'low' }
  expect(reasonToStay(low, [found('noWhite', 1.7)])).toMatch(/^The brightest half percent lies \+1\.70 stops from grey/)
  expect(reasonToStay(low, [found('noWhite', 3)])).toBe('')
})

test('what the findings cannot explain is left to a person', () => {
  for (const id of ['clipped', 'crushed', 'neutrals'] as const)
    expect(reasonToStay(high(id), [found('noBlack', -2), found('noWhite', 1)])).toBe('')
})
