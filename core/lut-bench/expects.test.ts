// What a LUT expects, judged over more than two hundred made ones whose truth is known; none of them was used to set
// the numbers.
import { bakeLut } from '../bake/bake'
import { defaultGrade } from '../grade'
import type { Lut1d } from '../luts'
import { expectationOf } from './expects'
import { thorough } from '../../tests/support/thorough'
import { madeLuts } from '../../tests/support/made-luts'

test(
  'looks and conversions are told apart, the source comes first or tied first, and never is it sure ' + 'and wrong',
  () => {
    const all = madeLuts(3)
    const made = thorough ? all : all.filter((_, i) => i % 3 === 0)
    expect(all.length).toBeGreaterThanOrEqual(200)
    let kindRight = 0
    let conversions = 0
    let firstOrTied = 0
    let first = 0
    const sureAndWrong: string[] = []
    const tied: number[] = []
    for (const { name, kind, encodingId, make } of made) {
      const found = expectationOf(make())
      if (found.kind === kind) kindRight++
      if (
        found.certain &&
        (found.kind !== kind || (encodingId !== null && found.sources[0]?.encodingId !== encodingId))
      )
        sureAndWrong.push(name)
      if (encodingId === null) continue
      conversions++
      tied.push(found.alike.length)
      if (found.sources[0]?.encodingId === encodingId) first++
      if (found.alike.includes(encodingId)) firstOrTied++
    }
    const share = (n: number, of: number): string => `${((n / of) * 100).toFixed(1)} %`
    const figures = {
      kind: share(kindRight, made.length),
      first: share(first, conversions),
      firstOrTied: share(firstOrTied, conversions),
      tiedOnAverage: tied.reduce((a, b) => a + b) / tied.length,
    }
    expect([sureAndWrong, figures]).toEqual([[], expect.anything()])
    expect({ ...figures, ok: kindRight / made.length >= 0.98 }).toMatchObject({ ok: true })
    expect({ ...figures, ok: firstOrTied / conversions >= 0.95 }).toMatchObject({ ok: true })
    // A tie between everything would say nothing.
    expect(figures.tiedOnAverage).toBeLessThan(3)
  },
)

test('a plain conversion is known for certain, with nothing left over', () => {
  const found = expectationOf(bakeLut(defaultGrade('log-420-95'), () => undefined, 33, ''))
  expect(found).toMatchObject({ kind: 'conversion', certain: true, alike: ['log-420-95'] })
  expect(found.sources[0]?.residualPercent).toBe(0)
  expect(found.sentences.join(' ')).toContain('Log 420/95')
})

test('curves alone are looked at as well, and one that gives one colour says so', () => {
  const curve = (bend: (v: number) => number): Lut1d => ({
    dimensions: 1,
    title: '',
    size: 256,
    domainMin: [0, 0, 0],
    domainMax: [1, 1, 1],
    data: Float32Array.from({ length: 768 }, (_, i) => bend(Math.floor(i / 3) / 255)),
  })
  expect(expectationOf(curve((v) => v ** 1.1)).kind).toBe('look')
  expect(expectationOf(curve(() => 0.5))).toMatchObject({ certain: false })
})
