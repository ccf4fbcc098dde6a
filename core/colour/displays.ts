// Displays as declarations: gamut, the curve between display signal and light, how bright, and the luma of the
// standard.
import { gamutById, luminanceWeights } from './gamuts'
import type { Vector3 } from './matrix'
import { diffuseWhiteNits, hlgOetf, pq, srgb } from './standard-curves'
import { gamma, type TransferCurve } from './transfer'

export interface Display {
  readonly id: string
  readonly name: string
  readonly tip: string
  readonly source: string
  readonly range: 'standard' | 'high'
  readonly gamutId: string
  /** The light of a display-linear 1.0, cd/m²: display white, or diffuse white on displays of high range. */
  readonly whiteNits: number
  /** The brightest display-linear value: 1 for standard range, peak over diffuse white for high range. */
  readonly peak: number
  /**
   * decode = signal 0..1 → carried light; encode is its inverse. Carried light is display-linear unless `systemGamma`
   * stands between them.
   */
  readonly eotf: TransferCurve
  /** The highest carried light the signal may hold. */
  readonly carriedPeak: number
  /** HLG carries scene light; the display raises its luminance to this power (ITU-R BT.2100-2, table 5, OOTF). */
  readonly systemGamma?: number
  readonly lumaMatrix: MatrixId
}

type Declared = Pick<Display, 'id' | 'name' | 'tip' | 'source' | 'gamutId' | 'eotf'> & Partial<Display>
const standard = (d: Declared): Display => ({
  range: 'standard',
  whiteNits: 100,
  peak: 1,
  carriedPeak: 1,
  lumaMatrix: 'bt709',
  ...d,
})
const perceptual = (peakNits: number): Display => {
  const peak = peakNits / diffuseWhiteNits
  return {
    id: `pq-${peakNits}`,
    name: `PQ, ${peakNits} cd/m²`,
    tip: `High range in absolute light, mastered for a peak of ${peakNits} cd/m².`,
    source: 'ITU-R BT.2100-2, table 4; BT.2408-7',
    range: 'high',
    gamutId: 'bt2020',
    whiteNits: diffuseWhiteNits,
    peak,
    eotf: pq,
    carriedPeak: peak,
    lumaMatrix: 'bt2020',
  }
}

const hlgPeakNits = 1000

export const displays: readonly Display[] = [
  standard({
    id: 'bt709-2.4',
    name: 'BT.709, gamma 2.4',
    tip: 'Video in a dim room.',
    source: 'ITU-R BT.1886, annex 1',
    gamutId: 'bt709',
    eotf: gamma(2.4),
  }),
  standard({
    id: 'bt709-2.2',
    name: 'BT.709, gamma 2.2',
    tip: 'Video on phones and laptops in the light.',
    source: 'a pure power',
    gamutId: 'bt709',
    eotf: gamma(2.2),
  }),
  standard({
    id: 'srgb',
    name: 'sRGB',
    tip: 'Computer displays and the web.',
    source: 'IEC 61966-2-1',
    gamutId: 'bt709',
    eotf: srgb,
  }),
  standard({
    id: 'p3-d65',
    name: 'P3, D65 white, gamma 2.6',
    tip: 'Wide-gamut displays and home masters of cinema work.',
    source: 'SMPTE EG 432-1; RP 431-2',
    gamutId: 'p3-d65',
    eotf: gamma(2.6),
  }),
  standard({
    id: 'p3-dci',
    name: 'P3, cinema white, gamma 2.6',
    tip: 'Cinema projection; its white is greener than daylight and 48 cd/m².',
    source: 'SMPTE RP 431-2',
    gamutId: 'p3-dci',
    eotf: gamma(2.6),
    whiteNits: 48,
  }),
  perceptual(600),
  perceptual(1000),
  perceptual(4000),
  {
    id: 'hlg',
    name: 'HLG, 1000 cd/m²',
    tip: 'Broadcast of high range; the display shapes it to its own peak.',
    source: 'ITU-R BT.2100-2, table 5; BT.2408-7',
    range: 'high',
    gamutId: 'bt2020',
    whiteNits: diffuseWhiteNits,
    peak: hlgPeakNits / diffuseWhiteNits,
    eotf: hlgOetf,
    carriedPeak: 1,
    systemGamma: 1.2,
    lumaMatrix: 'bt2020',
  },
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
const redBlue: Record<MatrixId, readonly [number, number]> = {
  bt601: [0.299, 0.114],
  bt709: [0.2126, 0.0722],
  bt2020: [0.2627, 0.0593],
}

export function lumaWeights(matrix: MatrixId): LumaWeights {
  const [red, blue] = redBlue[matrix]
  return { red, blue, green: 1 - red - blue, cbDivisor: 2 * (1 - blue), crDivisor: 2 * (1 - red) }
}

/** Luminance weights of a display's linear light, for ΔE and tone statistics. */
export function displayLuminance(display: Display): Vector3 {
  return luminanceWeights(gamutById(display.gamutId))
}

/** A function from display signal (R', G', B' of 0..1) to display-linear light, OOTF included. */
export function lightOfSignal(display: Display): (red: number, green: number, blue: number) => Vector3 {
  const {
    eotf: { decode },
    systemGamma,
    peak,
  } = display
  if (systemGamma === undefined) return (red, green, blue) => [decode(red), decode(green), decode(blue)]
  const [wr, wg, wb] = displayLuminance(display)
  return (red, green, blue) => {
    const r = decode(red)
    const g = decode(green)
    const b = decode(blue)
    const gain = peak * Math.max(wr * r + wg * g + wb * b, 0) ** (systemGamma - 1)
    return [r * gain, g * gain, b * gain]
  }
}
