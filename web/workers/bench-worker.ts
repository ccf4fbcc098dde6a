// The Bench's worker: fetches the frame, runs the Passage, measures the result. The interface thread only shows it.
import { buildChain, compile, dragSize, lutsOf, measureMeridian, missingLuts, paradeImage, planError, restSize, vectorImage, waveformImage, withinBound, type Frame, type GradeDocument, type Meridian, type Plan, type PlanCache } from '@core/index'
import { factsOf } from './facts'
import { loadFrame, loadLut, lutAtHand } from './frame-source'
import type { RenderAnswer, RenderRequest, RenderResult } from './messages'
import type { Work } from './tile'
import { startTiles } from './tiles'

const built: PlanCache = new Map()
const tiles = startTiles()
/** Pixels measured for the Meridian: fewer while a hand moves. */
const meridianSamples = { dragging: 1000, resting: 6000 } as const

const scope = self as unknown as { onmessage: ((e: MessageEvent<RenderRequest>) => void) | null; postMessage: (m: RenderAnswer, transfer?: Transferable[]) => void }

scope.onmessage = ({ data }) => {
  void answer(data).then(
    (result) => scope.postMessage(result, [result.picture, result.waveform, result.parade, result.vector].map((image) => image.rgba.buffer)),
    (error: unknown) => scope.postMessage({ id: data.id, ok: false, message: error instanceof Error ? error.message : String(error) }),
  )
}

async function answer({ id, grade, size, asShot, mediaHash, frameIndex }: RenderRequest): Promise<RenderResult> {
  const frame = await loadFrame({ mediaHash, index: frameIndex, range: grade.read.range })
  await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
  const plan = asShot ? null : compile(grade, lutAtHand, frame, size, built)
  const accuracy = plan && size === restSize ? accuracyOf(plan, frame) : null
  let meridian: Meridian | null = null
  const { picture, counts } = await tiles.work(workFor(grade, plan, accuracy), grade.show.displayId, frame, () => {
    const chain = plan?.chain ?? buildChain(grade, lutAtHand)
    meridian = measureMeridian(chain, frame, size === dragSize ? meridianSamples.dragging : meridianSamples.resting)
  })
  return { id, ok: true, size, frameIndex, picture, waveform: waveformImage(counts), parade: paradeImage(counts), vector: vectorImage(counts), facts: factsOf(counts), meridian, accuracy }
}

function accuracyOf(plan: Plan, frame: Frame): NonNullable<RenderResult['accuracy']> {
  const report = planError(plan, frame)
  return { ...report, evaluated: withinBound(report) ? 'compiled' : 'direct' }
}

function workFor(grade: GradeDocument, plan: Plan | null, accuracy: RenderResult['accuracy']): Work {
  if (!plan) return { kind: 'asShot' }
  if (accuracy?.evaluated === 'direct') return { kind: 'direct', grade, luts: new Map(lutsOf(grade).flatMap((hash) => { const lut = lutAtHand(hash); return lut ? [[hash, lut] as const] : [] })) }
  return { kind: 'passes', passes: { decode: plan.decode, passes: plan.passes } }
}
