// Transfer curves: families of functions between scene- or display-linear light and a code value of 0..1 full range.

export interface TransferCurve {
  /** Code value → linear light. Defined for every finite input. */
  readonly decode: (code: number) => number
  /** Linear light → code value. Defined for every finite input. */
  readonly encode: (linear: number) => number
}

export interface LogBranch { readonly a: number; readonly b: number; readonly c: number; readonly d: number; readonly cut: number }
export interface LinLogParameters extends LogBranch {
  /** Slope and offset of the straight part below `cut`; null where the curve has no straight part. */
  readonly e: number | null
  readonly f: number | null
  /** The mirrored branch used below its own cut. */
  readonly negative?: LogBranch
}

// Keeps log10 finite where a damaged input lies beyond the curve's own pole.
const tiny = 1e-12

/** y = a·log10(b·x + c) + d from `cut` up, y = e·x + f below, with an optional mirrored branch. */
export function linLog(p: LinLogParameters): TransferCurve {
  const log = (k: LogBranch, x: number): number => k.a * Math.log10(Math.max(k.b * x + k.c, tiny)) + k.d
  const power = (k: LogBranch, y: number): number => (10 ** Math.min((y - k.d) / k.a, 300) - k.c) / k.b
  const { negative, e, f } = p
  const codeAtCut = log(p, p.cut)
  const codeAtNegativeCut = negative ? log(negative, negative.cut) : -Infinity
  return {
    encode: (x) => {
      if (x >= p.cut) return log(p, x)
      if (negative && (x < negative.cut || e === null)) return log(negative, x)
      return e !== null && f !== null ? e * x + f : log(p, x)
    },
    decode: (y) => {
      if (y >= codeAtCut) return power(p, y)
      if (negative && (y < codeAtNegativeCut || e === null)) return power(negative, y)
      return e !== null && f !== null ? (y - f) / e : power(p, y)
    },
  }
}

/** Cube root below 0.328, natural log above, in 10-bit codes (see camera-logs.json). */
export function cubeRootLog(): TransferCurve {
  const root = (x: number): number => (650 * Math.cbrt(x + 0.0075)) / 1023
  const codeAtCut = root(0.328)
  return {
    encode: (x) => (x < 0.328 ? root(x) : (150 * Math.log(x) + 619) / 1023),
    decode: (y) => (y < codeAtCut ? ((y * 1023) / 650) ** 3 - 0.0075 : Math.exp(Math.min((y * 1023 - 619) / 150, 700))),
  }
}

/** A pure power, mirrored through zero so that it is odd and defined everywhere. */
export function gamma(exponent: number): TransferCurve {
  return {
    encode: (x) => Math.sign(x) * Math.abs(x) ** (1 / exponent),
    decode: (y) => Math.sign(y) * Math.abs(y) ** exponent,
  }
}

/** A power with a straight part near zero, mirrored: the shape of BT.709 and sRGB. */
function powerWithToe(exponent: number, offset: number, slope: number, cut: number): TransferCurve {
  const encode = (x: number): number => (x < cut ? slope * x : (1 + offset) * x ** (1 / exponent) - offset)
  const decode = (y: number): number => (y < slope * cut ? y / slope : ((y + offset) / (1 + offset)) ** exponent)
  return {
    encode: (x) => Math.sign(x) * encode(Math.abs(x)),
    decode: (y) => Math.sign(y) * decode(Math.abs(y)),
  }
}

/** ITU-R BT.709-6, item 1.2: the camera curve (OETF), with the constants at the precision of BT.2020-2 table 4. */
export const bt709Camera = powerWithToe(1 / 0.45, 0.09929682680944, 4.5, 0.018053968510807)

/** IEC 61966-2-1, clause 5.2. */
export const srgb = powerWithToe(2.4, 0.055, 12.92, 0.0031308)

/** ITU-R BT.2100-2, table 5: HLG OETF and its inverse, scaled so that 18 % grey decodes to 0.18 at a signal of 0.38 (BT.2408-7, table 1). */
export const hlg: TransferCurve = (() => {
  const a = 0.17883277, b = 1 - 4 * a, c = 0.5 - a * Math.log(4 * a)
  const inverse = (y: number): number => (y <= 0.5 ? (y * y) / 3 : (Math.exp(Math.min((y - c) / a, 300)) + b) / 12)
  const forward = (e: number): number => (e <= 1 / 12 ? Math.sqrt(3 * e) : a * Math.log(12 * e - b) + c)
  const scale = 0.18 / inverse(0.38)
  return {
    encode: (x) => Math.sign(x) * forward(Math.abs(x) / scale),
    decode: (y) => Math.sign(y) * inverse(Math.abs(y)) * scale,
  }
})()

export const linear: TransferCurve = { encode: (x) => x, decode: (y) => y }

/** AMPAS S-2016-001, clause 4.4: the working log. One stop is 1/17.52 above the toe. */
export const acesCct: TransferCurve = {
  encode: (x) => (x <= 0.0078125 ? 10.5402377416545 * x + 0.0729055341958355 : (Math.log2(x) + 9.72) / 17.52),
  decode: (y) => (y <= 0.155251141552511 ? (y - 0.0729055341958355) / 10.5402377416545 : // exp is twice as fast as a power here, and as exact.
  Math.exp((Math.min(y * 17.52, 1000) - 9.72) * Math.LN2)),
}
