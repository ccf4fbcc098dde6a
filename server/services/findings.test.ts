import { setTimeout as pause } from 'node:timers/promises'
import { defaultGrade } from '@core/grade'
import { nothingPointed } from '@core/readings'
import type { FrameWorkers } from '../workers/pool'
import { findingsReader, type MeasuredShot } from './findings'
import type { FrameReader } from './frames'

/** Workers that measure when they are told to, and say how urgent each task was. */
function trial() {
  const begun: string[] = []
  const ends: (() => void)[] = []
  const reader = findingsReader(
    { gradeTask: () => Promise.resolve({}) } as unknown as FrameReader,
    {
      threads: 2,
      findings: (_: object, urgency: string) =>
        new Promise((done) => {
          begun.push(urgency)
          ends.push(() => done([]))
        }),
    } as unknown as FrameWorkers,
  )
  return { begun, ends, reader }
}
const shot = (frame: number): MeasuredShot => ({
  hash: 'a',
  frame,
  bitDepth: 10,
  grade: defaultGrade('gamma-2.4'),
  pointed: nothingPointed,
})

test('what is waited for stands before what goes on by itself, and is measured anew where it was behind', async () => {
  const { begun, ends, reader } = trial()
  const byItself = [reader(shot(1)), reader(shot(2)), reader(shot(3))]
  await pause(1)
  expect(begun).toEqual(['byItself'])
  const asked = reader(shot(3), true)
  await pause(1)
  expect(begun).toEqual(['byItself', 'asked'])
  // Whoever asks meanwhile waits for the same.
  expect(reader(shot(3))).toBe(asked)
  expect(reader(shot(3), true)).toBe(asked)
  while (ends.length > 0) {
    ends.splice(0).forEach((end) => end())
    await pause(1)
  }
  expect(await Promise.all([asked, ...byItself])).toEqual([[], [], [], []])
  // What is measured is kept, whoever asks.
  await reader(shot(1), true)
  expect(begun).toHaveLength(4)
})

test('what fails is measured again when it is asked for again', async () => {
  let tries = 0
  const reader = findingsReader(
    { gradeTask: () => Promise.reject(new Error(`try ${++tries}`)) } as unknown as FrameReader,
    { threads: 2 } as unknown as FrameWorkers,
  )
  await expect(reader(shot(1))).rejects.toThrow('try 1')
  await expect(reader(shot(1), true)).rejects.toThrow('try 2')
})
