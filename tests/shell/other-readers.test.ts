// What is written is read by others: a general colour library's own reader (Debian's opencolorio-tools) takes every
// file that bake writes, and what it makes of colours is what this program makes of them.
import { execFileSync, spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { parseLutFile } from '@core/formats'
import { defaultGrade, setParameter } from '@core/grade'
import { applyLut } from '@core/luts'

const reader = 'ociochecklut'
const missing = spawnSync(reader, ['--help']).error !== undefined
if (missing) console.log(`${reader} is missing (opencolorio-tools): files are not tried in another reader.`)
const within = missing ? test.skip : test

let folder = ''
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'pale-readers-'))
  const grade = setParameter(defaultGrade('log-420-95'), 'contrast', 'contrast', 1.3)
  writeFileSync(join(folder, 'grade.json'), JSON.stringify(setParameter(grade, 'saturation', 'saturation', 1.2)))
})
afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** Codes in use, ends and what lies off grey. */
const colours: readonly (readonly [number, number, number])[] = [
  [0, 0, 0],
  [1, 1, 1],
  [0.41, 0.41, 0.41],
  [0.62, 0.41, 0.33],
  [0.2, 0.35, 0.6],
  [0.9, 0.1, 0.5],
  [0.131, 0.702, 0.263],
]
function throughOther(path: string, rgb: readonly number[]): readonly number[] {
  const said = execFileSync(reader, [path, ...rgb.map(String)], { encoding: 'utf8' })
  return said.trim().split(/\s+/).map(Number)
}
function throughOwn(path: string): Float64Array {
  const { lut } = parseLutFile(readFileSync(path), (bytes) => Buffer.from(bytes).toString('utf8'))
  const pixels = Float64Array.from(colours.flat())
  applyLut(lut, pixels, 'tetrahedral')
  return pixels
}

describe.each([
  ['a .cube', ['--format', 'cube']],
  ['a .cube behind a shaper', ['--format', 'cube', '--shaper']],
  ['a common LUT format file', ['--format', 'clf']],
  ['a common LUT format file with a shaper', ['--format', 'clf', '--shaper']],
])('%s', (name, options) => {
  within.each([
    ['from the camera to the display', []],
    ['from working log', ['--input', 'working-log']],
    ['from the display signal', ['--input', 'display']],
    ['under a conversion', ['--output', 'under']],
    ['in legal range', ['--range', 'legal']],
  ])(
    '%s',
    (what, more) => {
      const path = join(folder, `${name} ${what}.${options[1]}`.replaceAll(' ', '-'))
      const bake = ['bake', '--grade', join(folder, 'grade.json'), path, '--size', '17', ...options, ...more]
      execFileSync(process.execPath, [join('dist', 'node', 'pale.js'), ...bake])
      const own = throughOwn(path)
      for (const [n, rgb] of colours.entries())
        throughOther(path, rgb).forEach((v, c) => expect(Math.abs(v - own[n * 3 + c]!)).toBeLessThan(1e-4))
    },
    60_000,
  )
})
