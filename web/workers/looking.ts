// Questions about the last picture: what a place is, which pixels make a place of an instrument, which pixels a station lost.
import { displayById, lostPixels, lumaWeights, pixelsAt, probeAt, readNeutralSkin, type Area, type Cast, type Chain, type Frame, type GradeDocument, type InstrumentId, type Probe, type StationId, type SubjectCard } from '@core/index'
import { litImage, type LitPixels } from './lit-image'
import type { Viewing } from './messages'

export interface LastPicture { readonly grade: GradeDocument; readonly asShot: boolean; readonly frame: Frame; readonly viewing: Viewing; /** Null where code values are shown, and while playing. */ readonly chain: Chain | null }

const signalOf = (frame: Frame, signal: Uint16Array): Frame => ({ ...frame, data: signal, low: 0, high: 1 })
const displayOf = ({ grade, asShot }: LastPicture) => displayById(asShot ? 'bt709-2.4' : grade.show.displayId)
const matches = (frame: Frame, signal: Uint16Array): boolean => signal.length === frame.data.length

export function probePicture(last: LastPicture, signal: Uint16Array, x: number, y: number): Probe | null {
  return matches(last.frame, signal) ? probeAt(x, y, signalOf(last.frame, signal), last.frame, last.chain, displayOf(last)) : null
}

export function sampleSkin(last: LastPicture, signal: Uint16Array, area: Area, cast: Pick<Cast, 'mired' | 'duv'> | null): SubjectCard | null {
  const display = displayOf(last)
  return matches(last.frame, signal) ? readNeutralSkin({ shown: signalOf(last.frame, signal), luma: lumaWeights(display.lumaMatrix), display }, area, cast) : null
}

export function lightPixels(last: LastPicture, signal: Uint16Array, instrument: InstrumentId, x: number, y: number): LitPixels | null {
  // A tapped station's trace is not of the picture: there is nothing on it to light.
  if (!matches(last.frame, signal) || last.viewing.tap !== 'finish') return null
  return litImage(pixelsAt(instrument, x, y, signalOf(last.frame, signal), displayOf(last), last.viewing.instruments), last.frame)
}

const rowsAtATime = 24

/** Every pixel by direct evaluation, a few rows at a time; null when something newer was asked for meanwhile. */
export async function lossPixels({ chain, frame }: LastPicture, station: StationId, overtaken: () => boolean): Promise<LitPixels | null> {
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
