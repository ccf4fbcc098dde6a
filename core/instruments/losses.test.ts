import { buildChain, defaultGrade, setParameter, setShow, setStep, type GradeDocument } from '../grade'
import type { Frame } from '../image'
import { measureMeridian } from './meridian'

/** Three stripes of linear BT.709 light: grey, twice white, and a green outside the display. */
const frame: Frame = (() => {
  const stripes = [
    [0.18, 0.18, 0.18],
    [2, 2, 2],
    [-0.2, 0.5, -0.1],
  ]
  const width = 90
  const height = 30
  const data = new Uint16Array(width * height * 3)
  for (let p = 0; p < width * height; p++)
    stripes[Math.floor((p % width) / 30)]!.forEach((v, c) => {
      data[p * 3 + c] = Math.round(((v + 1) / 5) * 65535)
    })
  return { width, height, data, low: -1, high: 4 }
})()
const plain = defaultGrade('linear', 'bt709')
const losses = (grade: GradeDocument): Record<string, { clipped: number; crushed: number; outOfGamut: number }> =>
  Object.fromEntries(
    measureMeridian(
      buildChain(grade, () => undefined),
      frame,
      2700,
    ).stations.map((s) => [s.station, s.loss]),
  )

test('what the scene itself holds too much of is put down to Show', () => {
  const { show, level } = losses(plain)
  expect(show!.clipped).toBeCloseTo(1 / 3, 2)
  expect(show!.outOfGamut).toBeCloseTo(1 / 3, 2)
  expect(level).toEqual({ clipped: 0, crushed: 0, outOfGamut: 0 })
})

test('a station that pushes light out is named, and one that takes it back before Show costs nothing', () => {
  const pushed = losses(setParameter(plain, 'exposure', 'exposureStops', 3))
  expect(pushed['level']!.clipped).toBeCloseTo(2 / 3, 2)
  expect(pushed['show']!.clipped).toBeCloseTo(1 / 3, 2)
  const back = losses(setParameter(plain, 'exposure', 'exposureStops', -2))
  expect(back['show']!.clipped).toBe(0)
  expect(back['level']!.clipped).toBe(0)
})

test('moved across Show, the same step cannot take it back: the ledger shows the price', () => {
  const moved = losses(setStep(setParameter(plain, 'exposure', 'exposureStops', -2), 'exposure', { side: 'display' }))
  expect(moved['show']!.clipped).toBeCloseTo(1 / 3, 2)
  const up = losses(setStep(setParameter(plain, 'exposure', 'exposureStops', 4), 'exposure', { side: 'display' }))
  expect(up['finish']!.clipped).toBeGreaterThan(0.3)
})

test('a shoulder and gamut compression save what clipping loses', () => {
  const saved = losses(
    setShow(plain, { method: 'rolloff', gamutMethod: 'compress', params: { ...plain.show.params, gamutLimit: 1.6 } }),
  )
  expect(saved['show']!.clipped).toBe(0)
  expect(saved['show']!.outOfGamut).toBe(0)
})

test('steps on the display side stand after Show', () => {
  const grade = setStep(setParameter(plain, 'contrast', 'contrast', 1.5), 'contrast', { side: 'display' })
  const { stations } = measureMeridian(
    buildChain(grade, () => undefined),
    frame,
    2700,
  )
  const at = (id: string): readonly number[] => stations.find((s) => s.station === id)!.levels
  expect(at('shape')).toEqual(at('level'))
  expect(at('finish')).not.toEqual(at('show'))
})
