import { shoot, type Take } from '../../tests/guess/camera'
import { madeUpScene, randomSource } from '../../tests/guess/scenes'
import { encodingById } from '../colour'
import {
  asItLooks,
  candidatesFor,
  cardError,
  differenceAfterShift,
  guessEncoding,
  kindOf,
  measureStatistics,
  rereadCode,
  taggedEncoding,
  type FileFacts,
  type Sight,
} from '.'

const take = (encodingId: string, change: Partial<Take> = {}): Take => ({
  encodingId,
  exposureStops: 0.3,
  noiseBlack: 0.0008,
  noiseGrey: 0.003,
  noiseTrouble: 0,
  troublePhase: 0,
  troubleRate: 0,
  range: 'full',
  flagged: 'full',
  bits: 10,
  ...change,
})
// Made-up light with tones from deep black to well over white.
const scene = madeUpScene(7)
const dark = { ...scene, data: scene.data.map((v, i) => (Math.floor(i / 3) % scene.width < 40 ? v * 0.002 : v)) }
/** Two frames that follow each other: the same light, other noise. */
const sights = (t: Take): readonly Sight[] => [
  { frame: shoot(dark, t, randomSource(5)), next: shoot(dark, t, randomSource(6)) },
]
/** Such as nothing has compressed. */
const pictures: FileFacts = { kind: 'pictures', bitDepth: 10, chroma: 'RGB' }
const chance = (guess: ReturnType<typeof guessEncoding>, like: (id: string) => boolean): number =>
  guess.ranked.filter((r) => like(r.encodingId)).reduce((s, r) => s + r.probability, 0)

describe('the guess', () => {
  const logs = ['log-420-95', 'log-433-128', 'log-351-128', 'log-407-95', 'log-400-95-a']

  test.each(logs)('%s: is taken for a log of the right black', (id) => {
    const guess = guessEncoding(sights(take(id)), 'full', pictures)
    expect(guess.kind).toBe('camera log')
    const black = (other: string): boolean =>
      Math.abs(encodingById(other).curve.encode(0) - encodingById(id).curve.encode(0)) < 10 / 1023
    // Of the logs that cameras write, the likeliest has the right one of the two blacks in use.
    expect(black(guess.ranked.find((r) => /^log-/.test(r.encodingId))!.encodingId)).toBe(true)
  })

  test('a cube root is near a flat profile: it may be taken for one, and not for a finished picture', () => {
    const guess = guessEncoding(sights(take('log-372-127')), 'full', pictures)
    expect(['camera log', 'flat gamma']).toContain(guess.kind)
    expect(guess.opening.encodingId === asItLooks ? guess.opening.asks : true).toBe(true)
  })

  test.each(['gamma-2.4', 'bt709-camera', 'hlg'])('%s: is not taken for a log', (id) => {
    expect(
      chance(
        guessEncoding(sights(take(id)), 'full', pictures),
        (other) => kindOf(encodingById(other)) === 'camera log',
      ),
    ).toBeLessThan(0.5)
  })

  test.each([
    ['log-420-95', 'full', 'legal'],
    ['log-351-128', 'legal', 'full'],
    ['gamma-2.4', 'full', 'legal'],
    ['bt709-camera', 'legal', 'full'],
  ] as const)(
    '%s of %s range flagged %s is found where black is in frame, the right flag left alone',
    (id, range, flagged) => {
      const wrong = guessEncoding(sights(take(id, { range, flagged })), flagged, pictures)
      expect(wrong.range).toMatchObject({ flagged, likely: range, conflict: true })
      expect(wrong.sentences.join(' ')).toContain(
        `The file says ${flagged} range, but its codes look like ${range} range`,
      )
      expect(guessEncoding(sights(take(id, { range, flagged: range })), range, pictures).range.conflict).toBe(false)
    },
  )

  test('probabilities are of everything, groups hold every candidate once, alike ones together', () => {
    const guess = guessEncoding(sights(take('log-420-95')), 'full', pictures)
    expect(guess.ranked).toHaveLength(candidatesFor('full').length)
    expect(guess.ranked.reduce((s, r) => s + r.probability, 0)).toBeCloseTo(1, 9)
    expect(new Set(guess.groups.flatMap((g) => g.members))).toEqual(new Set(guess.ranked))
    expect(guess.groups.reduce((n, g) => n + g.members.length, 0)).toBe(guess.ranked.length)
    // Of near ones the first may be another: three are offered.
    const offered = guess.groups.slice(0, 3).flatMap(({ members }) => members.filter((m) => m.range === 'full'))
    expect(offered.map((m) => m.encodingId)).toContain('log-420-95')
    expect(guess.sentences.join(' ')).toMatch(/no picture can tell them apart/)
  })

  test('every candidate has evidence in words with numbers', () => {
    for (const r of guessEncoding(sights(take('log-420-95')), 'full', pictures).ranked) {
      expect(r.evidence.length).toBeGreaterThan(2)
      expect(r.evidence.join(' ')).toMatch(/\d/)
      expect(r.evidence.join(' ')).not.toMatch(/NaN|undefined|Infinity/)
    }
  })

  test('tags of HLG and PQ are believed, whatever the pixels look like', () => {
    expect(taggedEncoding('arib-std-b67')).toBe('hlg')
    expect(taggedEncoding('bt709')).toBeUndefined()
    for (const [transfer, id] of [
      ['arib-std-b67', 'hlg'],
      ['smpte2084', 'pq'],
    ] as const)
      for (const content of ['hlg', 'log-420-95', 'gamma-2.4']) {
        const guess = guessEncoding(sights(take(content)), 'full', { ...pictures, transfer })
        expect(guess.taggedId).toBe(id)
        expect([guess.kind, guess.ranked[0]!.encodingId]).toEqual([id.toUpperCase(), id])
        expect(guess.opening).toMatchObject({ encodingId: id, because: 'tag', asks: false })
      }
  })

  test.each<[string, (i: number) => number]>([
    ['black', () => 0],
    ['white', () => 65535],
    ['one grey', () => 30000],
  ])('a picture of %s says that it tells nothing', (_, value) => {
    const data = Uint16Array.from({ length: 64 * 48 * 3 }, (_v, i) => value(Math.floor(i / 3)))
    const guess = guessEncoding([{ frame: { width: 64, height: 48, data, low: -0.25, high: 1.25 } }], 'legal', pictures)
    expect(guess.ranked.every((r) => Number.isFinite(r.probability))).toBe(true)
    expect(guess.sentences).toEqual([expect.stringContaining('too few tones')])
  })

  test('pictures too small to say anything are refused', () => {
    expect(() =>
      measureStatistics([{ frame: { width: 23, height: 50, data: new Uint16Array(23 * 50 * 3), low: 0, high: 1 } }]),
    ).toThrow('24×24')
    expect(() => measureStatistics([])).toThrow('At least one picture')
  })
})

test('a picked card tells how far each encoding puts it from grey and from neutral', () => {
  const { encode } = encodingById('log-420-95').curve
  const grey = encode(0.18)
  expect(cardError([grey, grey, grey], 'full', 'log-420-95', 'full').stops).toBeCloseTo(0, 9)
  expect(cardError([grey, grey, grey], 'full', 'log-420-95', 'full').cast).toBeCloseTo(0, 9)
  const one = encode(0.36)
  expect(cardError([one, one, one], 'full', 'log-420-95', 'full').stops).toBeCloseTo(1, 9)
  expect(cardError([0, 0, 0], 'full', 'log-420-95', 'full').stops).toBeNaN()
})

test('codes are read again by another range and back', () => {
  expect(rereadCode(64 / 1023, 'full', 'legal')).toBeCloseTo(0, 12)
  expect(rereadCode(1, 'legal', 'full')).toBeCloseTo(940 / 1023, 12)
  expect(rereadCode(0.3, 'full', 'full')).toBe(0.3)
})

test('alike means alike after the best shift of exposure', () => {
  expect(differenceAfterShift([0, 1, 2], [5, 6, 7])).toBe(0)
  expect(differenceAfterShift([0, 1, 2], [0, 1.2, 2.8])).toBeCloseTo(0.4, 12)
})
