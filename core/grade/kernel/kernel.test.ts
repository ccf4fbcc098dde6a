import { chunkPixels, packSignal, runChunk, runPlain } from '.'
import type { Lut } from '../../luts'
import { compile } from '../compile'
import { defaultGrade } from '../defaults'
import type { GradeDocument } from '../document'
import { setParameter, setShow, setStep } from '../edits'
import { addRegion } from '../region-edits'

const bent: Lut = {
  dimensions: 3,
  size: 17,
  title: '',
  domainMin: [0, 0, 0],
  domainMax: [1, 1, 1],
  data: Float32Array.from({ length: 17 ** 3 * 3 }, (_, i) => Math.sin(i * 0.37) * 0.5 + 0.5),
}
const perChannel: Lut = {
  dimensions: 1,
  size: 3,
  title: '',
  domainMin: [0, 0, 0],
  domainMax: [1, 1, 1],
  data: Float32Array.of(0, 0.1, 0.2, 0.5, 0.6, 0.4, 1, 0.9, 0.8),
}
const find = (hash: string): Lut => (hash.startsWith('a') ? bent : perChannel)

const plain = setParameter(
  setParameter(defaultGrade('log-351-128'), 'contrast', 'contrast', 1.4),
  'saturation',
  'saturation',
  1.3,
)
const withLut = (letter: string): GradeDocument => setParameter(plain, 'lut', 'lutHash', letter.repeat(64))
const regional = addRegion(plain)
const grades: readonly (readonly [string, GradeDocument])[] = [
  ['curves and matrices', plain],
  ['rolloff and gamut compression', setShow(plain, { method: 'rolloff', gamutMethod: 'compress' })],
  ['print', setShow(plain, { method: 'print' })],
  ['HLG', setShow(plain, { displayId: 'hlg' })],
  ['a 3D LUT', withLut('a')],
  ['a 3D LUT at half strength before Show', setStep(withLut('a'), 'lut', { strength: 0.5, side: 'scene' })],
  ['a 1D LUT with three curves', withLut('b')],
  ['a region', setParameter(regional.grade, `${regional.regionId}-exposure`, 'exposureStops', 1)],
]

/** Codes that visit every tetrahedron and both ends of the range. */
function codes(pixels: number): Uint16Array {
  let seed = 77
  return Uint16Array.from({ length: pixels * 3 }, (_, i) => {
    seed = (Math.imul(seed, 1103515245) + 12345) >>> 0
    return i < 30 ? [0, 65535][(i >> (i % 3)) & 1]! : seed >>> 16
  })
}

test.each(grades)('the fast kernel agrees with the plain one: %s', (_, grade) => {
  const plan = compile(grade, find, { low: -0.25, high: 1.25 }, 33)
  const source = codes(chunkPixels)
  const reference = new Uint16Array(source.length)
  const fast = new Uint16Array(source.length)
  const matte = Float32Array.from({ length: chunkPixels }, (_, i) => [0, 0.25, 1, 0.7][i % 4]!)
  const mattes = plan.passes.map(({ region }) => (region ? matte : null))
  runPlain(plan, source, reference, mattes)
  runChunk(plan, source, fast, mattes)
  // Both count in single precision, in another order: a code or two, more where the display's curve is steepest.
  expect(reference.filter((v, i) => Math.abs(v - fast[i]!) > 4 && v > 600)).toHaveLength(0)
  expect(reference.reduce((worst, v, i) => Math.max(worst, Math.abs(v - fast[i]!)), 0)).toBeLessThan(60)
})

test('source and target may be the same, and plans may change between calls', () => {
  const source = codes(500)
  for (const [, grade] of [grades[1]!, grades[4]!, grades[0]!, grades[4]!]) {
    const plan = compile(grade, find, { low: 0, high: 1 }, 17)
    const mattes = plan.passes.map(() => null)
    const apart = new Uint16Array(source.length)
    const same = source.slice()
    runChunk(plan, source, apart, mattes)
    runChunk(plan, same, same, mattes)
    expect(same).toEqual(apart)
  }
})

test('an empty matte leaves every bit', () => {
  const plan = compile(grades[7]![1], find, { low: 0, high: 1 }, 17)
  const without = compile(plain, find, { low: 0, high: 1 }, 17)
  const source = codes(300)
  const inside = new Uint16Array(source.length)
  const outside = new Uint16Array(source.length)
  runChunk(
    plan,
    source,
    inside,
    plan.passes.map(({ region }) => (region ? new Float32Array(300) : null)),
  )
  runChunk({ ...plan, passes: plan.passes.filter((p) => !p.region) }, source, outside, [null, null])
  expect(inside).toEqual(outside)
  expect(without.passes).toHaveLength(1)
})

test('canvas pixels are the codes, rounded to eight bits', () => {
  const plan = compile(plain, find, { low: -0.25, high: 1.25 }, 17)
  const source = codes(777)
  const target = new Uint16Array(source.length)
  const canvas = new Uint32Array(777)
  const packed = new Uint32Array(777)
  runChunk(
    plan,
    source,
    target,
    plan.passes.map(() => null),
    canvas,
  )
  packSignal(target, packed)
  expect(canvas).toEqual(packed)
  expect(packed[0]! >>> 24).toBe(255)
  expect([...target.subarray(30, 33)].map((v) => Math.round((v * 255) / 65535))).toEqual([
    packed[10]! & 255,
    (packed[10]! >>> 8) & 255,
    (packed[10]! >>> 16) & 255,
  ])
})
