// Tables of code and light as people paste them, and conversion LUTs, as pairs for a fit.
import { FormatError } from '../formats'
import { applyLut, lutDomain, type Lut } from '../luts'
import type { TransferCurve } from '../colour'
import type { Patch } from './fit'

const maxLines = 5000

/**
 * Two numbers a line: code, then scene-linear light; commas, semicolons, tabs or spaces between; lines of words and
 * those that begin with # are passed over at the top only. Codes over 1.2 are taken as 10-bit when all are at most
 * 1023, else 12 or 16 bits. Throws FormatError with the line.
 */
export function parseTable(text: string): readonly Patch[] {
  const lines = text.split(/\r?\n/)
  if (lines.length > maxLines)
    throw new FormatError(`The table has ${lines.length} lines; up to ${maxLines} are read.`, 0)
  const pairs: Patch[] = []
  lines.forEach((line, i) => {
    const trimmed = line.trim()
    if (trimmed === '' || trimmed.startsWith('#')) return
    const words = trimmed.split(/[;,\t]/).flatMap((part) => part.trim().split(/\s+/))
    if (pairs.length === 0 && words.every((w) => !/^[-+.\d]/.test(w))) return
    if (words.length !== 2)
      throw new FormatError(
        `Two numbers are needed, code and light; ${words.length} ${words.length === 1 ? 'is' : 'are'} there.`,
        i + 1,
      )
    const [code, linear] = words.map(Number)
    if (code === undefined || linear === undefined || !Number.isFinite(code) || !Number.isFinite(linear))
      throw new FormatError(`"${trimmed.slice(0, 40)}" is not two numbers.`, i + 1)
    pairs.push({ code, linear })
  })
  if (pairs.length === 0) throw new FormatError('The table holds no pairs of numbers.', 0)
  const top = Math.max(...pairs.map((p) => p.code))
  const scale = top <= 1.2 ? 1 : [1023, 4095, 65535].find((t) => top <= t)
  if (scale === undefined) throw new FormatError(`A code of ${top} is beyond 16 bits.`, 0)
  return pairs.map((p) => ({ code: p.code / scale, linear: p.linear }))
}

/**
 * The neutral axis of a conversion LUT as pairs: codes in, and the light its output stands for when that output is
 * encoded by `output`. Runs of equal output at the ends (clipped by the LUT) are left out.
 */
export function lutAsTable(lut: Lut, output: TransferCurve, points = 257): readonly Patch[] {
  const {
    min: [low],
    max: [high],
  } = lutDomain(lut)
  const values = new Float64Array(points * 3)
  for (let i = 0; i < points; i++) values.fill(low + ((high - low) * i) / (points - 1), i * 3, i * 3 + 3)
  const codes = Float64Array.from({ length: points }, (_, i) => values[i * 3])
  applyLut(lut, values, 'tetrahedral')
  const light = Float64Array.from({ length: points }, (_, i) =>
    output.decode((values[i * 3] + values[i * 3 + 1] + values[i * 3 + 2]) / 3),
  )
  let first = 0
  let last = points - 1
  while (first < last && light[first + 1] <= light[first] + 1e-9) first++
  while (last > first && light[last - 1] >= light[last] - 1e-9) last--
  const pairs: Patch[] = []
  for (let i = first; i <= last; i++)
    if (pairs.length === 0 || light[i] > pairs[pairs.length - 1].linear)
      pairs.push({ code: codes[i], linear: light[i] })
  return pairs
}
