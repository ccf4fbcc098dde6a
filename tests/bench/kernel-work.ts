// The lattice kernel's work, the same under Node.js and in Chromium: one table of 33 nodes per axis on the code values
// of a picture. The rooms are named one by one, so that nothing comes along that Node.js alone can load.
import { bakeLut } from '@core/bake/bake'
import { compile, defaultGrade, execute, runPlain, setParameter, setRead, type Passes } from '@core/grade'
import type { Frame } from '@core/image'
import type { LutTable } from '@core/luts'
import { median, timed } from './median'

/** A picture with all tones and many colours, as a camera log would hold it. */
export function testFrame(width: number, height: number): Frame {
  const data = new Uint16Array(width * height * 3)
  let seed = 1
  for (let i = 0; i < data.length; i++) {
    seed = (seed * 1103515245 + 12345) & 0x7fffffff
    const x = Math.floor(i / 3) % width
    data[i] = 8000 + (40000 * x) / width + (i % 3) * 3000 + (seed >> 20)
  }
  return { width, height, data, low: 0, high: 1 }
}

const grade = setParameter(
  setParameter(defaultGrade('log-420-95'), 'contrast', 'contrast', 1.2),
  'saturation',
  'saturation',
  1.1,
)
export const benchTable = (): LutTable => bakeLut(grade, () => undefined, 33, 'bench')

export interface KernelSpeeds {
  readonly fast: number
  readonly plain: number
  readonly grade: number
}

/** Megapixels per second of the fast and of the plain kernel, and of a plain grade without any table, on one thread. */
export function kernelSpeeds(runs: number): KernelSpeeds {
  const frame = testFrame(1920, 1080)
  const megapixels = (frame.width * frame.height) / 1e6
  const table = benchTable()
  const plan = compile(setRead(defaultGrade('linear'), { method: 'lut', lutHash: 'bench' }), () => table, frame, 33)
  const stages = plan.passes[0]?.stages ?? []
  const only: Passes = {
    decode: plan.decode,
    passes: [{ stages: stages.slice(0, 1 + stages.findIndex((s) => s.kind === 'lattice')) }],
  }
  const out = new Uint16Array(frame.data.length)
  const speed = (times: number, work: () => void): number => megapixels / (median(timed(times, work)) / 1000)
  const graded = compile(grade, () => undefined, frame, 33)
  return {
    fast: speed(runs, () => void execute(only, frame)),
    plain: speed(1, () => runPlain(only, frame.data, out, [null])),
    grade: speed(runs, () => void execute(graded, frame)),
  }
}
