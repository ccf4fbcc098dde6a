// Long: every kind of LUT file, sound and damaged, goes through one reader.
// Every kind of LUT file: read right, refused with a reason, and never a crash or a hang for damaged ones.
import fc from 'fast-check'
import { deflate } from 'pako'
import { applyLut, packLut, unpackLut, type Lut, type Lut3d } from '../luts'
import { parseClf } from './clf'
import { printClf } from './clf-print'
import { parseCsvCurve } from './csv-curve'
import { FormatError, printCube } from './cube'
import { parseHald, printHald } from './hald'
import { parseLutFile } from './lut-file'
import { withoutAncillary } from './png'

const text = (bytes: Uint8Array): string => Buffer.from(bytes).toString('utf8')
const through = (lut: Lut, ...rgb: number[]): number[] => {
  const pixels = Float64Array.from(rgb)
  applyLut(lut, pixels, 'tetrahedral')
  return [...pixels]
}
const bent = (size: number): Lut3d => ({
  dimensions: 3,
  title: 'Bent "ash" & <kiln>',
  size,
  domainMin: [0, 0, 0],
  domainMax: [1, 1, 1],
  data: Float32Array.from({ length: size ** 3 * 3 }, (_, i) => {
    const c = i % 3
    const p = (i - c) / 3
    const v = [p % size, Math.floor(p / size) % size, Math.floor(p / size / size)][c]! / (size - 1)
    return v * v * 0.8 + 0.1
  }),
})
const list = (parts: string, head = ''): string =>
  `<?xml version="1.0"?>\n<!-- by hand -->\n<ProcessList id="a" name="Made up" ` +
  `compCLFversion="3.0">\n${head}${parts}\n</ProcessList>\n`
const depths = 'inBitDepth="32f" outBitDepth="32f"'
function faultOf(parse: () => unknown): FormatError {
  try {
    parse()
  } catch (error) {
    if (error instanceof FormatError) return error
    throw error
  }
  throw new Error('It was accepted.')
}

describe('common LUT format', () => {
  test('written and read back, title and notes escaped, blue runs fastest in the file and red in memory', () => {
    const lut = bent(5)
    const back = parseClf(printClf('a', [lut], ['a < b & "c"']))
    expect(back).toMatchObject({ dimensions: 3, size: 5 })
    if (back.dimensions !== 3) throw new Error('One table was expected.')
    back.data.forEach((v, i) => expect(v).toBeCloseTo(lut.data[i]!, 6))
  })
  test('bit depths are scales: 10-bit codes in, 0…1 out', () => {
    const lut = parseClf(
      list('<LUT1D id="l" inBitDepth="10i" outBitDepth="10i"><Array dim="3 1">0 600 1023</Array></LUT1D>'),
    )
    expect(through(lut, 0, 0.5, 1)).toEqual([0, expect.closeTo(600 / 1023, 6), 1])
  })
  test.each<[string, string, number[], number[]]>([
    [
      'a matrix with an offset',
      `<Matrix ${depths}><Array dim="3 4">1 0 0 0.1  0 2 0 0  0 0 1 -0.1</Array></Matrix>`,
      [0.2, 0.2, 0.2],
      [0.3, 0.4, 0.1],
    ],
    [
      'a range that scales and holds',
      '<Range ' +
        `${depths}><minInValue>0.25</minInValue><maxInValue>0.75</maxInValue>` +
        '<minOutValue>0</minOutValue><maxOutValue>1</maxOutValue></Range>',
      [0.1, 0.5, 0.9],
      [0, 0.5, 1],
    ],
    [
      'a range that does not hold',
      '<Range style="noClamp" ' +
        `${depths}><minInValue>0</minInValue><maxInValue>1</maxInValue>` +
        '<minOutValue>0</minOutValue><maxOutValue>2</maxOutValue></Range>',
      [-1, 0.5, 2],
      [-2, 1, 4],
    ],
    [
      'a range of one end',
      `<Range ${depths}><minInValue>0</minInValue><minOutValue>0</minOutValue></Range>`,
      [-1, 0.5, 2],
      [0, 0.5, 2],
    ],
    ['log to the base 2', `<Log style="log2" ${depths}/>`, [1, 2, 0.25], [0, 1, -2]],
    [
      'a log with slopes and offsets',
      `<Log style="linToLog" ${depths}><LogParams base="10" logSideSlope="0.5" logSideOffset="0.5" ` +
        'linSideSlope="1" linSideOffset="0"/></Log>',
      [1, 10, 0.1],
      [0.5, 1, 0],
    ],
    [
      'a moment curve',
      `<Exponent style="monCurveFwd" ${depths}><ExponentParams exponent="2.4" offset="0.055"/></Exponent>`,
      [0, 0.5, 1],
      [0, 0.21404114, 1],
    ],
    [
      'one channel alone',
      `<Exponent style="basicFwd" ${depths}><ExponentParams exponent="2" channel="G"/></Exponent>`,
      [0.5, 0.5, 0.5],
      [0.5, 0.25, 0.5],
    ],
    [
      'slope, offset, power and saturation',
      `<ASC_CDL style="Fwd" ${depths}><SOPNode><Slope>1 1 1</Slope><Offset>0.1 0 0</Offset><Power>1 2 ` +
        '1</Power></SOPNode><SatNode><Saturation>1</Saturation></SatNode></ASC_CDL>',
      [0.2, 0.5, 0.4],
      [0.3, 0.25, 0.4],
    ],
  ])('%s', (_, part, rgb, wanted) =>
    through(parseClf(list(part)), ...rgb).forEach((v, c) => expect(v).toBeCloseTo(wanted[c]!, 6)),
  )
  test.each(['logToLin', 'cameraLogToLin'])('%s is the way back', (back) => {
    const params =
      '<LogParams base="10" logSideSlope="0.25" logSideOffset="0.38" linSideSlope="5.5" ' +
      'linSideOffset="0.05" linSideBreak="0.01"/>'
    const there = back === 'logToLin' ? 'linToLog' : 'cameraLinToLog'
    const both = parseClf(
      list(`<Log style="${there}" ${depths}>${params}</Log><Log style="${back}" ${depths}>${params}</Log>`),
    )
    through(both, 0.005, 0.18, 3).forEach((v, c) => expect(v).toBeCloseTo([0.005, 0.18, 3][c]!, 9))
  })
  test('parts follow one another, bypassed ones are left out', () => {
    expect(
      through(
        parseClf(
          list(
            `<Matrix ${depths}><Array dim="3 3">2 0 0 0 2 0 0 0 2</Array></Matrix><Matrix bypass="true" ` +
              `${depths}><Array dim="3 3">9 0 0 0 9 0 0 0 9</Array></Matrix><Range ` +
              `${depths}><maxInValue>1</maxInValue><maxOutValue>1</maxOutValue></Range>`,
          ),
        ),
        0.2,
        0.4,
        0.8,
      ),
    ).toEqual([0.4, 0.8, 1])
  })
  test.each([
    ['a part that is none', '<Warp inBitDepth="32f" outBitDepth="32f"/>', /"Warp" is not a part/, null],
    [
      'a bit depth that is none',
      '<Log style="log2" inBitDepth="9i" outBitDepth="32f"/>',
      /inBitDepth must be one of/,
      4,
    ],
    ['a style that is none', `<Log style="log3" ${depths}/>`, /"log3"/, 4],
    [
      'too few numbers',
      `<LUT1D ${depths}><Array dim="3 1">0 0.123456</Array></LUT1D>`,
      /holds 2 numbers, its dimensions ask for 3/,
      4,
    ],
    ['a NaN', `<LUT1D ${depths}><Array dim="2 1">0 nan</Array></LUT1D>`, /"nan" is not a number/, 4],
    ['a cube of size 4096', `<LUT3D ${depths}><Array dim="4096 4096 4096 3">0</Array></LUT3D>`, /refused/, 4],
    [
      'an index map of other entries',
      `<LUT1D ${depths}><IndexMap dim="2">0@0 1@2</IndexMap><Array dim="2 1">0 1</Array></LUT1D>`,
      /IndexMap/,
      4,
    ],
    ['a half-float domain', `<LUT1D halfDomain="true" ${depths}><Array dim="2 1">0 1</Array></LUT1D>`, /halfDomain/, 4],
    [
      'a range upside down',
      '<Range ' +
        `${depths}><minInValue>1</minInValue><maxInValue>0</maxInValue>` +
        '<minOutValue>0</minOutValue><maxOutValue>1</maxOutValue></Range>',
      /below maxInValue/,
      4,
    ],
    [
      'an exponent of nothing',
      `<Exponent style="basicFwd" ${depths}><ExponentParams exponent="0"/></Exponent>`,
      /exponent from 0.01/,
      4,
    ],
    ['a second part that is wrong', `<Log style="log2" ${depths}/>\n\n<Log style="x" ${depths}/>`, /"x"/, 6],
  ])('%s is refused with its line', (_, part, reason, line) => {
    const fault = faultOf(() => parseClf(list(part)))
    expect(fault.message).toMatch(reason)
    if (line !== null) expect(fault.line).toBe(line)
  })
  test('an XML bomb is refused before anything is expanded', () => {
    const entities = Array.from({ length: 20 }, (_, i) => `<!ENTITY c${i} "&b;&b;&b;&b;&b;&b;&b;&b;">`).join('')
    const bomb =
      `<?xml version="1.0"?>\n<!DOCTYPE a [<!ENTITY b ` +
      `"${'x'.repeat(100)}">${entities}]>\n${list('<Log style="log2"/>')}`
    expect(faultOf(() => parseClf(bomb))).toMatchObject({
      line: 2,
      message: expect.stringContaining('document type') as string,
    })
  })
})

describe('Hald pictures', () => {
  test('written and read back to a 16-bit step', () => {
    const lut = bent(16)
    const back = parseHald(printHald(lut))
    expect(back.size).toBe(16)
    back.data.forEach((v, i) => expect(Math.abs(v - lut.data[i]!)).toBeLessThan(1 / 65535))
    expect(() => printHald(bent(17))).toThrow(RangeError)
  })
  test('profiles and texts are never inflated: they are left out before the picture is decoded', () => {
    const rows = Buffer.alloc(8 * (1 + 8 * 3))
    const plain = png(8, 8, 8, 2, deflate(rows))
    const bomb = Buffer.concat([Buffer.from('ash\0\0', 'latin1'), deflate(new Uint8Array(4_000_000))])
    const loaded = png(8, 8, 8, 2, deflate(rows), [
      ['iCCP', bomb],
      ['zTXt', bomb],
      ['teSt', new Uint8Array(9)],
    ])
    expect(loaded.length).toBeGreaterThan(plain.length + 2 * bomb.length)
    expect(Buffer.from(withoutAncillary(loaded)).equals(Buffer.from(plain))).toBe(true)
    expect(parseHald(loaded)).toEqual(parseHald(plain))
    expect(() => withoutAncillary(loaded.subarray(0, 200))).toThrow(/ends inside/)
  })
  /** A PNG of any header around any data. */
  function png(
    width: number,
    height: number,
    depth: number,
    kind: number,
    data: Uint8Array,
    beside: readonly (readonly [type: string, body: Uint8Array])[] = [],
  ): Uint8Array {
    const crcTable = Uint32Array.from({ length: 256 }, (_, n) => {
      let c = n
      for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1
      return c
    })
    const chunk = (type: string, body: Uint8Array): Buffer => {
      const all = Buffer.concat([Buffer.from(type, 'latin1'), body])
      const out = Buffer.alloc(body.length + 12)
      let crc = 0xffffffff
      for (const byte of all) crc = crcTable[(crc ^ byte) & 255]! ^ (crc >>> 8)
      out.writeUInt32BE(body.length)
      all.copy(out, 4)
      out.writeUInt32BE((crc ^ 0xffffffff) >>> 0, body.length + 8)
      return out
    }
    const header = Buffer.alloc(13)
    header.writeUInt32BE(width)
    header.writeUInt32BE(height, 4)
    header[8] = depth
    header[9] = kind
    return Buffer.concat([
      Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
      chunk('IHDR', header),
      ...beside.map(([type, body]) => chunk(type, body)),
      chunk('IDAT', data),
      chunk('IEND', new Uint8Array(0)),
    ])
  }
  test.each<[string, () => Uint8Array, RegExp]>([
    ['a side that is no cube', () => png(100, 100, 8, 2, deflate(new Uint8Array(30100))), /no Hald picture/],
    [
      'a picture of 100 000 by 100 000',
      () => png(100000, 100000, 8, 2, deflate(new Uint8Array(10))),
      /no Hald picture/,
    ],
    ['grey only', () => png(8, 8, 8, 0, deflate(new Uint8Array(72))), /red, green and blue/],
    ['too little data', () => png(8, 8, 8, 2, deflate(new Uint8Array(20))), /holds 20 bytes/],
    ['a bomb: 64 MB in a few kB', () => png(8, 8, 8, 2, deflate(new Uint8Array(64 * 1024 * 1024))), /inflates to more/],
    ['damaged data', () => png(8, 8, 8, 2, Uint8Array.of(1, 2, 3, 4)), /damaged/],
  ])('%s is refused', (_, make, reason) => expect(faultOf(() => parseHald(make())).message).toMatch(reason))
})

describe('curves as text', () => {
  test('even rows are kept, uneven ones drawn through straight, a heading is passed over', () => {
    expect(parseCsvCurve('in,out\n0,0.1\n0.5,0.2\n1,0.9\n')).toMatchObject({ size: 3, domainMin: [0, 0, 0] })
    const uneven = parseCsvCurve('0;0;0;0\n0.1;0.5;0.2;0\n1;1;1;1')
    expect(through(uneven, 0.1, 0.1, 0.55)).toEqual([
      expect.closeTo(0.5, 3),
      expect.closeTo(0.2, 3),
      expect.closeTo(0.5, 3),
    ])
  })
  test.each([
    ['a row out of order', '0,0\n1,1\n0.5,0.5', 3, /rise/],
    ['three columns', '0,0,0\n1,1,1', 1, /two/],
    ['a word', '0,0\n1,one', 2, /"one"/],
    ['one row', '0,0', 0, /two rows/],
    ['infinity', '0,0\n1,1e999', 2, /number/],
  ])('%s is refused with its line', (_, csv, line, reason) => {
    expect(faultOf(() => parseCsvCurve(csv))).toMatchObject({ line, message: expect.stringMatching(reason) as string })
  })
})

const samples: readonly (readonly [string, Uint8Array])[] = [
  ['cube', Buffer.from(printCube(bent(4)))],
  [
    'cube',
    Buffer.from(`LUT_1D_SIZE 4\nLUT_3D_SIZE 2\n${Array.from({ length: 12 }, (_, i) => `${i / 12} 0 1`).join('\n')}\n`),
  ],
  ['clf', Buffer.from(printClf('a', [bent(3)], ['n']))],
  [
    'clf',
    Buffer.from(
      list(
        `<Matrix ${depths}><Array dim="3 3">1 0 0 0 1 0 0 0 1</Array></Matrix><Log style="cameraLinToLog" ` +
          `${depths}><LogParams base="2" linSideBreak="0.01" linSideSlope="1" ` +
          `linSideOffset="0.1"/></Log><ASC_CDL ${depths}><SOPNode><Slope>1 1 1</Slope></SOPNode></ASC_CDL>`,
      ),
    ),
  ],
  ['hald', printHald(bent(4))],
  ['csv', Buffer.from('in,out\n0,0\n0.5,0.4\n1,1\n')],
]

test.each(samples.map(([format, bytes]) => [format, bytes] as const))(
  '%s is told by its content, and packed bytes come back the same',
  (format, bytes) => {
    const { format: found, lut } = parseLutFile(bytes, text)
    expect(found).toBe(format)
    expect(unpackLut(packLut(lut))).toEqual(lut)
    expect(unpackLut(Buffer.concat([Buffer.from('x'), packLut(lut)]).subarray(1))).toEqual(lut)
  },
)
test('other bytes are not taken for packed ones', () => expect(unpackLut(Buffer.from('LUT_3D_SIZE 2\n'))).toBeNull())

test('a cube claiming size 4096, and text without end, are refused without being made room for', () => {
  expect(faultOf(() => parseLutFile(Buffer.from('LUT_3D_SIZE 4096\n0 0 0\n'), text)).message).toContain('4096')
  expect(faultOf(() => parseLutFile(new Uint8Array(200 * 1024 * 1024), text)).message).toContain('larger than')
})

/** Flips, cuts, doubles and replaces parts: what bad disks and bad hands do. */
const mutation = fc.record({
  sample: fc.nat(samples.length - 1),
  edits: fc.array(
    fc.record({
      at: fc.double({ min: 0, max: 1, noNaN: true }),
      kind: fc.nat(5),
      byte: fc.nat(255),
      length: fc.nat(40),
    }),
    { minLength: 1, maxLength: 6 },
  ),
})
const nasty = ['nan', '-inf', '1e999', '4096', '99999999999', '</', '<!ENTITY a "b">', ';;;', '\0', '-']
function mutate({
  sample,
  edits,
}: {
  sample: number
  edits: readonly { at: number; kind: number; byte: number; length: number }[]
}): Uint8Array {
  let bytes = Buffer.from(samples[sample]![1])
  for (const { at, kind, byte, length } of edits) {
    const from = Math.floor(at * bytes.length)
    const to = Math.min(bytes.length, from + length)
    const head = bytes.subarray(0, from)
    const part = bytes.subarray(from, to)
    const tail = bytes.subarray(to)
    const middle = [
      Buffer.from([byte]),
      Buffer.alloc(0),
      Buffer.concat([part, part]),
      Buffer.from(part).reverse(),
      Buffer.from(nasty[byte % nasty.length]!),
      Buffer.alloc(length, byte),
    ][kind]!
    bytes = Buffer.concat([head, middle, tail])
  }
  return bytes
}
test(
  'twelve thousand damaged files: each is read to finite numbers or refused with a sentence, in ' +
    'bounded time and memory',
  () => {
    let read = 0
    let refused = 0
    fc.assert(
      fc.property(mutation, (how) => {
        try {
          const { lut } = parseLutFile(mutate(how), text)
          expect(through(lut, 0.1, 0.5, 0.9, 0, 0, 0, 1, 1, 1).every((v) => !Number.isNaN(v))).toBe(true)
          read++
        } catch (error) {
          if (!(error instanceof FormatError)) throw error
          expect(error.message).toMatch(/^[A-Z"0-9].*[.:]|XML/)
          refused++
        }
      }),
      { numRuns: 12_000, endOnFailure: true },
    )
    expect(read + refused).toBe(12_000)
    expect(Math.min(read, refused)).toBeGreaterThan(100)
  },
)
