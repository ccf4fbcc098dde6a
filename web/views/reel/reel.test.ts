import type { ShotSummary } from '@contracts/responses'
import type { Standing } from '../../composables/useStandings'
import { joinNext, piecesOfCuts, splitAt, trim } from './pieces'
import { certaintyOf, fileFacts, fits, sorted, startOf, warningsOf } from './shot-facts'
import { grouped } from './useFootageImport'

const shot = (change: Partial<ShotSummary> = {}, media: Partial<ShotSummary['media']> = {}): ShotSummary => ({
  id: 'a',
  projectId: 'p',
  name: 'Kiln',
  position: 1,
  sceneId: null,
  scene: null,
  cameraName: 'Tern 40',
  firstFrame: 0,
  frameCount: 48,
  leadFrame: 3,
  leadChosen: true,
  played: null,
  state: 'new',
  standardId: 'broad-day',
  ownStandardId: null,
  proxy: null,
  look: null,
  setup: null,
  notes: [],
  headId: 'h',
  displayId: 'bt709-2.4',
  revisionDepth: 1,
  read: { method: 'formula', encodingId: 'log-420-95', gamutId: 'w766', range: 'full', lutHash: null, lutStrength: 1 },
  guess: {
    kind: 'camera log',
    kindProbability: 1,
    encodingId: 'log-408-95',
    range: 'full',
    alike: ['log-408-95', 'log-420-95'],
    probability: 0.83,
    rangeConflict: false,
    tagged: false,
    opening: { encodingId: 'log-420-95', because: 'sure', asks: false, offers: [] },
    codeCeiling: 0.9,
    sentences: [],
  },
  staysAsItLooks: false,
  likeness: '',
  usualReading: null,
  media: {
    hash: 'm',
    linked: false,
    kind: 'film',
    width: 960,
    height: 540,
    pixelAspect: [1, 1],
    rotation: 0,
    frameCount: 48,
    rateNumerator: 24,
    rateDenominator: 1,
    variableRate: null,
    durationSeconds: 2,
    seekMarginSeconds: 0,
    startTimecode: null,
    container: 'mov',
    codec: 'h264',
    storedFormat: 'yuv422p10le',
    pixelFormat: 'yuv422p10le',
    bitDepth: 10,
    chroma: '4:2:2',
    interlaced: null,
    range: 'full',
    rangeTagged: true,
    matrix: 'bt709',
    matrixTagged: true,
    ...media,
  },
  ...change,
})

describe('what a row says', () => {
  test('how sure the encoding is', () => {
    expect(certaintyOf(shot()).words).toBe('confirmed by the picture, 83 %')
    expect(certaintyOf(shot({ guess: null })).words).toBe('analysing')
    expect(certaintyOf(shot({ read: { ...shot().read, encodingId: 'hlg' } })).words).toBe(
      'looks like Log 408/95 or 1 like it, 83 %',
    )
    expect(
      certaintyOf(shot({ read: { ...shot().read, encodingId: 'hlg' }, guess: { ...shot().guess!, probability: 0.2 } }))
        .words,
    ).toBe('not sure')
    expect(certaintyOf(shot({ guess: { ...shot().guess!, tagged: true } })).words).toBe('the file says so')
    const read = { ...shot().read, encodingId: 'gamma-2.4' }
    const opened = (asks: boolean) => ({
      ...shot().guess!,
      opening: { encodingId: 'gamma-2.4', because: 'as it looks', asks, offers: [] } as const,
    })
    expect(certaintyOf(shot({ read, guess: opened(false) })).words).toBe('as the file looks')
    expect(certaintyOf(shot({ read, guess: opened(true) })).words).toBe('looks flat: which is it?')
    expect(certaintyOf(shot({ read, guess: opened(true), staysAsItLooks: true })).words).toBe('as the file looks')
    expect(warningsOf(shot({ read, guess: { ...opened(true), probability: 0.95 } }))).toEqual([])
  })
  test('what to look at', () => {
    expect(warningsOf(shot())).toEqual([])
    expect(
      warningsOf(
        shot(
          { played: { numerator: 24000, denominator: 1001 }, guess: { ...shot().guess!, rangeConflict: true } },
          { bitDepth: 8, variableRate: [10, 25], interlaced: 'top first', rateNumerator: 60 },
        ),
      ),
    ).toEqual([
      'range flag may be wrong',
      'rate varies, 10 to 25 fps',
      'interlaced',
      'a log in 8 bits: bands show early',
      'plays at 40 % speed',
    ])
  })
  test('all that the file says', () => {
    const facts = Object.fromEntries(
      fileFacts(
        shot(
          {},
          { rotation: 90, pixelAspect: [64, 45], matrixTagged: false, transfer: 'bt709', interlaced: 'top first' },
        ),
      ),
    )
    expect(facts).toMatchObject({
      file: 'h264 in mov',
      size: '960×540, turned by 90°',
      'pixel shape': '64:45',
      range: 'full',
      matrix: 'bt709, not stated',
      primaries: 'not stated',
      transfer: 'bt709',
      rate: '24/1 fps',
      timecode: 'none',
    })
    expect(facts['fields']).toMatch(/^interlaced, top first/)
  })
  test('a piece of a programme begins at its own timecode', () => {
    expect(startOf(shot({ firstFrame: 25 }, { startTimecode: '01:00:00:00' }))).toBe('01:00:01:01')
  })
})

test('words find rows, all of them', () => {
  expect(fits(shot(), '')).toBe(true)
  expect(fits(shot({ scene: 'Night' }), 'night tern')).toBe(true)
  expect(fits(shot(), 'night')).toBe(false)
})

test('order by name counts as people do; equal ones keep their place', () => {
  const many = ['Shot 10', 'Shot 9', 'shot 1'].map((name, i) => shot({ id: name, name, position: i + 1 }))
  expect(sorted(many, 'name', false, new Map()).map((s) => s.name)).toEqual(['shot 1', 'Shot 9', 'Shot 10'])
  expect(sorted(many, 'state', false, new Map()).map((s) => s.position)).toEqual([1, 2, 3])
  expect(sorted(many, 'position', true, new Map()).map((s) => s.position)).toEqual([3, 2, 1])
  const off = { name: 'Black' } as Standing[number]
  // What lies outside most comes first; what is not measured, last.
  expect(
    sorted(
      many,
      'readings',
      false,
      new Map([
        ['Shot 9', []],
        ['shot 1', [off]],
      ]),
    ).map((s) => s.position),
  ).toEqual([3, 2, 1])
})

describe('pieces', () => {
  const two = piecesOfCuts(
    [
      { frame: 10, kind: 'cut', length: 1, certainty: 1 },
      { frame: 30, kind: 'dissolve', length: 12, certainty: 1 },
      { frame: 90, kind: 'cut', length: 1, certainty: 1 },
    ],
    0,
    50,
    'Film',
  )
  test('cuts inside the shot make them', () => {
    expect(two).toEqual([
      { first: 0, count: 10, name: 'Film 1', transition: 0 },
      { first: 10, count: 20, name: 'Film 2', transition: 0 },
      { first: 30, count: 20, name: 'Film 3', transition: 12 },
    ])
    expect(piecesOfCuts([], 5, 10, 'Film')).toEqual([{ first: 5, count: 10, name: 'Film', transition: 0 }])
  })
  test('split, join, trim', () => {
    expect(splitAt(two, 15).map((p) => [p.first, p.count])).toEqual([
      [0, 10],
      [10, 5],
      [15, 15],
      [30, 20],
    ])
    expect(splitAt(two, 10)).toEqual(two)
    expect(joinNext(two, 0).map((p) => [p.first, p.count])).toEqual([
      [0, 30],
      [30, 20],
    ])
    expect(joinNext(two, 2)).toEqual(two)
    expect(trim(two, 1, 'first', 4, 50)[1]).toMatchObject({ first: 4, count: 26 })
    expect(trim(two, 1, 'last', 900, 50)[1]).toMatchObject({ first: 10, count: 40 })
    expect(trim(two, 1, 'first', 900, 50)[1]).toMatchObject({ first: 29, count: 1 })
    expect(trim(two, 1, 'last', NaN, 50)).toEqual(two)
  })
})

describe('files that belong together', () => {
  const names = (...list: string[]): { name: string }[] => list.map((name) => ({ name }))
  test('numbered pictures are a sequence in order; films stand alone', () => {
    expect(
      grouped(names('b_10.dpx', 'a.mov', 'b_9.dpx', 'b_11.dpx', 'c.mov')).map((g) => [
        g.name,
        g.pictures,
        g.files.map((f) => f.name),
      ]),
    ).toEqual([
      ['b.dpx', true, ['b_9.dpx', 'b_10.dpx', 'b_11.dpx']],
      ['a.mov', false, ['a.mov']],
      ['c.mov', false, ['c.mov']],
    ])
  })
  test('one numbered picture is a still', () => {
    expect(grouped(names('frame_0001.png'))).toMatchObject([{ name: 'frame_0001.png', pictures: false }])
  })
  test('a gap is named', () => {
    expect(grouped(names('x1.png', 'x2.png', 'x4.png'))).toMatchObject([
      { name: 'x1.png: picture 3 is missing', files: [] },
    ])
  })
})
