import { lumaWeights } from '../../colour'
import type { Frame } from '../../image'
import { addCounts, countedTraces, countPlain, countScopes, jobFor } from '../scopes'
import { countFast } from '.'

const sizes = { columns: 50, levels: 90, vectorCells: 64 } as const

/** Every kind of pixel: noise, both ends, pure colours. */
function frame(width: number, height: number): Frame {
  let seed = 9
  const data = Uint16Array.from({ length: width * height * 3 }, (_, i) => {
    seed = (Math.imul(seed, 1103515245) + 12345) >>> 0
    if (i % 7 === 0) return 65535
    if (i % 11 === 0) return 0
    if (i < 300) return 0
    return seed >>> 16
  })
  return { width, height, data, low: 0, high: 1 }
}

test.each([
  ['bt709', 65535],
  ['bt2020', 49_270],
] as const)('the kernel counts exactly what the plain pass counts (%s, top code %p)', (matrix, topCode) => {
  const job = jobFor(frame(203, 61), lumaWeights(matrix), sizes, 3, 60, topCode)
  const fast = countFast(job)!
  const plain = countPlain(job)
  for (const trace of ['waveform', 'red', 'green', 'blue', 'luma', 'vector'] as const)
    expect(fast[trace]).toEqual(plain[trace])
  expect([fast.sums, fast.clipped, fast.crushed]).toEqual([plain.sums, plain.clipped, plain.crushed])
})

test('chroma traces, zoom and a mask as well', () => {
  const f = frame(203, 61)
  const mask = Uint8Array.from({ length: 203 * 61 }, (_, i) => ((i * 7) % 5 < 2 ? 1 : 0))
  const job = jobFor(f, lumaWeights('bt709'), sizes, 3, 60, 65535, { mask, chroma: true, zoom: 4 })
  const fast = countFast(job)!
  const plain = countPlain(job)
  for (const trace of countedTraces) expect(fast[trace]).toEqual(plain[trace])
  expect([fast.sums, fast.clipped, fast.crushed]).toEqual([plain.sums, plain.clipped, plain.crushed])
  const inside = mask.subarray(3 * 203, 60 * 203).reduce((a, b) => a + b, 0)
  for (const trace of countedTraces) expect(fast[trace].reduce((a, b) => a + b, 0)).toBe(inside)
})

test('frames of other sizes may follow each other, and two halves make the whole', () => {
  const weights = lumaWeights('bt709')
  for (const f of [frame(640, 40), frame(32, 24), frame(960, 64)]) {
    const whole = countScopes(f, weights, sizes)
    const halves = addCounts(countScopes(f, weights, sizes, 0, 9), countScopes(f, weights, sizes, 9, f.height))
    expect(halves).toEqual(whole)
    expect(whole.waveform.reduce((a, b) => a + b, 0)).toBe(f.width * f.height)
  }
})
