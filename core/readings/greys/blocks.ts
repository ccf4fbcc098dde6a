// Blocks of a picture: means over a few pixels each, so that noise does not decide, with their colour on CIE 1960 u, v.
import { rgbToXyz, workingGamut, type Vector3 } from '../../colour'
import { workingLightOf, type MeasuredPicture } from '../picture'
import type { Uv } from '../white'

/** Tones near the ends say nothing of colour: noise and clipping. */
const leastLuma = 0.04
const mostLuma = 0.99

export interface Blocks {
  /** The grid of all blocks. */
  readonly across: number
  readonly down: number
  /** Linear AP1 of every block of the grid, three numbers each; NaN where a pixel of it clips. */
  readonly light: Float64Array
  /** Those whose tone says something of colour. */
  readonly count: number
  readonly u: Float32Array
  readonly v: Float32Array
  readonly luma: Float32Array
  /** Their middles, 0..1 of the frame. */
  readonly x: Float32Array
  readonly y: Float32Array
}

const toXyz = rgbToXyz(workingGamut)

/** The u, v of a linear AP1 light; null where there is none. */
export function uvOfLight([r, g, b]: Vector3): Uv | null {
  const [m0, m1, m2, m3, m4, m5, m6, m7, m8] = toXyz
  const X = m0 * r + m1 * g + m2 * b
  const Y = m3 * r + m4 * g + m5 * b
  const Z = m6 * r + m7 * g + m8 * b
  const d = X + 15 * Y + 3 * Z
  return d > 1e-9 ? { u: (4 * X) / d, v: (6 * Y) / d } : null
}

/** Means over blocks of pixels, so that noise does not decide; clipped blocks are left out. */
export function blocksOf({ shown, display, luma: w }: Pick<MeasuredPicture, 'shown' | 'display' | 'luma'>): Blocks {
  const { width, height, data } = shown
  const block = Math.max(1, Math.round(Math.sqrt((width * height) / 45_000)))
  const across = Math.floor(width / block)
  const down = Math.floor(height / block)
  const most = across * down
  const u = new Float32Array(most)
  const v = new Float32Array(most)
  const luma = new Float32Array(most)
  const px = new Float32Array(most)
  const py = new Float32Array(most)
  const lightOf = workingLightOf(display)
  const light = new Float64Array(most * 3).fill(NaN)
  const per = 1 / (block * block * 65535)
  let count = 0
  for (let by = 0; by < down; by++)
    for (let bx = 0; bx < across; bx++) {
      let r = 0
      let g = 0
      let b = 0
      let top = 0
      for (let y = by * block; y < (by + 1) * block; y++)
        for (let i = (y * width + bx * block) * 3, end = i + block * 3; i < end; i += 3) {
          const cr = data[i]
          const cg = data[i + 1]
          const cb = data[i + 2]
          r += cr
          g += cg
          b += cb
          top = Math.max(top, cr, cg, cb)
        }
      r *= per
      g *= per
      b *= per
      const l = w.red * r + w.green * g + w.blue * b
      if (top >= 65300) continue
      const here = lightOf(r, g, b)
      light.set(here, (by * across + bx) * 3)
      const uv = l < leastLuma || l > mostLuma ? null : uvOfLight(here)
      if (!uv) continue
      u[count] = uv.u
      v[count] = uv.v
      luma[count] = l
      px[count] = (bx + 0.5) / across
      py[count] = (by + 0.5) / down
      count++
    }
  return { across, down, light, count, u, v, luma, x: px, y: py }
}
