// Transfer curves: families of functions between scene- or display-linear light and a code value of 0..1 full range.

export interface TransferCurve {
  /** Code value → linear light. Defined for every finite input. */
  readonly decode: (code: number) => number
  /** Linear light → code value. Defined for every finite input. */
  readonly encode: (linear: number) => number
}

export interface LogBranch {
  readonly a: number
  readonly b: number
  readonly c: number
  readonly d: number
  readonly cut: number
}
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
export function powerWithToe(exponent: number, offset: number, slope: number, cut: number): TransferCurve {
  const encode = (x: number): number => (x < cut ? slope * x : (1 + offset) * x ** (1 / exponent) - offset)
  const decode = (y: number): number => (y < slope * cut ? y / slope : ((y + offset) / (1 + offset)) ** exponent)
  return {
    encode: (x) => Math.sign(x) * encode(Math.abs(x)),
    decode: (y) => Math.sign(y) * decode(Math.abs(y)),
  }
}

/** As powerWithToe, with the straight part that meets the power at equal value and slope. */
export function tangentToe(exponent: number, offset: number): TransferCurve {
  const power = 1 / exponent
  const cut = (offset / ((1 + offset) * (1 - power))) ** exponent
  return powerWithToe(exponent, offset, (1 + offset) * power * cut ** (power - 1), cut)
}

/** A curve whose codes run from `black` at zero light to `black + gain` where the inner curve reaches 1. */
export function lifted(inner: TransferCurve, black: number, gain: number): TransferCurve {
  return { encode: (x) => black + gain * inner.encode(x), decode: (y) => inner.decode((y - black) / gain) }
}

/** One measured pair of a table: a code of 0..1 and the scene-linear light it stands for. */
export interface TableEntry {
  readonly code: number
  readonly linear: number
}

/**
 * A curve through measured pairs: straight between them, continued beyond the ends with the slope of the last piece.
 * Throws RangeError unless there are two to 4096 pairs whose codes and light both rise.
 */
export function tableCurve(entries: readonly TableEntry[]): TransferCurve {
  if (entries.length < 2 || entries.length > 4096)
    throw new RangeError(`A table of 2 to 4096 pairs is needed, ${entries.length} came.`)
  const codes = Float64Array.from(entries, (e) => e.code)
  const light = Float64Array.from(entries, (e) => e.linear)
  for (let i = 0; i < codes.length; i++) {
    if (!Number.isFinite(codes[i]) || !Number.isFinite(light[i]))
      throw new RangeError(`Pair ${i + 1} holds something that is not a number.`)
    if (i > 0 && !(codes[i] > codes[i - 1] && light[i] > light[i - 1]))
      throw new RangeError(
        `Pair ${i + 1} does not rise over pair ${i}: a curve must give more light for a higher code.`,
      )
  }
  return { decode: (code) => along(codes, light, code), encode: (linear) => along(light, codes, linear) }
}

/** Piecewise straight interpolation of y over rising x, continued straight beyond the ends. */
function along(x: Float64Array, y: Float64Array, at: number): number {
  let low = 0
  let high = x.length - 1
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if (x[middle] <= at) low = middle
    else high = middle
  }
  return y[low] + ((at - x[low]) / (x[high] - x[low])) * (y[high] - y[low])
}
