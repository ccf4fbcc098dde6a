import { lumaWeights } from '../colour'
import { coarseToFine, traceFrame, worstMoments, type FrameTrace } from './clip-trace'

const weights = lumaWeights('bt709')

test('a frame half black, half white with one clipped channel', () => {
  const codes = new Uint16Array(1000 * 3)
  for (let p = 500; p < 1000; p++) codes.set([65535, 40000, 40000], p * 3)
  const t = traceFrame(codes, weights)
  expect(t.crushed).toBe(0.5)
  expect(t.clipped).toBe(0.5)
  expect(t.balance[0]).toBeCloseTo(0.5, 3)
  expect(t.balance[1]).toBeCloseTo(0.305, 3)
  expect(t.low).toBeLessThan(0.001)
  expect(t.high).toBeCloseTo((0.2126 * 65535 + 0.7874 * 40000) / 65535, 2)
  expect(() => traceFrame(new Uint16Array(0), weights)).toThrow(RangeError)
})

test('a ramp has its percentiles where they belong', () => {
  const codes = new Uint16Array(65536 * 3)
  for (let p = 0; p < 65536; p++) codes.fill(p, p * 3, p * 3 + 3)
  const t = traceFrame(codes, weights)
  expect([t.low, t.middle, t.high].map((v) => Math.round(v * 1000) / 1000)).toEqual([0.001, 0.5, 0.999])
})

const still: FrameTrace = { low: 0.05, middle: 0.4, high: 0.9, balance: [0.4, 0.4, 0.4], clipped: 0, crushed: 0 }

test('a walk from shade into sun is found where it happens, and what it does', () => {
  const traces = Array.from({ length: 72 }, (_, i): FrameTrace => ({
    ...still,
    middle: i < 36 ? 0.3 : Math.min(0.7, 0.3 + (i - 36) * 0.05),
    clipped: i > 50 ? (i - 50) / 1000 : 0,
  }))
  const moments = worstMoments(traces, 24, 100)
  const of = (kind: string): number => moments.find((m) => (m.kinds as readonly string[]).includes(kind))!.frame
  expect(of('clips most')).toBe(171)
  expect(Math.abs(of('exposure moves') - 140)).toBeLessThanOrEqual(6)
  expect(of('darkest')).toBe(100)
  expect(moments.map((m) => m.frame)).toEqual(moments.map((m) => m.frame).sort((a, b) => a - b))
})

test('a steady clip has no moments, and gaps in the trace do no harm', () => {
  expect(
    worstMoments(
      Array.from({ length: 20 }, () => still),
      24,
    ),
  ).toEqual([])
  expect(worstMoments([undefined, still, undefined, { ...still, crushed: 0.02 }], 24)).toEqual([
    { frame: 3, kinds: ['crushed most'] },
  ])
  expect(worstMoments([], 24)).toEqual([])
})

test.each([0, 1, 2, 7, 64, 1000])('%p frames are each visited once, the coarse ones first', (count) => {
  const order = coarseToFine(count)
  expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: count }, (_, i) => i))
  if (count > 64) expect(order.slice(0, 8).every((v, i) => v === i * order[1]!)).toBe(true)
})
