import { queueOptionsSymbol } from 'piscina'
import { UrgentFirst, withUrgency, type Urgency } from './urgency'

type Task = Parameters<UrgentFirst['push']>[0] & { readonly name: string }
const task = (name: string, urgency?: Urgency): Task => ({ name, [queueOptionsSymbol]: urgency ? { urgency } : null })
function drained(queue: UrgentFirst): readonly string[] {
  const names: string[] = []
  for (let next = queue.shift(); next; next = queue.shift()) names.push((next as Task).name)
  return names
}

test('what a person looks at comes before what one asked for; among equals, as they came', () => {
  const queue = new UrgentFirst()
  for (const each of [task('guess'), task('frame 1', 'seen'), task('balance', 'asked'), task('frame 2', 'seen')])
    queue.push(each)
  expect(queue.size).toBe(4)
  expect(drained(queue)).toEqual(['frame 1', 'frame 2', 'guess', 'balance'])
  expect(queue.size).toBe(0)
  expect(queue.shift()).toBeNull()
})

test('one that is given up leaves; one that is put back is the next of its kind', () => {
  const queue = new UrgentFirst()
  const [one, two, three] = [task('one', 'seen'), task('two', 'seen'), task('three', 'seen')]
  for (const each of [one, two, three]) queue.push(each)
  queue.remove(two)
  queue.remove(two)
  queue.shift()
  queue.unshift(one)
  expect(drained(queue)).toEqual(['one', 'three'])
})

test('a task is what it was, with its urgency beside it', () => {
  const asked = withUrgency({ index: 3 }, 'seen')
  expect(asked).toMatchObject({ index: 3 })
  expect(JSON.stringify(asked)).toBe('{"index":3}')
})
