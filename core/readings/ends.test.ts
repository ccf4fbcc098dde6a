import { frameOf, pictureOf } from '../../tests/support/pictures'
import { encodingById } from '../colour'
import { defaultGrade, setParameter } from '../grade'
import { endFindings, flatInFile, lostParts } from './ends'
import { measureFrame } from './measure'
import { patchesOf } from './patches'
import { judge, outside, type Finding } from './reading'
import { standardById } from './standards'

const finished = defaultGrade('gamma-2.4', 'bt709')
const log = encodingById('log-420-95').curve
const of = (findings: readonly Finding[], id: string): Finding => findings.find((f) => f.id === id)!

test('clip and crush shares are exact, with the largest patch', () => {
  // 30 clipped pixels in one bar, 5 alone; a crushed block of 24.
  const ends = endFindings(
    pictureOf(
      frameOf(50, 40, (x, y) => {
        if (y === 3 && x < 30) return [1, 0.4, 0.4]
        if (y % 2 === 0 && x === 49 && y >= 30) return [0.4, 1, 0.4]
        return y >= 20 && y < 24 && x >= 10 && x < 16 ? [0, 0, 0] : [0.4, 0.5, 0.6]
      }),
    ),
  )
  expect(of(ends, 'clipped').value).toBe(35 / 2000)
  expect(of(ends, 'crushed').value).toBe(24 / 2000)
  expect(of(ends, 'clipped').area).toEqual({ left: 0, top: 3 / 40, right: 30 / 50, bottom: 4 / 40 })
  expect(of(ends, 'crushed').area).toEqual({ left: 0.2, top: 0.5, right: 0.32, bottom: 0.6 })
})

test('patches join around corners and not across them', () => {
  const draw = (rows: readonly string[]) =>
    patchesOf(
      Uint8Array.from(rows.join(''), (c) => (c === '#' ? 1 : 0)),
      3,
      rows.length,
    )
  expect(draw(['#.#', '#.#', '###']).largest?.pixels).toBe(7)
  expect(draw(['#..', '.#.', '..#']).largest?.pixels).toBe(1)
  expect(draw(['#..', '.#.', '..#']).pixelsInPatchesUnder(2)).toBe(3)
  expect(draw(['...', '...']).largest).toBeNull()
})

describe('what is lost is put down to who lost it', () => {
  /** A wall from dark to bright, a window at the right that the file holds flat, and a lamp of 6 pixels. */
  const room = (wall: number, window: number) =>
    frameOf(200, 100, (x, y) => {
      if (x >= 180) return [window, window, window]
      if (y === 50 && x >= 20 && x < 26) return [0.99, 0.99, 0.99]
      const v = 0.1 + ((wall - 0.1) * x) / 180
      return [v, v, v]
    })

  test('a finished file that is flat at its own top is left alone, and said first', () => {
    const picture = pictureOf(room(0.8, 1), finished, 8)
    const { all, inFile, byGrade } = lostParts('clipped', picture)
    expect([all, inFile, byGrade]).toEqual([0.1, 0.1, 0])
    const readings = judge(measureFrame(picture), standardById('common-ground'))
    expect(readings[0]).toMatchObject({ id: 'clipped', weight: 0, verdict: 'met' })
    expect(readings[0]!.sentence).toContain('10.00 % is flat in the file itself and cannot be brought back')
  })

  test('what the grade cuts counts, and a shoulder would bring it back', () => {
    const picture = pictureOf(room(0.8, 1), setParameter(finished, 'exposure', 'exposureStops', 1.5), 8)
    const { inFile, lamps, byGrade, all } = lostParts('clipped', picture)
    expect(inFile).toBe(0.1)
    expect(lamps).toBeCloseTo(6 / 20_000, 9)
    // The wall reaches 0.8, which 1.5 stops make 1.23 of white: from 0.648 up it is cut.
    expect(byGrade).toBeCloseTo(0.9 * (1 - (0.648 - 0.1) / 0.7), 1)
    expect(all).toBeCloseTo(inFile + lamps + byGrade, 12)
    const readings = judge(measureFrame(picture), standardById('common-ground'))
    expect(outside(readings)[0]?.id).toBe('clipped')
    expect(outside(readings)[0]?.sentence).toMatch(/a shoulder to \+3\.\d\d stops brings it back/)
  })

  test("a camera's clip below its top code is the file's, and what Show cannot hold of a log is not", () => {
    const scene = frameOf(200, 100, (x) => {
      const v = Math.min(0.86, log.encode(0.18 * 2 ** (-4 + (11 * x) / 200)))
      return [v, v, v]
    })
    const picture = pictureOf(scene, defaultGrade('log-420-95'))
    const { inFile, byGrade } = lostParts('clipped', picture)
    const stopsAtClip = Math.log2(log.decode(0.86) / 0.18)
    expect(inFile).toBeCloseTo((7 - stopsAtClip) / 11, 1)
    expect(byGrade).toBeCloseTo((stopsAtClip - Math.log2(1 / 0.18)) / 11, 1)
  })

  test('a soft end is no pile', () => {
    const soft = frameOf(400, 10, (x) => [0.2 + (0.6 * x) / 400, 0.2, 0.2])
    expect(flatInFile('clipped', soft).some((m) => m === 1)).toBe(false)
  })
})

test('a finished picture is never spared its white: it may be exposed too low', () => {
  const dark = pictureOf(
    frameOf(200, 40, (x) => {
      const v = 0.02 + (0.6 * x) / 200
      return [v, v, v]
    }),
    finished,
    8,
  )
  expect(outside(judge(measureFrame(dark), standardById('common-ground')))[0]?.id).toBe('white')
})

test('a cast of the whole picture is told once', () => {
  const cast = { mired: 30, duv: 0 }
  const finding = (id: Finding['id'], mired: number): Finding => ({
    id,
    value: 11,
    confidence: 1,
    detail: '',
    cast: { ...cast, mired },
  })
  const told = (mired: number) =>
    outside(
      judge(
        [finding('neutrals', 30), finding('castMids', 31), finding('castBlacks', mired)],
        standardById('broad-day'),
      ),
    ).map((r) => r.id)
  expect(told(29)).toEqual(['neutrals'])
  expect(told(-20)).toEqual(expect.arrayContaining(['neutrals', 'castBlacks']))
})
