// The curves that public standards fix, each with its clause.
import { linLog, powerWithToe, type TransferCurve } from './transfer'

/** ITU-R BT.709-6, item 1.2: the camera curve (OETF), with the constants at the precision of BT.2020-2 table 4. */
export const bt709Camera = powerWithToe(1 / 0.45, 0.09929682680944, 4.5, 0.018053968510807)

/** IEC 61966-2-1, clause 5.2. */
export const srgb = powerWithToe(2.4, 0.055, 12.92, 0.0031308)

/** ITU-R BT.2100-2, table 5: the HLG OETF of scene light 0..1 and its inverse, mirrored through zero. */
export const hlgOetf: TransferCurve = (() => {
  const a = 0.17883277
  const b = 1 - 4 * a
  const c = 0.5 - a * Math.log(4 * a)
  const inverse = (y: number): number => (y <= 0.5 ? (y * y) / 3 : (Math.exp(Math.min((y - c) / a, 300)) + b) / 12)
  const forward = (e: number): number => (e <= 1 / 12 ? Math.sqrt(3 * e) : a * Math.log(12 * e - b) + c)
  return {
    encode: (x) => Math.sign(x) * forward(Math.abs(x)),
    decode: (y) => Math.sign(y) * inverse(Math.abs(y)),
  }
})()

/** HLG as a camera writes it, scaled so that 18 % grey decodes to 0.18 at a signal of 0.38 (BT.2408-7, table 1). */
export const hlg: TransferCurve = (() => {
  const scale = 0.18 / hlgOetf.decode(0.38)
  return { encode: (x) => hlgOetf.encode(x / scale), decode: (y) => hlgOetf.decode(y) * scale }
})()

/** Light of diffuse white on displays of high range, cd/m² (ITU-R BT.2408-7, clause 2.2). */
export const diffuseWhiteNits = 203

/**
 * ITU-R BT.2100-2, table 4 (SMPTE ST 2084): PQ between a signal of 0..1 and absolute light of 0..10 000 cd/m², mirrored
 * through zero.
 */
export const pqNits: TransferCurve = (() => {
  const m1 = 2610 / 16384
  const m2 = (2523 / 4096) * 128
  const c1 = 3424 / 4096
  const c2 = (2413 / 4096) * 32
  const c3 = (2392 / 4096) * 32
  const forward = (nits: number): number => {
    const p = (nits / 10_000) ** m1
    return ((c1 + c2 * p) / (1 + c3 * p)) ** m2
  }
  // The signal has a ceiling that no light reaches (somewhat over 1): beyond it the curve is held.
  const ceiling = (c2 / c3) ** m2 * (1 - 1e-9)
  const floor = forward(0)
  const inverse = (signal: number): number => {
    const p = Math.min(signal, ceiling) ** (1 / m2)
    return 10_000 * (Math.max(p - c1, 0) / (c2 - c3 * p)) ** (1 / m1)
  }
  return {
    // Powers are rounded, not monotone: of the least light, forward may lie an ulp under its own floor.
    encode: (x) => Math.sign(x) * Math.max(forward(Math.abs(x)) - floor, 0),
    decode: (y) => Math.sign(y) * inverse(Math.abs(y) + floor),
  }
})()

/** PQ relative to diffuse white: 1.0 is 203 cd/m². */
export const pq: TransferCurve = {
  encode: (x) => pqNits.encode(x * diffuseWhiteNits),
  decode: (y) => pqNits.decode(y) / diffuseWhiteNits,
}

export const linear: TransferCurve = { encode: (x) => x, decode: (y) => y }

/** AMPAS S-2016-001, clause 4.4: the working log. One stop is 1/17.52 above the toe. */
export const acesCct: TransferCurve = {
  encode: (x) => (x <= 0.0078125 ? 10.5402377416545 * x + 0.0729055341958355 : (Math.log2(x) + 9.72) / 17.52),
  decode: (y) =>
    y <= 0.155251141552511
      ? (y - 0.0729055341958355) / 10.5402377416545 // exp is twice as fast as a power here, and as exact.
      : Math.exp((Math.min(y * 17.52, 1000) - 9.72) * Math.LN2),
}

/** AMPAS S-2014-003, clause 4.4: pure log over nearly the whole range; light at or below zero has one code. */
export const acesCc: TransferCurve = {
  encode: (x) => {
    if (x <= 0) return (-16 + 9.72) / 17.52
    return (Math.log2(x < 2 ** -15 ? 2 ** -16 + x / 2 : x) + 9.72) / 17.52
  },
  decode: (y) => {
    const light = 2 ** (Math.min(y * 17.52, 1000) - 9.72)
    return light < 2 ** -15 ? (light - 2 ** -16) * 2 : light
  },
}

/**
 * Scanned negative film by printing density: black at code 95, white (1.0) at 685 of 1023, 0.002 density per code,
 * negative gamma 0.6 (the usual conversion of SMPTE ST 268 density files).
 */
export const filmDensity: TransferCurve = (() => {
  const codesPerDecade = 0.6 / 0.002
  const black = 10 ** ((95 - 685) / codesPerDecade)
  return linLog({ a: codesPerDecade / 1023, b: 1 - black, c: black, d: 685 / 1023, e: null, f: null, cut: -Infinity })
})()
