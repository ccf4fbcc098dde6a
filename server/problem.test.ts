import { ContractError } from '@contracts/check'
import { JsonError } from '@contracts/json'
import { FormatError } from '@core/formats'
import { asProblem, Problem } from './problem'

test.each([
  [new ContractError('Exposure must be a number.', 'steps.0.params'), 422, 'invalid'],
  [new FormatError('"x" is not a number.', 7), 422, 'unreadable_file'],
  [new SyntaxError('Unexpected token'), 500, 'internal'],
  [Object.assign(new Error('write'), { code: 'ENOSPC' }), 507, 'disk_full'],
  [Object.assign(new Error('could not extend file'), { code: '53100' }), 507, 'disk_full'],
  [new Error('timeout exceeded when trying to connect'), 503, 'busy'],
  [Object.assign(new Error('This operation was aborted'), { name: 'AbortError' }), 408, 'broken_off'],
  [new JsonError('Too much.', 413), 413, 'too_large'],
  [Object.assign(new Error('connect'), { code: 'ECONNREFUSED' }), 503, 'database_away'],
  [Object.assign(new Error('terminating connection'), { code: '57P01' }), 503, 'database_away'],
  [Object.assign(new Error('gone'), { code: '08006' }), 503, 'database_away'],
  [new Error('secret inner detail'), 500, 'internal'],
  ['a thrown word', 500, 'internal'],
  [null, 500, 'internal'],
])('%p is told as %p %p', (error, status, code) => {
  const problem = asProblem(error)
  expect(problem).toMatchObject({ status, code })
  expect(problem.message).toMatch(/\.$/)
  expect(problem.message).not.toContain('secret')
})

test('a problem passes unchanged, the field and the line survive', () => {
  const own = new Problem(409, 'conflict', 'Changed elsewhere.')
  expect(asProblem(own)).toBe(own)
  expect(asProblem(new ContractError('No.', 'read.range')).field).toBe('read.range')
  expect(asProblem(new FormatError('No.', 7)).message).toBe('Line 7: No.')
})
