// pale bake: the pixel-by-pixel part of a grade as a .cube.
import { writeFile } from 'node:fs/promises'
import { bakeLut, pixelByPixelPart } from '@core/bake'
import { printCube } from '@core/formats'
import { listOf, textOf, type Command } from '../command'
import { loadGrade } from '../grade-file'
import { choiceOption, UsageError } from '../usage'

export const bakeCommand: Command = {
  name: 'bake',
  summary: 'write a grade as a 3D LUT from camera codes to display signal',
  usage: 'pale bake --grade GRADE.json --size 17|33|65 OUT.cube [--lut FILE.cube …] [--json]',
  options: {
    grade: { type: 'string' },
    size: { type: 'string', default: '33' },
    lut: { type: 'string', multiple: true },
  },
  run: async (values, [out]) => {
    const gradePath = textOf(values, 'grade')
    if (gradePath === undefined || out === undefined)
      throw new UsageError('Name the grade and the file to write: pale bake --grade GRADE.json OUT.cube')
    const size = Number(choiceOption(textOf(values, 'size') ?? '33', 'size', ['17', '33', '65']))
    const { grade, find } = await loadGrade(gradePath, listOf(values, 'lut'))
    const part = pixelByPixelPart(grade, 0)
    const lut = bakeLut(part.document, find, size, 'pale bake')
    const carried =
      part.leftOut.length === 0
        ? 'Everything in the grade is carried.'
        : `Not carried, because a LUT sees one pixel at a time: ${part.leftOut.join(', ')}.`
    await writeFile(
      out,
      printCube(lut, [
        `In: camera code values, ${grade.read.encodingId}, ${grade.read.gamutId}, 0..1 = full range. Out: ` +
          `display signal, ${grade.show.displayId}.`,
        carried,
      ]),
    )
    return { json: { file: out, size, leftOut: part.leftOut }, text: `${out}: ${size}×${size}×${size}. ${carried}` }
  },
}
