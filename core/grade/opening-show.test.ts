import { defaultGrade } from './defaults'
import type { GradeDocument } from './document'
import { setRead, setShow, setShowParameter } from './edits'
import { carriedShow, openingShow, sceneMaximumOf } from './opening-show'

const opened = (encodingId: string, brightestSignal: number): GradeDocument => {
  const plain = defaultGrade(encodingId)
  const read = { ...plain.read, brightestSignal }
  return { ...plain, read, show: openingShow(read, plain.show) }
}

test('scene light opens through the rendering, to the brightest light of its clip', () => {
  const { show } = opened('log-420-95', 0.8)
  expect(show.method).toBe('rendered')
  expect(show.params.sceneMaximumStops).toBeGreaterThan(3)
  expect(show.params.sceneMaximumStops).toBeLessThan(8)
  expect(opened('log-420-95', 0.85).show.params.sceneMaximumStops).toBeGreaterThan(show.params.sceneMaximumStops)
})

test.each([
  ['a flat scene', 0.4, 3],
  ['a black one', 0.02, 3],
  ['the top of the codes', 1.2, 8],
])('%s is held within the limits', (_, signal, stops) => {
  expect(opened('log-420-95', signal).show.params.sceneMaximumStops).toBe(stops)
})

test('a finished picture is shown as it is, and so is all whose brightest light is not known', () => {
  expect(opened('gamma-2.4', 1).show.method).toBe('straight')
  const unknown = defaultGrade('log-420-95')
  expect(openingShow(unknown.read, unknown.show)).toBe(unknown.show)
  expect(sceneMaximumOf({ ...unknown.read, method: 'lut', brightestSignal: 0.8 })).toBeNull()
})

test('read otherwise, Show follows while it stands as it opened', () => {
  const asItLooks = opened('gamma-2.4', 0.7)
  const asLog = setRead(asItLooks, { encodingId: 'log-420-95' })
  expect(asLog.show).toEqual(opened('log-420-95', 0.7).show)
  expect(setRead(asLog, { encodingId: 'log-400-95-a' }).show).toEqual(opened('log-400-95-a', 0.7).show)
  expect(setRead(asLog, { encodingId: 'gamma-2.4' }).show.method).toBe('straight')
})

test('read otherwise, Show stays as a hand left it', () => {
  const log = opened('log-420-95', 0.7)
  for (const grade of [setShow(log, { method: 'print' }), setShowParameter(log, 'sceneMaximumStops', 6.7)])
    expect(setRead(grade, { encodingId: 'log-400-95-a' }).show).toBe(grade.show)
  const old = defaultGrade('gamma-2.4')
  expect(setRead(old, { encodingId: 'log-420-95' }).show).toBe(old.show)
})

test('carried to another shot, the shoulder ends at that clip’s own light, as far off as it was set', () => {
  const from = opened('log-420-95', 0.7)
  const onto = opened('log-400-95-a', 0.85)
  const apart = onto.show.params.sceneMaximumStops - from.show.params.sceneMaximumStops
  expect(apart).not.toBe(0)
  expect(carriedShow(from, onto.read)).toEqual(onto.show)
  const set = setShowParameter(from, 'sceneMaximumStops', from.show.params.sceneMaximumStops + 0.4)
  expect(carriedShow(set, onto.read).params.sceneMaximumStops).toBeCloseTo(onto.show.params.sceneMaximumStops + 0.4, 6)
  const print = setShow(from, { method: 'print' })
  expect(carriedShow(print, onto.read)).toBe(print.show)
  expect(carriedShow(from, defaultGrade('log-400-95-a').read)).toBe(from.show)
})
