// The chromaticity view: colours of display light on the CIE 1976 u′, v′ diagram, every pixel counted.
import { gamutById, lightOfSignal, rgbToXyz, type Chromaticity, type Display } from '../colour'
import type { Frame } from '../image'

/** The diagram spans 0 to this in u′ and v′. */
export const chromaticitySpan = 0.65

/** u′, v′ of CIE 1931 x, y (CIE 15:2018, clause 8.2.2). */
export function uvPrime({ x, y }: Chromaticity): readonly [number, number] {
  const d = -2 * x + 12 * y + 3
  return [(4 * x) / d, (9 * y) / d]
}

/** Light darker than this share of white says nothing of colour. */
const leastLight = 1e-4

/**
 * Counts rows `from` up to `to` of display signal: [row · cells + column], column rising with u′ and row with v′.
 * `mask` as in ScopeWishes. Pixels without light are not counted.
 */
export function countChromaticity(
  { width, data }: Frame,
  display: Display,
  cells: number,
  from: number,
  to: number,
  mask?: Uint8Array,
): Uint32Array {
  const counts = new Uint32Array(cells * cells)
  const light = lightOfSignal(display)
  const perCell = cells / chromaticitySpan
  const [m0, m1, m2, m3, m4, m5, m6, m7, m8] = rgbToXyz(gamutById(display.gamutId))
  const { decode } = display.eotf
  // Where no OOTF mixes the channels, a table per code does.
  const table =
    display.systemGamma === undefined ? Float32Array.from({ length: 4096 }, (_, i) => decode((i + 0.5) / 4096)) : null
  for (let p = from * width, i = p * 3; p < to * width; p++, i += 3) {
    if (mask && mask[p] === 0) continue
    let r: number
    let g: number
    let b: number
    if (table) {
      r = table[data[i] >> 4]
      g = table[data[i + 1] >> 4]
      b = table[data[i + 2] >> 4]
    } else [r, g, b] = light(data[i] / 65535, data[i + 1] / 65535, data[i + 2] / 65535)
    const x = m0 * r + m1 * g + m2 * b
    const y = m3 * r + m4 * g + m5 * b
    const z = m6 * r + m7 * g + m8 * b
    if (y < leastLight) continue
    const d = perCell / (x + 15 * y + 3 * z)
    const column = (4 * x * d) | 0
    const row = (9 * y * d) | 0
    if (column >= 0 && row >= 0 && column < cells && row < cells) counts[row * cells + column]++
  }
  return counts
}
