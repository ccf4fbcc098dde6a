import fc from 'fast-check'
import { cdlOf, cdlParameters, type CdlNumbers } from '../grade'
import { parseCdl, printCdl } from './cdl'

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true }).map((v) => Number(v.toPrecision(8)))
const triple = (min: number, max: number) => fc.tuple(number(min, max), number(min, max), number(min, max))
const numbers: fc.Arbitrary<CdlNumbers> = fc.record({
  slope: triple(0, 4),
  offset: triple(-1, 1),
  power: triple(0.1, 4),
  saturation: number(0, 3),
})

test('what is written is read back as it was, in all three kinds of file', () => {
  fc.assert(
    fc.property(numbers, numbers, (a, b) => {
      const two = [
        { id: 'Glaze & shelf <1>', cdl: a },
        { id: 'B', cdl: b },
      ]
      for (const kind of ['ccc', 'cdl'] as const)
        expect(parseCdl(printCdl(two, kind)).map((c) => c.cdl)).toEqual([a, b])
      expect(parseCdl(printCdl([two[1]!], 'cc'))).toEqual([{ id: 'B', cdl: b }])
      expect(cdlOf(cdlParameters(a))).toEqual(a)
    }),
  )
})

test('an older list with other spelling and comments is read; what it leaves out is neutral', () => {
  const text =
    '<?xml version="1.0"?><!-- x --><asc:ColorCorrectionCollection ' +
    'xmlns:asc="urn:ASC:CDL:v1.2"><asc:ColorCorrection id="k"><SopNode><Slope>1.1  1 ' +
    '0.9</Slope></SopNode><SATNode><Saturation>0.5</Saturation></SATNode>' +
    '</asc:ColorCorrection></asc:ColorCorrectionCollection>'
  expect(parseCdl(text)).toEqual([
    { id: 'k', cdl: { slope: [1.1, 1, 0.9], offset: [0, 0, 0], power: [1, 1, 1], saturation: 0.5 } },
  ])
})

test.each([
  ['no XML', 'hello', /XML|no ColorCorrection/],
  ['cut off', '<ColorCorrection id="a"><SOPNode>', /Line 1/],
  ['entities', '<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><ColorCorrection id="&b;"/>', /document type/],
  [
    'too few numbers',
    '<ColorCorrection id="q"><SOPNode><Slope>1 2</Slope></SOPNode></ColorCorrection>',
    /"q": Slope must be 3 numbers/,
  ],
  ['no numbers', '<ColorCorrection><SOPNode><Offset>0 nan 0</Offset></SOPNode></ColorCorrection>', /Offset/],
  ['a power of zero', '<ColorCorrection><SOPNode><Power>1 0 1</Power></SOPNode></ColorCorrection>', /above zero/],
  ['nothing in it', '<ColorDecisionList/>', /no ColorCorrection/],
  ['far too large', `<a>${'x'.repeat(5 * 1024 * 1024)}</a>`, /4 MB/],
])('%s is refused with its reason', (_, text, words) => {
  expect(() => parseCdl(text)).toThrow(words)
})

test('two corrections do not fit into a .cc', () => {
  const cdl: CdlNumbers = { slope: [1, 1, 1], offset: [0, 0, 0], power: [1, 1, 1], saturation: 1 }
  expect(() =>
    printCdl(
      [
        { id: 'a', cdl },
        { id: 'b', cdl },
      ],
      'cc',
    ),
  ).toThrow(RangeError)
})
