// Many small LUT and correction files as others write them: what they do to colours is what a general colour library's
// own reader (opencolorio-tools) makes of them.
import { execFileSync, spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { parseCdl, parseClf, parseCube } from '@core/formats'
import { applyLut, type Lut } from '@core/luts'

const reader = 'ociochecklut'
const missing = spawnSync(reader, ['--help']).error !== undefined
if (missing) console.log(`${reader} is missing (opencolorio-tools): files are not tried in another reader.`)
const within = missing ? test.skip : test

let folder = ''
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'pale-many-'))
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** The colours that the other reader tries by itself. */
const tried = [
  [0, 0, 0],
  [0.18, 0.18, 0.18],
  [0.5, 0.5, 0.5],
  [1, 1, 1],
  [2, 2, 2],
  [100, 100, 100],
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
] as const

let files = 0
function throughOther(text: string, extension: string): readonly (readonly number[])[] {
  const path = join(folder, `${++files}.${extension}`)
  writeFileSync(path, text)
  const said = execFileSync(reader, ['-t', path], { encoding: 'utf8' })
  const rows = said.split('\n').flatMap((line) => {
    const numbers = line
      .trim()
      .split(/\s+/)
      .map((w) => (w === 'inf' ? Infinity : Number(w)))
    return numbers.length === 3 && !numbers.some(Number.isNaN) ? [numbers] : []
  })
  if (rows.length !== tried.length) throw new Error(`The other reader said: ${said.slice(0, 400)}`)
  return rows
}
function expectAlike(
  what: string,
  others: readonly (readonly number[])[],
  own: (rgb: readonly number[]) => ArrayLike<number>,
): void {
  tried.forEach((rgb, n) => {
    const mine = own(rgb)
    others[n]!.forEach((v, c) => {
      // Beyond what its single floats hold, ours may still be a number.
      if (v === Infinity && mine[c]! >= 1e38) return
      const apart = Math.abs(v - mine[c]!) / Math.max(1, Math.abs(v))
      if (!(apart < 1e-4))
        throw new Error(
          `${what}: ${rgb.join(' ')} becomes ${Array.from(mine).join(' ')}, for the other ${others[n]!.join(' ')}.`,
        )
    })
  })
}
const through = (lut: Lut) => (rgb: readonly number[]) => {
  const pixel = Float64Array.from(rgb)
  applyLut(lut, pixel, 'tetrahedral')
  return pixel
}

describe('common LUT format files', () => {
  const list = (parts: string): string =>
    `<?xml version="1.0" encoding="UTF-8"?>\n<ProcessList id="a" compCLFversion="3.0">\n${parts}\n</ProcessList>\n`
  const full = { '8i': 255, '10i': 1023, '12i': 4095, '16i': 65535, '16f': 1, '32f': 1 } as const
  type Depth = keyof typeof full
  const depths = Object.keys(full) as Depth[]
  const plain = 'inBitDepth="32f" outBitDepth="32f"'

  const matrices = depths.flatMap((from) =>
    (['10i', '16f', '32f'] as const).map((to) => {
      const scale = full[to] / full[from]
      const numbers = [0.8, 0.15, 0.05, 0.02, 0.9, 0.08, 0, 0.1, 0.9].map((v) => v * scale)
      return {
        what: `a matrix from ${from} to ${to}`,
        text: list(
          `<Matrix inBitDepth="${from}" outBitDepth="${to}"><Array dim="3 3">${numbers.join(' ')}</Array></Matrix>`,
        ),
      }
    }),
  )
  const curves = depths.map((to) => ({
    what: `a curve in ${to}`,
    text: list(
      `<LUT1D inBitDepth="32f" outBitDepth="${to}"><Array dim="5 1">` +
        `${[0, 0.1, 0.35, 0.8, 1].map((v) => v * full[to]).join(' ')}</Array></LUT1D>`,
    ),
  }))
  const logs = ['log10', 'log2', 'antiLog10', 'antiLog2'].map((style) => ({
    what: `a log of style ${style}`,
    text: list(`<Log style="${style}" ${plain}/>`),
  }))
  const exponents = [
    'basicFwd',
    'basicRev',
    'basicMirrorFwd',
    'basicMirrorRev',
    'basicPassThruFwd',
    'basicPassThruRev',
  ].flatMap((style) =>
    [0.45, 1.7, 2.4].map((e) => ({
      what: `an exponent of ${e}, style ${style}`,
      text: list(`<Exponent style="${style}" ${plain}><ExponentParams exponent="${e}"/></Exponent>`),
    })),
  )
  const cdls = ['Fwd', 'Rev', 'FwdNoClamp', 'RevNoClamp'].flatMap((style) =>
    [0.7, 1, 1.4].map((saturation) => ({
      what: `a correction of style ${style} with saturation ${saturation}`,
      text: list(
        `<ASC_CDL style="${style}" ${plain}><SOPNode><Slope>1.1 0.9 1.05</Slope><Offset>0.02 0.01 0.03</Offset>` +
          `<Power>1.1 0.95 1.2</Power></SOPNode><SatNode><Saturation>${saturation}</Saturation></SatNode></ASC_CDL>`,
      ),
    })),
  )
  within.each([...matrices, ...curves, ...logs, ...exponents, ...cdls])('$what', ({ what, text }) => {
    expectAlike(what, throughOther(text, 'clf'), through(parseClf(text)))
  })
})

describe('.cube files', () => {
  const row = (r: number, g: number, b: number): string => [r, g, b].map((v) => v.toFixed(6)).join(' ')
  const curve = (size: number, bend: number): string =>
    Array.from({ length: size }, (_, i) => {
      const v = i / (size - 1)
      return row(v ** bend, v, v ** (1 / bend))
    }).join('\n')
  const cube = (size: number, bend: number): string => {
    const rows: string[] = []
    for (let b = 0; b < size; b++)
      for (let g = 0; g < size; g++)
        for (let r = 0; r < size; r++) {
          const [x, y, z] = [r, g, b].map((v) => v / (size - 1)) as [number, number, number]
          rows.push(row(0.9 * x ** bend + 0.1 * y, y ** bend, 0.8 * z + 0.2 * x * y))
        }
    return rows.join('\n')
  }
  const domains = [
    '',
    'DOMAIN_MIN 0 0 0\nDOMAIN_MAX 1 1 1\n',
    '# what it takes\nDOMAIN_MIN 0.0 0.0 0.0\nDOMAIN_MAX 1.0 1.0 1.0\n',
  ]
  const files = [
    ...[2, 3, 5, 9, 17, 33].flatMap((size) =>
      domains.map((domain, d) => ({
        what: `a cube of ${size}, heading ${d + 1}`,
        text: `${d === 1 ? 'TITLE "Ashglaze"\n' : ''}LUT_3D_SIZE ${size}\n${domain}${cube(size, 0.8 + d * 0.4)}\n`,
      })),
    ),
    ...[2, 3, 16, 64, 257, 1024].flatMap((size) =>
      domains.map((domain, d) => ({
        what: `a curve of ${size}, heading ${d + 1}`,
        text: `${d === 2 ? '\n\n' : ''}LUT_1D_SIZE ${size}\n${domain}${curve(size, 1.2 + d * 0.3)}\n`,
      })),
    ),
    ...[3, 9, 17].flatMap((size) => [
      {
        what: `a cube of ${size} with Windows ends`,
        text: `LUT_3D_SIZE ${size}\n${cube(size, 1.3)}\n`.replaceAll('\n', '\r\n'),
      },
      { what: `a cube of ${size} with tabs`, text: `LUT_3D_SIZE\t${size}\n${cube(size, 1.1).replaceAll(' ', '\t')}\n` },
      {
        what: `a cube of ${size} with remarks`,
        text: `# made by hand\nTITLE "a title"\n# more\nLUT_3D_SIZE ${size}\n#\n${cube(size, 0.9)}\n`,
      },
    ]),
  ]
  within.each(files)('$what', ({ what, text }) => {
    const own = through(parseCube(text))
    expectAlike(what, throughOther(text, 'cube'), own)
  })
  test('there are enough of them', () => expect(files.length).toBeGreaterThanOrEqual(45))
})

describe('corrections', () => {
  const sop = (n: number): string =>
    `<SOPNode><Slope>${1 + n * 0.03} ${1 - n * 0.02} ${1 + n * 0.01}</Slope>` +
    `<Offset>${n * 0.004} ${0.03 - n * 0.002} 0.01</Offset><Power>${1 + n * 0.05} ${1 - n * 0.03} 1.1</Power></SOPNode>`
  const sat = (n: number): string => `<SatNode><Saturation>${0.6 + n * 0.08}</Saturation></SatNode>`
  const one = (inside: string, id = 'a'): string => `<ColorCorrection id="${id}">${inside}</ColorCorrection>`
  const kinds = [
    { extension: 'cc', wrap: (inside: string): string => one(inside) },
    {
      extension: 'ccc',
      wrap: (inside: string): string =>
        `<ColorCorrectionCollection xmlns="urn:ASC:CDL:v1.01">${one(inside)}</ColorCorrectionCollection>`,
    },
    {
      extension: 'cdl',
      wrap: (inside: string): string =>
        '<ColorDecisionList xmlns="urn:ASC:CDL:v1.01"><ColorDecision>' +
        `${one(inside)}</ColorDecision></ColorDecisionList>`,
    },
    {
      extension: 'cc',
      wrap: (inside: string): string =>
        `<?xml version="1.0" encoding="UTF-8"?>\n${one(`<Description>b</Description>${inside}`)}`,
    },
  ]
  const files = kinds.flatMap(({ extension, wrap }, k) =>
    Array.from({ length: 10 }, (_, n) => ({
      what: `${extension} ${k + 1}.${n + 1}`,
      text: wrap(n === 9 ? sop(n) : sop(n) + sat(n)),
      // Of lists and collections the other reader takes one only when it is named, which this tool of it cannot.
      alone: one(n === 9 ? sop(n) : sop(n) + sat(n)),
    })),
  )
  within.each(files)('$what', ({ what, text, alone }) => {
    const { cdl } = parseCdl(text)[0]!
    // ASC CDL v1.2, unclamped as the other reader takes such files.
    expectAlike(what, throughOther(alone, 'cc'), (rgb) => {
      const out = rgb.map((v, c) => {
        const raised = v * cdl.slope[c]! + cdl.offset[c]!
        return raised > 0 ? raised ** cdl.power[c]! : raised
      })
      const luma = 0.2126 * out[0]! + 0.7152 * out[1]! + 0.0722 * out[2]!
      return out.map((v) => luma + cdl.saturation * (v - luma))
    })
  })
  test('there are enough of them', () => expect(files.length).toBeGreaterThanOrEqual(40))
})
