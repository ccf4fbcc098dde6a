// The Bench's worker: fetches the frame, runs the Passage, measures the result. The interface thread only shows it.
import { buildChain, compile, dragSize, measureMeridian, missingLuts, paradeImage, vectorImage, waveformImage, type PlanCache, type Meridian } from '@core/index'
import { factsOf } from './facts'
import { loadFrame, loadLut, lutAtHand } from './frame-source'
import type { RenderAnswer, RenderRequest, RenderResult } from './messages'
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
  let meridian: Meridian | null = null
  const { picture, counts } = await tiles.work(plan, frame, () => {
    const chain = plan?.chain ?? buildChain(grade, lutAtHand)
    meridian = measureMeridian(chain, frame, size === dragSize ? meridianSamples.dragging : meridianSamples.resting)
  })
  return { id, ok: true, size, frameIndex, picture, waveform: waveformImage(counts), parade: paradeImage(counts), vector: vectorImage(counts), facts: factsOf(counts), meridian }
}
