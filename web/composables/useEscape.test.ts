import { effectScope, ref } from 'vue'
import { closeLast, useEscape } from './useEscape'

test('what was opened last is closed first, and what went away is not closed', () => {
  const sheet = ref(false)
  const picker = ref(false)
  const closed: string[] = []
  const scope = effectScope()
  const other = effectScope()
  const closable = (name: string, is: typeof sheet) =>
    useEscape(
      () => is.value,
      () => {
        closed.push(name)
        is.value = false
      },
    )
  scope.run(() => closable('sheet', sheet))
  other.run(() => closable('picker', picker))
  expect(closeLast()).toBe(false)
  sheet.value = true
  picker.value = true
  expect([closeLast(), closeLast(), closeLast()]).toEqual([true, true, false])
  expect(closed).toEqual(['picker', 'sheet'])
  picker.value = true
  sheet.value = true
  picker.value = false
  picker.value = true
  expect([closeLast(), closed.at(-1)]).toEqual([true, 'picker'])
  picker.value = true
  other.stop()
  expect([closeLast(), closed.at(-1)]).toEqual([true, 'sheet'])
  scope.stop()
  expect(closeLast()).toBe(false)
})
