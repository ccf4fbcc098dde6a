// Writes tables as a common LUT format file (SMPTE ST 2136-1, Academy S-2014-006).
import type { LutTable } from '../luts'

const escaped = (text: string): string =>
  text.replace(/[&<>"\p{Cc}]/gu, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c] ?? ' ')

const digits = (v: number): string => String(Number(v.toPrecision(9)))

/** Writes tables as a process list; `notes` become descriptions. */
export function printClf(id: string, tables: readonly LutTable[], notes: readonly string[]): string {
  const rows = (values: Iterable<number>): string => {
    const all = [...values].map(digits)
    const out: string[] = []
    for (let i = 0; i < all.length; i += 3) out.push(all.slice(i, i + 3).join(' '))
    return out.join('\n')
  }
  const part = (t: LutTable, i: number): string => {
    if (t.domainMin.some((v) => v !== 0) || t.domainMax.some((v) => v !== 1))
      throw new RangeError('A table of another domain than 0…1 cannot be written as one part.')
    if (t.dimensions === 1)
      return (
        `<LUT1D id="part-${i + 1}" inBitDepth="32f" outBitDepth="32f">\n    <Array dim="${t.size} ` +
        `3">\n${rows(t.data)}\n    </Array>\n  </LUT1D>`
      )
    const { size, data } = t
    const blueFastest = function* (): Generator<number> {
      for (let r = 0; r < size; r++)
        for (let g = 0; g < size; g++)
          for (let b = 0; b < size; b++) for (let c = 0; c < 3; c++) yield data[((b * size + g) * size + r) * 3 + c]
    }
    return (
      `<LUT3D id="part-${i + 1}" interpolation="tetrahedral" inBitDepth="32f" outBitDepth="32f">\n    ` +
      `<Array dim="${size} ${size} ${size} 3">\n${rows(blueFastest())}\n    </Array>\n  </LUT3D>`
    )
  }
  const name = escaped(tables[0]?.title ?? '')
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<ProcessList id="${escaped(id)}" name="${name}" compCLFversion="3.0">`,
    ...notes.map((n) => `  <Description>${escaped(n)}</Description>`),
    ...tables.map(part),
    '</ProcessList>',
    '',
  ].join('\n')
}
