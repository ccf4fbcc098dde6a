// Look up: from what a data sheet says (black, 18 % grey, 90 % white) to the encodings that fit, or to a fitted one.
import { encodings, type Encoding, type LinLogParameters } from '../colour'
import type { CodeRange } from '../image'
import { linLogThrough } from './fit'

/** Full-range code values of 0..1; what the sheet does not say is left out. */
export interface SheetValues {
  readonly black?: number
  readonly grey?: number
  readonly white90?: number
}
const lightOf: Readonly<Record<keyof SheetValues, number>> = { black: 0, grey: 0.18, white90: 0.9 }

export interface LookupMatch {
  readonly encoding: Encoding
  /** Largest difference from the sheet, in 10-bit codes. */
  readonly errorCodes: number
  readonly withinTolerance: boolean
}

export interface LookupAnswer {
  /** Ranked, best first. */
  readonly matches: readonly LookupMatch[]
  /** A curve through the sheet's values, when nothing known is within tolerance and all three values are given. */
  readonly fitted: LinLogParameters | null
}

/** Data sheets round to whole codes or tenths of a percent. */
export const lookupToleranceCodes = 1.5

/** Throws RangeError when nothing is given, or when the values do not rise from black to white. */
export function lookUpEncoding(values: SheetValues): LookupAnswer {
  const given = (['black', 'grey', 'white90'] as const).flatMap((key) =>
    values[key] === undefined ? [] : [{ key, code: values[key] }],
  )
  if (given.length === 0) throw new RangeError('At least one of black, grey and 90 % white is needed.')
  given.forEach(({ key, code }, i) => {
    if (!Number.isFinite(code) || code < -0.1 || code > 1.1)
      throw new RangeError(`${key} lies outside what codes can be.`)
    const before = given[i - 1]
    if (before && code <= before.code) throw new RangeError(`${key} must lie above ${before.key}.`)
  })
  const matches = encodings
    .map((encoding): LookupMatch => {
      const errorCodes = Math.max(
        ...given.map(({ key, code }) => Math.abs(encoding.curve.encode(lightOf[key]) - code) * 1023),
      )
      return { encoding, errorCodes, withinTolerance: errorCodes <= lookupToleranceCodes }
    })
    .sort((a, b) => a.errorCodes - b.errorCodes)
  const { black, grey, white90 } = values
  const known = matches.some((m) => m.withinTolerance)
  const fitted =
    !known && black !== undefined && grey !== undefined && white90 !== undefined
      ? linLogThrough(black, grey, white90)
      : null
  return { matches, fitted }
}

/**
 * Legal-range codes 64–940 of 10 bits as a share of full range, and codes and percentages of either (ITU-R BT.709-6,
 * item 4.6).
 */
function toFullRange(share: number, range: CodeRange): number {
  return range === 'full' ? share : (64 + share * 876) / 1023
}

/**
 * Reads a value as data sheets print it: "41.1%", "420", "420/1023", "95/4095", "0.41". A percentage is a share of the
 * given range; a code counts from zero whatever the range, and a bare whole number over 1 is a code of 10 bits. Throws
 * RangeError for anything else.
 */
export function parseSheetValue(text: string, range: CodeRange): number {
  const trimmed = text.trim().replace(',', '.')
  const percent = /^(-?\d+(?:\.\d+)?)\s*%$/.exec(trimmed)
  if (percent) return toFullRange(Number(percent[1]) / 100, range)
  const code = /^(\d+(?:\.\d+)?)\s*\/\s*(255|1023|4095|65535)$/.exec(trimmed)
  if (code) {
    const top = Number(code[2])
    if (Number(code[1]) > top) throw new RangeError(`"${trimmed.slice(0, 40)}" is a code above its own range.`)
    return Number(code[1]) / top
  }
  if (/^-?\d+(?:\.\d+)?$/.test(trimmed)) {
    const value = Number(trimmed)
    if (value > 1 && value <= 1023) return value / 1023
    if (value >= -0.1 && value <= 1) return toFullRange(value, range)
  }
  throw new RangeError(`"${text.slice(0, 40)}" is no level; write 41.1%, 420/1023 (or /255, /4095), or 0.411.`)
}
