// Neighbourhood stages on rows of RGBA floats: the Gaussian mean about every pixel, and moving away from it or toward
// it.
import { blur } from '../image'
import type { NeighbourhoodStage } from './stage'

type Kind = Pick<NeighbourhoodStage, 'deviation' | 'amount' | 'weights'>

/** The means of rows: of the weighted sum, one value per pixel; without weights of all channels, RGB triples. */
export function neighbourhoodMeans(
  { deviation, weights }: Kind,
  pixels: Float32Array,
  width: number,
  frameHeight: number,
): Float32Array {
  const count = pixels.length / 4
  const height = count / width
  if (weights) {
    const [wr, wg, wb] = weights
    const sums = new Float32Array(count)
    for (let p = 0, i = 0; p < count; p++, i += 4) sums[p] = wr * pixels[i] + wg * pixels[i + 1] + wb * pixels[i + 2]
    return blur({ width, height, values: sums }, deviation * frameHeight).values
  }
  const means = new Float32Array(count * 3)
  for (let c = 0; c < 3; c++) {
    const own = new Float32Array(count)
    for (let p = 0, i = c; p < count; p++, i += 4) own[p] = pixels[i]
    const mean = blur({ width, height, values: own }, deviation * frameHeight).values
    for (let p = 0, i = c; p < count; p++, i += 3) means[i] = mean[p]
  }
  return means
}

/** Moves every pixel by its distance from the mean, in place. */
export function applyNeighbourhood({ amount, weights }: Kind, means: Float32Array, pixels: Float32Array): void {
  if (weights) {
    const [wr, wg, wb] = weights
    for (let p = 0, i = 0; i < pixels.length; p++, i += 4) {
      const by = amount * (wr * pixels[i] + wg * pixels[i + 1] + wb * pixels[i + 2] - means[p])
      for (let c = i; c < i + 3; c++) pixels[c] += by
    }
    return
  }
  for (let p = 0, i = 0; i < pixels.length; p += 3, i += 4)
    for (let c = 0; c < 3; c++) pixels[i + c] += amount * (pixels[i + c] - means[p + c])
}
