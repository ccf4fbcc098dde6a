// Small common LUT format files, each with one thing that others write: what they do to colours, under black and over
// white too, is what a general colour library's own reader (opencolorio-tools) makes of them; or they are refused by
// name.
import { execFileSync, spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { FormatError, parseClf } from '@core/formats'
import { applyLut } from '@core/luts'

const reader = 'ociochecklut'
const missing = spawnSync(reader, ['--help']).error !== undefined
if (missing) console.log(`${reader} is missing (opencolorio-tools): files are not tried in another reader.`)
const within = missing ? test.skip : test

let folder = ''
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'pale-clf-'))
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const list = (parts: string, attributes = 'id="a" compCLFversion="3.0"'): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<ProcessList ${attributes}>\n${parts}\n</ProcessList>\n`
const float = 'inBitDepth="32f" outBitDepth="32f"'
const matrix = (dim: string, numbers: string, depths = float): string =>
  `<Matrix ${depths}><Array dim="${dim}">${numbers}</Array></Matrix>`
const range = (inside: Readonly<Record<string, number>>, style = 'Clamp', depths = float): string =>
  `<Range style="${style}" ${depths}>${Object.entries(inside)
    .map(([k, v]) => `<${k}>${v}</${k}>`)
    .join('')}</Range>`
const log = (style: string, parameters = ''): string =>
  `<Log style="${style}" ${float}>${parameters === '' ? '' : `<LogParams ${parameters}/>`}</Log>`
const exponent = (style: string, parameters: string): string =>
  `<Exponent style="${style}" ${float}><ExponentParams ${parameters}/></Exponent>`
const cdl = (style: string, saturation: number): string =>
  `<ASC_CDL style="${style}" ${float}><SOPNode><Slope>1.2 0.9 1.05</Slope><Offset>-0.03 0.02 0.01</Offset>` +
  `<Power>1.1 0.95 1.3</Power></SOPNode><SatNode><Saturation>${saturation}</Saturation></SatNode></ASC_CDL>`
const curve = (dim: string, numbers: string, attributes = float, more = ''): string =>
  `<LUT1D ${attributes}>${more}<Array dim="${dim}">${numbers}</Array></LUT1D>`
const cubeNumbers = (full = 1): string => {
  const out: string[] = []
  for (const r of [0, 0.4, 1])
    for (const g of [0, 0.5, 1])
      for (const b of [0, 0.6, 1])
        out.push([0.9 * r + 0.1 * g * b, g ** 1.2, 0.8 * b + 0.2 * r * r].map((v) => (v * full).toFixed(6)).join(' '))
  return out.join('\n')
}
const cube = (attributes: string, full = 1, more = ''): string =>
  `<LUT3D ${attributes}>${more}<Array dim="3 3 3 3">${cubeNumbers(full)}</Array></LUT3D>`
const camera = 'base="10" logSideSlope="0.25" logSideOffset="0.39" linSideSlope="5.5" linSideOffset="0.05"'

const agreed: readonly (readonly [what: string, text: string])[] = [
  ['a matrix of 3 × 3', list(matrix('3 3', '0.8 0.15 0.05 0.02 0.9 0.08 0 0.1 0.9'))],
  [
    'a matrix of three dimensions',
    list(matrix('3 3 3', '0.8 0.15 0.05 0.02 0.9 0.08 0 0.1 0.9'), 'id="a" compCLFversion="2.0"'),
  ],
  ['a matrix with offsets', list(matrix('3 4', '0.8 0.15 0.05 0.01 0.02 0.9 0.08 -0.02 0 0.1 0.9 0.03'))],
  [
    'a matrix with offsets of three dimensions',
    list(matrix('3 4 3', '0.8 0.15 0.05 0.01 0.02 0.9 0.08 -0.02 0 0.1 0.9 0.03'), 'id="a" compCLFversion="2.0"'),
  ],
  ['a matrix of 10-bit codes', list(matrix('3 3', '1 0 0 0 0.9 0.1 0 0 1', 'inBitDepth="10i" outBitDepth="10i"'))],
  [
    'a matrix from 10-bit codes to light',
    list(matrix('3 3', '0.001 0 0 0 0.001 0 0 0 0.001', 'inBitDepth="10i" outBitDepth="32f"')),
  ],
  ['two matrices', list(matrix('3 3', '0.8 0.2 0 0 1 0 0 0 1') + matrix('3 3', '1 0 0 0.1 0.9 0 0 0 1.1'))],
  ['a range', list(range({ minInValue: 0.1, maxInValue: 0.9, minOutValue: 0, maxOutValue: 1 }))],
  [
    'a range that does not clamp',
    list(range({ minInValue: 0.1, maxInValue: 0.9, minOutValue: 0, maxOutValue: 1 }, 'noClamp')),
  ],
  ['a range of the lower end alone', list(range({ minInValue: 0.05, minOutValue: 0.05 }))],
  ['a range of the upper end alone', list(range({ maxInValue: 0.8, maxOutValue: 0.8 }))],
  [
    'a range from legal codes',
    list(
      range(
        { minInValue: 64, maxInValue: 940, minOutValue: 0, maxOutValue: 1023 },
        'Clamp',
        'inBitDepth="10i" outBitDepth="10i"',
      ),
    ),
  ],
  ['log10', list(log('log10'))],
  ['log2', list(log('log2'))],
  ['antiLog10', list(log('antiLog10'))],
  ['antiLog2', list(log('antiLog2'))],
  ['linToLog', list(log('linToLog', camera))],
  ['logToLin', list(log('logToLin', camera))],
  ['cameraLinToLog', list(log('cameraLinToLog', `${camera} linSideBreak="0.01"`))],
  ['cameraLogToLin', list(log('cameraLogToLin', `${camera} linSideBreak="0.01"`))],
  [
    'a camera log with a slope of its own',
    list(log('cameraLinToLog', `${camera} linSideBreak="0.01" linearSlope="5"`)),
  ],
  ...['basicFwd', 'basicRev', 'basicMirrorFwd', 'basicMirrorRev', 'basicPassThruFwd', 'basicPassThruRev'].map(
    (style) => [style, list(exponent(style, 'exponent="2.4"'))] as const,
  ),
  ...['monCurveFwd', 'monCurveRev', 'monCurveMirrorFwd', 'monCurveMirrorRev'].map(
    (style) => [style, list(exponent(style, 'exponent="2.4" offset="0.055"'))] as const,
  ),
  ['a moment curve of exponent 1', list(exponent('monCurveFwd', 'exponent="1" offset="0.1"'))],
  ['its reverse', list(exponent('monCurveRev', 'exponent="1" offset="0.1"'))],
  [
    'an exponent for each channel',
    list(
      `<Exponent style="basicFwd" ${float}><ExponentParams channel="R" exponent="2.4"/>` +
        '<ExponentParams channel="G" exponent="2"/><ExponentParams channel="B" exponent="1.8"/></Exponent>',
    ),
  ],
  ...['Fwd', 'Rev', 'FwdNoClamp', 'RevNoClamp'].flatMap((style) => [
    [`a decision list, ${style}`, list(cdl(style, 1))] as const,
    [`a decision list with saturation, ${style}`, list(cdl(style, 0.7))] as const,
  ]),
  ['a curve of one channel', list(curve('5 1', '0 0.1 0.4 0.8 1'))],
  ['a curve of three channels', list(curve('3 3', '0 0 0 0.4 0.5 0.6 1 0.9 1.1'))],
  ['a curve of 10-bit codes', list(curve('3 1', '0 600 1023', 'inBitDepth="10i" outBitDepth="10i"'))],
  [
    'a curve of half floats as bits',
    list(curve('3 1', '0 14336 15360', 'inBitDepth="16f" outBitDepth="16f" rawHalfs="true"')),
  ],
  ['a cube, trilinear', list(cube(`interpolation="trilinear" ${float}`))],
  ['a cube, tetrahedral', list(cube(`interpolation="tetrahedral" ${float}`))],
  ['a cube of 12-bit codes', list(cube('interpolation="tetrahedral" inBitDepth="12i" outBitDepth="12i"', 4095))],
  ['a curve before a cube', list(curve('3 1', '0 0.6 1') + cube(`interpolation="tetrahedral" ${float}`))],
  [
    'a matrix, a log and a cube',
    list(
      matrix('3 3', '0.8 0.2 0 0 1 0 0 0 1') +
        log('cameraLinToLog', `${camera} linSideBreak="0.01"`) +
        cube(`interpolation="tetrahedral" ${float}`),
    ),
  ],
  [
    'descriptions and a name',
    list(
      `<Description>by hand</Description><InputDescriptor>log</InputDescriptor>${curve('2 1', '0 0.5')}`,
      'id="a" name="Ash" compCLFversion="3.0"',
    ),
  ],
]

/** From under black to over white, greys and colours. */
const colours: readonly (readonly number[])[] = [
  [-0.24, -0.24, -0.24],
  [-0.05, 0.02, 0.1],
  [0, 0, 0],
  [0.18, 0.18, 0.18],
  [0.6, 0.35, 0.12],
  [0.11, 0.47, 0.83],
  [1, 1, 1],
  [1.27, 0.9, -0.1],
  [1.27, 1.27, 1.27],
]

within.each(agreed.map(([what, text]) => ({ what, text })))(
  '$what: the same numbers',
  ({ what, text }) => {
    const path = join(folder, `${what.replace(/\W+/g, '-')}.clf`)
    writeFileSync(path, text)
    const lut = parseClf(text)
    for (const rgb of colours) {
      const own = Float64Array.from(rgb)
      applyLut(lut, own, 'tetrahedral')
      const said = execFileSync(reader, [path, ...rgb.map(String)], { encoding: 'utf8' })
      // Warnings stand on lines of their own before it.
      const other = said.trim().split('\n').at(-1)!.split(/\s+/).map(Number)
      const apart = other.map((v, c) => Math.abs(v - own[c]!) / Math.max(1, Math.abs(v)))
      if (!apart.every((v) => v < 1e-4))
        throw new Error(
          `${rgb.join(' ')} becomes ${[...own].join(' ')}; the other reader makes ${other.join(' ')} of it.`,
        )
    }
  },
  60_000,
)

test.each([
  ['a curve over half floats', curve('2 1', '0 1', `${float} halfDomain="true"`), /Line 3: .*halfDomain/],
  ['a hue that is kept', curve('2 1', '0 1', `${float} hueAdjust="dw3"`), /Line 3: .*hueAdjust/],
  [
    'bit depths that do not meet',
    matrix('3 3', '1 0 0 0 1 0 0 0 1', 'inBitDepth="32f" outBitDepth="10i"') + '\n' + curve('2 1', '0 1'),
    /Line 4: LUT1D takes 32f, but the part before it gives 10i/,
  ],
  [
    'a range upside down',
    range({ minInValue: 0.9, maxInValue: 0.1, minOutValue: 0, maxOutValue: 1 }),
    /Line 3: .*minInValue must lie below/,
  ],
  ['a channel that there is not', exponent('basicFwd', 'channel="A" exponent="2"'), /Line 3: .*no channel "A"/],
  [
    'a bypass that is no answer',
    `<Matrix bypass="maybe" ${float}><Array dim="3 3">1 0 0 0 1 0 0 0 1</Array></Matrix>`,
    /Line 3: .*bypass/,
  ],
  ['an interpolation of another kind', cube(`interpolation="cubic" ${float}`), /Line 3: .*"cubic"/],
  [
    'an index map of many entries',
    curve('3 1', '0 0.5 1', 'inBitDepth="10i" outBitDepth="32f"', '<IndexMap dim="3">0@0 500@1 1023@2</IndexMap>'),
    /Line 3: .*IndexMap/,
  ],
])('%s is refused with its line', (_, parts, reason) => {
  const refused = (): unknown => parseClf(list(parts))
  expect(refused).toThrow(FormatError)
  expect(refused).toThrow(reason)
})

test.each([
  ['another version', 'id="a" compCLFversion="4.0"', /Line 2: Version "4.0"/],
  ['no id', 'compCLFversion="3.0"', /Line 2: ProcessList has no id/],
])('%s is refused with its line', (_, attributes, reason) => {
  expect(() => parseClf(list(curve('2 1', '0 1'), attributes))).toThrow(reason)
})

test('an index map of two ends says which codes the table is for', () => {
  const map = '<IndexMap dim="2">64@0 940@2</IndexMap>'
  const lut = parseClf(list(curve('3 1', '0 0.25 1', 'inBitDepth="10i" outBitDepth="32f"', map)))
  const pixel = Float64Array.from([64 / 1023, 502 / 1023, 940 / 1023])
  applyLut(lut, pixel, 'tetrahedral')
  expect([...pixel]).toEqual([expect.closeTo(0, 6), expect.closeTo(0.25, 6), expect.closeTo(1, 6)])
})

test('a part that is bypassed does nothing (clause 6.3; the other reader knows no bypass)', () => {
  const doubled = `<Matrix bypass="true" ${float}><Array dim="3 3">2 0 0 0 2 0 0 0 2</Array></Matrix>`
  const [bypassed, plain] = [doubled + cdl('Fwd', 1), cdl('Fwd', 1)].map((parts) => {
    const pixels = Float64Array.from(colours.flat())
    applyLut(parseClf(list(parts)), pixels, 'tetrahedral')
    return [...pixels]
  })
  expect(bypassed).toEqual(plain)
})
