import fc from 'fast-check'
import { EditListError, eventRanges } from './edit-list'
import { parseEdl, printEdl } from './edl'
import { parseOtio, printOtio } from './otio'

const film = { rateNumerator: 24, rateDenominator: 1 }
const list = `TITLE: Made up
FCM: NON-DROP FRAME

001  AX       V     C        00:00:10:00 00:00:12:00 01:00:00:00 01:00:02:00
* FROM CLIP NAME: Glaze shelf
002  R12      V     C        00:00:00:00 00:00:00:00 01:00:02:00 01:00:02:00
002  R13      V     D    012 00:00:05:00 00:00:08:00 01:00:02:00 01:00:05:00
* FROM CLIP NAME: Glaze shelf
* TO CLIP NAME: Potter
M2   R13      048.0                00:00:05:00
003  AX       A     C        00:00:00:00 00:00:05:00 01:00:00:00 01:00:05:00
004  NIGHT    V     W001 024 00:00:00:00 00:00:01:12 01:00:05:00 01:00:06:12
`

describe('edit decision lists', () => {
  test('picture events in programme time, with names and transitions', () => {
    expect(parseEdl(list, film)).toEqual([
      { name: 'Glaze shelf', first: 0, count: 48, transition: 0 },
      { name: 'Potter', first: 48, count: 72, transition: 12 },
      { name: 'NIGHT', first: 120, count: 36, transition: 24 },
    ])
  })
  test('frames count from a given start', () => {
    expect(parseEdl(list, film, '00:59:58:00')[0]).toMatchObject({ first: 48 })
  })
  test.each<[string, string, RegExp]>([
    ['an unreadable event', list.replace('01:00:02:00\n* FROM', '01:00\n* FROM'), /^Line 4: "01:00" is not a timecode/],
    [
      'an event that ends before it begins',
      '001 AX V C 00:00:00:00 00:00:01:00 01:00:02:00 01:00:01:00',
      /^Line 1: The event ends/,
    ],
    [
      'a frame the rate does not have',
      '001 AX V C 00:00:00:00 00:00:01:00 01:00:02:24 01:00:03:00',
      /^Line 1: .*a second has 24/,
    ],
    ['something else on a line of its own number', '7 potatoes', /^Line 1: This is not an event/],
    ['no event', 'TITLE: empty\n', /no picture event/],
  ])('%s is refused with its line', (_, text, reason) => {
    expect(() => parseEdl(text, film)).toThrow(reason)
    expect(() => parseEdl(text, film)).toThrow(EditListError)
  })
  test('what is printed is read back', () => {
    const events = [
      { name: 'One', first: 0, count: 40, transition: 0 },
      { name: 'Two', first: 40, count: 31, transition: 16 },
    ]
    expect(parseEdl(printEdl('Töpferei', events, film), film)).toEqual(events)
  })
  test('corrections stand in comments, and reels may have spaces in their names', () => {
    const text = `001  Ashglaze reel 2  V     C        00:00:00:00 00:00:02:00 01:00:00:00 01:00:02:00
* ASC_SOP (1.1 0.9 1)(0.02 0 -0.01)(1 1.2 1)
* ASC_SAT 0.85
002  R13      V     D    012 00:00:05:00 00:00:08:00 01:00:02:00 01:00:05:00
`
    const cdl = { slope: [1.1, 0.9, 1], offset: [0.02, 0, -0.01], power: [1, 1.2, 1], saturation: 0.85 } as const
    const events = parseEdl(text, film)
    expect(events).toEqual([
      { name: 'Ashglaze reel 2', first: 0, count: 48, transition: 0, cdl },
      { name: 'R13', first: 48, count: 72, transition: 12 },
    ])
    expect(parseEdl(printEdl('Ashglaze', events, film), film)).toEqual(events)
    expect(parseOtio(printOtio('Ashglaze', events, 24), 24)).toEqual(events)
    expect(eventRanges(events, 60)[0]).toMatchObject({ cdl })
  })
  test.each([
    ['eight numbers', '* ASC_SOP (1 1 1)(0 0 0)(1 1)', /^Line 2: ASC_SOP needs/],
    ['a slope under nothing', '* ASC_SOP (-1 1 1)(0 0 0)(1 1 1)', /^Line 2: ASC_SOP needs/],
    ['a word', '* ASC_SAT much', /^Line 2: ASC_SAT needs/],
  ])('a correction of %s is refused with its line', (_, comment, reason) => {
    const event = '001 AX V C 00:00:00:00 00:00:02:00 01:00:00:00 01:00:02:00'
    expect(() => parseEdl(`${event}\n${comment}`, film)).toThrow(reason)
  })
  test('any text is read or refused, and nothing else happens', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 400 }), fc.nat(list.length), (noise, at) => {
        try {
          return parseEdl(list.slice(0, at) + noise + list.slice(at), film).every(
            (e) => e.count > 0 && Number.isInteger(e.first),
          )
        } catch (error) {
          return error instanceof EditListError
        }
      }),
      { numRuns: 400 },
    )
  })
})

const time = (value: number, rate = 24): object => ({ OTIO_SCHEMA: 'RationalTime.1', value, rate })
const range = (start: number, duration: number, rate = 24): object => ({
  OTIO_SCHEMA: 'TimeRange.1',
  start_time: time(start, rate),
  duration: time(duration, rate),
})
const timeline = (children: readonly object[]): string =>
  JSON.stringify({
    OTIO_SCHEMA: 'Timeline.1',
    name: 'Made up',
    tracks: {
      OTIO_SCHEMA: 'Stack.1',
      children: [
        { OTIO_SCHEMA: 'Track.1', kind: 'Audio', children: [] },
        { OTIO_SCHEMA: 'Track.1', kind: 'Video', children },
      ],
    },
  })

describe('OpenTimelineIO', () => {
  test('clips, gaps and transitions of the first picture track', () => {
    const text = timeline([
      { OTIO_SCHEMA: 'Clip.2', name: 'Shelf', source_range: range(100, 48), media_references: {} },
      { OTIO_SCHEMA: 'Gap.1', source_range: range(0, 12) },
      { OTIO_SCHEMA: 'Transition.1', in_offset: time(6), out_offset: time(6) },
      {
        OTIO_SCHEMA: 'Clip.2',
        name: '',
        source_range: null,
        active_media_reference_key: 'DEFAULT_MEDIA',
        media_references: { DEFAULT_MEDIA: { available_range: range(0, 60, 30) } },
      },
    ])
    expect(parseOtio(text, 24)).toEqual([
      { name: 'Shelf', first: 0, count: 48, transition: 0 },
      { name: 'Clip 2', first: 60, count: 48, transition: 12 },
    ])
  })
  test('rounding does not add up over many clips', () => {
    const events = parseOtio(
      timeline(Array.from({ length: 30 }, () => ({ OTIO_SCHEMA: 'Clip.1', source_range: range(0, 10.4) }))),
      24,
    )
    expect(events.at(-1)!.first + events.at(-1)!.count).toBe(312)
    events.slice(1).forEach((e, i) => expect(e.first).toBe(events[i]!.first + events[i]!.count))
  })
  test.each<[string, string, RegExp]>([
    ['no JSON', 'TITLE:', /not JSON/],
    ['other JSON', '{"OTIO_SCHEMA":"Clip.1"}', /not an OpenTimelineIO timeline/],
    ['no track', '{"OTIO_SCHEMA":"Timeline.1"}', /no picture track/],
    ['no clip', timeline([]), /no clip/],
    [
      'a length that is no time',
      timeline([{ OTIO_SCHEMA: 'Clip.1', source_range: range(0, 1, 0) }]),
      /Item 1 .* no time/,
    ],
    ['a negative length', timeline([{ OTIO_SCHEMA: 'Clip.1', source_range: range(0, -5) }]), /no time/],
  ])('%s is refused', (_, text, reason) => {
    expect(() => parseOtio(text, 24)).toThrow(reason)
  })
})

test('ranges of a clip: handles where there is footage, events outside left out', () => {
  const events = [
    { name: 'a', first: -10, count: 20, transition: 0 },
    { name: 'b', first: 10, count: 30, transition: 0 },
    { name: 'c', first: 200, count: 10, transition: 0 },
  ]
  expect(eventRanges(events, 50, 8).map(({ name, first, count }) => [name, first, count])).toEqual([
    ['a', 0, 18],
    ['b', 2, 46],
  ])
})

test('a line that is longer than any event is refused with its number; spaces before a line end cost nothing', () => {
  const event = '001  AX V C 00:00:00:00 00:00:01:00 00:00:00:00 00:00:01:00'
  const spaces = `* FROM CLIP NAME:${' '.repeat(120_000)}\u2028x`
  // A line separator inside a line once made the search for a name look at every run of spaces anew.
  expect(parseEdl(`${event}\n${spaces}`, film)).toHaveLength(1)
  const long = `${event}\n* ${'x'.repeat(5000)}`
  expect(() => parseEdl(long, film)).toThrow(/^Line 2: The line is longer than 4000/)
  expect(parseEdl(`${event}\n* FROM CLIP NAME:  Glaze shelf`, film)[0]?.name).toBe('Glaze shelf')
})
