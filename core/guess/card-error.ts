// What a picked grey card says of a candidate: how far its light lies from 18 %, and how far from neutral.
import { middleGrey, transform, type Encoding } from '../colour'
import type { CodeRange } from '../image'
import { candidatesFor, rereadCode } from './candidates'

export interface CardError {
  /** Decoded luminance over 18 %, in stops; NaN where the card has no light. */
  readonly stops: number
  /** Largest channel over the smallest, less 1, in the working space: 0 is neutral. */
  readonly cast: number
}

/** `codes` are the card's mean R, G, B as read by the flagged range. Throws RangeError for an unknown candidate. */
export function cardError(
  codes: readonly [number, number, number],
  flagged: CodeRange,
  encodingId: string,
  range: CodeRange,
  own: readonly Encoding[] = [],
): CardError {
  const candidate = candidatesFor(flagged, undefined, own).find(
    (c) => c.encoding.id === encodingId && c.range === range,
  )
  if (!candidate) throw new RangeError(`There is no candidate "${encodingId}".`)
  const { decode } = candidate.encoding.curve
  const [r, g, b] = transform(
    candidate.toWorking,
    codes.map((code) => decode(rereadCode(code, flagged, range))) as unknown as [number, number, number],
  )
  const least = Math.min(r, g, b)
  const luminance = 0.27 * r + 0.67 * g + 0.06 * b
  return {
    stops: luminance > 0 ? Math.log2(luminance / middleGrey) : NaN,
    cast: least > 0 ? Math.max(r, g, b) / least - 1 : NaN,
  }
}
