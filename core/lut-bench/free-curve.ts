// A conversion without its tone curve: whatever curve a table was made with, greys go in and greys come out, so the
// greys tell the curve; what is left to explain are the colours off grey, and these tell the encoding and the gamut.
import { displayById, gamutById, gamutToGamut, transform, type Encoding, type Matrix3 } from '../colour'
import { applyLut, type Lut } from '../luts'
import { clamp01 } from '../numbers'

/** Where such a table applies its curve: to channels of the display's gamut, of the camera's, or to the largest. */
export type CurvePlace = 'display' | 'camera' | 'largest'
export const curvePlaces: readonly CurvePlace[] = ['display', 'camera', 'largest']

export interface FreeSource {
  readonly encoding: Pick<Encoding, 'id' | 'curve'>
  readonly gamutId: string
}

export interface FreeFit {
  /** What is left of the colours off grey: root mean square of the signal, 0..1. */
  readonly residual: number
  /** The saturation of the look on top that leaves least, and how far it moves colours: root mean square. */
  readonly saturation: number
  readonly look: number
  /** The colours that could be compared. */
  readonly points: number
  readonly place: CurvePlace
}

/** What a table makes of the greys from 0 to 1, evenly: RGB triples. */
export interface GreyRow {
  readonly steps: number
  readonly out: Float64Array
}

/** What a table makes of greys. */
export function greyRow(lut: Lut, steps = 256): GreyRow {
  const out = Float64Array.from({ length: (steps + 1) * 3 }, (_, i) => Math.floor(i / 3) / steps)
  applyLut(lut, out, 'tetrahedral')
  return { steps, out }
}

const { eotf } = displayById('bt709-2.4')

/** The curve of a channel at a code between the greys. */
export function curveAt({ steps, out }: GreyRow, code: number, channel: number): number {
  const at = Math.min(Math.max(code, 0), 1) * steps
  const i = Math.min(steps - 1, Math.floor(at))
  const a = out[i * 3 + channel]
  return a + (out[i * 3 + 3 + channel] - a) * (at - i)
}

const least = 24

/**
 * How well a source explains colours (RGB code values of 0..1, and what the table makes of them) with its curve taken
 * from the table's own greys. Null where too few colours stay inside what the greys tell.
 */
export function fitFreeCurve(
  colours: Float64Array,
  out: Float64Array,
  greys: GreyRow,
  { encoding, gamutId }: FreeSource,
  place: CurvePlace,
): FreeFit | null {
  const toDisplay: Matrix3 = gamutToGamut(gamutById(gamutId), gamutById('bt709'))
  const { decode, encode } = encoding.curve
  const predicted: number[] = []
  const measured: number[] = []
  const toned = [0, 0, 0]
  for (let i = 0; i < colours.length; i += 3) {
    const ok = [0, 1, 2].every((c) => out[i + c] > 0.01 && out[i + c] < 0.99)
    if (!ok) continue
    if (place === 'camera') {
      const light = [0, 1, 2].map((c) => eotf.decode(clamp01(curveAt(greys, colours[i + c], c)))) as [
        number,
        number,
        number,
      ]
      const shown = transform(toDisplay, light)
      for (let c = 0; c < 3; c++) toned[c] = eotf.encode(clamp01(shown[c]))
    } else {
      const shown = transform(toDisplay, [decode(colours[i]), decode(colours[i + 1]), decode(colours[i + 2])])
      if (place === 'display') {
        const codes = shown.map(encode)
        if (codes.some((v) => v < 0 || v > 1)) continue
        for (let c = 0; c < 3; c++) toned[c] = curveAt(greys, codes[c], c)
      } else {
        const most = Math.max(...shown)
        if (most <= 0) continue
        const code = encode(most)
        if (code < 0 || code > 1) continue
        for (let c = 0; c < 3; c++)
          toned[c] = eotf.encode(clamp01((shown[c] / most) * eotf.decode(clamp01(curveAt(greys, code, c)))))
      }
    }
    if (toned.some((v) => v < 0.005 || v > 0.995)) continue
    predicted.push(...toned)
    measured.push(out[i], out[i + 1], out[i + 2])
  }
  const points = predicted.length / 3
  if (points < least) return null
  const saturation = saturationBetween(predicted, measured)
  let left = 0
  let moved = 0
  for (let i = 0; i < predicted.length; i += 3) {
    const before = lumaOf(predicted, i)
    for (let c = 0; c < 3; c++) {
      const off = predicted[i + c] - before
      left += (before + saturation * off - measured[i + c]) ** 2
      moved += ((saturation - 1) * off) ** 2
    }
  }
  const mean = (sum: number): number => Math.sqrt(sum / predicted.length)
  return { residual: mean(left), saturation, look: mean(moved), points, place }
}

const lumaOf = (rgb: readonly number[], i: number): number =>
  0.2126 * rgb[i] + 0.7152 * rgb[i + 1] + 0.0722 * rgb[i + 2]

/** The factor about luma that brings one row of colours nearest to another. */
function saturationBetween(from: readonly number[], to: readonly number[]): number {
  let product = 0
  let square = 0
  for (let i = 0; i < from.length; i += 3) {
    const before = lumaOf(from, i)
    for (let c = 0; c < 3; c++) {
      product += (from[i + c] - before) * (to[i + c] - before)
      square += (from[i + c] - before) ** 2
    }
  }
  return square > 1e-9 ? product / square : 1
}
