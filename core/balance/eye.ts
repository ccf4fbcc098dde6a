// What the eye would hold against a proposal: each measure before and after, and by how much it may become worse.
import { lumaWeights } from '../colour'
import { compile, execute, type GradeDocument, type LutFinder } from '../grade'
import { fitWithin, shrink, type Frame } from '../image'

export interface EyeMeasures {
  /** Shares 0..1 of the picture with a channel at the top, and with all at the bottom. */
  readonly clipped: number
  readonly crushed: number
  /** Mean difference of neighbours where the picture is neither dark nor bright, as a share of their level. */
  readonly localContrast: number
  /** Mean signal, 0..1. */
  readonly level: number
}

const size = { width: 240, height: 135 } as const
/** Nodes of a lattice that is near enough to count and to compare by. */
export const roughSize = 17

/** The frame as small as it is looked at; one that is so small already is left as it is. */
export function smallForEye(frame: Frame): Frame {
  const { width, height } = fitWithin(frame.width, frame.height, size.width, size.height)
  return width === frame.width && height === frame.height ? frame : shrink(frame, width, height)
}

/** @param frame made small once, where it is looked at through many grades */
export function eyeMeasures(grade: GradeDocument, frame: Frame, lut: LutFinder): EyeMeasures {
  const small = smallForEye(frame)
  const { data, width, height } = execute(compile(grade, lut, small, roughSize), small)
  const weights = lumaWeights('bt709')
  const luma = new Float64Array(width * height)
  let clipped = 0
  let crushed = 0
  for (let p = 0, i = 0; p < luma.length; p++, i += 3) {
    luma[p] = (weights.red * data[i] + weights.green * data[i + 1] + weights.blue * data[i + 2]) / 65535
    if (Math.max(data[i], data[i + 1], data[i + 2]) >= 65535 * 0.998) clipped++
    if (Math.max(data[i], data[i + 1], data[i + 2]) <= 65535 * 0.002) crushed++
  }
  let contrast = 0
  let counted = 0
  for (let y = 0; y + 1 < height; y++)
    for (let x = 0; x + 1 < width; x++) {
      const p = y * width + x
      const level = luma[p]
      if (level < 0.1 || level > 0.9) continue
      contrast += (Math.abs(luma[p + 1] - level) + Math.abs(luma[p + width] - level)) / level
      counted++
    }
  return {
    clipped: clipped / luma.length,
    crushed: crushed / luma.length,
    localContrast: counted > 0 ? contrast / counted : 0,
    level: luma.reduce((sum, v) => sum + v, 0) / luma.length,
  }
}

export const eyeBounds = { clipped: 0.01, crushed: 0.02, localContrast: 0.7 } as const

/** What became worse by more than its bound, in words; empty where nothing did. */
export function worse(before: EyeMeasures, after: EyeMeasures): string {
  const percent = (share: number): string => `${(share * 100).toFixed(1)} %`
  if (after.clipped - before.clipped > eyeBounds.clipped)
    return `${percent(after.clipped)} of the picture would clip (${percent(before.clipped)} now)`
  if (after.crushed - before.crushed > eyeBounds.crushed)
    return `${percent(after.crushed)} of the picture would be black (${percent(before.crushed)} now)`
  if (after.localContrast < before.localContrast * eyeBounds.localContrast)
    return `its drawing would lose ${percent(1 - after.localContrast / before.localContrast)} of its contrast`
  return ''
}
