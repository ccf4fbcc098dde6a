// A side of Show: its light, and the operations between kinds of light.
import {
  displayLuminance,
  fromWorkingLog,
  gamutById,
  middleGrey,
  toWorkingLog,
  workingGamut,
  type Display,
} from '../colour'
import type { Region } from '../regions'
import { type Side } from './document'
import { type StationId } from './stations'
import { type LutSurroundings } from './lut-operation'
import { curveOperation, operate, type Curve, type Light, type Operation } from './operation'
import type { StepSurroundings } from './step-kind'
import type { LutFinder, Link } from './chain'

export type Domain = 'linear' | 'encoded'

/** From display-linear light to what the signal carries: the inverse OOTF of HLG, nothing for others. */
export function carriedBy(display: Display): readonly Operation[] {
  const { systemGamma, peak } = display
  if (systemGamma === undefined) return []
  const power = (1 - systemGamma) / systemGamma
  return [
    curveOperation((v) => Math.max(v, 0) / peak),
    {
      kind: 'gain',
      weights: displayLuminance(display),
      gain: (luminance) => (luminance > 0 ? luminance ** power : 0),
      blend: 0,
      curve: (v) => v,
    },
  ]
}

export function displaySide(display: Display, regions: readonly Region[], lut: LutFinder): SideContext {
  const { eotf, carriedPeak } = display
  const greys = Float64Array.from([middleGrey / 2, middleGrey, middleGrey * 2].flatMap((v) => [v, v, v]))
  for (const operation of carriedBy(display)) operate(operation, greys)
  const [under = 0, grey = 0, over = 0] = [0, 3, 6].map((i) => eotf.encode(greys[i]))
  const encode: Curve = (v) => eotf.encode(Math.min(Math.max(v, 0), carriedPeak))
  const { decode } = eotf
  return {
    id: display.id,
    side: 'display',
    surroundings: {
      gamut: gamutById(display.gamutId),
      greyEncoded: grey,
      stopEncoded: (over - under) / 2,
      encode,
      decode,
      lut,
    },
    encode,
    decode,
    regions,
  }
}

/** What a side of the Passage gives a LUT. */
export function lutSurroundingsOf(side: Side, display: Display): LutSurroundings {
  return side === 'scene'
    ? { gamut: workingGamut, encode: toWorkingLog, decode: fromWorkingLog }
    : displaySide(display, [], () => undefined).surroundings
}

export interface SideContext {
  /** Tells it from others: 'scene', or the display's id. */
  readonly id: string
  readonly side: Side
  readonly surroundings: StepSurroundings
  readonly encode: Curve
  readonly decode: Curve
  readonly regions: readonly Region[]
}

export function lightOf(side: Side, domain: Domain): Light {
  if (side === 'scene') return domain === 'linear' ? 'sceneLinear' : 'workingLog'
  return domain === 'linear' ? 'displayLinear' : 'displaySignal'
}

export function conversion(station: StationId, { id, side, encode, decode }: SideContext, to: Domain): Link {
  return {
    station,
    leaves: lightOf(side, to),
    signature: `${id} to ${to}`,
    operations: [curveOperation(to === 'encoded' ? encode : decode)],
  }
}
