// Questions about the last picture: what a place is, which pixels make a place of an instrument, which pixels a station
// lost.
import { lookFromPicture, type TakenLook } from '@core/aims'
import { displayById, lumaWeights } from '@core/colour'
import { buildChain, positionsIn, type Chain, type GradeDocument, type LutFinder, type StationId } from '@core/grade'
import { sampleSignal, type Frame } from '@core/image'
import { lostPixels, pixelsAt, probeAt, type InstrumentId, type Probe, type TraceImage } from '@core/instruments'
import { readNeutralSkin, type Area, type Cast, type SubjectCard } from '@core/readings'
import { litImage, type LitPixels } from '../lit-image'
import type { Medium, Viewing } from '../messages'

export interface LastPicture {
  /** As it is at the frame, and as it is along the clip. */ readonly grade: GradeDocument
  readonly whole: GradeDocument
  readonly medium: Medium
  readonly frameIndex: number
  readonly asShot: boolean
  readonly frame: Frame
  readonly viewing: Viewing
  /** Null where code values are shown, and while playing. */ readonly chain: Chain | null
}

const signalOf = (frame: Frame, signal: Uint16Array): Frame => ({ ...frame, data: signal, low: 0, high: 1 })
const displayOf = ({ grade, asShot }: LastPicture) => displayById(asShot ? 'bt709-2.4' : grade.show.displayId)
const matches = (frame: Frame, signal: Uint16Array): boolean => signal.length === frame.data.length

export function probePicture(last: LastPicture, signal: Uint16Array, x: number, y: number): Probe | null {
  return matches(last.frame, signal)
    ? probeAt(x, y, signalOf(last.frame, signal), last.frame, last.chain, displayOf(last))
    : null
}

export function sampleSkin(
  last: LastPicture,
  signal: Uint16Array,
  area: Area,
  cast: Pick<Cast, 'mired' | 'duv'> | null,
): SubjectCard | null {
  const display = displayOf(last)
  return matches(last.frame, signal)
    ? readNeutralSkin(
        { shown: signalOf(last.frame, signal), luma: lumaWeights(display.lumaMatrix), display },
        area,
        cast,
      )
    : null
}

export function lightPixels(
  last: LastPicture,
  signal: Uint16Array,
  instrument: InstrumentId,
  x: number,
  y: number,
): LitPixels | null {
  // A tapped station's trace is not of the picture: there is nothing on it to light.
  if (!matches(last.frame, signal) || last.viewing.tap !== 'finish') return null
  return litImage(
    pixelsAt(instrument, x, y, signalOf(last.frame, signal), displayOf(last), last.viewing.instruments),
    last.frame,
  )
}

/** Pixels that a look is solved on, of the shot and of the picture. */
const lookPixels = 900

export function takeLook(
  { grade, asShot, frame }: LastPicture,
  lut: LutFinder,
  reference: TraceImage,
  skin: Area | null,
): TakenLook | null {
  if (asShot) return null
  const stride = Math.max(1, Math.floor((frame.width * frame.height) / lookPixels)) | 1
  const place = positionsIn(buildChain(grade, lut), frame, stride)
  const { shares } = place
  const inSkin = Array.from({ length: shares.length / 2 }, (_, p) => p).filter(
    (p) =>
      skin !== null &&
      (shares[p * 2] ?? 0) >= skin.left &&
      (shares[p * 2] ?? 0) <= skin.right &&
      (shares[p * 2 + 1] ?? 0) >= skin.top &&
      (shares[p * 2 + 1] ?? 0) <= skin.bottom,
  )
  const pixels = reference.width * reference.height
  const every = Math.max(1, Math.floor(pixels / lookPixels)) | 1
  const wanted = Float64Array.from(
    { length: Math.ceil(pixels / every) * 3 },
    (_, i) => (reference.rgba[Math.floor(i / 3) * every * 4 + (i % 3)] ?? 0) / 255,
  )
  return lookFromPicture({ grade, lut, codes: sampleSignal(frame, stride), place, skin: inSkin }, wanted)
}

const rowsAtATime = 24

/** Every pixel by direct evaluation, a few rows at a time; null when something newer was asked for meanwhile. */
export async function lossPixels(
  { chain, frame }: LastPicture,
  station: StationId,
  overtaken: () => boolean,
): Promise<LitPixels | null> {
  if (!chain) return null
  const marks = new Uint8Array(frame.width * frame.height)
  for (let from = 0; from < frame.height; from += rowsAtATime) {
    const to = Math.min(frame.height, from + rowsAtATime)
    marks.set(lostPixels(chain, frame, station, from, to), from * frame.width)
    await new Promise((go) => setTimeout(go))
    if (overtaken()) return null
  }
  return litImage(marks, frame)
}
