import { normalFrom, randomFrom } from '../../tests/support/pictures'
import { curveOf, encodings, middleGrey, type Encoding, type TransferCurve } from '../colour'
import { estimateCurve, matchedTones, type CurveEstimate, type Fact, type NoiseAt } from './estimate'

const logs = encodings.filter((e) => e.group === 'log' || e.group === 'flat')
const stopsOf = (curve: Encoding['curve'], code: number): number =>
  Math.log2(Math.max(curve.decode(code), 1e-6) / middleGrey)

const tableOf = ({ entries }: CurveEstimate): TransferCurve => curveOf({ family: 'table', entries })

/** Noise of a sensor through a curve, as bands of a real clip tell it: off by a few percent each. */
function noiseThrough({ curve }: Encoding, seed: number, atGrey: number, growth: number): readonly NoiseAt[] {
  const normal = normalFrom(randomFrom(seed))
  return Array.from({ length: 20 }, (_, i) => {
    const light = middleGrey * 2 ** (-5 + (8 * i) / 19)
    const code = curve.encode(light)
    const slope = (curve.encode(light * 1.01) - curve.encode(light * 0.99)) / (0.02 * light)
    const inLight = (atGrey ** 2 * (1 + (growth * light) / middleGrey)) / (1 + growth)
    return { code, variance: slope ** 2 * inLight * Math.exp(0.12 * normal()) }
  })
}

/** Of the codes from four stops under grey to three over it: how far off, and how often within the band. */
function judged(estimate: CurveEstimate, truth: Encoding): { readonly worst: number; readonly within: number } {
  const { decode } = tableOf(estimate)
  const stops = Array.from({ length: 29 }, (_, i) => -4 + i / 4)
  const off = stops.map((s) => {
    const code = truth.curve.encode(middleGrey * 2 ** s)
    const node = Math.min(64, Math.round(code * 64))
    return {
      error: Math.abs(Math.log2(Math.max(decode(code), 1e-6) / middleGrey) - s),
      band: estimate.bandStops[node]!,
    }
  })
  return {
    worst: Math.max(...off.map((o) => o.error)),
    within: off.filter((o) => o.error <= o.band).length / off.length,
  }
}
const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!
const others = (truth: Encoding): readonly Encoding[] => logs.filter((e) => e !== truth)

describe('a curve that the estimate has never met', () => {
  const pointed = ({ curve }: Encoding): readonly Fact[] => [
    { kind: 'tone', code: curve.encode(middleGrey), stops: 0, unsure: 0.1 },
    { kind: 'tone', code: curve.encode(0.9), stops: Math.log2(0.9 / middleGrey), unsure: 0.15 },
  ]

  test('from a pointed-out grey and white: within its band nine times in ten', () => {
    const all = logs.map((truth) => judged(estimateCurve(pointed(truth), [], others(truth)), truth))
    expect(median(all.map((j) => j.worst))).toBeLessThan(0.75)
    expect(all.reduce((sum, j) => sum + j.within, 0) / all.length).toBeGreaterThan(0.85)
  })

  test('from the growth of noise and a pointed-out grey', () => {
    const all = logs.map((truth, n) => {
      const grey = pointed(truth).slice(0, 1)
      const noise = noiseThrough(truth, 7 + n, 0.004, 6)
      return {
        told: judged(estimateCurve(grey, noise, others(truth)), truth),
        untold: judged(estimateCurve(grey, [], others(truth)), truth),
      }
    })
    expect(median(all.map((j) => j.told.worst))).toBeLessThan(0.5)
    expect(median(all.map((j) => j.told.worst))).toBeLessThan(median(all.map((j) => j.untold.worst)) * 0.8)
    expect(all.reduce((sum, j) => sum + j.told.within, 0) / all.length).toBeGreaterThan(0.85)
  })

  test('from one scene in two exposures, and from a shot of it by a known camera', () => {
    for (const truth of logs.slice(0, 8)) {
      const { encode } = truth.curve
      const surfaces = Array.from({ length: 24 }, (_, i) => middleGrey * 2 ** (-4 + (6 * i) / 23))
      const exposures = surfaces.map((light): Fact => ({
        kind: 'apart',
        from: encode(light),
        to: encode(light * 2),
        stops: 1,
        unsure: 0.05,
      }))
      const grey = pointed(truth).slice(0, 1)
      expect(judged(estimateCurve([...grey, ...exposures], [], others(truth)), truth).worst).toBeLessThan(0.6)
      const byOther = surfaces.map((light): Fact => ({
        kind: 'tone',
        code: encode(light),
        stops: Math.log2(light / middleGrey),
        unsure: 0.15,
      }))
      expect(judged(estimateCurve(byOther, [], others(truth)), truth).worst).toBeLessThan(0.5)
    }
  })

  test('each fact narrows the band, and without any the band is wide', () => {
    const truth = logs[3]!
    const at = (e: CurveEstimate): number => e.bandStops[Math.round(truth.curve.encode(0.5) * 64)]!
    const none = at(estimateCurve([], [], others(truth)))
    const grey = at(estimateCurve(pointed(truth).slice(0, 1), [], others(truth)))
    const both = at(estimateCurve(pointed(truth), [], others(truth)))
    expect(none).toBeGreaterThan(0.8)
    expect(grey).toBeLessThan(none)
    expect(both).toBeLessThan(grey)
  })

  test('makes a rising curve of facts that contradict each other', () => {
    const estimate = estimateCurve(
      [
        { kind: 'tone', code: 0.3, stops: 2, unsure: 0.05 },
        { kind: 'tone', code: 0.6, stops: -2, unsure: 0.05 },
      ],
      [],
    )
    expect(() => tableOf(estimate)).not.toThrow()
    expect(stopsOf(tableOf(estimate), 1)).toBeGreaterThan(stopsOf(tableOf(estimate), 0.2))
  })
})

test('tones at the ends of either take are not matched', () => {
  const ours = [0.1, 0.2, 0.4, 0.6, 0.9]
  const theirs = [0.2, 0.2, 0.5, 0.9, 0.9]
  expect(matchedTones(ours, theirs)).toEqual([{ ours: 0.4, theirs: 0.5 }])
  expect(() => matchedTones([0], [0, 1])).toThrow('as many tones')
})
