// The Bench's worker: fetches the frame, runs the Passage, measures the result. The interface thread only shows it.
import {
  buildChain, compile, countScopes, execute, lumaPercentile, lumaWeights, measureMeridian, missingLuts, paradeImage, vectorImage, vectorSpan,
  waveformImage, type Frame, type LatticeCache, type MatteCache, type ScopeCounts, type TraceImage,
} from '@core/index'
import { loadFrame, loadLut, lutAtHand } from './frame-source'
import type { PictureFacts, RenderAnswer, RenderRequest, RenderResult } from './messages'

const scopeSizes = { columns: 320, levels: 220, vectorCells: 220 } as const
// The weights of the displays offered so far.
const weights = lumaWeights('bt709')
const lattices: LatticeCache = new Map()
const mattes: MatteCache = new Map()

const scope = self as unknown as { onmessage: ((e: MessageEvent<RenderRequest>) => void) | null; postMessage: (m: RenderAnswer, transfer?: Transferable[]) => void }

scope.onmessage = ({ data }) => {
  void answer(data).then(
    (result) => scope.postMessage(result, transfers(result)),
    (error: unknown) => scope.postMessage({ id: data.id, ok: false, message: error instanceof Error ? error.message : String(error) }),
  )
}

async function answer(request: RenderRequest): Promise<RenderResult> {
  const frame = await loadFrame({ mediaHash: request.mediaHash, index: request.frameIndex, range: request.grade.read.range })
  await Promise.all(missingLuts(request.grade, lutAtHand).map(loadLut))
  const started = performance.now()
  const shown = request.asShot ? codesAsSignal(frame) : execute(compile(request.grade, lutAtHand, frame, request.size, lattices), frame, mattes)
  const counts = countScopes(shown, weights, scopeSizes)
  return {
    id: request.id,
    ok: true,
    size: request.size,
    frameIndex: request.frameIndex,
    picture: toCanvas(shown),
    waveform: waveformImage(counts),
    parade: paradeImage(counts),
    vector: vectorImage(counts),
    facts: factsOf(counts),
    meridian: request.meridian ? measureMeridian(buildChain(request.grade, lutAtHand), frame) : null,
    workMs: performance.now() - started,
  }
}

/** The footage as shot: code values 0..1 shown as they are. */
function codesAsSignal(frame: Frame): Frame {
  const scale = frame.high - frame.low, offset = frame.low * 65535
  const table = Uint16Array.from({ length: 65536 }, (_, code) => Math.min(65535, Math.max(0, Math.round(code * scale + offset))))
  return { ...frame, data: frame.data.map((code) => table[code] ?? 0), low: 0, high: 1 }
}

function toCanvas({ width, height, data }: Frame): TraceImage {
  const rgba = new Uint8ClampedArray(width * height * 4)
  for (let i = 0, o = 0; i < data.length; i += 3, o += 4) {
    // 65535 / 255 = 257, rounded to nearest.
    rgba[o] = (data[i]! + 128) / 257
    rgba[o + 1] = (data[i + 1]! + 128) / 257
    rgba[o + 2] = (data[i + 2]! + 128) / 257
    rgba[o + 3] = 255
  }
  return { width, height, rgba }
}

function factsOf(counts: ScopeCounts): PictureFacts {
  const { pixels, sums, clipped, crushed } = counts
  const mean = (sum: number): number => sum / pixels / 65535
  return {
    black: lumaPercentile(counts, 0.001),
    low: lumaPercentile(counts, 0.01),
    middle: lumaPercentile(counts, 0.5),
    high: lumaPercentile(counts, 0.99),
    white: lumaPercentile(counts, 0.999),
    clippedShare: clipped / pixels,
    crushedShare: crushed / pixels,
    means: [mean(sums[0]), mean(sums[1]), mean(sums[2])],
    ...meanColour(counts),
  }
}

/** Mean chroma and the angle of the mean colour, from the vectorscope's cells. */
function meanColour({ vector, sizes, pixels }: ScopeCounts): { chroma: number; hueDegrees: number } {
  const cells = sizes.vectorCells
  let chroma = 0, sumCb = 0, sumCr = 0
  for (let i = 0; i < vector.length; i++) {
    const n = vector[i]!
    if (n === 0) continue
    const cb = (((i % cells) + 0.5) / cells - 0.5) * 2 * vectorSpan, cr = ((Math.floor(i / cells) + 0.5) / cells - 0.5) * 2 * vectorSpan
    chroma += n * Math.hypot(cb, cr)
    sumCb += n * cb
    sumCr += n * cr
  }
  return { chroma: chroma / pixels, hueDegrees: ((Math.atan2(sumCr, sumCb) * 180) / Math.PI + 360) % 360 }
}

function transfers(result: RenderResult): Transferable[] {
  return [result.picture, result.waveform, result.parade, result.vector].map((image) => image.rgba.buffer)
}
