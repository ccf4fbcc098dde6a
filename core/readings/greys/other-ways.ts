// Four other ways to the colour of the light. Each fails on pictures of its own kind; where they agree, it is sure.
import type { Vector3 } from '../../colour'
import type { Uv } from '../white'
import { uvOfLight, type Blocks } from './blocks'

/** Light under this says nothing in logarithms. */
const leastLight = 1e-4

/**
 * - shades of grey: the mean of the fifth power of light is grey (Finlayson and Trezzi 2004);
 * - grey edge: so is that of the fourth power of its differences (van de Weijer et al. 2007);
 * - the brightest: the brightest three percent that do not clip are white;
 * - grey pixels: where the local contrast of all three channels is the same, the surface is grey (Qian et al. 2019).
 */
export function otherWays(blocks: Blocks): readonly Uv[] {
  const { lights, edges, greyness } = surroundings(blocks)
  const sumOf = ([r, g, b]: Vector3): number => r + g + b
  const brightest = [...lights].sort((a, b) => sumOf(b) - sumOf(a)).slice(0, Math.floor(lights.length * 0.03))
  const greyest = greyness
    .sort((a, b) => a.difference - b.difference)
    .slice(0, Math.max(30, Math.floor(greyness.length * 0.02)))
    .map((g) => g.light)
  return [minkowski(lights, 5), minkowski(edges, 4), minkowski(brightest, 1), minkowski(greyest, 1)].flatMap((mean) => {
    const uv = uvOfLight(mean)
    return uv ? [uv] : []
  })
}

function minkowski(values: readonly Vector3[], power: number): Vector3 {
  const sums: [number, number, number] = [0, 0, 0]
  for (const value of values) for (let c = 0; c < 3; c++) sums[c] += Math.abs(value[c]) ** power
  return [sums[0] ** (1 / power), sums[1] ** (1 / power), sums[2] ** (1 / power)]
}

interface Surroundings {
  /** Linear AP1 of every block that has all its neighbours. */
  readonly lights: readonly Vector3[]
  /** The size of the difference to the neighbours, by channel. */
  readonly edges: readonly Vector3[]
  readonly greyness: { readonly light: Vector3; readonly difference: number }[]
}

function surroundings({ across, down, light }: Blocks): Surroundings {
  const lights: Vector3[] = []
  const edges: Vector3[] = []
  const greyness: { light: Vector3; difference: number }[] = []
  const row = across * 3
  for (let y = 1; y + 1 < down; y++)
    for (let x = 1; x + 1 < across; x++) {
      const i = y * row + x * 3
      const edge: [number, number, number] = [0, 0, 0]
      const contrast: [number, number, number] = [0, 0, 0]
      for (let c = 0; c < 3; c++) {
        const at = i + c
        edge[c] = Math.hypot(light[at + 3] - light[at - 3], light[at + row] - light[at - row])
        let sum = 0
        for (let dy = -row; dy <= row; dy += row)
          for (let dx = -3; dx <= 3; dx += 3) sum += Math.max(leastLight, light[at + dy + dx])
        contrast[c] = Math.log(Math.max(leastLight, light[at])) - Math.log(sum / 9)
      }
      // Not a number where a block or a neighbour clips.
      if (Number.isNaN(contrast[0] + contrast[1] + contrast[2])) continue
      const here: Vector3 = [light[i], light[i + 1], light[i + 2]]
      lights.push(here)
      edges.push(edge)
      const strength = Math.hypot(...contrast)
      if (strength < 0.03 || (here[0] + here[1] + here[2]) / 3 < 0.01) continue
      const mean = (contrast[0] + contrast[1] + contrast[2]) / 3
      const difference = Math.hypot(contrast[0] - mean, contrast[1] - mean, contrast[2] - mean) / strength
      greyness.push({ light: here, difference })
    }
  return { lights, edges, greyness }
}
