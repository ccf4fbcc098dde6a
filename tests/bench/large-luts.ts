// How long large tables take: read from text, inspected, put in a grade, and applied to a picture.
import { parseCube, printCube } from '@core/formats'
import { compile, defaultGrade, dragSize, execute, setParameter, setStep } from '@core/grade'
import { inspectLut } from '@core/lut-bench'
import type { LutTable } from '@core/luts'
import { rounds } from './effort'
import { testFrame } from './kernel-work'
import { median, timed } from './median'

/** A table of slightly bent channels. */
function bent(size: number): LutTable {
  const data = new Float32Array(size ** 3 * 3)
  const at = (i: number): number => i / (size - 1)
  for (let i = 0; i < size ** 3; i++)
    data.set([at(i % size) ** 0.9, at(Math.floor(i / size) % size), at(Math.floor(i / (size * size))) ** 1.1], i * 3)
  return { dimensions: 3, size, data, title: '', domainMin: [0, 0, 0], domainMax: [1, 1, 1] }
}

export function measureLargeLuts(): readonly string[] {
  const frame = testFrame(960, 540)
  const grade = setStep(setParameter(defaultGrade('log-420-95'), 'lut', 'lutHash', 'a'.repeat(64)), 'lut', {
    side: 'display',
  })
  return [rounds(65, 17), rounds(129, 33)].map((size) => {
    const text = printCube(bent(size))
    const took = (run: () => void): string => median(timed(1, run)).toFixed(0)
    let lut = bent(size)
    let plan = compile(grade, () => lut, frame, dragSize)
    const read = took(() => {
      lut = parseCube(text) as LutTable
    })
    const inspected = took(() => void inspectLut(lut))
    const built = took(() => {
      plan = compile(grade, () => lut, frame, dragSize)
    })
    execute(plan, frame)
    return (
      `${size} entries per axis (${(text.length / 1e6).toFixed(0)} MB of text): read ${read} ms, ` +
      `inspected ${inspected} ms, put in a grade ${built} ms, 960×540 through it ` +
      `${median(timed(rounds(9), () => void execute(plan, frame))).toFixed(0)} ms`
    )
  })
}
