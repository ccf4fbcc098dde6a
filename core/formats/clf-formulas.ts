// The formulas of a common LUT format file: matrices, ranges, logs, exponents, decision lists.
import type { ExponentStyle, CdlStyle, Formula, LogParameters, LogStyle } from '../luts'
import { FormatError } from './cube'
import {
  type Triple,
  type Element,
  attributesFor,
  child,
  numberOf,
  arrayOf,
  requireChannels,
  valueIn,
} from './clf-nodes'

export function matrixOf(e: Element, into: number, out: number, line: number): Formula {
  const dims = (child(e, 'Array')?.attributes['dim'] ?? '').trim().split(/\s+/).map(Number)
  const columns = dims[1] ?? 0
  if (dims[0] !== 3 || (columns !== 3 && columns !== 4)) throw new FormatError('Matrix: 3 × 3 or 3 × 4 is read.', line)
  // A third number, as older versions have it, says three components again.
  const { values } = arrayOf(e, 2, line)
  const row = (r: number): readonly number[] => [...values.subarray(r * columns, r * columns + columns)]
  const rows = [row(0), row(1), row(2)]
  return {
    formula: 'matrix',
    matrix: rows.flatMap((r) => r.slice(0, 3).map((v) => (v * into) / out)),
    offset: rows.map((r) => (r[3] ?? 0) / out) as unknown as Triple,
  }
}

export function rangeOf(e: Element, into: number, out: number, line: number): Formula {
  const [minIn, maxIn, minOut, maxOut] = ['minInValue', 'maxInValue', 'minOutValue', 'maxOutValue'].map((n) =>
    valueIn(e, n, line),
  ) as [number | null, number | null, number | null, number | null]
  if ((minIn === null) !== (minOut === null) || (maxIn === null) !== (maxOut === null))
    throw new FormatError('Range: a value in needs its value out.', line)
  const clamp = (e.attributes['style'] ?? 'Clamp') !== 'noClamp'
  if (minIn !== null && maxIn !== null && minOut !== null && maxOut !== null) {
    if (maxIn <= minIn) throw new FormatError('Range: minInValue must lie below maxInValue.', line)
    const scale = (maxOut - minOut) / out / ((maxIn - minIn) / into)
    return {
      formula: 'range',
      scale,
      offset: minOut / out - (scale * minIn) / into,
      low: clamp ? minOut / out : null,
      high: clamp ? maxOut / out : null,
    }
  }
  // One end alone holds values and moves none.
  return {
    formula: 'range',
    scale: 1,
    offset: 0,
    low: clamp && minOut !== null ? minOut / out : null,
    high: clamp && maxOut !== null ? maxOut / out : null,
  }
}

const logStyles: readonly LogStyle[] = [
  'log10',
  'antiLog10',
  'log2',
  'antiLog2',
  'linToLog',
  'logToLin',
  'cameraLinToLog',
  'cameraLogToLin',
]

export function logOf(e: Element, line: number): Formula {
  const style = logStyles.find((s) => s === e.attributes['style'])
  if (!style)
    throw new FormatError(
      `Log: the style "${(e.attributes['style'] ?? '').slice(0, 30)}" is not one that is read.`,
      line,
    )
  const given = e.children.filter((c) => c.name === 'LogParams')
  requireChannels(e, given, line)
  const channel = (name: string): LogParameters => {
    const attributes = attributesFor(given, name)
    const number = (key: string, initial: number): number =>
      attributes[key] === undefined ? initial : numberOf(attributes[key], line, `Log: ${key}`)
    const base = number('base', 2)
    const logSideSlope = number('logSideSlope', 1)
    const linSideSlope = number('linSideSlope', 1)
    if (!(base > 0) || base === 1 || logSideSlope === 0 || linSideSlope === 0)
      throw new FormatError('Log: the base must be above zero and not 1, and the slopes not zero.', line)
    if (style.startsWith('camera') && attributes['linSideBreak'] === undefined)
      throw new FormatError('Log: a camera style needs linSideBreak.', line)
    const parameters = {
      base,
      logSideSlope,
      logSideOffset: number('logSideOffset', 0),
      linSideSlope,
      linSideOffset: number('linSideOffset', 0),
    }
    const more = {
      ...(attributes['linSideBreak'] === undefined ? {} : { linSideBreak: number('linSideBreak', 0) }),
      ...(attributes['linearSlope'] === undefined ? {} : { linearSlope: number('linearSlope', 1) }),
    }
    if ('linearSlope' in more && more.linearSlope === 0)
      throw new FormatError('Log: linearSlope must not be zero.', line)
    if (more.linSideBreak !== undefined && linSideSlope * more.linSideBreak + parameters.linSideOffset <= 0)
      throw new FormatError('Log: linSideBreak lies where the logarithm has no value.', line)
    return { ...parameters, ...more }
  }
  return { formula: 'log', style, channels: [channel('R'), channel('G'), channel('B')] }
}

const exponentStyles: readonly ExponentStyle[] = [
  'basicFwd',
  'basicRev',
  'basicMirrorFwd',
  'basicMirrorRev',
  'basicPassThruFwd',
  'basicPassThruRev',
  'monCurveFwd',
  'monCurveRev',
  'monCurveMirrorFwd',
  'monCurveMirrorRev',
]

export function exponentOf(e: Element, line: number): Formula {
  const style = exponentStyles.find((s) => s === e.attributes['style'])
  if (!style)
    throw new FormatError(
      `Exponent: the style "${(e.attributes['style'] ?? '').slice(0, 30)}" is not one that is read.`,
      line,
    )
  const given = e.children.filter((c) => c.name === 'ExponentParams')
  if (given.length === 0) throw new FormatError('Exponent has no ExponentParams.', line)
  requireChannels(e, given, line)
  const read = (key: string, initial: number): Triple =>
    ['R', 'G', 'B'].map((name) => {
      const attributes = attributesFor(given, name)
      return attributes[key] === undefined ? initial : numberOf(attributes[key], line, `Exponent: ${key}`)
    }) as unknown as Triple
  const exponent = read('exponent', 1)
  const offset = read('offset', 0)
  if (!exponent.every((v) => v >= 0.01 && v <= 100) || !offset.every((v) => v >= 0 && v <= 0.9))
    throw new FormatError('Exponent: an exponent from 0.01 to 100 and an offset from 0 to 0.9 are read.', line)
  return { formula: 'exponent', style, exponent, offset }
}

const cdlStyles: readonly CdlStyle[] = ['Fwd', 'Rev', 'FwdNoClamp', 'RevNoClamp']

export function cdlOf(e: Element, line: number): Formula {
  const style = cdlStyles.find((s) => s === (e.attributes['style'] ?? 'Fwd'))
  if (!style)
    throw new FormatError(
      `ASC_CDL: the style "${(e.attributes['style'] ?? '').slice(0, 30)}" is not one that is read.`,
      line,
    )
  const sop = child(e, 'SOPNode')
  const sat = child(e, 'SatNode')
  const triple = (name: string, initial: number): Triple => {
    const found = sop && child(sop, name)
    if (!found) return [initial, initial, initial]
    const words = found.text.trim().split(/\s+/)
    if (words.length !== 3) throw new FormatError(`ASC_CDL: ${name} must be three numbers.`, line)
    return words.map((w) => numberOf(w, line, `ASC_CDL: ${name}`)) as unknown as Triple
  }
  const slope = triple('Slope', 1)
  const power = triple('Power', 1)
  const word = sat && child(sat, 'Saturation')?.text.trim()
  const saturation = word === undefined ? 1 : numberOf(word, line, 'ASC_CDL: Saturation')
  const reverse = style.startsWith('Rev')
  if (
    !slope.every((v) => v >= 0) ||
    !power.every((v) => v > 0) ||
    saturation < 0 ||
    (reverse && (slope.some((v) => v === 0) || saturation === 0))
  )
    throw new FormatError(
      'ASC_CDL: slopes and saturation must not be below zero, powers above it, and what is reversed must not be zero.',
      line,
    )
  return { formula: 'cdl', style, slope, offset: triple('Offset', 0), power, saturation }
}
