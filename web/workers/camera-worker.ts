// The Cameras view's worker: guesses, decodes small pictures and measures patches away from the interface thread.
import { encodingById } from '@core/colour'
import { compile, execute, setRead } from '@core/grade'
import { guessEncoding, placesToLook, type Sight } from '@core/guess'
import { fitWithin, meanOfBox, shrink, type Box, type Frame } from '@core/image'
import type { TraceImage } from '@core/instruments'
import type { CameraAnswer, CameraRequest, ComparedPicture } from './camera-messages'
import { loadFrame } from './frame-source'

const scope = self as unknown as {
  onmessage: ((e: MessageEvent<CameraRequest>) => void) | null
  postMessage: (m: CameraAnswer) => void
}
const noLut = (): undefined => undefined
const smallPicture = { width: 300, height: 170 } as const

scope.onmessage = ({ data }) => {
  void answer(data).then(
    (a) => scope.postMessage(a),
    (error: unknown) =>
      scope.postMessage({ id: data.id, ask: 'fault', message: error instanceof Error ? error.message : String(error) }),
  )
}

async function answer(request: CameraRequest): Promise<CameraAnswer> {
  const frame = await loadFrame({ mediaHash: request.mediaHash, index: request.frameIndex, range: request.range })
  switch (request.ask) {
    case 'picture':
      return { id: request.id, ask: 'picture', picture: imageOf(frame) }
    case 'patches':
      return {
        id: request.id,
        ask: 'patches',
        means: request.boxes.map((box) => meanOfBox(frame, wholePixels(box, frame))),
      }
    case 'compare': {
      const guess = guessEncoding(await sightsOf(request), request.range, request.tags)
      const pictures: ComparedPicture[] = []
      for (const { encodingId, range } of guess.ranked.slice(0, request.pictures)) {
        const source = await loadFrame({ mediaHash: request.mediaHash, index: request.frameIndex, range })
        const { width, height } = fitWithin(source.width, source.height, smallPicture.width, smallPicture.height)
        const { own: _, ...read } = request.grade.read
        const grade = setRead(
          { ...request.grade, read, steps: [], regions: [] },
          { method: 'formula', encodingId, gamutId: encodingById(encodingId).gamutIds[0], range },
        )
        const small = shrink(source, width, height)
        pictures.push({ encodingId, range, picture: imageOf(execute(compile(grade, noLut, small, 17), small)) })
      }
      return { id: request.id, ask: 'compare', guess, pictures }
    }
  }
}

/**
 * The frame that is compared, and others of the clip: which tones it holds and how its noise grows is told by all of
 * them.
 */
async function sightsOf({
  mediaHash,
  frameIndex,
  frameCount,
  range,
  width,
  height,
}: CameraRequest & { ask: 'compare' }): Promise<readonly Sight[]> {
  const load = (index: number): Promise<Frame> => loadFrame({ mediaHash, index, range })
  return Promise.all(
    placesToLook({ frameCount, width, height }, frameIndex).map(async ({ index, count }): Promise<Sight> => {
      const [frame, next] = await Promise.all([load(index), ...(count === 2 ? [load(index + 1)] : [])])
      return { frame, ...(next ? { next } : {}) }
    }),
  )
}

/** A box in shares of the frame as whole pixels inside it, at least one. */
function wholePixels({ x, y, width, height }: Box, frame: Frame): Box {
  const left = Math.min(frame.width - 1, Math.max(0, Math.round(x * frame.width)))
  const top = Math.min(frame.height - 1, Math.max(0, Math.round(y * frame.height)))
  return {
    x: left,
    y: top,
    width: Math.max(1, Math.min(frame.width - left, Math.round(width * frame.width))),
    height: Math.max(1, Math.min(frame.height - top, Math.round(height * frame.height))),
  }
}

function imageOf({ width, height, data, low, high }: Frame): TraceImage {
  const rgba = new Uint8ClampedArray(width * height * 4)
  const scale = ((high - low) * 255) / 65535
  const offset = low * 255
  for (let p = 0; p < width * height; p++) {
    for (let c = 0; c < 3; c++) rgba[p * 4 + c] = (data[p * 3 + c] ?? 0) * scale + offset
    rgba[p * 4 + 3] = 255
  }
  return { width, height, rgba }
}
