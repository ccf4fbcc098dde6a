import fc from 'fast-check'
import { applyLut, type Lut, type LutTable } from '../luts'
import { FormatError, parseCube, printCube } from './cube'

const rows = (count: number): string =>
  Array.from({ length: count }, (_, i) => `${i / count} 0.5 ${1 - i / count}`).join('\n')
const cube2 = `LUT_3D_SIZE 2\n${rows(8)}\n`

function fault(text: string): FormatError {
  try {
    parseCube(text)
  } catch (error) {
    if (error instanceof FormatError) return error
    throw error
  }
  throw new Error('The text was accepted.')
}

const finite = (lut: Lut): boolean =>
  (lut.dimensions === 'sequence' ? lut.parts : [lut]).every((p) => 'formula' in p || p.data.every(Number.isFinite))
function table(text: string): LutTable {
  const lut = parseCube(text)
  if (lut.dimensions === 'sequence') throw new Error('One table was expected.')
  return lut
}

describe('reading a .cube', () => {
  test('a cube behind a shaper: the shaper takes the domain, the cube what the shaper returns', () => {
    const text = `LUT_1D_SIZE 3\nLUT_3D_SIZE 2\nLUT_1D_INPUT_RANGE 0 4\n0 0 0\n0.5 0.5 0.5\n1 1 1\n${rows(8)}`
    const lut = parseCube(text)
    expect(lut).toMatchObject({
      dimensions: 'sequence',
      parts: [
        { dimensions: 1, size: 3, domainMax: [4, 4, 4] },
        { dimensions: 3, size: 2, domainMax: [1, 1, 1] },
      ],
    })
    const pixels = Float64Array.of(4, 0, 0)
    applyLut(lut, pixels, 'tetrahedral')
    expect([...pixels]).toEqual([0.125, 0.5, 0.875])
    if (lut.dimensions !== 'sequence') throw new Error('A sequence was expected.')
    expect(parseCube(printCube(lut.parts as never))).toEqual(lut)
  })

  test('a plain 3D table', () => {
    const lut = table(cube2)
    expect(lut).toMatchObject({ dimensions: 3, size: 2, title: '', domainMin: [0, 0, 0], domainMax: [1, 1, 1] })
    expect(lut.data).toHaveLength(24)
    expect([...lut.data.slice(3, 6)]).toEqual([0.125, 0.5, 0.875])
  })

  test('CRLF, comments, blank lines, TITLE, DOMAIN and a byte-order mark', () => {
    const text =
      `\ufeff# made up\r\nTITLE "Quiet ash"\r\n\r\nLUT_3D_SIZE 2\r\nDOMAIN_MIN -1 -1 -1\r\nDOMAIN_MAX 2 ` +
      `2 2\r\n# rows\r\n${rows(8).replaceAll('\n', '\r\n')}\r\n`
    expect(parseCube(text)).toMatchObject({
      title: 'Quiet ash',
      size: 2,
      domainMin: [-1, -1, -1],
      domainMax: [2, 2, 2],
    })
  })

  test('a 1D table, exponents and signs', () => {
    const lut = table('LUT_1D_SIZE 3\n0 0 0\n+5e-1 .5 0.5\n-1.0 1. 1E0')
    expect(lut.dimensions).toBe(1)
    expect([...lut.data]).toEqual([0, 0, 0, 0.5, 0.5, 0.5, -1, 1, 1])
  })

  test.each([
    ['without quotation marks', 'TITLE Ash and clay', 'Ash and clay'],
    ['with some inside', 'TITLE "Ash "wet" clay"', 'Ash "wet" clay'],
    ['in lower case', 'title "Ash"', 'Ash'],
    ['behind a tab', 'TITLE\t"Ash"', 'Ash'],
    ['that is empty', 'TITLE ""', ''],
    ['in a comment of this program', '# TITLE "Ash"', 'Ash'],
  ])('a title %s', (_, line, title) => {
    const lut = parseCube(`${line}\n${cube2}`)
    expect(lut.title).toBe(title)
  })

  test('keywords in lower case, tabs and the line ends of any system', () => {
    const text = `lut_3d_size\t2\r\ndomain_min 0 0 0\r\nDomain_Max 2\t2 2\r\n${rows(8).replace(/\n/g, '\r\n')}\r\n`
    expect(table(text)).toMatchObject({ size: 2, domainMax: [2, 2, 2] })
  })

  test('what is not known is noted with its line, and the rest is read', () => {
    const notes: string[] = []
    const lut = parseCube(`LUT_IN_VIDEO_RANGE\nhello there\n${cube2}`, (n) => notes.push(n))
    expect(lut).toMatchObject({ dimensions: 3, size: 2 })
    expect(notes).toEqual([
      'Line 1: "LUT_IN_VIDEO_RANGE" is not known in this format; it is left out of account.',
      'Line 2: "hello there" is not known in this format; it is left out of account.',
    ])
  })

  test('one input range for all channels', () => {
    expect(table(`LUT_3D_SIZE 2\nLUT_3D_INPUT_RANGE 0.0 4.0\n${rows(8)}`).domainMax).toEqual([4, 4, 4])
  })

  test.each([
    ['too few rows', `LUT_3D_SIZE 2\n${rows(7)}\n${' '.repeat(20)}`, 9, /7 rows, its size asks for 8/],
    ['too many rows', `LUT_3D_SIZE 2\n${rows(9)}`, 10, /more rows than the 8/],
    ['NaN', `LUT_3D_SIZE 2\nnan 0 0\n${rows(7)}`, 2, /"nan" is not a number/],
    ['infinity', `LUT_3D_SIZE 2\n0 inf 0\n${rows(7)}`, 2, /"inf" is not a number/],
    ['hexadecimal', `LUT_3D_SIZE 2\n0x10 0 0\n${rows(7)}`, 2, /"0x10" is not a number/],
    ['a number beyond range', `LUT_3D_SIZE 2\n1e300 0 0\n${rows(7)}`, 2, /beyond the range/],
    ['size 1', 'LUT_3D_SIZE 1\n0 0 0', 1, /size of 1 is refused/],
    ['size 300', 'LUT_3D_SIZE 300\n0 0 0', 1, /size of 300 is refused/],
    ['size 4096', 'LUT_3D_SIZE 4096\n0 0 0', 1, /size of 4096 is refused/],
    ['a size that is no number', 'LUT_3D_SIZE two\n0 0 0', 1, /one whole number/],
    ['two sizes of one kind', 'LUT_3D_SIZE 2\nLUT_3D_SIZE 2\n', 2, /given twice/],
    [
      'a shaper whose cube is cut short',
      `LUT_1D_SIZE 2\nLUT_3D_SIZE 2\n${rows(9)}\n${' '.repeat(20)}`,
      12,
      /9 rows, its size asks for 10/,
    ],
    ['a range upside down', `LUT_1D_SIZE 2\nLUT_1D_INPUT_RANGE 1 1\n${rows(2)}`, 2, /begin below its end/],
    ['a missing size', rows(8), 1, /before the size is given/],
    ['text that is no word', `<html>\n${cube2}`, 1, /"<html>" is no keyword and no row/],
    ['a keyword among the rows', `LUT_3D_SIZE 2\n${rows(4)}\nTITLE "late"\n${rows(4)}`, 6, /keywords belong before/],
    ['two numbers in a row', `LUT_3D_SIZE 2\n0 0\n${rows(7)}`, 2, /three numbers, 2 are given/],
    [
      'a domain upside down',
      `LUT_3D_SIZE 2\nDOMAIN_MIN 1 0 0\nDOMAIN_MAX 1 1 1\n${rows(8)}`,
      2,
      /DOMAIN_MIN must lie below/,
    ],
    ['an endless line', `# ${'x'.repeat(5000)}\n${cube2}`, 1, /longer than/],
  ])('%s is refused with its line', (_, text, line, reason) => {
    const error = fault(text)
    expect(error.message).toMatch(reason)
    expect(error.line).toBe(line)
    expect(error.message).toMatch(new RegExp(`^Line ${line}: `))
  })

  test.each([
    ['an empty file', ''],
    ['comments only', '# nothing\n'],
    ['a binary file', 'LUT_3D_SIZE 2\n\0\0'],
  ])('%s is refused', (_, text) => {
    expect(fault(text).line).toBe(0)
  })

  test('a size that the text cannot fill is refused before anything is allocated', () => {
    const before = process.memoryUsage().arrayBuffers
    expect(fault('LUT_3D_SIZE 129\n0 0 0\n').message).toMatch(/more than a file of this length can hold/)
    expect(process.memoryUsage().arrayBuffers - before).toBeLessThan(1_000_000)
  })

  test('whatever is thrown at it, it reads or refuses', () => {
    const token = fc.oneof(
      fc.constantFrom(
        'LUT_3D_SIZE',
        'LUT_1D_SIZE',
        'TITLE',
        'DOMAIN_MIN',
        'DOMAIN_MAX',
        '2',
        '0',
        '1e9',
        'nan',
        '"a"',
        '#',
        '\n',
        '\r\n',
        ' ',
        '0 0 0\n',
        '-',
        '.',
      ),
      fc.string({ maxLength: 6 }),
    )
    fc.assert(
      fc.property(fc.array(token, { maxLength: 60 }), (tokens) => {
        try {
          return finite(parseCube(tokens.join(' ')))
        } catch (error) {
          return error instanceof FormatError
        }
      }),
      { numRuns: 3000 },
    )
  })

  test('a mutated good file is read or refused', () => {
    fc.assert(
      fc.property(
        fc.nat(cube2.length - 1),
        fc.string({ minLength: 1, maxLength: 3 }),
        fc.nat(20),
        (at, insert, cut) => {
          try {
            return finite(parseCube(cube2.slice(0, at) + insert + cube2.slice(at + cut)))
          } catch (error) {
            return error instanceof FormatError
          }
        },
      ),
      { numRuns: 3000 },
    )
  })
})

test('what is printed is read back', () => {
  const lut = table(cube2)
  const text = printCube({ ...lut, title: 'With "marks"' }, ['first\nnote'])
  expect(text.startsWith('TITLE "With \'marks\'"\n# first note\n')).toBe(true)
  expect([...table(text).data]).toEqual([...lut.data])
})

test('every way of writing a number gives what Number() gives, in single precision', () => {
  const digits = fc.stringMatching(/^[0-9]{1,18}$/)
  const value = fc
    .oneof(
      fc
        .tuple(
          fc.constantFrom('', '-', '+'),
          fc.stringMatching(/^[0-9]{1,6}$/),
          fc.constantFrom('', '.'),
          fc.constantFrom('', 'e-3', 'E+1'),
        )
        .map((parts) => parts.join('')),
      fc
        .tuple(fc.constantFrom('', '-'), fc.stringMatching(/^[0-9]{0,3}$/), digits)
        .map(([sign, whole, rest]) => `${sign}${whole}.${rest}`),
    )
    .filter((word) => Math.abs(Number(word)) <= 1e6)
  fc.assert(
    fc.property(
      fc.array(fc.tuple(value, value, value), { minLength: 8, maxLength: 8 }),
      fc.constantFrom(' ', '\t', '   '),
      fc.constantFrom('\n', '\r\n', ' \n'),
      (written, gap, end) => {
        const { data } = table(`LUT_3D_SIZE 2\n${written.map((row) => row.join(gap)).join(end)}${end}`)
        written.flat().forEach((word, i) => expect(data[i]).toBe(Math.fround(Number(word))))
      },
    ),
    { numRuns: 300 },
  )
})

test('a row that is less than plain is still refused with its line', () => {
  const broken = (row: string): string => `LUT_3D_SIZE 2\n0 0 0\n1 0 0\n${row}\n${'0.25 0.5 1\n'.repeat(5)}`
  for (const row of [
    '0 0',
    '0 0 0 0',
    '0 0 0,5',
    '0 . 0',
    '0 0 1.2.3',
    '0 0 --1',
    '1000001 0 0',
    '0 0 0x1',
    `0 0${' '.repeat(2000)}0`,
  ])
    expect(fault(broken(row)).line).toBe(4)
})
