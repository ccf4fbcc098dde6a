// Every parser and every body, on spoiled files of a small corpus: each is read, to something that can be used, or
// refused with a sentence, and soon. A moment of each on every submission, a third of a minute with PALE_THOROUGH=1.
import fc from 'fast-check'
import { readdirSync, readFileSync } from 'node:fs'
import { extname, join } from 'node:path'
import { ContractError } from '@contracts/check'
import { JsonError, largeBodies, readJson, type LargeBody } from '@contracts/index'
import { decodePng, EditListError, FormatError, parseCdl, parseEdl, parseLutFile, parseOtio } from '@core/formats'
import { isPng, pngHeader, withoutAncillary } from '@core/formats'
import { buildChain, evaluateDirect, framePositions, type GradeDocument } from '@core/grade'
import { applyLut, unpackLut, type Lut } from '@core/luts'
import { decoderLog } from '@media/decoder-log'
import { pictureHeader } from '@media/picture-header'
import { thorough } from '../support/thorough'
import { spoiledBytes, spoiledJson } from './mutations'

const folder = 'tests/fixtures/fuzz'
const longest = thorough ? { runs: 1e9, ms: 20_000 } : { runs: 120, ms: 30_000 }
/** Only what hangs takes so long, on however slow a machine. */
const longestMs = 10_000

const corpus = (...extensions: readonly string[]): readonly Buffer[] => {
  const names = readdirSync(folder).filter((name) => extensions.includes(extname(name)))
  if (names.length === 0) throw new Error(`The corpus has no ${extensions.join(', ')}.`)
  return names.map((name) => readFileSync(join(folder, name)))
}
const text = (bytes: Uint8Array): string => Buffer.from(bytes).toString('utf8')

/**
 * Runs `read` on the sound inputs, which it takes, and on spoiled ones for its time: it ends soon, and throws nothing
 * but what is meant for a person.
 */
function fuzz<T extends Buffer | string>(
  sound: readonly T[],
  spoiled: fc.Arbitrary<T>,
  read: (input: T) => void,
): void {
  sound.forEach(read)
  let runs = 0
  fc.assert(
    fc.property(spoiled, (one) => {
      runs++
      const begun = performance.now()
      try {
        read(one)
      } catch (error) {
        const expected = [FormatError, EditListError, ContractError, JsonError].some((kind) => error instanceof kind)
        if (!expected) throw error
        expect((error as Error).message).toMatch(/\S+ \S+/)
        expect((error as Error).message.length).toBeLessThan(400)
      }
      expect(performance.now() - begun).toBeLessThan(longestMs)
    }),
    { numRuns: longest.runs, interruptAfterTimeLimit: longest.ms, markInterruptAsFailure: false, endOnFailure: true },
  )
  expect(runs).toBeGreaterThan(20)
}
const fuzzFiles = (files: readonly Buffer[], read: (bytes: Buffer) => void): void =>
  fuzz(files, spoiledBytes(files), read)

function requireNumbers(lut: Lut): void {
  const pixels = Float64Array.of(0, 0, 0, 0.1, 0.5, 0.9, 1, 1, 1)
  applyLut(lut, pixels, 'tetrahedral')
  expect([...pixels].some((v) => Number.isNaN(v))).toBe(false)
}

describe('files', () => {
  test('LUT files of every kind', () =>
    fuzzFiles(corpus('.cube', '.clf', '.csv', '.png'), (bytes) => requireNumbers(parseLutFile(bytes, text).lut)))

  test('packed LUTs', () => {
    fuzzFiles(corpus('.packed'), (bytes) => {
      const lut = unpackLut(bytes)
      if (lut) requireNumbers(lut)
    })
  })

  test('pictures', () =>
    fuzzFiles(corpus('.png'), (bytes) => {
      if (!isPng(bytes)) return
      const header = pngHeader(bytes)
      withoutAncillary(bytes)
      // Larger ones are refused by their header before they are decoded.
      if (header.width * header.height < 1e6) decodePng(bytes, header)
    }))

  test('edit lists', () => {
    fuzzFiles(corpus('.edl'), (bytes) => {
      const events = parseEdl(text(bytes), { rateNumerator: 24, rateDenominator: 1 })
      expect(events.every((e) => Number.isInteger(e.first) && e.count > 0)).toBe(true)
    })
    fuzzFiles(corpus('.otio'), (bytes) => {
      expect(parseOtio(text(bytes), 24).every((e) => Number.isInteger(e.first))).toBe(true)
    })
  })

  test('colour decisions', () => {
    fuzzFiles(corpus('.cdl', '.ccc'), (bytes) => {
      for (const { slope, offset, power, saturation } of parseCdl(text(bytes)).map((c) => c.cdl))
        expect([...slope, ...offset, ...power, saturation].every(Number.isFinite)).toBe(true)
    })
  })

  test('headers of pictures', () => {
    fuzzFiles(corpus('.exr', '.dpx'), (bytes) => {
      const header = pictureHeader(bytes)
      if (header) expect(header.said.length).toBeLessThan(1000)
    })
  })

  test('what decoders say', () => {
    fuzzFiles(corpus('.txt'), (bytes) => {
      const log = decoderLog()
      log.take(text(bytes))
      expect(log.faults().length + log.sizes().length).toBeLessThan(50)
    })
  })
})

describe('bodies', () => {
  const bodies = readdirSync(folder).filter((name) => name.endsWith('.json'))
  const kinds = Object.keys(largeBodies) as LargeBody[]

  test('each kind has one in the corpus', () => {
    const named = new Set(bodies.map((name) => name.split('.')[0]))
    expect([...named].sort()).toEqual([...kinds].sort())
  })

  test.each(kinds)('%s', (kind) => {
    const documents = bodies
      .filter((name) => name.split('.')[0] === kind)
      .map((name) => readFileSync(join(folder, name), 'utf8'))
    fuzz(documents, spoiledJson(documents.map((json) => JSON.parse(json) as object)), (body) => {
      const taken = largeBodies[kind](readJson(body))
      if ('grade' in taken) requireUsable(taken.grade)
    })
  })

  test.each(kinds)('%s with a list where an object belongs', (kind) => {
    const names = bodies.filter((name) => name.split('.')[0] === kind)
    const spoiled = names.flatMap((name) => listsForObjects(JSON.parse(readFileSync(join(folder, name), 'utf8'))))
    for (const body of spoiled) expect(() => largeBodies[kind](body)).toThrow(ContractError)
  })

  test.each(kinds)('%s as text that is no JSON', (kind) => {
    const documents = bodies
      .filter((name) => name.split('.')[0] === kind)
      .map((name) => readFileSync(join(folder, name)))
    fuzzFiles(documents, (bytes) => {
      largeBodies[kind](readJson(text(bytes)))
    })
  })
})

/** The body once for every object in it that an empty list, or a list of one, takes the place of. */
function listsForObjects(whole: unknown): readonly unknown[] {
  const places = (value: unknown, path: readonly string[]): readonly (readonly string[])[] =>
    typeof value !== 'object' || value === null
      ? []
      : [
          ...(Array.isArray(value) ? [] : [path]),
          ...Object.entries(value).flatMap(([key, inner]) => places(inner, [...path, key])),
        ]
  const put = (value: unknown, [key, ...rest]: readonly string[], list: readonly unknown[]): unknown => {
    if (key === undefined) return list
    const inner = put((value as Record<string, unknown>)[key], rest, list)
    return Array.isArray(value) ? value.with(Number(key), inner) : { ...(value as object), [key]: inner }
  }
  return places(whole, []).flatMap((path) => [[], [[[]]]].map((list) => put(whole, path, list)))
}

/** A grade that was accepted can be shown: every colour through it is a number. */
function requireUsable(grade: GradeDocument): void {
  const pixels = Float64Array.of(0, 0, 0, 0.1, 0.5, 0.9, 1, 1, 1, -0.05, 0.4, 1.08)
  evaluateDirect(
    buildChain(grade, () => undefined),
    pixels,
    framePositions(2, 2, 1),
  )
  expect([...pixels].every(Number.isFinite)).toBe(true)
}
