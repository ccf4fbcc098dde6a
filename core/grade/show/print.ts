// Print: a sigmoid in log exposure with its own toe and shoulder, from black to display white.
import { middleGrey } from '../../colour'

export interface PrintShape {
  /** Slope at middle grey, stops out for a stop in. */
  readonly contrast: number
  /** 0..1: how early the ends bend. */
  readonly toe: number
  readonly shoulder: number
  /** Display-linear light of middle grey, as a share of `peak` 1. */
  readonly grey: number
}

/** Stops from white to the light that counts as black; it is taken off again, so that no light gives exactly none. */
const depthStops = 13
// 0 → a hard corner, 1 → a long bend: the exponent of u / (1 + u^p)^(1/p).
const hardness = (softness: number): number => 4.5 - 3.3 * softness

/**
 * Scene-linear → display-linear, per channel. About grey, Y = log2(out) follows G ± H·s(c·x / H) with
 * s(u) = u / (1 + u^p)^(1/p), H being the stops to white above and to black below: value, slope and monotony are exact
 * by construction. Light at or below zero gives 0; the peak is approached and never passed.
 */
export function printCurve({ contrast, toe, shoulder, grey }: PrintShape, peak: number): (x: number) => number {
  const floor = peak * 2 ** -depthStops
  // With the floor taken off and the rest stretched back to the peak, grey and its slope must still be those asked for.
  const greyRaw = (grey * (peak - floor)) / peak + floor
  const slope = (contrast * (greyRaw - floor)) / greyRaw
  const g = Math.log2(greyRaw)
  const above = Math.log2(peak) - g
  const below = g - Math.log2(floor)
  const high = hardness(shoulder)
  const low = hardness(toe)
  const stretch = peak / (peak - floor)
  const bend = (u: number, p: number): number => u / (1 + u ** p) ** (1 / p)
  return (x) => {
    if (!(x > 0)) return 0
    const stops = Math.log2(x / middleGrey) * slope
    const y = stops >= 0 ? g + above * bend(stops / above, high) : g - below * bend(-stops / below, low)
    return (2 ** y - floor) * stretch
  }
}
