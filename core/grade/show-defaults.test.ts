import { defaultGrade } from './defaults'
import { setRead, setShow } from './edits'
import { openingShow } from './opening-show'
import { asDefaultsSay, firstShowDefaults, follows, withDefaults, type ShowDefaults } from './show-defaults'

const opened = (encodingId: string) => {
  const plain = defaultGrade(encodingId)
  const read = { ...plain.read, brightestSignal: 0.7 }
  return { ...plain, read, show: openingShow(read, plain.show) }
}
const log = opened('log-420-95')
const video = opened('gamma-2.4')
const print: ShowDefaults = { displayId: 'p3-d65', rendering: 'print' }

test('what follows its project moves with it, and back', () => {
  const moved = withDefaults(log, firstShowDefaults, print)
  expect([moved.show.displayId, moved.show.method]).toEqual(['p3-d65', 'print'])
  expect(withDefaults(moved, print, firstShowDefaults)).toEqual(log)
  expect(withDefaults(log, firstShowDefaults, firstShowDefaults)).toBe(log)
})

test('a finished picture follows the display and stays as it is', () => {
  const { show } = withDefaults(video, firstShowDefaults, print)
  expect([show.displayId, show.method]).toEqual(['p3-d65', 'straight'])
})

test('what a hand chose stays, until it is given back', () => {
  const own = setShow(log, { method: 'straight' })
  expect(follows(own, 'method', { ...firstShowDefaults, rendering: 'straight' })).toBe(false)
  const moved = withDefaults(own, firstShowDefaults, print)
  expect([moved.show.displayId, moved.show.method]).toEqual(['p3-d65', 'straight'])
  const back = asDefaultsSay(moved, 'method', print)
  expect(back.show).toEqual(withDefaults(log, firstShowDefaults, print).show)
  expect(asDefaultsSay(back, 'method', print)).toBe(back)
})

test('one that was passed over by the defaults is its own: it is not moved by the next change', () => {
  const old = { ...log, show: { ...log.show, method: 'straight' as const } }
  expect(withDefaults(old, firstShowDefaults, print).show.method).toBe('straight')
})

test('read as a log, a shot of a project with another rendering is shown through that one', () => {
  const asLog = setRead(video, { encodingId: 'log-420-95' }, 'print')
  expect(asLog.show.method).toBe('print')
  expect(setRead(asLog, { encodingId: 'gamma-2.4' }, 'print').show.method).toBe('straight')
  expect(setRead(setShow(video, { method: 'straight' }), { encodingId: 'log-420-95' }).show.method).toBe('straight')
})
