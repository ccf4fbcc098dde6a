// What a LUT expects, judged on tables as others make them: curves that the program does not have, and that nothing was
// tuned on.
import { encodingById } from '../colour'
import type { Lut1d, Lut3d } from '../luts'
import { foreignLuts } from '../../tests/support/foreign-luts'
import { thorough } from '../../tests/support/thorough'
import { expectationOf } from './expects'

test('the source of a foreign conversion comes first or tied with two at most, and is never certain and wrong', () => {
  const all = foreignLuts('judging')
  expect(all.length).toBeGreaterThanOrEqual(80)
  const judged = thorough ? all : all.filter((l, i) => i % 4 === 0 || l.kind === 'look')
  // In the gamut of the display itself colours off grey say nothing, and any curve may be a look.
  const told = judged.filter((l) => !/^(flat-gamma|film-density) in bt709/.test(l.name))
  const wrongKind: string[] = []
  const sureAndWrong: string[] = []
  let firstOrTied = 0
  let conversions = 0
  for (const { name, kind, encodingId, make } of told) {
    const found = expectationOf(make())
    if (found.kind !== kind) wrongKind.push(name)
    if (found.certain && (found.kind !== kind || (encodingId && found.sources[0]?.encodingId !== encodingId)))
      sureAndWrong.push(name)
    if (encodingId === null) continue
    conversions++
    if (found.alike.length <= 3 && found.alike.includes(encodingId)) firstOrTied++
  }
  expect({ sureAndWrong, wrongKind }).toEqual({ sureAndWrong: [], wrongKind: [] })
  expect(firstOrTied / conversions).toBeGreaterThanOrEqual(0.9)
})

describe('tables that only change how a signal is written are named for what they are', () => {
  const curve = (of: (v: number) => number): Lut1d => ({
    dimensions: 1,
    title: '',
    size: 1024,
    domainMin: [0, 0, 0],
    domainMax: [1, 1, 1],
    data: Float32Array.from({ length: 3072 }, (_, i) => of(Math.floor(i / 3) / 1023)),
  })
  const between = (from: string, to: string): Lut1d =>
    curve((v) => encodingById(to).curve.encode(encodingById(from).curve.decode(v)))

  test.each([
    ['legal to full', curve((v) => Math.min(1, Math.max(0, (v * 1023 - 64) / 876))), 'legal range to full range'],
    ['full to legal', curve((v) => (v * 876 + 64) / 1023), 'full range to legal range'],
    ['2.2 to 2.4', between('gamma-2.2', 'gamma-2.4'), 'from Gamma 2.2 to Gamma 2.4'],
    ['sRGB to 2.4', between('srgb', 'gamma-2.4'), 'from sRGB to Gamma 2.4'],
  ])('%s', (_, lut, words) => {
    const found = expectationOf(lut)
    expect(found.kind).toBe('technical')
    expect(found.sentences.join(' ')).toContain(words)
  })

  test('a display picture into PQ at 203 cd/m²', () => {
    const { decode } = encodingById('gamma-2.4').curve
    const { encode } = encodingById('pq').curve
    const size = 17
    const data = new Float32Array(size ** 3 * 3)
    for (let i = 0; i < size ** 3; i++)
      data.set(
        [i % size, Math.floor(i / size) % size, Math.floor(i / size ** 2)].map((v) => encode(decode(v / (size - 1)))),
        i * 3,
      )
    const lut: Lut3d = { dimensions: 3, title: '', size, domainMin: [0, 0, 0], domainMax: [1, 1, 1], data }
    const found = expectationOf(lut)
    expect(found.sentences.join(' ')).toContain('into PQ')
  })
})
