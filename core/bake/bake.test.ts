import { addRegion, defaultGrade, setParameter, signalError } from '../grade'
import type { Frame } from '../image'
import { bakeLut, pixelByPixelPart } from './bake'
import { defaultExport, exportError, exportLut } from './export'

const none = (): undefined => undefined
const frame: Frame = {
  width: 64,
  height: 16,
  data: Uint16Array.from({ length: 64 * 16 * 3 }, (_, i) => 14000 + 500 * (Math.floor(i / 3) % 64) + 900 * (i % 3)),
  low: 0,
  high: 1,
}

test('what a LUT cannot carry is named', () => {
  const { grade, regionId } = addRegion(defaultGrade('log-420-95'))
  const part = pixelByPixelPart(setParameter(grade, `${regionId}-exposure`, 'exposureStops', 1), 0)
  expect(part.leftOut).toEqual(['region "Region 1"'])
  expect(part.document.regions).toEqual([])
  expect(part.document.steps.some((s) => s.regionId !== undefined)).toBe(false)
  expect(pixelByPixelPart(defaultGrade('log-420-95'), 0).leftOut).toEqual([])
})

test('a finer LUT is nearer', () => {
  const grade = defaultGrade('log-351-128')
  const error = (size: number): number =>
    exportError(bakeLut(grade, none, size, ''), grade, 0, none, defaultExport, frame).mean
  expect(error(65)).toBeLessThan(error(17))
})

test('equal signals have no error', () => {
  const signal = Float64Array.of(0.2, 0.4, 0.1)
  expect(signalError(signal, signal, 'bt709-2.4')).toEqual({
    measure: 'ΔE 2000',
    mean: 0,
    percentile999: 0,
    worst: 0,
    pixels: 1,
  })
})

test('a table fitted to a frame errs less on it than one of exact entries, and entries no colour touches stay', () => {
  const grade = defaultGrade('log-351-128')
  const settings = { ...defaultExport, size: 17 }
  const exact = bakeLut(grade, none, 17, '')
  const made = exportLut(grade, 0, none, settings, '', frame)
  const [fitted] = made.tables
  const before = exportError(exact, grade, 0, none, settings, frame)
  const after = made.error
  expect(after.mean).toBeLessThan(before.mean * 0.7)
  expect(after.percentile999).toBeLessThan(before.percentile999)
  // An entry may lie beyond black, but not far.
  expect(fitted.data.every((v) => v >= -0.5 && v <= 1.5)).toBe(true)
  // Full red, green and blue are no colours of this frame.
  expect(fitted.data.slice(16 * 3, 16 * 3 + 3)).toEqual(exact.data.slice(16 * 3, 16 * 3 + 3))
  expect(exportLut(grade, 0, none, settings, '', frame).tables[0].data).toEqual(fitted.data)
})
