// Files like this one: what files of one camera and setting share, so that what was settled for one is offered for the
// next. Keys and values stand as the file gives them; nothing here knows a maker.
import { createHash } from 'node:crypto'
import type { GuessSummary, MediaFacts } from '@contracts/index'

/** What differs from one file of a camera to its next: times, places, numbers that count on, names of files. */
const ofThisFileOnly =
  /\d{4}-\d\d-\d\d|\d\d:\d\d|\d{6,}|[0-9a-f]{8}-[0-9a-f]{4}|[+-]\d+\.\d+[+-]\d+\.\d+|\.(mov|mp4|mxf|mkv|avi)$/i

/** The highest code is told apart in so many steps. */
const ceilingSteps = 16

/** A fingerprint that files of one camera and setting share. */
export function likenessOf(
  {
    container,
    codec,
    storedFormat,
    width,
    height,
    range,
    rangeTagged,
    matrix,
    transfer = '',
    primaries = '',
    said = [],
  }: MediaFacts,
  { codeCeiling }: Pick<GuessSummary, 'codeCeiling'>,
): string {
  const lasting = said.filter(([, value]) => !ofThisFileOnly.test(value))
  const sides = [width, height].sort((a, b) => a - b)
  return createHash('sha256')
    .update(
      JSON.stringify([
        ...[container, codec, storedFormat, sides, range, rangeTagged, matrix],
        ...[Math.round(codeCeiling * ceilingSteps), transfer, primaries, lasting.map((pair) => pair.join('=')).sort()],
      ]),
    )
    .digest('hex')
}
