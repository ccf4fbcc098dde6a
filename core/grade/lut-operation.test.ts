// A LUT of formulas alone is compiled as exact stages: nothing of it is taken from a table between whose entries it
// would be guessed.
import { parseClf } from '../formats'
import type { Frame } from '../image'
import { applyLut } from '../luts'
import { compile } from './compile'
import { defaultGrade } from './defaults'
import { addStep } from './edits'
import { lutOperations } from './lut-operation'
import { operate } from './operation'
import { planError } from './plan-error'

const depths = 'inBitDepth="32f" outBitDepth="32f"'
const list = (parts: string): string => `<ProcessList id="a" compCLFversion="3.0">${parts}</ProcessList>`
const cdl = (style: string): string =>
  `<ASC_CDL style="${style}" ${depths}><SOPNode><Slope>1.1 0.95 1.02</Slope><Offset>-0.02 0.01 0</Offset>` +
  '<Power>1.1 0.95 1.2</Power></SOPNode><SatNode><Saturation>0.8</Saturation></SatNode></ASC_CDL>'
const rows = '0.9 0.08 0.02 0.01 0.03 0.9 0.07 -0.01 0 0.1 0.9 0.02'
const matrix = `<Matrix ${depths}><Array dim="3 4">${rows}</Array></Matrix>`
const curve = `<LUT1D ${depths}><Array dim="5 1">0 0.1 0.42 0.8 1</Array></LUT1D>`

const files: readonly (readonly [string, string])[] = [
  ['a matrix with offsets', list(matrix)],
  ['a decision list with saturation', list(cdl('Fwd'))],
  ['a reversed decision list with saturation', list(cdl('Rev'))],
  ['a decision list that does not clamp', list(cdl('FwdNoClamp'))],
  ['a matrix, a curve and a decision list', list(matrix + curve + cdl('Fwd'))],
]

/** Colours of all kinds, as codes. */
const side = 64
const data = new Uint16Array(side * side * 3)
for (let p = 0; p < side * side; p++)
  data.set(
    [0.618, 0.414, 0.732].map((step) => Math.round(65535 * ((p * step) % 1))),
    p * 3,
  )
const frame: Frame = { width: side, height: side, data, low: 0, high: 1, id: 'colours' }

test.each(files)('%s stands as curves and matrices alone, and does the same', (_, text) => {
  const lut = parseClf(text)
  const operations = lutOperations(lut, 'tetrahedral', 'displaySignal')
  expect(operations.map((o) => o.kind).filter((kind) => kind !== 'curve' && kind !== 'matrix')).toEqual([])
  const through = Float64Array.from({ length: 300 }, (_v, i) => -0.24 + ((i * 0.377) % 1.51))
  const whole = through.slice()
  for (const o of operations) operate(o, through)
  applyLut(lut, whole, 'tetrahedral')
  whole.forEach((v, i) => expect(through[i]).toBeCloseTo(v, 9))
})

test.each(files)('%s, compiled, is as exact as curves and matrices are', (_, text) => {
  const lut = parseClf(text)
  const display = { ...defaultGrade('gamma-2.4', 'bt709'), working: 'display' } as const
  const grade = addStep(display, 'lut', 'LUT', { lutHash: 'a' })
  const { mean, worst } = planError(
    compile(grade, () => lut, frame, 33),
    frame,
  )
  // One lattice of 33 for the whole errs by ten to thirty times as much.
  expect(mean).toBeLessThan(0.002)
  expect(worst).toBeLessThan(0.1)
})
