// An exported file, read back and applied, has the error that was stated for it, in every format and for every input
// and output.
import { encodingById, middleGrey } from '../colour'
import { FormatError, parseLutFile } from '../formats'
import {
  addRegion,
  buildChain,
  defaultGrade,
  evaluateDirect,
  setParameter,
  setShow,
  setStep,
  type GradeDocument,
} from '../grade'
import type { Frame } from '../image'
import { applyLut, type Lut } from '../luts'
import { defaultExport, exportError, exportLut, printExport, type ExportSettings } from './export'

const none = (): undefined => undefined
const { encode } = encodingById('log-420-95').curve
/** A frame of tones from six stops under grey to three over it, in colours that footage has. */
const frame: Frame = {
  width: 96,
  height: 54,
  low: 0,
  high: 1,
  data: Uint16Array.from({ length: 96 * 54 * 3 }, (_, i) => {
    const p = Math.floor(i / 3)
    const x = (p % 96) / 95
    const y = Math.floor(p / 96) / 53
    return Math.round(encode(middleGrey * 2 ** (-6 + 9 * x) * (1 + 0.5 * Math.sin(6 * y + (i % 3) * 2))) * 65535)
  }),
}
const graded: GradeDocument = setShow(
  setParameter(
    setParameter(
      setParameter(defaultGrade('log-420-95'), 'contrast', 'contrast', 1.2),
      'exposure',
      'exposureStops',
      0.3,
    ),
    'white-balance',
    'temperatureMired',
    12,
  ),
  { method: 'rolloff' },
)
const onTop = setStep(setParameter(graded, 'saturation', 'saturation', 0.7), 'saturation', { side: 'display' })

const readBack = (file: string | Uint8Array): Lut =>
  parseLutFile(typeof file === 'string' ? Buffer.from(file) : file, (bytes) => Buffer.from(bytes).toString('utf8')).lut

const cases: readonly (readonly [string, Partial<ExportSettings>])[] = [
  ['.cube, camera to display', {}],
  ['.cube of 17', { size: 17 }],
  ['.cube with a shaper', { shaper: true }],
  ['common LUT format with a shaper', { format: 'clf', shaper: true }],
  ['Hald picture', { format: 'hald', size: 36 }],
  ['working log to display', { input: 'working-log', format: 'clf' }],
  ['display to display', { input: 'display' }],
  ['camera to camera, under a conversion', { output: 'under' }],
  ['camera to camera on a legal-range device', { output: 'under', range: 'legal', size: 65 }],
  ['working log to working log', { input: 'working-log', output: 'under' }],
]

test.each(cases)('%s: read back it has the error that was stated', (_, change) => {
  const settings = { ...defaultExport, ...change }
  const made = exportLut(onTop, 0, none, settings, 'Ash', frame)
  const lut = readBack(printExport(made, settings.format, 'ash'))
  const error = exportError(lut, onTop, 0, none, settings, frame)
  // A Hald picture holds its entries to 0…1, and every file rounds.
  expect(Math.abs(error.mean - made.error.mean)).toBeLessThan(settings.format === 'hald' ? 0.05 : 0.002)
  expect(Math.abs(error.percentile999 - made.error.percentile999)).toBeLessThan(settings.format === 'hald' ? 0.6 : 0.01)
  expect(made.error.mean).toBeLessThan(0.7)
  expect(made.notes.at(-1)).toContain(made.error.mean.toFixed(3))
})

test('a shaper brings the cube nearer', () => {
  const error = (shaper: boolean): number =>
    exportLut(graded, 0, none, { ...defaultExport, size: 17, shaper }, '', frame).error.mean
  expect(error(true)).toBeLessThan(error(false) * 0.8)
})

test('identity stays identity to a millionth, in every format that has the digits', () => {
  const settings: ExportSettings = { ...defaultExport, input: 'display' }
  const plain = defaultGrade('log-420-95')
  for (const format of ['cube', 'clf'] as const) {
    const lut = readBack(printExport(exportLut(plain, 0, none, { ...settings, format }, '', frame), format, 'a'))
    const pixels = Float64Array.from({ length: 3000 }, (_, i) => ((i * 7919) % 3001) / 3000)
    const before = pixels.slice()
    applyLut(lut, pixels, 'tetrahedral')
    pixels.forEach((v, i) => expect(Math.abs(v - before[i]!)).toBeLessThan(1e-6))
  }
})

test('what is left out is said: regions, what stands on the other side, how it is read and shown', () => {
  const { grade, regionId } = addRegion(onTop)
  const lit = setParameter(grade, `${regionId}-exposure`, 'exposureStops', 1)
  expect(exportLut(lit, 0, none, { ...defaultExport, size: 17 }, '', frame).leftOut).toEqual(['region "Region 1"'])
  expect(exportLut(onTop, 0, none, { ...defaultExport, size: 17, output: 'under' }, '', frame).leftOut).toEqual([
    'Show',
    '"Saturation", which stands after Show',
  ])
  expect(exportLut(onTop, 0, none, { ...defaultExport, size: 17, input: 'display' }, '', frame).leftOut).toEqual([
    'Read and Show',
    '"Exposure", which stands before Show',
    '"White balance", which stands before Show',
    '"Contrast", which stands before Show',
  ])
})

test.each([
  ['a size that is none', { size: 34 }],
  ['a Hald picture of 33', { format: 'hald' }],
  ['a Hald picture with a shaper', { format: 'hald', size: 36, shaper: true }],
  ['a display signal under a conversion', { input: 'display', output: 'under' }],
] as const)('%s is refused', (_, change) => {
  expect(() => exportLut(graded, 0, none, { ...defaultExport, ...change }, '', frame)).toThrow(FormatError)
})

test('a LUT at strength 0 changes no bit', () => {
  const lut: Lut = {
    dimensions: 3,
    title: '',
    size: 2,
    domainMin: [0, 0, 0],
    domainMax: [1, 1, 1],
    data: new Float32Array(24).fill(0.3),
  }
  const hash = 'a'.repeat(64)
  const off = setStep(setParameter(graded, 'lut', 'lutHash', hash), 'lut', { strength: 0 })
  const through = (g: GradeDocument): Float64Array => {
    const pixels = Float64Array.from({ length: 300 }, (_, i) => i / 300)
    evaluateDirect(
      buildChain(g, () => lut),
      pixels,
      { shares: new Float64Array(0), frameWidth: 1, frameHeight: 1 },
    )
    return pixels
  }
  expect(through(off)).toEqual(through(graded))
  expect(through(setStep(off, 'lut', { strength: 0.5 }))).not.toEqual(through(graded))
})

test('a LUT made for a camera log is given it on the way in, and what it leaves is brought back', () => {
  // In that log it adds an offset; without conversion the same table would do something else.
  const offset = 0.05
  const data = new Float32Array(17 ** 3 * 3)
  for (let b = 0, o = 0; b < 17; b++)
    for (let g = 0; g < 17; g++)
      for (let r = 0; r < 17; r++, o += 3) data.set([r / 16 + offset, g / 16 + offset, b / 16 + offset], o)
  const lut: Lut = { dimensions: 3, title: '', size: 17, domainMin: [0, 0, 0], domainMax: [1, 1, 1], data }
  const hash = 'b'.repeat(64)
  const base = setStep(
    setParameter(setParameter(defaultGrade('log-351-128'), 'lut', 'lutHash', hash), 'lut', 'takes', 'log-420-95'),
    'lut',
    { side: 'scene' },
  )
  const read = encodingById('log-351-128').curve
  const made = encodingById('log-420-95').curve
  const through = (g: GradeDocument, light: number): number => {
    const pixels = Float64Array.from([1, 1, 1], () => read.encode(light))
    evaluateDirect(
      buildChain(g, () => lut),
      pixels,
      { shares: new Float64Array(0), frameWidth: 1, frameHeight: 1 },
    )
    return pixels[1]!
  }
  for (const stops of [-3, -1, 0, 1]) {
    const light = middleGrey * 2 ** stops
    const wanted = made.decode(made.encode(light) + offset)
    expect(through(base, light)).toBeCloseTo(Math.min(1, wanted) ** (1 / 2.4), 4)
  }
})
