// The aims' worker: solves on the exact frame; of several requests under way only the last is answered.
import { solveAims } from '@core/aims'
import { missingLuts } from '@core/grade'
import type { Frame } from '@core/image'
import type { AimsAnswer, AimsRequest } from './aims-messages'
import { loadFrame, loadLut, lutAtHand } from './frame-source'

const scope = self as unknown as {
  onmessage: ((e: MessageEvent<AimsRequest>) => void) | null
  postMessage: (m: AimsAnswer) => void
}
let newest = 0

scope.onmessage = ({ data }) => {
  newest = data.id
  void solve(data).catch((error: unknown) =>
    scope.postMessage({
      id: data.id,
      solution: null,
      fault: error instanceof Error ? error.message : String(error),
      ms: 0,
    }),
  )
}

async function solve({ id, mediaHash, frameIndex, grade, aims, locked }: AimsRequest): Promise<void> {
  const frame = await loadFrame({ mediaHash, index: frameIndex, range: grade.read.range })
  await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
  const frames = new Map<number, Frame>()
  for (const index of new Set(aims.flatMap((a) => (a.frame === undefined || a.frame === frameIndex ? [] : [a.frame]))))
    frames.set(index, await loadFrame({ mediaHash, index, range: grade.read.range }))
  await new Promise((go) => setTimeout(go))
  if (newest !== id) return
  const start = performance.now()
  const solution = solveAims({ grade, frameIndex, lut: lutAtHand, frame, frames, aims, locked: new Set(locked) })
  scope.postMessage({ id, solution, fault: '', ms: performance.now() - start })
}
