// What a camera operator asks of an encoding: reach in stops, levels for zebra, and how many codes each stop is given.
import type { Encoding } from './encodings'
import { middleGrey } from './working-space'

export interface StopCodes {
  /** The stop from `from` to `from` + 1, counted from middle grey. */
  readonly from: number
  readonly codes8: number
  readonly codes10: number
}

export interface EncodingFacts {
  /** Codes of 10 bits, full range. */
  readonly blackCode: number
  readonly greyCode: number
  readonly white90Code: number
  readonly clipLinear: number
  readonly stopsAboveGrey: number
  /** Down to the light of one 10-bit code over black. */
  readonly stopsBelowGrey: number
  /** Levels in % of full range, as a monitor's zebra is set. */
  readonly zebraGreyPercent: number
  readonly zebraWhitePercent: number
  readonly stops: readonly StopCodes[]
}

export function encodingFacts({ curve: { encode, decode } }: Pick<Encoding, 'curve'>): EncodingFacts {
  const black = encode(0)
  const grey = encode(middleGrey)
  const white = encode(0.9)
  const clip = decode(1)
  const above = Math.log2(clip / middleGrey)
  const faintest = Math.max(decode(black + 1 / 1023), 1e-9)
  const below = Math.log2(middleGrey / faintest)
  const stops: StopCodes[] = []
  for (let from = -Math.min(12, Math.ceil(below)); from < Math.min(16, above); from++) {
    const share = Math.min(1, encode(middleGrey * 2 ** (from + 1))) - encode(middleGrey * 2 ** from)
    stops.push({ from, codes8: share * 255, codes10: share * 1023 })
  }
  return {
    blackCode: black * 1023,
    greyCode: grey * 1023,
    white90Code: white * 1023,
    clipLinear: clip,
    stopsAboveGrey: above,
    stopsBelowGrey: below,
    zebraGreyPercent: grey * 100,
    zebraWhitePercent: white * 100,
    stops,
  }
}
