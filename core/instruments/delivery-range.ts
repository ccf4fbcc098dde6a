// The delivered signal against the bounds that broadcasters measure by.
import type { LumaWeights } from '../colour'
import type { Frame } from '../image'

/** EBU R 103 version 3.0: components of −5 to 105 %, luma of −1 to 103 %; up to 1 % of the picture may lie beyond. */
export const r103 = { componentLow: -0.05, componentHigh: 1.05, lumaLow: -0.01, lumaHigh: 1.03 } as const

/**
 * Tells `mark` of every pixel of rows `from` up to `to` that lies outside the bounds once the signal is delivered as
 * 4:2:2 in legal range of 10 bits: sharing chroma between two pixels makes over- and undershoots that no pixel had
 * before. An odd last column is left out.
 */
export function eachOutOfRange(
  { width, data }: Frame,
  w: LumaWeights,
  from: number,
  to: number,
  mark: (pixel: number) => void,
): void {
  const pairs = Math.floor(width / 2)
  for (let y = from; y < to; y++)
    for (let pair = 0; pair < pairs; pair++) {
      const pixel = y * width + pair * 2
      const i = pixel * 3
      const r0 = data[i] / 65535
      const g0 = data[i + 1] / 65535
      const b0 = data[i + 2] / 65535
      const r1 = data[i + 3] / 65535
      const g1 = data[i + 4] / 65535
      const b1 = data[i + 5] / 65535
      const l0 = w.red * r0 + w.green * g0 + w.blue * b0
      const l1 = w.red * r1 + w.green * g1 + w.blue * b1
      const cb = Math.round(((b0 - l0 + b1 - l1) / 2 / w.cbDivisor) * 896) / 896
      const cr = Math.round(((r0 - l0 + r1 - l1) / 2 / w.crDivisor) * 896) / 896
      for (let k = 0; k < 2; k++) {
        const luma = Math.round((k === 0 ? l0 : l1) * 876) / 876
        const r = luma + cr * w.crDivisor
        const b = luma + cb * w.cbDivisor
        const g = (luma - w.red * r - w.blue * b) / w.green
        const least = Math.min(r, g, b)
        const most = Math.max(r, g, b)
        if (least < r103.componentLow || most > r103.componentHigh || luma < r103.lumaLow || luma > r103.lumaHigh)
          mark(pixel + k)
      }
    }
}
