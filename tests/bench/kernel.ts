// The lattice kernel against ffmpeg's lut3d filter on the same picture, and the scopes pass.
import { execFileSync } from 'node:child_process'
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { bakeLut, compile, countScopes, defaultGrade, execute, lumaWeights, printCube, runPlain, setParameter, setRead, type Frame, type Lut } from '@core/index'
import { median, timed } from './median'

/** A picture with all tones and many colours, as a camera log would hold it. */
function testFrame(width: number, height: number): Frame {
  const data = new Uint16Array(width * height * 3)
  let seed = 1
  for (let i = 0; i < data.length; i++) {
    seed = (seed * 1103515245 + 12345) & 0x7fffffff
    const x = Math.floor(i / 3) % width
    data[i] = 8000 + (40000 * x) / width + (i % 3) * 3000 + (seed >> 20)
  }
  return { width, height, data, low: 0, high: 1 }
}

const grade = setParameter(setParameter(defaultGrade('log-420-95'), 'contrast', 'contrast', 1.2), 'saturation', 'saturation', 1.1)
const none = (): undefined => undefined

export function measureKernel(scratch: string): string[] {
  const frame = testFrame(1920, 1080), megapixels = (frame.width * frame.height) / 1e6
  const table = bakeLut(grade, none, 33, 'bench')
  // The same work as the filter's: one table on the code values, nothing else.
  const plan = compile(setRead(defaultGrade('linear'), { method: 'lut', lutHash: 'bench' }), () => table, frame, 33)
  const only = { decode: plan.decode, passes: [{ stages: plan.passes[0]!.stages.slice(0, 1 + plan.passes[0]!.stages.findIndex((s) => s.kind === 'lattice')) }] }
  const out = new Uint16Array(frame.data.length)
  const speed = (work: () => void): number => megapixels / (median(timed(15, work)) / 1000)
  const ours = speed(() => void execute(only, frame)), plain = speed(() => runPlain(only, frame.data, out, [null]))
  const theirs = ffmpegMegapixels(scratch, frame, table)
  return [`ours ${ours.toFixed(1)} Mpx/s, ffmpeg lut3d=interp=tetrahedral ${theirs.toFixed(1)} Mpx/s, ratio ${(ours / theirs).toFixed(2)} (plain TypeScript ${plain.toFixed(1)} Mpx/s, ratio ${(plain / theirs).toFixed(2)})`]
}

/** ffmpeg's time for many repeats with the filter, less the time for the same repeats without it. */
function ffmpegMegapixels(scratch: string, frame: Frame, table: Lut): number {
  mkdirSync(scratch, { recursive: true })
  const picture = join(scratch, 'bench.rgb'), cube = join(scratch, 'bench.cube'), repeats = 60
  writeFileSync(picture, Buffer.from(frame.data.buffer))
  writeFileSync(cube, printCube(table))
  const run = (filter: string): number => {
    const start = performance.now()
    execFileSync('ffmpeg', ['-v', 'error', '-nostdin', '-filter_threads', '1', '-f', 'rawvideo', '-pix_fmt', 'rgb48le', '-s', `${frame.width}x${frame.height}`, '-i', picture, '-vf', `loop=${repeats - 1}:1${filter}`, '-threads', '1', '-f', 'null', '-'])
    return performance.now() - start
  }
  const times = Array.from({ length: 5 }, () => run(`,lut3d=file=${cube}:interp=tetrahedral`) - run(''))
  return (frame.width * frame.height * repeats) / 1e6 / (median(times) / 1000)
}

export function measureScopes(): string[] {
  const frame = testFrame(960, 540)
  const ms = median(timed(30, () => void countScopes(frame, lumaWeights('bt709'), { columns: 240, levels: 180, vectorCells: 180 })))
  return [`${ms.toFixed(1)} ms`]
}
