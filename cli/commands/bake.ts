// pale bake: the pixel-by-pixel part of a grade as a LUT file, as the page writes it.
import { writeFile } from 'node:fs/promises'
import { defaultExport, exportLut, exportSizes, printExport, type ExportSettings } from '@core/bake'
import { FormatError } from '@core/formats'
import { listOf, textOf, type Command } from '../command'
import { loadGrade } from '../grade-file'
import { choiceOption, numberOption, UsageError } from '../usage'

export const bakeCommand: Command = {
  name: 'bake',
  summary: 'write a grade as a LUT for a declared input and output',
  usage:
    'pale bake --grade GRADE.json OUT [--format cube|clf|hald] [--size N] [--shaper] ' +
    '[--input camera|working-log|display] [--output display|under] [--range full|legal] [--lut FILE …] [--json]',
  notes: [
    `N entries per axis: ${exportSizes.cube.join(', ')}; ${exportSizes.hald.join(', ')} for a Hald picture.`,
    '--shaper puts a curve before the cube, so that its entries stand where the grade is steep.',
    '--output under gives what went in, corrected, for a camera or monitor that converts behind the LUT.',
    '--range says how the device understands 0 to 1: all codes, or 64 to 940 of 10 bits.',
  ],
  options: {
    grade: { type: 'string' },
    format: { type: 'string', default: defaultExport.format },
    size: { type: 'string' },
    shaper: { type: 'boolean', default: false },
    input: { type: 'string', default: defaultExport.input },
    output: { type: 'string', default: defaultExport.output },
    range: { type: 'string', default: defaultExport.range },
    lut: { type: 'string', multiple: true },
  },
  run: async (values, [out]) => {
    const gradePath = textOf(values, 'grade')
    if (gradePath === undefined || out === undefined)
      throw new UsageError('Name the grade and the file to write: pale bake --grade GRADE.json OUT.cube')
    const settings = settingsOf(values)
    const { grade, find } = await loadGrade(gradePath, listOf(values, 'lut'))
    const made = exported(() => exportLut(grade, 0, find, settings, 'pale bake', null))
    await writeFile(out, printExport(made, settings.format, 'pale bake'))
    const { size } = settings
    const { leftOut, error } = made
    const carried =
      leftOut.length === 0
        ? 'Everything in the grade is carried.'
        : `Not carried, because a LUT sees one pixel at a time or stands elsewhere: ${leftOut.join(', ')}.`
    return {
      json: { file: out, ...settings, leftOut, error },
      text:
        `${out}: ${size}×${size}×${size}. ${carried} ` +
        `${error.measure} of colours spread over all codes: mean ${error.mean.toFixed(3)}, ` +
        `worst ${error.worst.toFixed(3)}.`,
    }
  },
}

function settingsOf(values: Readonly<Record<string, unknown>>): ExportSettings {
  const format = choiceOption(textOf(values, 'format') ?? '', 'format', ['cube', 'clf', 'hald'])
  return {
    format,
    size: numberOption(textOf(values, 'size') ?? String(exportSizes[format][1]), 'size', 2, 129),
    shaper: values['shaper'] === true,
    input: choiceOption(textOf(values, 'input') ?? '', 'input', ['camera', 'working-log', 'display']),
    output: choiceOption(textOf(values, 'output') ?? '', 'output', ['display', 'under']),
    range: choiceOption(textOf(values, 'range') ?? '', 'range', ['full', 'legal']),
  }
}

/** Settings that do not go together are bad use. */
function exported<T>(make: () => T): T {
  try {
    return make()
  } catch (error) {
    if (error instanceof FormatError) throw new UsageError(error.message)
    throw error
  }
}
