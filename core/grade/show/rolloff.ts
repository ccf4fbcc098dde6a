// Rolloff: identity to a knee, then a shoulder that brings a chosen light to display white.
import type { Operation } from '../operation'

/**
 * f(x) = x up to `knee`; above, k + s·m·t / (1 + (m − 1)·t) with t = (x − k)/(max − k), s = peak − k, m = (max − k)/s:
 * slope 1 at the knee, `peak` at `maximum`, still rising beyond (so that what is lost there can be counted).
 * All in display-linear light. Identity where `maximum` already fits.
 */
export function rolloffCurve(knee: number, maximum: number, peak: number): (x: number) => number {
  const span = maximum - knee
  const room = peak - knee
  if (span <= room || room <= 0) return (x) => x
  const steep = span / room
  return (x) => {
    if (x <= knee) return x
    const t = (x - knee) / span
    return knee + (room * steep * t) / (1 + (steep - 1) * t)
  }
}

/**
 * The curve on the largest component, the others scaled with it, which keeps hue; `bleach` 0..1 mixes toward channel by
 * channel.
 */
export function rolloff(curve: (x: number) => number, bleach: number): Operation {
  return {
    kind: 'gain',
    weights: [0, 0, 0],
    gain: (largest) => (largest > 0 ? curve(largest) / largest : 1),
    blend: bleach,
    curve,
  }
}
