import { cutTo, fileNameOf, oneLine } from './names'

test.each([
  ['Glaze shelf', 11, 'Glaze shelf'],
  ['Glaze shelf', 5, 'Glaze'],
  ['ash🏺ash', 4, 'ash🏺'],
  ['ash🏺ash', 3, 'ash'],
  // A letter with its accent, a family of joined signs: whole or not at all.
  ['e\u0301e\u0301', 3, 'e\u0301'],
  ['a👩‍👧b', 3, 'a'],
  ['🏺'.repeat(200), 120, '🏺'.repeat(120)],
  ['', 5, ''],
])('%j cut to %d', (text, most, cut) => {
  expect(cutTo(text, most)).toBe(cut)
  expect(cutTo(text, most).isWellFormed()).toBe(true)
})

test.each([
  ['Glaze shelf 🏺 é', true],
  ['two\nlines', false],
  ['nul\0', false],
  ['half \ud83c', false],
  ['\udffa half', false],
])('%j is a name: %p', (text, fine) => {
  expect(oneLine.test(text)).toBe(fine)
})

test('a file name holds what every common system takes, and is never empty', () => {
  expect(fileNameOf('Ashglaze, zweite Woche')).toBe('Ashglaze, zweite Woche')
  expect(fileNameOf('../a\\b:c*?"<>|\n')).toBe('.._a_b_c_______')
  expect(fileNameOf('  ')).toBe('unnamed')
})
