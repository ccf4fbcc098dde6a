// How far the fused lattices are from direct evaluation on the lead frames of the demo.
import { compile, defaultGrade, evaluateDirect, execute, framePositions, sampleSignal, signalError, type Frame, type LatticeSize } from '@core/index'
import type { ShotSummary } from '@contracts/responses'

export async function measureAccuracy(address: string): Promise<string[]> {
  const json = async <T>(path: string): Promise<T> => (await (await fetch(`${address}/api${path}`)).json()) as T
  const [project] = await json<{ id: string }[]>('/projects')
  const { shots } = await json<{ shots: ShotSummary[] }>(`/projects/${project?.id}/reel`)
  const lines: string[] = []
  for (const shot of shots) {
    const response = await fetch(`${address}/api/media/${shot.media.hash}/frames/${shot.leadFrame}?range=${shot.media.range}`)
    const number = (name: string): number => Number(response.headers.get(`x-frame-${name}`))
    const frame: Frame = { width: number('width'), height: number('height'), low: number('low'), high: number('high'), data: new Uint16Array(await response.arrayBuffer()) }
    for (const size of [33, 65] as const) lines.push(`${shot.name}, ${size} entries: ${errorOf(shot, frame, size)}`)
  }
  return lines
}

function errorOf({ read }: ShotSummary, frame: Frame, size: LatticeSize): string {
  const grade = defaultGrade(read.encodingId, read.gamutId, read.range)
  const plan = compile(grade, () => undefined, frame, size)
  const stride = 7
  const direct = sampleSignal(frame, stride)
  evaluateDirect(plan.chain, direct, framePositions(frame.width, frame.height, stride))
  const { mean, percentile999, worst } = signalError(direct, sampleSignal(execute(plan, frame), stride), grade.show.displayId)
  return `mean ${mean.toFixed(3)}, 99.9th percentile ${percentile999.toFixed(2)}, worst ${worst.toFixed(2)}`
}
