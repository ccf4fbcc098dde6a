// Displays as declarations: gamut, the curve between display signal and display-linear light, and the luma of the standard.
import { gamutById, luminanceWeights } from './gamuts'
import { gamma, srgb, type TransferCurve } from './transfer'

export interface Display {
  readonly id: string
  readonly name: string
  readonly tip: string
  readonly source: string
  readonly gamutId: string
  /** decode = EOTF: display signal 0..1 → display-linear 0..1; encode is its inverse. */
  readonly eotf: TransferCurve
}

export const displays: readonly Display[] = [
  { id: 'bt709-2.4', name: 'BT.709, gamma 2.4', tip: 'Video in a dim room.', source: 'ITU-R BT.1886, annex 1', gamutId: 'bt709', eotf: gamma(2.4) },
  { id: 'bt709-2.2', name: 'BT.709, gamma 2.2', tip: 'Video on phones and laptops in the light.', source: 'a pure power', gamutId: 'bt709', eotf: gamma(2.2) },
  { id: 'srgb', name: 'sRGB', tip: 'Computer displays and the web.', source: 'IEC 61966-2-1', gamutId: 'bt709', eotf: srgb },
]

const byId = new Map(displays.map((d) => [d.id, d]))

export function isDisplayId(id: unknown): id is string {
  return typeof id === 'string' && byId.has(id)
}

/** Throws RangeError for an unknown id. */
export function displayById(id: string): Display {
  const found = byId.get(id)
  if (!found) throw new RangeError(`There is no display "${id}".`)
  return found
}

/** Luma and colour-difference weights of a standard, on the encoded signal. */
export interface LumaWeights {
  readonly red: number
  readonly green: number
  readonly blue: number
  /** Cb = (B' − Y') / cbDivisor, Cr = (R' − Y') / crDivisor, each within ±0.5. */
  readonly cbDivisor: number
  readonly crDivisor: number
}

export type MatrixId = 'bt601' | 'bt709' | 'bt2020'

// ITU-R BT.601-7 item 2.5.1, BT.709-6 item 3.2, BT.2020-2 table 4: the rounded weights that the standards fix.
const redBlue: Record<MatrixId, readonly [number, number]> = { bt601: [0.299, 0.114], bt709: [0.2126, 0.0722], bt2020: [0.2627, 0.0593] }

export function lumaWeights(matrix: MatrixId): LumaWeights {
  const [red, blue] = redBlue[matrix]
  return { red, blue, green: 1 - red - blue, cbDivisor: 2 * (1 - blue), crDivisor: 2 * (1 - red) }
}

/** Luminance weights of a display's linear light, for ΔE and tone statistics. */
export function displayLuminance(display: Display): readonly [number, number, number] {
  return luminanceWeights(gamutById(display.gamutId))
}
