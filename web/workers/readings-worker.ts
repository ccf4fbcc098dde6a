// The readings' worker: measures the exact frame when the hand rests, part by part, and drops what is overtaken.
import { buildChain, compile, execute, executeDirectRows, measuredPicture, measureInParts, missingLuts, planError, restSize, withinBound, type Frame, type MeasuredPicture, type PlanCache } from '@core/index'
import { loadFrame, loadLut, lutAtHand } from './frame-source'
import type { ReadingsAnswer, ReadingsRequest } from './readings-messages'

const scope = self as unknown as { onmessage: ((e: MessageEvent<ReadingsRequest | null>) => void) | null; postMessage: (m: ReadingsAnswer) => void }
const built: PlanCache = new Map()
let newest = 0

scope.onmessage = ({ data }) => {
  newest = data?.id ?? 0
  // Nothing is wanted any more.
  if (!data) return
  void measure(data).catch((error: unknown) => scope.postMessage({ id: data.id, findings: [], done: true, fault: error instanceof Error ? error.message : String(error) }))
}

/** Lets messages in; true when a newer request came. */
async function overtaken(id: number): Promise<boolean> {
  await new Promise((go) => setTimeout(go))
  return newest !== id
}

async function measure(request: ReadingsRequest): Promise<void> {
  const { id } = request
  const picture = await pictureFor(request)
  for (const findings of measureInParts(picture, request.pointed)) {
    if (await overtaken(id)) return
    if (findings.length > 0) scope.postMessage({ id, findings, done: false, fault: '' })
  }
  scope.postMessage({ id, findings: [], done: true, fault: '' })
}

async function pictureFor({ mediaHash, frameIndex, sourceBits, grade }: ReadingsRequest): Promise<MeasuredPicture> {
  const source = await loadFrame({ mediaHash, index: frameIndex, range: grade.read.range })
  await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
  const plan = compile(grade, lutAtHand, source, restSize, built)
  const shown: Frame = { ...source, data: new Uint16Array(source.data.length), low: 0, high: 1 }
  if (withinBound(planError(plan, source))) shown.data.set(execute(plan, source).data)
  else executeDirectRows(plan.chain, source, shown.data, 0, source.height)
  return measuredPicture({ source, sourceBits, shown, grade, chain: buildChain(grade, lutAtHand), lut: lutAtHand })
}
