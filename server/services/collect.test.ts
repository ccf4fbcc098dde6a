import { leastUsed } from './collect'

const file = (name: string, bytes: number, usedMs: number) => ({ name, bytes, usedMs })

test('what was not used for longest goes first, and no more than must', () => {
  const files = [file('new', 40, 300), file('old', 30, 100), file('middle', 20, 200)]
  expect(leastUsed(files, 90)).toEqual([])
  expect(leastUsed(files, 89)).toEqual(['old'])
  expect(leastUsed(files, 59)).toEqual(['old', 'middle'])
  expect(leastUsed(files, 0)).toEqual(['old', 'middle', 'new'])
  expect(leastUsed([], 0)).toEqual([])
})
