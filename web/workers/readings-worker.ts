// The readings' worker: measures the exact frame when the hand rests, part by part, and drops what is overtaken.
import { gradeAt, missingLuts, type PlanCache } from '@core/grade'
import { gradedPicture, measureInParts, pixelsBehind, type MeasuredPicture } from '@core/readings'
import { loadFrame, loadLut, lutAtHand } from './frame-source'
import { litImage } from './lit-image'
import type { MarkedAnswer, PictureAsked, ReadingsAnswer, ReadingsRequest } from './readings-messages'

const scope = self as unknown as {
  onmessage: ((e: MessageEvent<ReadingsRequest | null>) => void) | null
  postMessage: (m: ReadingsAnswer | MarkedAnswer, transfer?: Transferable[]) => void
}
const built: PlanCache = new Map()
let newest = 0

scope.onmessage = ({ data }) => {
  newest = data?.id ?? 0
  // Nothing is wanted any more.
  if (!data) return
  if (data.marks) return void mark(data, data.marks)
  void measure(data).catch((error: unknown) =>
    scope.postMessage({
      id: data.id,
      findings: [],
      done: true,
      fault: error instanceof Error ? error.message : String(error),
    }),
  )
}

/** Lets messages in; true when a newer request came. */
async function overtaken(id: number): Promise<boolean> {
  await new Promise((go) => setTimeout(go))
  return newest !== id
}

async function mark(request: ReadingsRequest, of: NonNullable<ReadingsRequest['marks']>): Promise<void> {
  try {
    const picture = await pictureFor(request)
    const marks = pixelsBehind(picture, of)
    const lit = marks && litImage(marks, picture.shown)
    scope.postMessage(
      { id: request.id, lit: lit?.image ?? null, share: lit?.share ?? 0 },
      lit ? [lit.image.rgba.buffer] : [],
    )
  } catch {
    // The picture itself says what is wrong.
    scope.postMessage({ id: request.id, lit: null, share: 0 })
  }
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

async function pictureFor({ mediaHash, frameIndex, sourceBits, grade }: PictureAsked): Promise<MeasuredPicture> {
  const source = await loadFrame({ mediaHash, index: frameIndex, range: grade.read.range })
  await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
  return gradedPicture(source, sourceBits, gradeAt(grade, frameIndex), lutAtHand, built)
}
