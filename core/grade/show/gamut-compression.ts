// Gamut compression: purity beyond a threshold is drawn toward the neutral axis, so that shading in pure colours stays.
import type { Operation } from '../operation'

/**
 * Distance from the neutral axis per channel, d = (m − c)/m with m = max(R, G, B); above `threshold` it is bent so that
 * `limit` lands on 1, the edge of the display: the parametric form of AMPAS TB-2021 (reference gamut compression),
 * exponent 1.2.
 * @param threshold 0..1 @param limit above 1
 */
export const gamutCompression = (threshold: number, limit: number): Operation => ({
  kind: 'relative',
  curve: compressedPurity(threshold, limit),
})

/** The same as a curve of c/m, each component over the largest. */
export function compressedPurity(threshold: number, limit: number): (share: number) => number {
  const power = 1.2
  const scale = (limit - threshold) / (((1 - threshold) / (limit - threshold)) ** -power - 1) ** (1 / power)
  return (share) => {
    const over = (1 - share - threshold) / scale
    return over <= 0 ? share : 1 - threshold - (scale * over) / (1 + over ** power) ** (1 / power)
  }
}
