import { seenHeader, tagOf } from './seen'

test('a tag is of the value: not of the order of its keys, nor of what JSON leaves out', () => {
  expect(tagOf({ a: 1, b: [2, 'é'] })).toBe(tagOf({ b: [2, 'é'], a: 1, c: undefined }))
  expect(tagOf({ a: 1 })).not.toBe(tagOf({ a: 2 }))
  expect(tagOf([1, 2])).not.toBe(tagOf([2, 1]))
  expect(tagOf('')).not.toBe(tagOf('0'))
})

test('a tag is what RFC 9110 allows between quotes', () => {
  for (const value of ['"', 'ü\n', { name: 'Ober"fläche' }]) expect(tagOf(value)).toMatch(/^"[\x21\x23-\x7e]+"$/)
})

test('where nothing was seen, nothing may be there', () => {
  expect(seenHeader(null)).toEqual({ 'if-none-match': '*' })
  expect(seenHeader('')).toEqual({ 'if-match': tagOf('') })
})
