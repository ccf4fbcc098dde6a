// A 1D curve as a table of text: what goes in, and what comes out for all channels or for red, green and blue.
import type { Lut1d } from '../luts'
import { cubeLimits, FormatError } from './cube'

export const csvLimits = { maxBytes: 8 * 1024 * 1024, entries: 4096 } as const

/**
 * Rows of "in, out" or "in, red, green, blue", separated by commas, semicolons or tabs; a heading may stand first.
 * Inputs must rise; where they are not evenly spaced the curve is drawn through them straight and kept with even
 * spacing. Throws FormatError.
 */
export function parseCsvCurve(text: string, title = ''): Lut1d {
  if (text.length > csvLimits.maxBytes)
    throw new FormatError(`The file is larger than ${csvLimits.maxBytes / 1048576} MB.`, 0)
  if (text.includes('\0')) throw new FormatError('This is not a text file.', 0)
  const rows: (readonly number[])[] = []
  let columns = 0
  text
    .replace(/^\ufeff/, '')
    .split(/\r?\n/)
    .forEach((raw, i) => {
      const trimmed = raw.trim()
      const line = i + 1
      if (trimmed === '' || trimmed.startsWith('#')) return
      const words = trimmed.split(/[,;\t]/).map((w) => w.trim())
      if (rows.length === 0 && words.every((w) => !/^[-+.\d]/.test(w))) return
      const values = words.map((w) => (/^[-+]?(\d+(?:\.\d*)?|\.\d+)([eE][-+]?\d+)?$/.test(w) ? Number(w) : Number.NaN))
      const bad = values.findIndex((v) => !Number.isFinite(v) || Math.abs(v) > 1e6)
      if (bad >= 0)
        throw new FormatError(`"${(words[bad] ?? '').slice(0, 40)}" is not a number that can be used.`, line)
      columns ||= values.length
      if (values.length !== columns || (columns !== 2 && columns !== 4))
        throw new FormatError(
          `${values.length} numbers stand here; each row needs two (in, out) or four (in, red, green, ` +
            'blue), always as many.',
          line,
        )
      const before = rows.at(-1)
      if (before && values[0] <= before[0]) throw new FormatError('What goes in must rise from row to row.', line)
      if (rows.length === cubeLimits.max1d) throw new FormatError(`There are more than ${cubeLimits.max1d} rows.`, line)
      rows.push(values)
    })
  const [first] = rows
  const last = rows.at(-1)
  if (!first || !last || rows.length < 2) throw new FormatError('A curve needs at least two rows.', 0)
  const low = first[0]
  const high = last[0]
  const even = rows.every(
    (r, i) =>
      Math.abs(r[0] - (low + ((high - low) * i) / (rows.length - 1))) <= ((high - low) * 1e-4) / rows.length + 1e-9,
  )
  const size = even ? rows.length : csvLimits.entries
  const data = new Float32Array(size * 3)
  for (let i = 0, at = 0; i < size; i++) {
    const x = low + ((high - low) * i) / (size - 1)
    while (at < rows.length - 2 && rows[at + 1][0] <= x) at++
    const from = rows[even ? i : at]
    const to = rows[even ? i : at + 1]
    const share = from === to ? 0 : Math.min(1, Math.max(0, (x - from[0]) / (to[0] - from[0])))
    for (let c = 0; c < 3; c++) {
      const column = columns === 2 ? 1 : c + 1
      data[i * 3 + c] = from[column] + (to[column] - from[column]) * share
    }
  }
  return { dimensions: 1, title, size, data, domainMin: [low, low, low], domainMax: [high, high, high] }
}
