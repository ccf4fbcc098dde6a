// Formulas that stand among tables: the parts of a common LUT format file that need no table (SMPTE ST 2136-1, clauses
// 6.4 to 6.9).
import { clamp01 } from '../numbers'

type Triple = readonly [number, number, number]
export type LogStyle =
  'log10' | 'antiLog10' | 'log2' | 'antiLog2' | 'linToLog' | 'logToLin' | 'cameraLinToLog' | 'cameraLogToLin'
export type ExponentStyle =
  | 'basicFwd'
  | 'basicRev'
  | 'basicMirrorFwd'
  | 'basicMirrorRev'
  | 'basicPassThruFwd'
  | 'basicPassThruRev'
  | 'monCurveFwd'
  | 'monCurveRev'
  | 'monCurveMirrorFwd'
  | 'monCurveMirrorRev'
export type CdlStyle = 'Fwd' | 'Rev' | 'FwdNoClamp' | 'RevNoClamp'

export interface LogParameters {
  readonly base: number
  readonly logSideSlope: number
  readonly logSideOffset: number
  readonly linSideSlope: number
  readonly linSideOffset: number
  readonly linSideBreak?: number
  readonly linearSlope?: number
}

/** Values are on the scale where 1 is the full code; a formula does the same to it whatever the file's bit depth. */
export type Formula =
  | { readonly formula: 'matrix'; /** Row by row. */ readonly matrix: readonly number[]; readonly offset: Triple }
  /** Times scale plus offset, then held where an end is given. */
  | {
      readonly formula: 'range'
      readonly scale: number
      readonly offset: number
      readonly low: number | null
      readonly high: number | null
    }
  | {
      readonly formula: 'log'
      readonly style: LogStyle
      readonly channels: readonly [LogParameters, LogParameters, LogParameters]
    }
  | { readonly formula: 'exponent'; readonly style: ExponentStyle; readonly exponent: Triple; readonly offset: Triple }
  | {
      readonly formula: 'cdl'
      readonly style: CdlStyle
      readonly slope: Triple
      readonly offset: Triple
      readonly power: Triple
      readonly saturation: number
    }

type Curve = (v: number) => number
// The smallest number a logarithm is taken of: the least normal single float (ST 2136-1, clause 6.7).
const leastLog = 2 ** -126

/** The formula as one curve for each channel, or null where it mixes channels. */
export function formulaCurves(f: Formula): readonly [Curve, Curve, Curve] | null {
  switch (f.formula) {
    case 'matrix':
      return null
    case 'range': {
      const low = f.low ?? -Infinity
      const high = f.high ?? Infinity
      const curve: Curve = (v) => Math.min(high, Math.max(low, v * f.scale + f.offset))
      return [curve, curve, curve]
    }
    case 'log':
      return [logCurve(f.style, f.channels[0]), logCurve(f.style, f.channels[1]), logCurve(f.style, f.channels[2])]
    case 'exponent':
      return [0, 1, 2].map((c) => exponentCurve(f.style, f.exponent[c], f.offset[c])) as [Curve, Curve, Curve]
    case 'cdl':
      return f.saturation === 1 ? cdlCurves(f) : null
  }
}

/** Applies a formula to RGB triples in place. Never returns a NaN for finite input. */
export function applyFormula(f: Formula, pixels: Float64Array): void {
  const curves = formulaCurves(f)
  if (curves) {
    for (let i = 0; i < pixels.length; i++) pixels[i] = curves[i % 3](pixels[i])
  } else if (f.formula === 'matrix') applyMatrix(f.matrix, f.offset, pixels)
  else if (f.formula === 'cdl') for (const stage of cdlStages(f)) applyFormula(stage, pixels)
}

function applyMatrix(m: readonly number[], [or, og, ob]: Triple, pixels: Float64Array): void {
  for (let i = 0; i < pixels.length; i += 3) {
    const r = pixels[i]
    const g = pixels[i + 1]
    const b = pixels[i + 2]
    pixels[i] = m[0] * r + m[1] * g + m[2] * b + or
    pixels[i + 1] = m[3] * r + m[4] * g + m[5] * b + og
    pixels[i + 2] = m[6] * r + m[7] * g + m[8] * b + ob
  }
}

function logCurve(style: LogStyle, p: LogParameters): Curve {
  const log = (v: number): number => Math.log(Math.max(v, leastLog)) / Math.log(p.base)
  const linToLog: Curve = (v) => p.logSideSlope * log(p.linSideSlope * v + p.linSideOffset) + p.logSideOffset
  const logToLin: Curve = (v) =>
    (p.base ** Math.min(400, (v - p.logSideOffset) / p.logSideSlope) - p.linSideOffset) / p.linSideSlope
  switch (style) {
    case 'log10':
      return (v) => Math.log10(Math.max(v, leastLog))
    case 'log2':
      return (v) => Math.log2(Math.max(v, leastLog))
    case 'antiLog10':
      return (v) => 10 ** Math.min(v, 38)
    case 'antiLog2':
      return (v) => 2 ** Math.min(v, 127)
    case 'linToLog':
      return linToLog
    case 'logToLin':
      return logToLin
    case 'cameraLinToLog':
    case 'cameraLogToLin': {
      const at = p.linSideBreak ?? 0
      const slope =
        p.linearSlope ??
        (p.logSideSlope * p.linSideSlope) / ((p.linSideSlope * at + p.linSideOffset) * Math.log(p.base))
      const level = linToLog(at)
      if (style === 'cameraLinToLog') return (v) => (v <= at ? slope * (v - at) + level : linToLog(v))
      return (v) => (v <= level ? (v - level) / slope + at : logToLin(v))
    }
  }
}

function exponentCurve(style: ExponentStyle, exponent: number, offset: number): Curve {
  const reverse = style.endsWith('Rev')
  const power = reverse ? 1 / exponent : exponent
  if (style.startsWith('monCurve')) {
    const curve = momentCurve(exponent, offset, reverse)
    return style.includes('Mirror') ? (v) => (v >= 0 ? curve(v) : -curve(-v)) : curve
  }
  if (style.includes('Mirror')) return (v) => Math.sign(v) * Math.abs(v) ** power
  return style.includes('PassThru') ? (v) => (v > 0 ? v ** power : v) : (v) => Math.max(v, 0) ** power
}

/** A power with a straight toe that meets it in value and slope (ST 2136-1, clause 6.8). */
function momentCurve(exponent: number, offset: number, reverse: boolean): Curve {
  // Without an offset the toe has no length; with an exponent of 1 it is all there is.
  if (offset <= 0) return (v) => Math.max(v, 0) ** (reverse ? 1 / exponent : exponent)
  if (exponent <= 1) return (v) => (reverse ? v * (1 + offset) : v / (1 + offset))
  const breakAt = offset / (exponent - 1)
  const slope = ((exponent - 1) / offset) * ((offset * exponent) / ((exponent - 1) * (offset + 1))) ** exponent
  const level = breakAt * slope
  if (reverse) return (v) => (v >= level ? (1 + offset) * v ** (1 / exponent) - offset : v / slope)
  return (v) => (v >= breakAt ? ((v + offset) / (1 + offset)) ** exponent : v * slope)
}

type Cdl = Extract<Formula, { formula: 'cdl' }>
function cdlCurves({ style, slope, offset, power }: Cdl): readonly [Curve, Curve, Curve] {
  const clamp = style === 'Fwd' || style === 'Rev'
  const bounded: Curve = clamp ? clamp01 : (v) => v
  return [0, 1, 2].map((c): Curve => {
    const raised = (v: number, by: number): number => (v > 0 ? v ** by : v)
    if (style.startsWith('Fwd')) return (v) => bounded(raised(bounded(v * slope[c] + offset[c]), power[c]))
    return (v) => bounded((raised(bounded(v), 1 / power[c]) - offset[c]) / slope[c])
  }) as [Curve, Curve, Curve]
}

/**
 * A decision list with saturation as formulas that have either curves or a matrix: saturation about BT.709 luma stands
 * behind the curves; for the reverse, before them, between clamps (ASC CDL v1.2).
 */
export function cdlStages(f: Cdl): readonly Formula[] {
  const forward = f.style.startsWith('Fwd')
  const by = forward ? f.saturation : 1 / f.saturation
  const weights = [0.2126, 0.7152, 0.0722]
  const matrix = weights.flatMap((_, row) => weights.map((w, column) => (row === column ? by : 0) + w * (1 - by)))
  const saturation: Formula = { formula: 'matrix', matrix, offset: [0, 0, 0] }
  const clamp: readonly Formula[] =
    f.style === 'Fwd' || f.style === 'Rev' ? [{ formula: 'range', scale: 1, offset: 0, low: 0, high: 1 }] : []
  const curves: Formula = { ...f, saturation: 1 }
  return forward ? [curves, saturation, ...clamp] : [...clamp, saturation, ...clamp, curves]
}
