// What bad disks, bad hands and bad people do to bytes and to JSON; as generators, so that a fault can be made again.
import fc from 'fast-check'

const byteEdit = fc.record({
  at: fc.double({ min: 0, max: 1, noNaN: true }),
  how: fc.constantFrom('set', 'cut', 'double', 'turn', 'word', 'fill', 'end', 'many'),
  byte: fc.nat(255),
  length: fc.nat(60),
})
type ByteEdit = typeof byteEdit extends fc.Arbitrary<infer T> ? T : never

const words = ['nan', '-inf', '1e999', '-1', '4096', '99999999999', '</', '<!ENTITY a "b">', ';;;', '\0', '-', '\u2028']

function edited(bytes: Buffer, { at, how, byte, length }: ByteEdit): Buffer {
  const from = Math.floor(at * bytes.length)
  const to = Math.min(bytes.length, from + length)
  const part = bytes.subarray(from, to)
  const between: Readonly<Record<ByteEdit['how'], () => Buffer>> = {
    set: () => Buffer.from([byte]),
    cut: () => Buffer.alloc(0),
    double: () => Buffer.concat([part, part]),
    turn: () => Buffer.from(part).reverse(),
    word: () => Buffer.from(words[byte % words.length] ?? ''),
    fill: () => Buffer.alloc(length, byte),
    end: () => Buffer.alloc(0),
    // Long runs of one thing are what patterns that look back die of.
    many: () => Buffer.concat(Array.from({ length: 2000 }, () => part.subarray(0, 8))),
  }
  const tail = how === 'end' ? Buffer.alloc(0) : bytes.subarray(to)
  return Buffer.concat([bytes.subarray(0, from), between[how](), tail])
}

/** Files of a corpus, each spoiled in one to six places. */
export const spoiledBytes = (corpus: readonly Buffer[]): fc.Arbitrary<Buffer> =>
  fc
    .tuple(fc.constantFrom(...corpus), fc.array(byteEdit, { minLength: 1, maxLength: 6 }))
    .map(([file, edits]) => edits.reduce(edited, file))

const oddValues = [
  null,
  true,
  -1,
  0,
  0.5,
  1e300,
  -1e-300,
  4294967296,
  '',
  'x'.repeat(10_000),
  'NaN',
  '\u202e',
  [],
  {},
  [[[[]]]],
  { id: {} },
] as const

const jsonEdit = fc.record({
  /** Which of all the places in the document, by share. */
  at: fc.double({ min: 0, max: 1, noNaN: true }),
  how: fc.constantFrom('replace', 'remove', 'add', 'double', 'many', 'nest', 'swap', 'number'),
  odd: fc.nat(oddValues.length - 1),
  number: fc.double(),
})
type JsonEdit = typeof jsonEdit extends fc.Arbitrary<infer T> ? T : never

interface Place {
  readonly of: Record<string, unknown>
  readonly key: string
}

function placesIn(value: unknown, found: Place[] = []): readonly Place[] {
  if (typeof value !== 'object' || value === null) return found
  for (const key of Object.keys(value)) {
    found.push({ of: value as Record<string, unknown>, key })
    placesIn((value as Record<string, unknown>)[key], found)
  }
  return found
}

function spoil(document: object, { at, how, odd, number }: JsonEdit): void {
  const places = placesIn(document)
  const place = places[Math.min(places.length - 1, Math.floor(at * places.length))]
  if (!place) return
  const { of, key } = place
  const value = of[key]
  switch (how) {
    case 'replace':
      of[key] = structuredClone(oddValues[odd])
      return
    case 'remove':
      if (Array.isArray(of)) of.splice(Number(key), 1)
      else delete of[key]
      return
    case 'add':
      if (Array.isArray(of)) return
      of[['extra', 'id', 'length', 'toString', 'then'][odd % 5] ?? ''] = structuredClone(oddValues[odd])
      return
    case 'double':
      if (Array.isArray(value)) of[key] = [...(value as unknown[]), ...(structuredClone(value) as unknown[])]
      return
    case 'many':
      of[key] = Array.from({ length: 3000 }, () => (typeof value === 'object' ? {} : value))
      return
    case 'nest':
      for (let deep = 0; deep < 30; deep++) of[key] = { [key]: of[key] }
      return
    case 'swap': {
      const other = places[(places.indexOf(place) * 7 + odd) % places.length]
      if (other) of[key] = structuredClone(other.of[other.key])
      return
    }
    case 'number':
      of[key] = number
  }
}

/** JSON documents of a corpus as text, each spoiled in one to five places. */
export const spoiledJson = (corpus: readonly object[]): fc.Arbitrary<string> =>
  fc.tuple(fc.nat(corpus.length - 1), fc.array(jsonEdit, { minLength: 1, maxLength: 5 })).map(([which, edits]) => {
    const document = structuredClone(corpus[which] ?? {})
    for (const edit of edits) spoil(document, edit)
    return JSON.stringify(document)
  })
