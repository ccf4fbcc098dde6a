// Colours that a LUT is judged by: skins from very light to very deep, and things whose colour people remember. Chosen
// by us, as CIE Lab of D65.
import { gamutById, invert, rgbToXyz, transform, xyzOf, type Vector3 } from '../colour'

export interface ReferenceColour {
  readonly id: string
  readonly name: string
  readonly kind: 'skin' | 'memory'
  /** Linear light in BT.709, 1 = a perfect diffuser in the scene's light. */
  readonly linear: Vector3
}

/** XYZ relative to a white from L*, C* and h (CIE 15:2018, clause 8.2.1, turned round). */
function xyzFromLab(lightness: number, chroma: number, degrees: number, white: Vector3): Vector3 {
  const y = (lightness + 16) / 116
  const a = (chroma * Math.cos((degrees * Math.PI) / 180)) / 500
  const b = (chroma * Math.sin((degrees * Math.PI) / 180)) / 200
  const back = (t: number): number => (t > 6 / 29 ? t ** 3 : 3 * (6 / 29) ** 2 * (t - 4 / 29))
  return [white[0] * back(y + a), white[1] * back(y), white[2] * back(y - b)]
}

const bt709 = gamutById('bt709')
const fromXyz = invert(rgbToXyz(bt709))
const white = xyzOf(bt709.white)
const colour = (
  kind: ReferenceColour['kind'],
  id: string,
  name: string,
  lightness: number,
  chroma: number,
  degrees: number,
): ReferenceColour => ({ id, name, kind, linear: transform(fromXyz, xyzFromLab(lightness, chroma, degrees, white)) })

export const referenceColours: readonly ReferenceColour[] = [
  colour('skin', 'skin-1', 'very light', 80, 15, 62),
  colour('skin', 'skin-2', 'light', 73, 19, 60),
  colour('skin', 'skin-3', 'light brown', 65, 23, 59),
  colour('skin', 'skin-4', 'brown', 56, 25, 58),
  colour('skin', 'skin-5', 'dark brown', 46, 24, 56),
  colour('skin', 'skin-6', 'deep', 36, 20, 54),
  colour('skin', 'skin-7', 'very deep', 27, 14, 50),
  colour('memory', 'foliage', 'foliage', 42, 32, 122),
  colour('memory', 'sky', 'sky', 62, 30, 252),
  colour('memory', 'red', 'red', 42, 62, 28),
]
