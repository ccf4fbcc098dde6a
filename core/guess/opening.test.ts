import { madeUpScene, randomSource } from '../../tests/guess/scenes'
import { shoot } from '../../tests/guess/camera'
import { encodingById, encodings, type Encoding } from '../colour'
import {
  asItLooks,
  isSane,
  openingByTag,
  measureStatistics,
  openingOf,
  pictureThrough,
  priorOf,
  priors,
  type FileFacts,
} from '.'

const statisticsOf = (encodingId: string) => {
  const scene = madeUpScene(7)
  // Some of it lies in deep shade.
  const data = scene.data.map((v, i) => (Math.floor(i / 3) % scene.width < 40 ? v * 0.002 : v))
  const take = {
    encodingId,
    exposureStops: 0,
    noiseBlack: 0.0006,
    noiseGrey: 0.003,
    noiseTrouble: 0,
    troublePhase: 0,
    troubleRate: 0,
    range: 'full',
    flagged: 'full',
    bits: 10,
  } as const
  return measureStatistics([{ frame: shoot({ ...scene, data }, take, randomSource(3)) }])
}
const ofLog = statisticsOf('log-420-95')
const ofVideo = statisticsOf('gamma-2.4')

const member = (encodingId: string, probability: number) => ({ encodingId, name: encodingId, probability })
const group = (...members: ReturnType<typeof member>[]) => ({
  members,
  probability: members.reduce((sum, m) => sum + m.probability, 0),
})
const question = (groups: readonly ReturnType<typeof group>[], taggedId: string | null = null) => {
  const display = groups
    .flatMap((g) => g.members)
    .filter((m) => encodingById(m.encodingId).group === 'display')
    .reduce((sum, m) => sum + m.probability, 0)
  return { groups, kinds: new Map([['display gamma', display]]), taggedId, encodingOf: encodingById }
}

describe('how a medium opens', () => {
  test('a log is applied when it is sure and the picture through it is sane', () => {
    const sure = question([group(member('log-420-95', 0.7), member('log-408-95', 0.25)), group(member('srgb', 0.05))])
    expect(openingOf(sure, ofLog)).toMatchObject({ encodingId: 'log-420-95', because: 'sure', asks: false })
  })

  test('finished video through a log is no sane picture, however sure the log seems', () => {
    expect(isSane(pictureThrough(encodingById('log-420-95'), ofLog))).toBe(true)
    expect(isSane(pictureThrough(encodingById('log-420-95'), ofVideo))).toBe(false)
    const sure = question([group(member('log-420-95', 0.97)), group(member('srgb', 0.03))])
    expect(openingOf(sure, ofVideo)).toMatchObject({ encodingId: asItLooks, because: 'as it looks', asks: true })
  })

  test('a flat profile that has no name is asked about, however sure it is that it is one', () => {
    const flat = question([group(member('flat-gamma', 0.98)), group(member('srgb', 0.02))])
    expect(openingOf(flat, ofLog)).toMatchObject({ encodingId: asItLooks, because: 'as it looks', asks: true })
  })

  test('under nine in ten it stays as it looks, and three are offered by the best of each group', () => {
    const unsure = question([
      group(member('log-420-95', 0.3), member('log-408-95', 0.35)),
      group(member('srgb', 0.12)),
      group(member('log-433-128', 0.1)),
      group(member('hlg', 0.08)),
      group(member('pq', 0.05)),
    ])
    const opening = openingOf(unsure, ofLog)
    expect(opening).toMatchObject({ encodingId: asItLooks, asks: true })
    expect(opening.offers.map((o) => o.encodingId)).toEqual(['log-408-95', 'log-433-128', 'hlg'])
    expect(opening.offers[0]!.probability).toBeCloseTo(0.65, 9)
  })

  test('nothing is asked of what is likely finished', () => {
    const video = question([group(member('srgb', 0.8)), group(member('log-420-95', 0.2))])
    expect(openingOf(video, ofVideo)).toMatchObject({ encodingId: asItLooks, asks: false })
  })

  test('a tag of plain video opens as it looks; one of HLG as HLG', () => {
    expect(openingOf(question([], 'srgb'), ofVideo)).toMatchObject({ encodingId: asItLooks, because: 'tag' })
    expect(openingOf(question([], 'hlg'), ofVideo)).toMatchObject({ encodingId: 'hlg', because: 'tag' })
  })

  test.each([
    [undefined, asItLooks],
    ['bt709', asItLooks],
    ['iec61966-2-1', asItLooks],
    ['arib-std-b67', 'hlg'],
    ['smpte2084', 'pq'],
  ])('before the pixels were looked at, a tag of %s opens as %s', (transfer, encodingId) => {
    expect(openingByTag(transfer)).toBe(encodingId)
  })

  test('an encoding of the user’s own is applied like one that ships', () => {
    const own: Encoding = { ...encodingById('log-420-95'), id: 'own-1', name: 'Workshop' }
    const groups = [group(member('own-1', 0.95))]
    const opening = openingOf({ groups, kinds: new Map(), taggedId: null, encodingOf: () => own }, ofLog)
    expect(opening.encodingId).toBe('own-1')
  })
})

describe('what is known of files', () => {
  const film: FileFacts = { kind: 'film', bitDepth: 10, chroma: '4:2:2' }
  const weight = (id: string, file: FileFacts, asFlagged = true): number => priorOf(encodingById(id), asFlagged, file)

  test('what no camera records is no candidate for video, and is one for pictures', () => {
    for (const id of ['acescc', 'acescct', 'film-density']) {
      expect(weight(id, film)).toBe(0)
      expect(weight(id, { kind: 'pictures', bitDepth: 16, chroma: 'RGB' })).toBeGreaterThan(0)
    }
  })

  test('eight bits speak for plain video, wide primaries against it, a stated range for itself', () => {
    const eight: FileFacts = { ...film, bitDepth: 8, chroma: '4:2:0' }
    expect(weight('gamma-2.4', eight) / weight('log-420-95', eight)).toBeGreaterThan(
      weight('gamma-2.4', film) / weight('log-420-95', film),
    )
    const wide: FileFacts = { ...film, primaries: 'bt2020' }
    expect(weight('gamma-2.4', wide)).toBeLessThan(weight('gamma-2.4', film))
    const stated: FileFacts = { ...film, range: 'legal' }
    expect(weight('hlg', stated, false) / weight('hlg', stated)).toBeLessThan(
      weight('hlg', film, false) / weight('hlg', film),
    )
  })

  test('every line says why, and no weight is below nothing', () => {
    for (const { reason, weights } of priors) {
      expect(reason).toMatch(/^[A-Z].*\.$/)
      for (const encoding of encodings) expect(weights(encoding, true)).toBeGreaterThanOrEqual(0)
    }
  })
})
