// The Cameras view's worker: guesses, decodes small pictures and measures patches away from the interface thread.
import { encodingById, encodingFromDefinition, type EncodingDefinition } from '@core/colour'
import { readChart, type ChartReading, type Corners } from '@core/cards'
import { buildChain, compile, execute, setRead, type GradeDocument } from '@core/grade'
import { guessEncoding, measureStatistics, placesToLook, type FileFacts, type Guess, type Sight } from '@core/guess'
import { fitWithin, meanOfBox, shrink, type Box, type CodeRange, type Frame } from '@core/image'
import type { TraceImage } from '@core/instruments'
import { estimateCurve, tonesOf, type CurveEstimate, type Fact, type NoiseAt } from '@core/measure'
import { serve } from './calls'
import { imageOf } from './small-picture'
import { loadFrame } from './frame-source'

const noLut = (): undefined => undefined
const smallPicture = { width: 300, height: 170 } as const

/** A frame as the file's codes are, whatever it is read as. */
export interface CodedFrame {
  readonly mediaHash: string
  readonly frameIndex: number
  readonly range: CodeRange
}
/** A frame, and of which medium it is. */
export interface CodedClip extends CodedFrame {
  readonly width: number
  readonly height: number
  readonly frameCount: number
}
export interface CompareQuestion extends CodedClip {
  readonly file: FileFacts
  readonly own: readonly EncodingDefinition[]
  readonly grade: GradeDocument
  readonly pictures: number
}
/** What a clip shows of its own curve: codes of 0..1. */
export interface ClipTones {
  /** Of the frame that was asked for, at even shares of its pixels. */
  readonly tones: readonly number[]
  /** Of the whole clip; empty where compression has changed it. */
  readonly noise: readonly NoiseAt[]
}
export interface ChartQuestion extends CodedFrame {
  readonly grade: GradeDocument
  readonly corners: Corners
}
export interface ComparedPicture {
  readonly encodingId: string
  readonly range: CodeRange
  readonly picture: TraceImage
}

const frameOf = ({ mediaHash, frameIndex, range }: CodedFrame): Promise<Frame> =>
  loadFrame({ mediaHash, index: frameIndex, range })

const functions = {
  /** The frame as its codes are, to pick patches on. */
  picture: async (asked: CodedFrame): Promise<TraceImage> => imageOf(await frameOf(asked)),
  /** The mean signal of boxes given as shares of the frame. */
  async patches({ boxes, ...asked }: CodedFrame & { readonly boxes: readonly Box[] }) {
    const frame = await frameOf(asked)
    return boxes.map((box) => meanOfBox(frame, wholePixels(box, frame)))
  },
  /** Every encoding weighed, and the frame through the likelier ones. */
  async compare(asked: CompareQuestion): Promise<{ guess: Guess; pictures: readonly ComparedPicture[] }> {
    const guess = guessEncoding(await sightsOf(asked), asked.range, asked.file, asked.own.map(encodingFromDefinition))
    const pictures: ComparedPicture[] = []
    for (const { encodingId, range } of guess.ranked.slice(0, asked.pictures)) {
      const source = await frameOf({ ...asked, range })
      const { width, height } = fitWithin(source.width, source.height, smallPicture.width, smallPicture.height)
      const own = asked.own.find((e) => e.id === encodingId)
      const gamutId = own?.gamutId ?? encodingById(encodingId).gamutIds[0]
      const grade = setRead(
        { ...asked.grade, steps: [], regions: [] },
        { method: 'formula', encodingId, gamutId, range, ...(own ? { own } : {}) },
      )
      const small = shrink(source, width, height)
      pictures.push({ encodingId, range, picture: imageOf(execute(compile(grade, noLut, small, 17), small)) })
    }
    return { guess, pictures }
  },
  async tones(asked: CodedClip): Promise<ClipTones> {
    const sights = await sightsOf(asked)
    const frame = await frameOf(asked)
    const { samples } = measureStatistics([{ frame }])
    const green = Float64Array.from({ length: samples.length / 3 }, (_, p) => samples[p * 3 + 1] ?? 0)
    return {
      tones: tonesOf(green),
      noise: measureStatistics(sights).noise.map(({ code, variance }) => ({ code, variance })),
    }
  },
  /** A chart that was laid on by its corners, through the shot's own reading. */
  async chart({ corners, grade, ...asked }: ChartQuestion): Promise<ChartReading> {
    return readChart(
      { source: await frameOf(asked), chain: buildChain({ ...grade, steps: [], regions: [] }, noLut) },
      corners,
    )
  },
  estimate: ({
    facts,
    noise,
  }: {
    readonly facts: readonly Fact[]
    readonly noise: readonly NoiseAt[]
  }): CurveEstimate => estimateCurve(facts, noise),
}
export type CameraFunctions = typeof functions
serve(functions)

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
}: CodedClip): Promise<readonly Sight[]> {
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
