// Which known encoding explains a grey scale or a bracketed card: light known up to one exposure, codes measured.
import { encodings, type Encoding } from '../colour'
import type { Patch } from './fit'

export interface CardMatch {
  readonly encoding: Encoding
  /** The exposure error that fits best, in stops. */
  readonly exposureStops: number
  /** Root mean square of what remains, in 10-bit codes. */
  readonly errorCodes: number
}

/**
 * Ranks all encodings by how well they explain patches whose light is known up to a common factor. Residuals are
 * counted in code, where noise is nearly even; the exposure is searched within ±4 stops. Throws RangeError for fewer
 * than three patches.
 */
export function matchPatches(patches: readonly Patch[]): readonly CardMatch[] {
  if (patches.length < 3) throw new RangeError(`At least three patches are needed; ${patches.length} given.`)
  return encodings.map((encoding) => matchOne(encoding, patches)).sort((a, b) => a.errorCodes - b.errorCodes)
}

function matchOne(encoding: Encoding, patches: readonly Patch[]): CardMatch {
  const { encode } = encoding.curve
  const errorAt = (stops: number): number => {
    const gain = 2 ** stops
    return (
      Math.sqrt(
        patches.reduce(
          (sum, { code, linear }) => sum + (Math.min(Math.max(encode(linear * gain), 0), 1) - code) ** 2,
          0,
        ) / patches.length,
      ) * 1023
    )
  }
  let best = 0
  let step = 0.25
  for (let stops = -4; stops <= 4; stops += step) if (errorAt(stops) < errorAt(best)) best = stops
  for (; step > 1e-4; step /= 2)
    for (const stops of [best - step, best + step]) if (errorAt(stops) < errorAt(best)) best = stops
  return { encoding, exposureStops: best, errorCodes: errorAt(best) }
}
