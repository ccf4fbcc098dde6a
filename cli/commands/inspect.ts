// pale inspect: what LUTs do and what they were made for.
import { basename } from 'node:path'
import { inspectLut, type Inspection } from '@core/lut-bench'
import type { Command } from '../command'
import { readLutFile } from '../lut-file'
import { UsageError } from '../usage'

interface InspectedFile {
  readonly file: string
  readonly hash: string
  readonly format: string
  readonly dimensions: 1 | 3 | 'sequence'
  readonly title: string
  readonly notes: readonly string[]
  readonly inspection: Inspection
}

export const inspectCommand: Command = {
  name: 'inspect',
  summary: 'say what LUTs do and what they were made for',
  usage: 'pale inspect LUT … [--json]',
  notes: ['LUTs: .cube, .clf, .csv and tables laid out as a .png. The first that cannot be read ends it with 2.'],
  options: {},
  run: async (_, paths) => {
    if (paths.length === 0) throw new UsageError('Name the LUTs: pale inspect LUT …')
    const found: InspectedFile[] = []
    for (const path of paths) {
      const { lut, hash, format, notes } = await readLutFile(path)
      const { dimensions, title } = lut
      found.push({ file: path, hash, format, dimensions, title, notes, inspection: inspectLut(lut) })
    }
    return { json: found, text: found.map(told).join('\n\n') }
  },
}

function told({ file, notes, dimensions, inspection: i }: InspectedFile): string {
  const percent = (v: number): string => `${(v * 100).toFixed(1)} %`
  const { kind, certainty, sentences } = i.expects
  return [
    `${basename(file)}: ${kind}, ${Math.round(certainty * 100)} % sure; ` +
      `${dimensions === 'sequence' ? `${i.parts} parts` : `${dimensions}D`}, ${i.size} entries per axis.`,
    ...sentences.map((s) => `  ${s}`),
    `  Takes ${percent(i.domain.low)} to ${percent(i.domain.high)}, gives ${percent(i.range.low)} to ` +
      `${percent(i.range.high)}; middle grey ${percent(i.middleGrey.in)} → ${percent(i.middleGrey.out)}.`,
    ...notes.map((n) => `  ▲ ${n}`),
  ].join('\n')
}
