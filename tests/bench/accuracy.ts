// How far what is compiled is from direct evaluation on the lead frames of the demo.
import { defaultExport, exportLut } from '@core/bake'
import { accuracyBound, compile, defaultGrade, planError, setParameter, setShow, type GradeDocument } from '@core/grade'
import type { Frame } from '@core/image'
import type { ShotSummary } from '@contracts/responses'
import { rounds } from './effort'

export async function measureAccuracy(address: string): Promise<string[]> {
  const json = async <T>(path: string): Promise<T> => (await (await fetch(`${address}/api${path}`)).json()) as T
  const [project] = await json<{ id: string }[]>('/projects')
  const { shots } = await json<{ shots: ShotSummary[] }>(`/projects/${project?.id}/reel`)
  const lines: string[] = []
  for (const shot of shots.slice(0, rounds(shots.length))) {
    const response = await fetch(
      `${address}/api/media/${shot.media.hash}/frames/${shot.leadFrame}?range=${shot.media.range}`,
    )
    const number = (name: string): number => Number(response.headers.get(`x-frame-${name}`))
    const frame: Frame = {
      width: number('width'),
      height: number('height'),
      low: number('low'),
      high: number('high'),
      data: new Uint16Array(await response.arrayBuffer()),
    }
    for (const shaper of [false, true])
      lines.push(
        `${shot.name}, exported .cube of 33${shaper ? ' with a shaper' : ''}: ` +
          `${cubeErrorOf(defaultGrade(shot.read.encodingId, shot.read.gamutId, shot.read.range), frame, shaper)}`,
      )
    for (const [what, change] of grades)
      lines.push(
        `${shot.name}, ${what}: ` +
          `${errorOf(change(defaultGrade(shot.read.encodingId, shot.read.gamutId, shot.read.range)), frame)}`,
      )
  }
  return lines
}

const grades: readonly (readonly [string, (g: GradeDocument) => GradeDocument])[] = [
  ['straight to BT.709 2.4', (g) => g],
  [
    'contrast, curve, rolloff, compression',
    (g) =>
      setShow(setParameter(setParameter(g, 'contrast', 'contrast', 1.3), 'saturation', 'saturation', 1.2), {
        method: 'rolloff',
        gamutMethod: 'compress',
      }),
  ],
  ['print to PQ 1000', (g) => setShow(g, { method: 'print', displayId: 'pq-1000' })],
  ['rolloff to HLG', (g) => setShow(g, { method: 'rolloff', displayId: 'hlg' })],
]

function cubeErrorOf(grade: GradeDocument, frame: Frame, shaper: boolean): string {
  const none = (): undefined => undefined
  const { measure, mean, percentile999 } = exportLut(grade, 0, none, { ...defaultExport, shaper }, '', frame).error
  return `${measure} mean ${mean.toFixed(3)}, 99.9th percentile ${percentile999.toFixed(2)} (bound for 33: 0.1 and 1.0)`
}

function errorOf(grade: GradeDocument, frame: Frame): string {
  const { measure, mean, percentile999, worst } = planError(
    compile(grade, () => undefined, frame, 33),
    frame,
    60_000,
  )
  return (
    `${measure} mean ${mean.toFixed(4)}, 99.9th percentile ${percentile999.toFixed(3)}, worst ` +
    `${worst.toFixed(3)} (bound ${accuracyBound.mean} and ${accuracyBound.worst})`
  )
}
